import type { Build, Connection } from "../../assembly";
import type { PartCost } from "../cost/cost";
import type { Engine, Piece, Solution } from "../model/model";
import { totalCost } from "./piece";

interface Entry {
  /** The costs of change that it was solved with; empty: none at all. */
  changes: string;
  solution: Solution | undefined;
}

/**
 * Solved pieces, found again by what they are made of, so that only what changed is solved again. Kept are proved
 * answers, and proofs that none holds. What is least lately used goes first when there is too much.
 */
export class SolvedPieces {
  private readonly pieces = new Map<string, Entry[]>();
  private readonly plans = new Map<string, string[][]>();
  private size = 0;
  hits = 0;

  constructor(private readonly mostChars = 30_000_000) {}

  /** Is this build, connection by connection, a plan that was proved while no more was held than is held now? */
  stillBest(build: Build): boolean {
    const key = keyOf(build);
    const known = this.plans.get(key);
    if (!known?.some((then) => holdsStill(build, then))) return false;
    // The plan that is asked for again and again is not the one to be forgotten.
    this.plans.delete(key);
    this.plans.set(key, known);
    this.hits += 1;
    return true;
  }

  /** Remembers a proved plan, and what was held while it was made. */
  keepPlan(build: Build): void {
    const key = keyOf(build);
    this.plans.set(key, [...(this.plans.get(key) ?? []).slice(-7), heldOf(build)]);
    for (const old of this.plans.keys()) {
      if (this.plans.size <= MOST_PLANS) break;
      this.plans.delete(old);
    }
  }

  find(key: string, changes: string, piece: Piece): Entry | undefined {
    const list = this.pieces.get(key);
    if (!list) return undefined;
    this.pieces.delete(key);
    this.pieces.set(key, list);
    const found =
      list.find((e) => e.changes === changes) ??
      // Optimal without any cost of change, and nothing changes by it: then it is optimal with that cost too, since it
      // is best above that level, costs nothing at it, and is best below it even among more answers.
      list.find((e) => e.changes === "" && e.solution && (totalCost(piece, e.solution.values).changes ?? 0) === 0);
    if (found) this.hits += 1;
    return found;
  }

  keep(key: string, entry: Entry): void {
    const list = this.pieces.get(key) ?? [];
    if (list.length === 0) this.size += key.length;
    // A few sets of change costs for each piece; the one without is kept first.
    this.pieces.set(key, [...list.filter((e) => e.changes === ""), ...list.filter((e) => e.changes !== "").slice(-7), entry]);
    for (const old of this.pieces.keys()) {
      if (this.size <= this.mostChars || old === key) break;
      this.pieces.delete(old);
      this.size -= old.length;
    }
  }
}

/** More than the leads that somebody tries elsewhere in a row. */
const MOST_PLANS = 60;
const at = (c: Connection) => `${c.lead} ${c.port} ${c.place?.join() ?? ""}`;
/** What is fixed, plugged or checked in a build. */
export const heldOf = (build: Build) => build.connections.filter((c) => c.state !== "planned").map(at);
/** Everything that decides a plan, and where every plug is, but not which of them are held. */
export const keyOf = ({ connections, ...rest }: Build) => JSON.stringify([connections.map(at).sort(), rest]);

/** Everything that was held then is held now. */
export function holdsStill(build: Build, then: readonly string[]): boolean {
  const held = new Set(heldOf(build));
  return then.every((c) => held.has(c));
}

const withoutChanges = ({ changes: _changes, ...rest }: PartCost) => rest;

/** The same engine with solved pieces at hand. Its answers are the engine's own, to the last value. */
export function remembering(engine: Engine, solved: SolvedPieces): Engine {
  return {
    async solve(piece, levels, options) {
      const { beat } = options;
      const { upper, rows, costs } = piece;
      // Solved to the end, the levels follow from the costs; a change costs nothing before it is asked for.
      const depth = levels.at(-1) === "canonical" ? null : levels;
      const key = JSON.stringify([upper, rows.map((r) => [r.lower, r.upper, r.terms]), costs.map(withoutChanges), beat ?? null, depth]);
      const some = costs.some((c) => (c.changes ?? 0) !== 0);
      const changes = some ? JSON.stringify(costs.map((c) => c.changes ?? 0)) : "";
      const known = solved.find(key, changes, piece);
      if (known) return known.solution && { ...known.solution, values: [...known.solution.values] };
      const solution = await engine.solve(piece, levels, options);
      // Only proofs are worth keeping; that there is no answer is one.
      if (!solution || (solution.proved && solution.settled !== false))
        solved.keep(key, { changes, solution: solution && { ...solution, values: [...solution.values] } });
      return solution;
    },
  };
}

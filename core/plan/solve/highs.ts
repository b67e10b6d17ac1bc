import loadHighs from "highs";
import { compareCost, LEVELS, type Level } from "../cost/cost";
import { tightened } from "../model/helpers";
import { type Engine, type Gap, OutOfTime, type Piece, type Solution, type SolveOptions } from "../model/model";
import { costAt, holds, totalCost } from "./piece";

/** The only file that knows `highs`. Loaded once a process; a throw of the module is turned into one short line. */
let loading: ReturnType<typeof loadHighs> | undefined;

function load() {
  loading ??= loadHighs();
  return loading;
}

/**
 * Presolve rules of `highs` 1.15.3 that called feasible models infeasible and worse answers optimal: off, see the tests. (Found
 * with presolve off as the referee; numbers 12, 13, 15 and 16 of its list of rules.)
 */
const UNSOUND_RULES = (1 << 12) | (1 << 13) | (1 << 15) | (1 << 16);
/** A good answer is there when the solver begins: smaller problems of its own, in which it looks for one, take a third of its time and find none. */
const ONLY_PROVE = { mip_heuristic_run_rins: false, mip_heuristic_run_rens: false, mip_root_presolve_only: true };
const OPTIMAL = 7;
const INFEASIBLE = 8;
const TIME_LIMIT = 13;

function sparse(piece: Piece) {
  const starts = [0];
  const indices: number[] = [];
  const values: number[] = [];
  for (const r of piece.rows) {
    for (const [v, c] of r.terms) {
      indices.push(v);
      values.push(c);
    }
    starts.push(indices.length);
  }
  return { starts, indices, values };
}

/** Level by level: the optimum of each becomes a row for the next. */
export const highsEngine: Engine = {
  async solve(piece, levels, options) {
    const highs = await load();
    const n = piece.vars.length;
    const matrix = sparse(piece);
    let model: ReturnType<typeof highs.createModel>;
    try {
      model = highs.createModel({
        numCols: n,
        numRows: piece.rows.length,
        colCost: new Float64Array(n),
        colLower: new Float64Array(n),
        colUpper: Float64Array.from(piece.upper),
        rowLower: Float64Array.from(piece.rows, (r) => r.lower),
        rowUpper: Float64Array.from(piece.rows, (r) => r.upper),
        matrix: {
          format: "csr",
          numRows: piece.rows.length,
          numCols: n,
          starts: Int32Array.from(matrix.starts),
          indices: Int32Array.from(matrix.indices),
          values: Float64Array.from(matrix.values),
        },
        integrality: kinds(piece, highs.constants.variableType),
      });
    } catch (e) {
      throw new Error(`The solver refused the model: ${shortly(e)}`);
    }
    try {
      model.options.set({ output_flag: false, mip_rel_gap: 0, mip_abs_gap: 0.5, random_seed: 0, presolve_rule_off: UNSOUND_RULES, ...ONLY_PROVE });
      return solveLevels(highs, model, piece, levels, options);
    } catch (e) {
      if (e instanceof OutOfTime) throw e;
      throw new Error(`The solver failed: ${shortly(e)}`);
    } finally {
      model.dispose();
    }
  },
};

/**
 * What follows from whole numbers by rows is whole where it is as low as it can be: the solver need not branch on it. With the
 * details left open it does not follow from whole numbers, and has to be asked for.
 */
function kinds(piece: Piece, type: { integer: number; continuous: number }, open: readonly number[] = piece.helpers): Int32Array {
  const out = new Int32Array(piece.vars.length).fill(type.integer);
  for (const h of open) out[h] = type.continuous;
  return out;
}

/** What need not be whole while the details are left open: they, and helpers that follow from what is whole all the same. */
function openToDecide({ details, helpers, rows }: Piece): number[] {
  const open = new Set(details);
  const asked = new Set(rows.filter((r) => !r.implied && r.terms.some(([v]) => open.has(v))).flatMap((r) => r.terms.map(([v]) => v)));
  return [...details, ...helpers.filter((h) => !asked.has(h))];
}

type Highs = Awaited<ReturnType<typeof loadHighs>>;
type HighsModel = ReturnType<Highs["createModel"]>;

/** Share of the time that is left which one level may take. */
const MOST_OF_THE_TIME = 0.6;
/** With fewer details than this the whole is quick enough in one. */
const FEWEST_DETAILS = 40;
/** The solver looks at its clock only once it has read a piece through, which takes at least so long for each of its choices. */
const READ_S_PER_CHOICE = 5e-5;
/** With less time than this the whole is tried as it stands. */
const WORTH_BEGINNING_S = 0.2;
/** Share of a level's time for what decides; the rest is for the whole. */
const SHARE_FOR_WHAT_DECIDES = 0.5;
/** How far above the least a level may end, in what it counts: the solver's own tolerance is left to the rounding. */
const WHOLE = 0.5;
const EXACT = 1e-4;
/** What the solver's sums may be off by: where the least is that close above a whole number, it is that number. */
const ROUNDING = 1e-3;

/** In larger pieces the order of names decides among accessories only: leads stay where they are among equals. */
const MOST_FOR_NAMES = 450;

/** Levels that are zero in most builds: all of them are tried at zero first. */
const MOSTLY_ZERO: readonly Level[] = LEVELS.slice(0, LEVELS.indexOf("signalsLost"));

/** Levels below them that are zero in most builds too: tried at zero once what stands above is settled. */
const OFTEN_ZERO: readonly Level[] = ["radiatorDivided", "coolingShared", "splittersBehind", "extraRoots"];

class Solving {
  values: number[] | undefined;
  /** Levels that are held, at what they cost. */
  private readonly kept = new Map<Level, number>();
  private readonly upper: number[];
  /** What need not be whole while what decides is looked for: worked out once. */
  private open: readonly number[] | undefined;

  constructor(
    private readonly highs: Highs,
    private readonly model: HighsModel,
    private readonly piece: Piece,
    private readonly until: number,
    starts: readonly (readonly number[])[],
  ) {
    this.upper = [...piece.upper];
    for (const v of [...starts, ...starts.map((s) => tightened(piece, s))])
      if (holds(piece, v) && (!this.values || compareCost(totalCost(piece, v), totalCost(piece, this.values)) < 0)) this.values = [...v];
  }

  leftS(): number {
    return (this.until - performance.now()) / 1000;
  }

  /** Is there time to read the piece through? */
  worthReading(): boolean {
    return this.leftS() > this.piece.vars.length * READ_S_PER_CHOICE;
  }

  at(level: Level): number {
    return costAt(this.piece, level, this.values ?? []);
  }

  private set(upper: readonly number[]): void {
    const changed = upper.flatMap((u, i) => (u === this.upper[i] ? [] : [i]));
    if (changed.length === 0) return;
    this.model.changeColsBounds(
      { kind: "set", indices: changed },
      new Float64Array(changed.length),
      Float64Array.from(changed, (i) => upper[i] ?? 0),
    );
    for (const i of changed) this.upper[i] = upper[i] ?? 0;
  }

  /** Whatever costs at these levels may not be chosen. */
  zero(levels: readonly Level[]): void {
    this.set(this.upper.map((u, i) => (levels.some((l) => (this.piece.costs[i]?.[l] ?? 0) > 0) ? 0 : u)));
  }

  /** Minimises a level as it stands, within a time. The status of the solver. */
  private run(level: Level | undefined, mostS: number): number {
    const { model, piece } = this;
    for (const [i, c] of piece.costs.entries()) model.changeColCost(i, level ? (c[level] ?? 0) : 0);
    if (this.values) model.setSolution({ colValue: Float64Array.from(this.values) });
    model.zeroAllClocks();
    model.options.set({
      time_limit: Math.max(0.05, Math.min(mostS, this.leftS())),
      // A first answer is there already.
      mip_heuristic_run_feasibility_jump: this.values === undefined,
    });
    model.run();
    return model.getModelStatus();
  }

  /**
   * The least a level can cost, by what decides first: with single leads divisible, no answer costs less than the best of these.
   * Where whole leads can follow what was decided there, at that cost, it is the least. True: found and proved.
   */
  whatDecides(level: Level, mostS: number): boolean {
    const { model, piece, highs } = this;
    if (piece.details.length < FEWEST_DETAILS || this.leftS() < WORTH_BEGINNING_S) return false;
    const all = Int32Array.from(piece.vars, (_, i) => i);
    const type = highs.constants.variableType;
    this.open ??= openToDecide(piece);
    const timeS = Math.min(mostS, this.leftS()) * SHARE_FOR_WHAT_DECIDES;
    model.changeColsIntegrality({ kind: "set", indices: all }, kinds(piece, type, this.open));
    model.options.set({ mip_abs_gap: EXACT });
    const status = this.run(level, timeS);
    const least = this.bound(ROUNDING);
    const coarse = Array.from(model.getSolution().colValue, Math.round);
    model.options.set({ mip_abs_gap: WHOLE });
    model.changeColsIntegrality({ kind: "set", indices: all }, kinds(piece, type));
    if (status !== OPTIMAL || coarse.length !== piece.vars.length) return false;
    if (this.values && this.at(level) <= least) return true;
    const follows = new Set([...piece.details, ...piece.helpers]);
    const decided = piece.vars.flatMap((_, i) => (follows.has(i) ? [] : [i]));
    const held = Float64Array.from(decided, (i) => coarse[i] ?? 0);
    model.changeColsBounds({ kind: "set", indices: decided }, held, held);
    this.run(level, timeS);
    this.takeOver(level);
    model.changeColsBounds(
      { kind: "set", indices: decided },
      new Float64Array(decided.length),
      Float64Array.from(decided, (i) => this.upper[i] ?? 0),
    );
    return this.values !== undefined && this.at(level) <= least;
  }

  /** Takes over what the solver found, where it is better at a level. */
  private takeOver(level: Level): void {
    const { model, piece } = this;
    const rounded = Array.from(model.getSolution().colValue, Math.round);
    if (rounded.length !== piece.vars.length) return;
    const found = tightened(piece, rounded);
    if (!holds({ ...piece, upper: this.upper }, found)) return;
    // What is held of the levels above is held by rows of the solver only.
    if ([...this.kept].some(([l, most]) => costAt(piece, l, found) > most)) return;
    if (!this.values || costAt(piece, level, found) < this.at(level)) this.values = found;
  }

  /** The status of the solver after minimising a level, or nothing. Takes over a better answer. */
  minimise(level: Level | undefined, mostS = Number.POSITIVE_INFINITY): number {
    const { model, piece } = this;
    const status = this.run(level, mostS);
    const rounded = Array.from(model.getSolution().colValue, Math.round);
    const found = rounded.length === piece.vars.length ? tightened(piece, rounded) : rounded;
    const holding = found.length === piece.vars.length && holds({ ...piece, upper: this.upper }, found);
    if ((status === OPTIMAL && !holding) || (status === INFEASIBLE && holding)) throw new Error("an answer that contradicts itself");
    // Levels that were not asked for yet may be better already than the solver left them.
    if (holding) this.values = found;
    return status;
  }

  /** What no answer costs less than, after a level was minimised: costs are whole numbers and never below nothing. */
  bound(slack = 1e-6): number {
    return Math.max(0, Math.ceil(Number(this.model.info.get("mip_dual_bound")) - slack));
  }

  /** Whatever has a length stays as it is. */
  keepLengths(): void {
    const kept = this.piece.costs.flatMap((c, i) => ((c.lengthCm ?? 0) > 0 ? [i] : []));
    const values = Float64Array.from(kept, (i) => this.values?.[i] ?? 0);
    this.model.changeColsBounds({ kind: "set", indices: kept }, values, values);
  }

  /** Can all of these be zero? Then they are, from now on. */
  tryZero(levels: readonly Level[]): void {
    if (levels.length === 0 || (this.values && levels.every((l) => this.at(l) === 0))) return;
    if (!this.worthReading()) return;
    const before = [...this.upper];
    const values = this.values;
    this.zero(levels);
    this.values = undefined;
    const status = this.minimise(undefined, this.leftS() / 5);
    if (status !== OPTIMAL) this.set(before);
    this.values ??= values;
  }

  hold(level: Level, best: number): void {
    this.kept.set(level, best);
    if (best === 0) this.zero([level]);
    else {
      const used = this.piece.costs.flatMap((c, i) => (c[level] ? [{ i, c: c[level] ?? 0 }] : []));
      this.model.addRow(-this.highs.infinity, best, { indices: used.map((u) => u.i), values: used.map((u) => u.c) });
    }
  }
}

function solveLevels(
  highs: Highs,
  model: HighsModel,
  piece: Piece,
  levels: readonly Level[],
  { deadlineS, starts = [], beat, onLevel, levelShare = MOST_OF_THE_TIME }: SolveOptions,
): Solution | undefined {
  // Everything free is an answer, if a poor one: a plan comes out whatever the time.
  const nothing = piece.rest.map((r) => (r ? 1 : 0));
  const solving = new Solving(highs, model, piece, performance.now() + deadlineS * 1000, [...starts, nothing]);
  let provedTo: Level | undefined;
  let gap: Gap | undefined;
  let proved = true;
  let settled = true;
  // Still level with what is to be beaten; once better, it stays better.
  let tied = beat !== undefined;
  let passed = 0;
  solving.tryZero(levels.filter((l) => MOSTLY_ZERO.includes(l)));
  for (const level of levels.length > 0 ? levels : [undefined]) {
    if (level) onLevel?.(level);
    if (level === "coolingShared") solving.tryZero(levels.filter((l) => OFTEN_ZERO.includes(l)));
    if (level === "canonical" && !proved) break;
    // The time is up, and something holds: the rest is not looked at.
    if (level && !proved && solving.values && !solving.worthReading()) break;
    if (level === "canonical" && piece.vars.length > MOST_FOR_NAMES) solving.keepLengths();
    if (!solving.values || !level || solving.at(level) > 0) {
      // A level that will not end leaves time for the ones below it.
      const all = level === undefined || level === levels.at(-1) || MOSTLY_ZERO.includes(level);
      const mostS = all ? Number.POSITIVE_INFINITY : solving.leftS() * levelShare;
      // The order of names is asked of answers whose lengths stay: there is nothing left to decide first.
      // Whoever brings answers to begin with needs one, however late it is: where none of them holds, it is looked for all the same.
      const read = solving.worthReading() || (!solving.values && starts.length > 0);
      const status = !read
        ? TIME_LIMIT
        : level && level !== "canonical" && solving.whatDecides(level, mostS)
          ? OPTIMAL
          : solving.minimise(level, mostS);
      if (status === INFEASIBLE && !solving.values) return undefined;
      if (!solving.values) throw new OutOfTime(`no plan found in time (status ${status})`);
      if (status !== OPTIMAL && level === "canonical") settled = status !== TIME_LIMIT;
      else if (status !== OPTIMAL) {
        if (proved && level) gap = { level, by: solving.at(level) - (read ? solving.bound() : 0) };
        proved = false;
      }
    }
    if (!level) break;
    const best = solving.at(level);
    solving.hold(level, best);
    if (proved) provedTo = level;
    if (!beat || !tied || !proved) continue;
    // Levels that this piece cannot cost at all lie between: there it costs nothing.
    while (LEVELS[passed] !== level) if ((beat[LEVELS[passed++] ?? level] ?? 0) > 0) tied = false;
    passed++;
    const bar = beat[level] ?? 0;
    if (tied && best > bar && level !== "canonical") return undefined;
    if (best < bar) tied = false;
  }
  if (!solving.values) throw new Error("nothing to solve");
  // The order of names only breaks ties: what costs anything is proved all the same.
  return {
    values: solving.values,
    proved,
    ...(proved && settled ? {} : { settled: false }),
    ...(provedTo ? { provedTo } : {}),
    ...(gap ? { gap } : {}),
  };
}

/** The module prints its whole minified text on an uncaught throw; keep one line. */
const shortly = (e: unknown) => (e instanceof Error ? e.message : String(e)).split("\n")[0]?.slice(0, 200) ?? "";

import { type Cost, LEVELS, type Level, type PartCost, zeroCost } from "../cost/cost";
import { tightened } from "./helpers";
import { type Row, type Term, term } from "./terms";
import { Together } from "./together";

/** A mixed-integer model whose cost is one vector compared level by level. Everything is a whole number. */
export class Model {
  readonly names: string[] = [];
  readonly upper: number[] = [];
  readonly rest: boolean[] = [];
  readonly costs: PartCost[] = [];
  readonly rows: Row[] = [];
  /** Variables whose choice lets a piece fall apart: the hubs on offer. */
  readonly links = new Set<number>();
  /** Variables that follow from others: raised as far as rows ask for it. */
  readonly helpers = new Set<number>();
  /** Variables that decide least: single leads, whose places fall out once it is known what hangs where by the dozen. */
  readonly details = new Set<number>();
  /** Variables of rows where every link that is taken asks for more and gives nothing: the supply's. */
  readonly asked = new Set<number>();
  private readonly byName = new Map<string, number>();

  /**
   * A whole variable from 0 to `upper` (1 for a yes or no). Returns its index.
   * `rest`: 1 when nothing at all is plugged; together these are a first answer that always holds.
   */
  variable(name: string, cost: PartCost = {}, upper = 1, rest = false): number {
    if (this.byName.has(name)) throw new Error(`Variable ${name} stands twice`);
    const index = this.names.push(name) - 1;
    this.upper.push(upper);
    this.rest.push(rest);
    this.costs.push(cost);
    this.byName.set(name, index);
    return index;
  }

  /** A variable that follows from others, and only costs. */
  helper(name: string, cost: PartCost = {}, upper = 1, rest = false): number {
    const v = this.variable(name, cost, upper, rest);
    this.helpers.add(v);
    return v;
  }

  /** Adds to what a variable costs. */
  addCost(variable: number, cost: PartCost): void {
    const own = { ...this.costs[variable] };
    for (const l of LEVELS) if (cost[l] !== undefined) own[l] = (own[l] ?? 0) + (cost[l] ?? 0);
    this.costs[variable] = own;
  }

  /** Helpers as low as the rows let them be, whatever they were; what no helper mends stays as it is. Values by variable. */
  withHelpers(values: readonly number[]): number[] {
    return tightened({ helpers: [...this.helpers], upper: this.upper, rows: this.rows }, values);
  }

  row(terms: readonly Term[], lower: number, upper: number, implied = false): void {
    const merged = new Map<number, number>();
    for (const [v, c] of terms) merged.set(v, (merged.get(v) ?? 0) + c);
    const kept = [...merged].filter(([, c]) => c !== 0);
    if (kept.length > 0) this.rows.push({ lower, upper, terms: kept, ...(implied ? { implied } : {}) });
    else if (lower > 0 || upper < 0) throw new Error("A row without terms that cannot hold");
  }

  atMost(terms: readonly Term[], upper: number): void {
    this.row(terms, Number.NEGATIVE_INFINITY, upper);
  }
  atLeast(terms: readonly Term[], lower: number): void {
    this.row(terms, lower, Number.POSITIVE_INFINITY);
  }
  /** A row that says nothing new for whole numbers: no helper is raised by it. */
  implied(terms: readonly Term[], upper: number): void {
    this.row(terms, Number.NEGATIVE_INFINITY, upper, true);
  }
  exactly(terms: readonly Term[], value: number): void {
    this.row(terms, value, value);
  }

  /** What an answer costs, level by level. */
  costOf(chosen: (variable: number) => number): Cost {
    return this.costs.reduce<Cost>((sum, c, v) => {
      const n = chosen(v);
      if (n !== 0) for (const l of LEVELS) sum[l] += n * (c[l] ?? 0);
      return sum;
    }, zeroCost());
  }

  /** Levels that cost anything at all, in order. */
  levels(): Level[] {
    return LEVELS.filter((l) => this.costs.some((c) => (c[l] ?? 0) !== 0));
  }

  /**
   * Pieces: sets of variables that share no row. Cost vectors add over pieces, so each may be solved alone.
   * Pieces come in the order of their first variable.
   */
  pieces(): Piece[] {
    const together = new Together(this.names.length);
    for (const r of this.rows) {
      const first = r.terms[0];
      if (first) for (const [v] of r.terms) together.join(v, first[0]);
    }
    return together.sets().map((vars) => this.piece(vars));
  }

  private piece(vars: number[]): Piece {
    const local = new Map(vars.map((v, i) => [v, i]));
    return {
      vars,
      upper: vars.map((v) => this.upper[v] ?? 1),
      rest: vars.map((v) => this.rest[v] ?? false),
      costs: vars.map((v) => this.costs[v] ?? {}),
      rows: this.rows
        .filter((r) => r.terms.some(([v]) => local.has(v)))
        .map((r) => ({ ...r, terms: r.terms.map(([v, c]) => term(local.get(v) ?? -1, c)) })),
      helpers: vars.flatMap((v, i) => (this.helpers.has(v) ? [i] : [])),
      details: vars.flatMap((v, i) => (this.details.has(v) ? [i] : [])),
      links: vars.flatMap((v, i) => (this.links.has(v) ? [i] : [])),
      asked: vars.flatMap((v, i) => (this.asked.has(v) ? [i] : [])),
    };
  }
}

export interface Piece {
  /** Indices into the whole model. */
  vars: number[];
  upper: number[];
  rest: boolean[];
  costs: PartCost[];
  rows: readonly Row[];
  /** Variables that follow from others: raised as far as rows ask for it, and no further. */
  helpers: number[];
  /** Variables that decide least, for engines that settle the others first. */
  details: number[];
  /** Variables (of the piece) whose choice lets it fall apart. */
  links: number[];
  /** Variables that links only ask more of: without any link they cost least. */
  asked: number[];
}

/** What an engine found for a piece. */
export interface Solution {
  values: number[];
  /** Every level was solved to its proven optimum. */
  proved: boolean;
  /** False where time ran out among answers that cost the same: another run may find another of them. */
  settled?: boolean;
  /** The last level proved, when not all were. */
  provedTo?: Level;
  /** The first level not proved, where it is known how much better an answer could be there. */
  gap?: Gap;
}

/** An answer that is as good above a level may cost less there by at most so much. */
export interface Gap {
  level: Level;
  by: number;
}

/** The time was up before anything at all was found: not a proof that nothing holds. */
export class OutOfTime extends Error {}

export interface SolveOptions {
  deadlineS: number;
  /** Answers to begin with: the best of those that hold. */
  starts?: readonly (readonly number[])[] | undefined;
  /** Share of the time that is left which one level below the shop's way may take: 0.6 unless said. */
  levelShare?: number | undefined;
  /** Only answers that cost less count. */
  beat?: PartCost | undefined;
  /** Told of each level before it is looked at. */
  onLevel?: ((level: Level) => void) | undefined;
}

/**
 * Whatever solves a piece: the door behind which `highs` stands. `undefined`: no assignment holds, or none can beat `beat`.
 */
export interface Engine {
  solve(piece: Piece, levels: readonly Level[], options: SolveOptions): Promise<Solution | undefined>;
}

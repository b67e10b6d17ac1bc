import { LEVELS, type Level, type PartCost } from "../cost";

/** A mixed-integer model whose cost is one vector compared level by level. Everything is a whole number. */
export class Model {
  readonly names: string[] = [];
  readonly upper: number[] = [];
  readonly rest: boolean[] = [];
  readonly costs: PartCost[] = [];
  readonly rows: { lower: number; upper: number; terms: [number, number][] }[] = [];
  /** Variables whose choice lets a piece fall apart: the hubs on offer. */
  readonly links = new Set<number>();
  /** Variables that follow from others: raised as far as rows ask for it. */
  readonly helpers = new Set<number>();
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

  /** Raises helpers as far as the rows ask for it; what no helper mends stays as it is. Values by variable. */
  completed(values: readonly number[]): number[] {
    const out = [...values];
    const asked = this.rows.filter((r) => r.terms.some(([v]) => this.helpers.has(v)));
    // One helper may ask for another: a zone on one root more asks for one root beyond the first.
    for (let pass = 0; pass < 3; pass++)
      for (const r of asked) {
        let over = r.terms.reduce((s, [v, c]) => s + c * (out[v] ?? 0), 0);
        for (const [v, c] of r.terms) {
          if (!this.helpers.has(v)) continue;
          const by = over > r.upper && c < 0 ? (over - r.upper) / -c : over < r.lower && c > 0 ? (r.lower - over) / c : 0;
          const raise = Math.min(Math.ceil(by), (this.upper[v] ?? 1) - (out[v] ?? 0));
          out[v] = (out[v] ?? 0) + raise;
          over += c * raise;
        }
      }
    return out;
  }

  row(terms: [number, number][], lower: number, upper: number): void {
    const merged = new Map<number, number>();
    for (const [v, c] of terms) merged.set(v, (merged.get(v) ?? 0) + c);
    const kept = [...merged].filter(([, c]) => c !== 0);
    if (kept.length > 0) this.rows.push({ lower, upper, terms: kept });
    else if (lower > 0 || upper < 0) throw new Error("A row without terms that cannot hold");
  }

  atMost(terms: [number, number][], upper: number): void {
    this.row(terms, Number.NEGATIVE_INFINITY, upper);
  }
  atLeast(terms: [number, number][], lower: number): void {
    this.row(terms, lower, Number.POSITIVE_INFINITY);
  }
  exactly(terms: [number, number][], value: number): void {
    this.row(terms, value, value);
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
    const root = this.names.map((_, i) => i);
    const find = (i: number): number => {
      let at = i;
      while (root[at] !== at) {
        root[at] = root[root[at] as number] as number;
        at = root[at] as number;
      }
      return at;
    };
    for (const r of this.rows) {
      const first = r.terms[0];
      if (first) for (const [v] of r.terms) root[find(v)] = find(first[0]);
    }
    const groups = new Map<number, number[]>();
    for (let i = 0; i < root.length; i++) {
      const g = find(i);
      groups.set(g, [...(groups.get(g) ?? []), i]);
    }
    return [...groups.values()].map((vars) => this.piece(vars));
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
        .map((r) => ({ ...r, terms: r.terms.map(([v, c]): [number, number] => [local.get(v) ?? -1, c]) })),
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
  rows: { lower: number; upper: number; terms: [number, number][] }[];
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

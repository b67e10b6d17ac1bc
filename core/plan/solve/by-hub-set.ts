import { addCost, type Cost, compareCost, LEVELS, type Level, zeroCost } from "../cost/cost";
import { tightened } from "../model/helpers";
import { type Engine, type Gap, OutOfTime, type Piece, type Solution, type SolveOptions } from "../model/model";
import { below, held, mended, type Section, sectionsOf, setOf, without } from "./decompose";
import { holds, totalCost } from "./piece";

/** A set of links taken, and what a section costs with it. */
interface Item {
  set: ReadonlySet<number>;
  cost: Cost;
  values: number[];
  /** Where it was not proved to the end. */
  short?: { provedTo?: Level | undefined; gap?: Gap | undefined };
}

/** Levels that a piece can cost at all, of these. */
export const ownLevels = (piece: Piece, levels: readonly Level[]) => levels.filter((l) => piece.costs.some((c) => (c[l] ?? 0) !== 0));

/** The level down to which all of these are proved; undefined where one is not at all. */
export const lowest = (proved: readonly (Level | undefined)[]): Level | undefined =>
  proved.includes(undefined) ? undefined : [...proved].sort((a, b) => LEVELS.indexOf(a as Level) - LEVELS.indexOf(b as Level))[0];

const lessCost = (a: Cost, b: Cost): Cost => addCost(a, Object.fromEntries(LEVELS.map((l) => [l, -b[l]])));
const sum = (costs: readonly Cost[]): Cost => costs.reduce((s, c) => addCost(s, c), zeroCost());

/**
 * Solves a piece that falls apart once it is known which links (hubs on offer) are taken. Each section that pays for links lists
 * its sets best first, no further than could still win; the others answer for the set that is asked. Exact: a set is left out
 * only where a bound, the sum of what each section costs at least, is no better than the answer.
 */
export function bySets(engineFor: (piece: Piece) => Engine): Engine {
  return {
    async solve(piece, levels, options) {
      const sections = sectionsOf(piece);
      if (sections.length < 2 || !sections.some((p) => p.pays)) return engineFor(piece).solve(piece, levels, options);
      return new Sets(piece, sections, levels, options, engineFor).solve();
    },
  };
}

/** Seconds that a section gets whatever the time. */
const LEAST_S = 0.4;

class Sets {
  private readonly paying: Section[];
  private readonly following: Section[];
  private readonly until: number;
  private readonly lists: Item[][];
  /** Sets that were looked at in each paying section, and whether no other can still win. */
  private readonly seen: ReadonlySet<number>[][];
  private readonly ended: boolean[];
  /** The last cost found best first: no set that was not seen costs less. */
  private readonly floor: Cost[] = [];
  private readonly known = new Map<string, Item | undefined>();
  /** What each following section costs at least: with any set, and with some link taken. */
  private readonly least: { any: Cost; some?: Cost | "none" }[] = [];
  private best: { cost: Cost; values: number[] } | undefined;
  /** The best is what it began with: among equals that is not the one that is found from nothing. */
  private begun = false;
  /** For each solve that ran out of time, the last level that it proved. */
  private readonly unproved: (Level | undefined)[] = [];
  private settled = true;
  private readonly tried = new Set<string>();
  /** Each section by itself, with whatever links suit it: together they cost no more than any answer. */
  private readonly alone: Item[] = [];

  constructor(
    private readonly whole: Piece,
    private readonly sections: Section[],
    private readonly levels: readonly Level[],
    private readonly options: SolveOptions,
    private readonly engineFor: (piece: Piece) => Engine,
  ) {
    this.paying = sections.filter((p) => p.pays);
    this.following = sections.filter((p) => !p.pays);
    this.lists = this.paying.map(() => []);
    this.seen = this.paying.map(() => []);
    this.ended = this.paying.map(() => false);
    this.until = performance.now() + options.deadlineS * 1000;
  }

  async solve(): Promise<Solution | undefined> {
    // Whatever comes of it, an answer that was there before is not lost.
    for (const start of this.options.starts ?? []) {
      const values = tightened(this.whole, start);
      if (!holds(this.whole, values)) continue;
      const cost = addCost(zeroCost(), totalCost(this.whole, values));
      if (!this.best || compareCost(cost, this.best.cost, true) < 0) this.best = { cost, values };
      this.begun = true;
    }
    for (const f of this.following) {
      const found = await this.ask(f, f.asked ? held(f, new Set()) : f.piece, 0.3);
      if (!found) return undefined;
      this.remember(f, found);
      this.least.push({ any: found.cost });
      this.alone.push(found);
    }
    for (const p of this.paying.keys()) await this.next(p, undefined);
    if (this.lists.some((l) => l.length === 0)) return undefined;
    this.alone.push(...this.lists.flatMap((l) => l[0] ?? []));
    for (;;) {
      const combination = this.cheapest();
      if (combination) await this.look(combination);
      else if (!(await this.further())) break;
    }
    if (!this.best) await this.lookAtNothing();
    if (!this.best) return undefined;
    return {
      values: this.best.values,
      proved: this.unproved.length === 0,
      ...(this.settled ? {} : { settled: false }),
      ...(this.unproved.length > 0 ? this.reached(this.best.cost) : {}),
    };
  }

  /** How far an answer is proved by what the sections cost at least, each by itself, and how much better another could be there. */
  private reached(cost: Cost): Pick<Solution, "provedTo" | "gap"> {
    const bySolves = lowest(this.unproved);
    let provedTo: Level | undefined;
    for (const level of this.levels) {
      const least = this.alone.map(({ cost: own, short }) => {
        if (!short || (short.provedTo && LEVELS.indexOf(level) <= LEVELS.indexOf(short.provedTo))) return own[level];
        return short.gap?.level === level ? own[level] - short.gap.by : 0;
      });
      const by = cost[level] - least.reduce((s, n) => s + n, 0);
      const solved = bySolves !== undefined && LEVELS.indexOf(level) <= LEVELS.indexOf(bySolves);
      if (!solved && by > 0) return { ...(provedTo ? { provedTo } : {}), gap: { level, by } };
      // A solve that ended below says nothing about the levels under the first that the sections alone could better.
      if (by > 0) return { provedTo: bySolves as Level };
      provedTo = level;
    }
    return provedTo ? { provedTo } : {};
  }

  /** One section solved with a share of the time that is left; what was not proved is noted for the whole. Undefined: no such answer, or none that beats. */
  private async ask(section: Section, piece: Piece, share: number, beat?: Cost, begin?: readonly number[]): Promise<Item | undefined> {
    const bounded = beat ? below(piece, beat) : piece;
    const starts = [...(begin ? [begin] : []), ...(this.options.starts ?? []).map((s) => section.at.map((i) => s[i] ?? 0))];
    const solution = await this.engineFor(bounded).solve(bounded, ownLevels(bounded, this.levels), {
      deadlineS: Math.max(LEAST_S, ((this.until - performance.now()) / 1000) * share),
      starts,
      ...(beat ? { beat } : {}),
      ...(this.options.onLevel ? { onLevel: this.options.onLevel } : {}),
    });
    if (!solution) return undefined;
    if (!solution.proved) {
      this.unproved.push(solution.provedTo);
    }
    if (solution.settled === false) this.settled = false;
    return {
      set: setOf(section, solution.values),
      cost: addCost(zeroCost(), totalCost(section.piece, solution.values)),
      values: solution.values,
      ...(solution.proved ? {} : { short: { provedTo: solution.provedTo, gap: solution.gap } }),
    };
  }

  /** The next set of a paying section; none: the section has ended. */
  private async next(p: number, beat: Cost | undefined, set?: ReadonlySet<number>): Promise<void> {
    const section = this.paying[p] as Section;
    const seen = this.seen[p] as ReadonlySet<number>[];
    try {
      // The first answers leave time for the sections that follow; then nothing is owed to anybody.
      const waiting = this.lists.filter((l) => l.length === 0).length;
      const found = await this.ask(section, set ? held(section, set) : without(section, seen), waiting > 0 ? 0.6 / waiting : 1, beat);
      if (set) seen.push(set);
      else if (!found) this.ended[p] = true;
      if (!found) return;
      this.lists[p]?.push(found);
      if (set) return;
      seen.push(found.set);
      this.floor[p] = found.cost;
    } catch (e) {
      if (!(e instanceof OutOfTime)) throw e;
      this.unproved.push(undefined);
      this.ended[p] = true;
    }
  }

  private remember(section: Section, item: Item): void {
    this.known.set(this.keyOf(section, item.set), item);
  }

  private keyOf(section: Section, set: ReadonlySet<number>): string {
    return `${this.sections.indexOf(section)} ${section.links.filter((l) => set.has(section.at[l] as number)).join()}`;
  }

  /** What a following section costs at least with this set. "none": nothing holds. */
  private leastOf(f: number, set: ReadonlySet<number>): Cost | "none" {
    const section = this.following[f] as Section;
    const key = this.keyOf(section, set);
    if (this.known.has(key)) return this.known.get(key)?.cost ?? "none";
    const least = this.least[f] as { any: Cost; some?: Cost | "none" };
    return section.links.some((l) => set.has(section.at[l] as number)) ? (least.some ?? least.any) : least.any;
  }

  private bound(items: readonly Item[]): Cost | undefined {
    const set = new Set(items.flatMap((i) => [...i.set]));
    const least = this.following.map((_, f) => this.leastOf(f, set));
    return least.includes("none") ? undefined : sum([...items.map((i) => i.cost), ...(least as Cost[])]);
  }

  private wins(cost: Cost | undefined): cost is Cost {
    if (cost === undefined || !this.best) return cost !== undefined;
    const than = compareCost(cost, this.best.cost);
    return than < 0 || (this.begun && than === 0);
  }

  /** The combination of listed sets with the lowest bound that was not looked at and could win. */
  private cheapest(): Item[] | undefined {
    let found: { items: Item[]; cost: Cost } | undefined;
    const walk = (items: Item[]): void => {
      const list = this.lists[items.length];
      if (list) {
        for (const item of list) walk([...items, item]);
        return;
      }
      if (this.tried.has(this.nameOf(items))) return;
      const cost = this.bound(items);
      if (this.wins(cost) && (!found || compareCost(cost, found.cost, true) < 0)) found = { items, cost };
    };
    walk([]);
    return found?.items;
  }

  private readonly nameOf = (items: readonly Item[]) => items.map((i, p) => this.lists[p]?.indexOf(i)).join();

  /** Asks the following sections for their answer to a combination. */
  private async look(items: Item[]): Promise<void> {
    const set = new Set(items.flatMap((i) => [...i.set]));
    const answers: Item[] = [];
    this.tried.add(this.nameOf(items));
    for (const section of this.following) {
      const key = this.keyOf(section, set);
      if (!this.known.has(key)) {
        try {
          this.known.set(key, await this.ask(section, held(section, set), this.best ? 1 : 0.5, undefined, this.begin(section, set)));
        } catch (e) {
          if (!(e instanceof OutOfTime)) throw e;
          this.unproved.push(undefined);
          return;
        }
      }
      const answer = this.known.get(key);
      if (!answer) return;
      answers.push(answer);
    }
    const cost = sum([...items, ...answers].map((i) => i.cost));
    const equalsStart = this.begun && this.best !== undefined && compareCost(cost, this.best.cost) === 0;
    if (this.best && !equalsStart && compareCost(cost, this.best.cost, true) >= 0) return;
    this.begun = false;
    const values = new Array<number>(this.whole.vars.length).fill(0);
    for (const [n, i] of [...this.paying, ...this.following].entries())
      for (const [k, v] of i.at.entries()) if (!i.links.includes(k) || i.pays) values[v] = ([...items, ...answers][n] as Item).values[k] ?? 0;
    this.best = { cost, values };
  }

  /** An answer to begin with for a following section and a set: the one without links, and what the links ask for beside it. */
  private begin(section: Section, set: ReadonlySet<number>): number[] | undefined {
    const values = this.known.get(this.keyOf(section, new Set()))?.values;
    if (!values) return undefined;
    const out = section.piece.vars.map((_, i) => (section.links.includes(i) ? Number(set.has(section.at[i] as number)) : (values[i] ?? 0)));
    return mended(section.piece, out);
  }

  /** Lists one more set in some section, where one that was not seen yet could win. False: none can. */
  private async further(): Promise<boolean> {
    for (const [p, section] of this.paying.entries()) {
      // As many sets as there can be.
      if ((this.seen[p]?.length ?? 0) >= 2 ** section.links.length) this.ended[p] = true;
      if (this.ended[p] || !this.mayWin(p)) continue;
      if (this.best && performance.now() > this.until) {
        this.unproved.push(undefined);
        return false;
      }
      // Without any link first: it is quick, and from then on every other set takes one.
      if (!this.noneSeen(p)) {
        await this.next(p, this.bar(p), new Set());
        return true;
      }
      await this.withSome(section);
      if (!this.mayWin(p)) continue;
      await this.next(p, this.bar(p));
      return true;
    }
    return false;
  }

  private readonly noneSeen = (p: number) => this.seen[p]?.some((s) => s.size === 0) ?? false;

  /** What all others cost at least beside a set of this section that was not seen yet. */
  private beside(p: number): Cost | "none" {
    const section = this.paying[p] as Section;
    const others = this.lists.flatMap((l, q) => (q === p ? [] : [l[0]?.cost ?? zeroCost()]));
    const follow = this.least.map((least, f) =>
      this.noneSeen(p) && this.follows(this.following[f] as Section, section) ? (least.some ?? least.any) : least.any,
    );
    return follow.includes("none") ? "none" : sum([...others, ...(follow as Cost[])]);
  }

  /** Could a set that was not seen yet win? Sets come best first, so it costs no less than the last. */
  private mayWin(p: number): boolean {
    const beside = this.beside(p);
    const may = beside !== "none" && this.wins(addCost(beside, this.floor[p] ?? zeroCost()));
    if (!may) this.ended[p] = true;
    return may;
  }

  /** What the next set of a section has to beat. */
  private bar(p: number): Cost | undefined {
    const beside = this.beside(p);
    return this.best && beside !== "none" ? lessCost(this.best.cost, beside) : undefined;
  }

  /** Every link of the section is known to the one that follows. */
  private readonly follows = (f: Section, section: Section) => section.links.every((l) => f.links.some((m) => f.at[m] === section.at[l]));

  /** What the following sections cost at least when some link of this section is taken. */
  private async withSome(section: Section): Promise<void> {
    for (const [n, f] of this.following.entries()) {
      const least = this.least[n] as { any: Cost; some?: Cost | "none" };
      if (least.some !== undefined || f.links.length === 0 || !this.follows(f, section)) continue;
      const some = {
        ...f.piece,
        rows: [...f.piece.rows, { lower: 1, upper: Number.POSITIVE_INFINITY, terms: f.links.map((l): [number, number] => [l, 1]) }],
      };
      try {
        const found = await this.ask(f, some, 1);
        if (found) this.remember(f, found);
        least.some = found?.cost ?? "none";
      } catch (e) {
        if (!(e instanceof OutOfTime)) throw e;
        least.some = least.any;
      }
    }
  }

  /** No link at all: where that holds, it is an answer whatever the time. */
  private async lookAtNothing(): Promise<void> {
    const items: Item[] = [];
    for (const [p, section] of this.paying.entries()) {
      const known = this.lists[p]?.find((i) => i.set.size === 0);
      const item = known ?? (await this.ask(section, held(section, new Set()), 1));
      if (!item) return;
      if (!known) this.lists[p]?.push(item);
      items.push(item);
    }
    await this.look(items);
  }
}

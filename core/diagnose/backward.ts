import { asPlugged, type Graph } from "../assembly";
import { asExpected, type Expectation, type Observable, simulate } from "../machine";
import { type Cause, causesOf, type Priors } from "./causes";
import { type Hypothesis, type Same, type Suspicion, suspicionOf } from "./inference";
import { type Repair, repairsOf } from "./repairs";

/** Causes that no line and no deed tells apart: one suspect. */
export interface Suspected {
  /** The likeliest first. */
  causes: readonly Cause[];
  /** Before anything is seen. */
  prior: number;
  /** Lines that it changes, with what they then show. */
  effect: ReadonlyMap<string, string>;
  repairs: readonly Repair[];
}

/** The machine backward: what may be wrong, and what each would show. Made once for a machine as it is plugged. */
export interface Backward {
  graph: Graph;
  suspected: readonly Suspected[];
  /** What each line shows while nothing is wrong, with how it is read. */
  lines: ReadonlyMap<string, Observable>;
  same: Same;
  /** As it is plugged parts would die: nothing is started. */
  damage: readonly string[];
}

/** Two things wrong at once are as likely as both alone; at one place they come together so much more often (common practice: one tie cut too deep). */
const TOGETHER = 8;
/** So many are paired: the ones that explain something of what is wrong. */
const MOST_PAIRED = 48;
/** Somebody has said that something is wrong: in so many of such cases nothing is, beside those in which something is (common practice, from memory). */
const NOTHING = 0.03;
const TEN_THOUSAND = 10_000;

const shown = (o: Observable) => String(o.value);

/** Compiles a machine: a forward run for each thing that may be wrong, those alike once. */
export function backwardOf(whole: Graph, priors: Priors = {}): Backward {
  const graph = asPlugged(whole);
  const good = simulate(whole, { modes: {} });
  const lines = new Map(good.observables.map((o) => [o.id, o]));
  const same = sameIn(lines);
  const leans = new Map<string, string[]>();
  for (const l of good.lines) for (const e of l.leans) leans.set(e.id, [...(leans.get(e.id) ?? []), l.id]);
  const spare = new Set(good.lines.flatMap((l) => l.spare ?? []));
  // Things without which the same lines fail show the same: they are worked out once. Memory is counted, and a thing to spare is not missed.
  const known = new Map<string, ReadonlyMap<string, string>>();
  const merged = new Map<string, { causes: Cause[]; effect: ReadonlyMap<string, string>; repairs: readonly Repair[] }>();
  for (const c of causesOf(graph, priors)) {
    const wholly = ["dead", "unseated", "loose", "off"].includes(c.mode) && !spare.has(c.element);
    const key = wholly ? (leans.get(c.element) ?? []).join(" ") : "";
    const effect = (key && known.get(key)) || effectOf(whole, lines, same, { [c.element]: c.mode });
    if (key) known.set(key, effect);
    if (effect.size === 0) continue;
    const repairs = repairsOf(graph, c);
    const as = JSON.stringify([[...effect], repairs.map((r) => r.id).sort()]);
    const had = merged.get(as);
    if (had) had.causes.push(c);
    else merged.set(as, { causes: [c], effect, repairs });
  }
  const suspected = [...merged.values()].map(
    (m): Suspected => ({
      causes: m.causes.sort((a, b) => b.perTenThousand - a.perTenThousand || (a.id < b.id ? -1 : 1)),
      prior: m.causes.reduce((n, c) => n + c.perTenThousand, 0) / TEN_THOUSAND,
      effect: m.effect,
      repairs: m.repairs,
    }),
  );
  return { graph, suspected, lines, same, damage: good.damage };
}

/** Lines that an assignment changes, with what they then show. */
function effectOf(whole: Graph, lines: ReadonlyMap<string, Observable>, same: Same, modes: Record<string, string>): ReadonlyMap<string, string> {
  const now = new Map(simulate(whole, { modes }).observables.map((o) => [o.id, shown(o)]));
  return new Map(
    [...lines].flatMap(([id, o]) => {
      const v = now.get(id);
      return v !== undefined && !same(id, v, shown(o)) && !same(id, shown(o), v) ? [[id, v] as const] : [];
    }),
  );
}

/** Is what was seen what a hypothesis shows? By the line's tolerance and the other ways in which it is read. */
function sameIn(lines: ReadonlyMap<string, Observable>): Same {
  return (line, value, seen) => {
    const o = lines.get(line);
    if (value.toLowerCase() === seen.trim().toLowerCase()) return true;
    const unit = o?.unit === "GB" || o?.unit === "MT/s" ? o.unit : undefined;
    const asked: Pick<Expectation, "expected" | "unit" | "tolerance"> = {
      expected: value,
      ...(unit ? { unit } : {}),
      ...(o?.tolerance === undefined || Number(value) === 0 ? {} : { tolerance: o.tolerance }),
    };
    return asExpected(asked, seen);
  };
}

/** What a line shows while nothing is wrong. */
export const goodOf = (b: Backward, line: string): string | undefined => {
  const o = b.lines.get(line);
  return o && shown(o);
};

/** Is what was seen not what a machine with nothing wrong shows? */
export const isOff = (b: Backward, o: { line: string; value: string }): boolean => {
  const good = goodOf(b, o.line);
  return good !== undefined && !b.same(o.line, good, o.value);
};

/** Nothing wrong, one thing, and two of the things that explain something of what was seen. */
export function suspicion(b: Backward, seen: readonly { line: string; value: string }[]): Suspicion {
  const off = seen.filter((o) => isOff(b, o));
  const explaining = b.suspected
    .flatMap((s, at) => {
      const n = off.filter((o) => s.effect.has(o.line) && b.same(o.line, s.effect.get(o.line) ?? "", o.value)).length;
      const against = seen.filter((o) => s.effect.has(o.line) && !b.same(o.line, s.effect.get(o.line) ?? "", o.value)).length;
      return n > 0 ? [{ at, worth: s.prior * 50 ** (n - against) }] : [];
    })
    .sort((x, y) => y.worth - x.worth || x.at - y.at)
    .slice(0, MOST_PAIRED)
    .map((x) => x.at);
  const good = (l: string) => goodOf(b, l);
  const sum = b.suspected.reduce((n, s) => n + s.prior, 0);
  const hypotheses: Hypothesis[] = [
    { causes: [], prior: NOTHING * sum, shows: good },
    ...b.suspected.map((s, at): Hypothesis => ({ causes: [at], prior: s.prior, shows: (l) => s.effect.get(l) ?? good(l) })),
    ...explaining.flatMap((x, i) => explaining.slice(i + 1).flatMap((y) => pairOf(b, Math.min(x, y), Math.max(x, y)))),
  ];
  return suspicionOf(hypotheses, good, b.same);
}

/** Where a start stops earlier is what is seen of the later lines. */
const NOT_YET = new Set(["not reached", "not seen", "dark", "still", "nothing", "dead", "missing", "none", "0"]);

function pairOf(b: Backward, x: number, y: number): Hypothesis[] {
  const [sx, sy] = [b.suspected[x], b.suspected[y]];
  const [cx, cy] = [sx?.causes[0], sy?.causes[0]];
  if (!sx || !sy || !cx || !cy || cx.element === cy.element) return [];
  const near = placeOf(cx.element) === placeOf(cy.element) ? TOGETHER : 1;
  return [
    {
      causes: [x, y],
      prior: sx.prior * sy.prior * near,
      shows: (l) => {
        // Sounds add up: two that fall silent are heard otherwise than either.
        if (b.lines.get(l)?.group === "Sound") return undefined;
        const [vx, vy] = [sx.effect.get(l), sy.effect.get(l)];
        // Where both change a line, what keeps it from being reached is what is seen.
        if (vx !== undefined && vy !== undefined && vx !== vy) return NOT_YET.has(vx.toLowerCase()) ? vx : vy;
        return vx ?? vy ?? goodOf(b, l);
      },
    },
  ];
}

/** Where an element is: the part that its port belongs to. */
const placeOf = (element: string) => (element.split("@").at(-1) ?? element).split(":")[0];

import type { Address, Graph } from "../assembly";
import type { PartKind } from "../catalogue";
import type { Element, Expectation } from "../machine";
import { list } from "../words";
import { elsewhere } from "./elsewhere";

/** What a person saw on one line of the sheet. */
export interface Seen {
  line: string;
  asExpected: boolean;
  value: string;
}

export interface Suspect {
  element: Element;
  /** Share of the blame, rounded to 5 %. */
  sharePercent: number;
  /** Lines it would explain. */
  explains: string[];
  /** In a sentence. */
  why: string;
}

export interface NextAction {
  element: Element;
  action: string;
  /** The port that hands go to. */
  port?: Address;
  minutes: number;
  ifGood: string;
  ifBad: string;
}
export interface Diagnosis {
  suspects: Suspect[];
  cleared: { name: string; by: string }[];
  next?: NextAction;
}

/**
 * How often each kind of thing is to blame before anything is seen (common practice: a plug that is not
 * fully in comes long before a dead part). A first cut: the shop's own figures come later.
 */
const PRIOR: Record<Element["kind"], number> = { joint: 8, cable: 2, part: 3, board: 0.3, port: 1, mains: 5, switch: 2, monitor: 4 };
/** So many things are named of what one action would mend. */
const MOST_NAMED = 4;
/** A wrong entry must never empty the list. */
const MISREAD = 0.02;

/** Swapping a part takes so long by what it is, min: what has to come out with it (common practice; a first cut like the shares). */
const SWAP_MIN: Partial<Record<PartKind, number>> = { memory: 3, card: 5, supply: 20, cpu: 40, cooler: 40, case: 120, board: 60 };
const OTHER_SWAP_MIN = 8;

interface Action {
  action: string;
  port?: Address;
  minutes: number;
  ifGood?: string;
  ifBad?: string;
}

/**
 * What is done about an element, and about how many minutes it takes. All but a look at the mains or the monitor begins with the power off.
 * `graph` says where a plug could go instead, `works` which leads are of things that were seen to work.
 */
function actionOn(e: Element, graph: Graph | undefined, works: ReadonlySet<string>): Action {
  const off = (words: string, minutes: number, start = "start") => ({
    action: `Supply off, mains out, press the button once. ${words}, then ${start}.`,
    minutes,
  });
  switch (e.kind) {
    case "mains":
      return { action: "Look whether the supply's switch is on and the mains lead is in at both ends, then start.", minutes: 1 };
    case "joint":
      return { ...off(`Reseat ${e.name}`, 2), port: e.id.slice(e.id.indexOf("@") + 1) };
    case "cable":
      return off(`Use another cable in place of ${e.name}`, 4);
    case "port": {
      const other = graph && elsewhere(graph, e.id, works);
      const in_ = graph?.leads.get(graph.atPort.get(e.id)?.[0]?.lead ?? "");
      // What sits in a slot has to come out of it.
      const minutes = in_?.loom === "seat" ? (SWAP_MIN[in_.part.type.kind] ?? OTHER_SWAP_MIN) : (other?.minutes ?? 3);
      const to = other?.moves[0]?.port;
      return other
        ? { ifGood: other.ifGood, ifBad: other.ifBad, ...(to ? { port: to } : {}), ...off(other.action, minutes) }
        : { ...off(`Look into ${e.name} with a light, for bent pins and dirt`, minutes), port: e.id };
    }
    case "monitor":
      return {
        action:
          e.of === "card"
            ? "Look at the monitor: on, set to this input, its cable in at both ends, and in the card, not in the board."
            : "Look at the monitor: on, set to this input, its cable in at both ends, and in the board.",
        minutes: 1,
      };
    case "switch":
      return off("Put the lead of another switch, such as reset, on the power-switch pins", 3, "start with that");
    default:
      return off(`Swap ${e.name} for one that works`, e.of === undefined ? OTHER_SWAP_MIN : (SWAP_MIN[e.of] ?? OTHER_SWAP_MIN));
  }
}

/**
 * What the lines that went wrong share, less what the good ones clear. Each action is the best against one cause of lines that share
 * something; where more is bad, the next comes up once the first is mended and the lines are looked at again (a law tries pairs).
 * `tried`: elements already reseated or swapped without effect. `graph`: as it is plugged, for what could go elsewhere.
 */
export function diagnose(lines: readonly Expectation[], seen: readonly Seen[], tried: ReadonlySet<string> = new Set(), graph?: Graph): Diagnosis {
  const at = new Map(lines.map((l) => [l.id, l]));
  // A line that was expected not to work tells nothing about good parts.
  const wrong = seen.flatMap((s) => (!s.asExpected ? (at.get(s.line) ?? []) : []));
  const right = seen.flatMap((s) => (s.asExpected && at.get(s.line)?.works ? (at.get(s.line) ?? []) : []));
  if (wrong.length === 0) return { suspects: [], cleared: [] };
  const clearedBy = new Map<string, { name: string; by: string }>();
  for (const r of right) {
    const ids = new Set(r.leans.map((e) => e.id));
    if (r.silent && wrong.some((w) => w.leans.every((e) => ids.has(e.id)))) continue;
    for (const e of r.leans) if (!r.spare?.includes(e.id) && !clearedBy.has(e.id)) clearedBy.set(e.id, { name: e.name, by: r.what });
  }
  const all = new Map(wrong.flatMap((w) => w.leans).map((e) => [e.id, e]));
  // What is cleared is no suspect; only where everything is, an entry must be wrong, and nothing is cleared.
  const doubtful = [...all.values()].filter((e) => !clearedBy.has(e.id));
  const elements = doubtful.length > 0 ? doubtful : [...all.values()];
  if (doubtful.length === 0) clearedBy.clear();
  const causes = together(wrong, elements);
  const scored = elements.flatMap((element) => {
    const explains = wrong.filter((w) => w.leans.some((e) => e.id === element.id));
    const cause = causes.find((c) => explains.every((w) => c.includes(w)));
    if (explains.length === 0 || !cause) return [];
    // Symptoms that share nothing are two causes: each is explained by itself.
    const score = PRIOR[element.kind] * MISREAD ** (cause.length - explains.length) * (tried.has(element.id) ? MISREAD : 1);
    return [{ element, explains, cause, score }];
  });
  const total = scored.reduce((s, x) => s + x.score, 0);
  const ranked = scored.sort((a, b) => b.score - a.score || (a.element.id < b.element.id ? -1 : 1));
  const suspects = ranked.slice(0, 12).map(
    (x): Suspect => ({
      element: x.element,
      sharePercent: Math.round((x.score / total) * 20) * 5,
      explains: x.explains.map((w) => w.id),
      why: sentence(x.element, x.explains, x.cause.length, causes.length),
    }),
  );
  // Falling probability over cost gives the least expected minutes (Kadane and Simon 1977; from memory).
  const works = new Set(right.map((r) => r.id.slice(r.id.indexOf(":") + 1)));
  const first = ranked
    .filter((x) => !tried.has(x.element.id))
    .map((x) => ({ ...x, ...actionOn(x.element, graph, works) }))
    .sort((a, b) => b.score / b.minutes - a.score / a.minutes || (a.element.id < b.element.id ? -1 : 1))[0];
  const wrongIds = new Set(wrong.flatMap((w) => w.leans.map((e) => e.id)));
  const cleared = [...clearedBy].filter(([id]) => wrongIds.has(id)).map(([, c]) => c);
  if (!first) return { suspects, cleared };
  const { action, port, minutes, ifGood, ifBad } = first;
  const what = list(
    first.explains.map((w) => w.what),
    MOST_NAMED,
  );
  return {
    suspects,
    cleared,
    next: {
      element: first.element,
      minutes,
      action,
      ...(port ? { port } : {}),
      ifGood: `${what} as expected: ${ifGood ?? "that was it."}`,
      ifBad: ifBad ?? `No change: ${first.element.name} is cleared; the next suspect comes up.`,
    },
  };
}

/** Lines that went wrong, sorted into those that share something that may be to blame. */
function together(wrong: readonly Expectation[], elements: readonly Element[]): Expectation[][] {
  const ids = new Set(elements.map((e) => e.id));
  const groups: Expectation[][] = [];
  for (const w of wrong) {
    const shares = (g: readonly Expectation[]) => g.some((x) => x.leans.some((e) => ids.has(e.id) && w.leans.some((f) => f.id === e.id)));
    const mine = groups.filter(shares);
    for (const g of mine) groups.splice(groups.indexOf(g), 1);
    groups.push([...mine.flat(), w]);
  }
  return groups;
}

function sentence(e: Element, explains: readonly Expectation[], wrong: number, causes: number): string {
  const what = list(explains.map((w) => w.what));
  if (explains.length === wrong && wrong > 1)
    return `${what} share ${e.name}: it alone explains ${causes > 1 ? `these ${wrong}` : wrong === 2 ? "both" : `all ${wrong}`}.`;
  if (explains.length > 1) return `${what} share ${e.name}.`;
  return what === e.name ? `${what} may be dead itself.` : `${what} leans on ${e.name}.`;
}

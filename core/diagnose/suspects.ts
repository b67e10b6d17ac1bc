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

/** What sits in a port. */
const inPort = (graph: Graph | undefined, port: string) => graph?.leads.get(graph.atPort.get(port)?.[0]?.lead ?? "");

/** About how many minutes it takes to do something about an element. What sits in a slot has to come out of it. */
function minutesOf(e: Element, graph: Graph | undefined): number {
  const swap = (kind: PartKind | undefined) => (kind && SWAP_MIN[kind]) ?? OTHER_SWAP_MIN;
  const sits = e.kind === "port" ? inPort(graph, e.id) : undefined;
  if (sits?.loom === "seat") return swap(sits.part.type.kind);
  const minutes = { mains: 1, monitor: 1, joint: 2, cable: 4, port: 3, switch: 3, part: undefined, board: undefined }[e.kind];
  return minutes ?? swap(e.of);
}

interface Action {
  action: string;
  port?: Address;
  ifGood?: string;
  ifBad?: string;
}

/**
 * What is done about an element. All but a look at the mains or the monitor begins with the power off.
 * `graph` says where a plug could go instead, `works` which leads are of things that were seen to work.
 */
function actionOn(e: Element, graph: Graph | undefined, works: ReadonlySet<string>): Action {
  const off = (words: string, start = "start") => ({ action: `Supply off, mains out, press the button once. ${words}, then ${start}.` });
  switch (e.kind) {
    case "mains":
      return { action: "Look whether the supply's switch is on and the mains lead is in at both ends, then start." };
    case "monitor":
      return {
        action:
          e.of === "card"
            ? "Look at the monitor: on, set to this input, its cable in at both ends, and in the card, not in the board."
            : "Look at the monitor: on, set to this input, its cable in at both ends, and in the board.",
      };
    case "joint":
      return { ...off(`Reseat ${e.name}`), port: e.id.slice(e.id.indexOf("@") + 1) };
    case "cable":
      return off(`Use another cable in place of ${e.name}`);
    case "port": {
      const other = graph && elsewhere(graph, e.id, works);
      if (!other) return { ...off(`Look into ${e.name} with a light, for bent pins and dirt`), port: e.id };
      return { ...off(other.action), port: other.moves[0]?.port ?? e.id, ifGood: other.ifGood, ifBad: other.ifBad };
    }
    case "switch":
      return off("Put the lead of another switch, such as reset, on the power-switch pins", "start with that");
    default:
      return off(`Swap ${e.name} for one that works`);
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
  const first = ranked
    .filter((x) => !tried.has(x.element.id))
    .map((x) => ({ ...x, minutes: minutesOf(x.element, graph) }))
    .sort((a, b) => b.score / b.minutes - a.score / a.minutes || (a.element.id < b.element.id ? -1 : 1))[0];
  const wrongIds = new Set(wrong.flatMap((w) => w.leans.map((e) => e.id)));
  const cleared = [...clearedBy].filter(([id]) => wrongIds.has(id)).map(([, c]) => c);
  if (!first) return { suspects, cleared };
  const works = new Set(right.map((r) => r.id.slice(r.id.indexOf(":") + 1)));
  const { action, port, ifGood, ifBad } = actionOn(first.element, graph, works);
  const what = list(
    first.explains.map((w) => w.what),
    MOST_NAMED,
  );
  return {
    suspects,
    cleared,
    next: {
      element: first.element,
      minutes: first.minutes,
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
  return what === e.name ? `${what} may be dead itself.` : `${what} works only if ${e.name} does.`;
}

import type { Graph } from "../assembly";
import { type Assignment, simulate } from "../machine";
import { causesOf } from "./causes";
import { deviceOf, goesAround, placeOfLead } from "./deeds";
import { NOW_WORKS } from "./inference";
import { repairsOf } from "./repairs";
import { FOLLOWS, NO_CHANGE, STAYS } from "./results";

/** What comes of a deed at a machine of which it is known what is wrong, and what is wrong afterwards. For machines that are practised on. */
export function answerTo(graph: Graph, modes: Assignment, deed: string, lines: readonly string[]): { result: string; modes: Assignment } {
  const wrong = Object.keys(modes);
  const around = goesAround(graph, deed);
  if (around) return { result: wrong.length > 0 && wrong.every(around) ? NOW_WORKS : NO_CHANGE, modes };
  if (deed.startsWith("exchange:")) {
    const lead = graph.leads.get(deed.slice("exchange:".length));
    if (!lead) return { result: NO_CHANGE, modes };
    if (wrong.length > 0 && wrong.every(deviceOf(graph, lead))) return { result: FOLLOWS, modes };
    return wrong.length > 0 && wrong.every(placeOfLead(graph, lead)) ? { result: NOW_WORKS, modes: {} } : { result: STAYS, modes };
  }
  const cured = new Set(
    causesOf(graph).flatMap((c) =>
      // A plug that is out is pressed home like one that is loose.
      (modes[c.element] === c.mode || (modes[c.element] === "out" && c.mode === "loose")) && repairsOf(graph, c).some((r) => r.id === deed)
        ? [c.element]
        : [],
    ),
  );
  const left = Object.fromEntries(Object.entries(modes).filter(([e]) => !cured.has(e)));
  const good = shown(graph, {}, lines);
  const after = shown(graph, left, lines);
  if (after.every((v, i) => alike(v, good[i]))) return { result: "that was it", modes: left };
  const before = shown(graph, modes, lines);
  return { result: after.every((v, i) => v?.value === before[i]?.value) ? NO_CHANGE : "changed", modes: left };
}

type Shown = { value: string | number; tolerance?: number } | undefined;

function shown(graph: Graph, modes: Assignment, lines: readonly string[]): Shown[] {
  const of = new Map(simulate(graph, { modes }).observables.map((o) => [o.id, o]));
  return lines.map((l) => of.get(l));
}

const alike = (a: Shown, b: Shown): boolean =>
  typeof a?.value === "number" && typeof b?.value === "number" ? Math.abs(a.value - b.value) <= (b.tolerance ?? 0) : a?.value === b?.value;

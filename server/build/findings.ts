import { createHash } from "node:crypto";
import { LRUCache } from "lru-cache";
import type { Graph } from "../../core/assembly";
import { isProvisional } from "../../core/catalogue";
import { checkAll, checkParts, type Finding, withJudgedRemedies, withTriedWays } from "../../core/checks";
import { couldStop } from "../../core/matters";
import { type EntityManager, type OverrideRow, Override as Row } from "../../db";

/** A finding as a screen shows it: one that was set aside says by whom and why, and weighs as a note. */
export type JobFinding = Finding & { setAside?: SetAside; mayBeSetAside?: boolean };
export interface SetAside {
  reason: string;
  by: string;
  at: string;
  /** What it was before. */
  severity: Finding["severity"];
  message: string;
  /** False once nothing of the kind is found any more. */
  still: boolean;
}

const WEIGHT = { stop: 0, warn: 1, note: 2 } as const;
/** Findings set aside on one job, at most. */
export const MOST_SET_ASIDE = 200;
/** What these find destroys parts at power-on: no reason outweighs that. */
const NEVER = new Set(["light-voltage", "supply-system", "mating"]);

export const mayBeSetAside = (f: Finding): boolean => f.severity !== "note" && !(f.severity === "stop" && NEVER.has(f.rule));

const worstFirst = <F extends Finding>(list: F[]): F[] => [...list].sort((a, b) => WEIGHT[a.severity] - WEIGHT[b.severity]);

const couldStops = new LRUCache<string, Finding[]>({ max: 300 });
/** Trying the ends of what is assumed takes a while: kept for as long as nothing of the parts is otherwise. */
function couldStopKept(graph: Graph): Finding[] {
  const { parts, partTypes } = graph.build;
  const figures = partTypes.flatMap((t) => (t.figures && isProvisional(t) ? [[t.id, t.figures]] : []));
  if (figures.length === 0) return [];
  const key = createHash("sha256")
    .update(JSON.stringify([parts, figures, partTypes.map((t) => [t.id, t.revision])]))
    .digest("base64url");
  const had = couldStops.get(key) ?? couldStop(graph);
  couldStops.set(key, had);
  return had;
}

/** Every finding of a job: of its parts, and once it is planned of its wiring as planned and as plugged. */
export function findingsOf(graph: Graph, planned: boolean): { parts: Finding[]; wiring: Finding[] } {
  const parts = [...withTriedWays(graph, checkParts(graph)), ...couldStopKept(graph)];
  const known = new Set(parts.map((f) => f.id));
  // What no part has a port for is said of the parts; that its plug stays free is the same fact.
  const said = new Set(parts.filter((f) => f.rule === "port-missing").flatMap((f) => f.ends[0] ?? []));
  const isNew = (f: Finding) => !known.has(f.id) && !(f.rule === "free-leads" && said.has(f.ends[0] ?? ""));
  return { parts, wiring: planned ? withJudgedRemedies(graph, checkAll(graph)).filter(isNew) : [] };
}

/** Holds for the same finding while it is no more serious than it was. */
export const covers = (o: OverrideRow, f: Finding) =>
  o.finding === f.id.slice(0, 500) && WEIGHT[f.severity] >= WEIGHT[o.severity as Finding["severity"]];

export function withSetAside(list: readonly Finding[], rows: readonly OverrideRow[]): JobFinding[] {
  return worstFirst(
    list.map((f): JobFinding => {
      const o = rows.findLast((r) => covers(r, f));
      return o && f.severity !== "note" ? { ...f, severity: "note", setAside: asShown(o, true) } : { ...f, mayBeSetAside: mayBeSetAside(f) };
    }),
  );
}

const asShown = (o: OverrideRow, still: boolean): SetAside => ({
  reason: o.reason,
  by: o.by.name,
  at: o.at.toISOString(),
  severity: o.severity as Finding["severity"],
  message: o.message,
  still,
});

/** All that was ever set aside on this job, the oldest first. */
export const allSetAside = (list: readonly Finding[], rows: readonly OverrideRow[]): SetAside[] =>
  rows.map((o) =>
    asShown(
      o,
      list.some((f) => covers(o, f)),
    ),
  );

export const overridesOf = (em: EntityManager, jobId: string): Promise<OverrideRow[]> =>
  em.find(Row, { job: jobId }, { orderBy: { at: "asc", id: "asc" }, populate: ["by"], limit: MOST_SET_ASIDE }) as Promise<OverrideRow[]>;

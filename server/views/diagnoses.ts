import type { Answer, Happened } from "../../core/diagnose";
import { type EntityManager, Fault, Job } from "../../db";
import { diagnoseBeside } from "../faults/diagnose-thread";
import { sparesFor } from "../faults/spares";
import type { JobView } from "./job-view";
import { own } from "./slices/own";

/** So many faults of one job are worked out at once. */
const MOST_FAULTS = 8;
const MOST_CLOSED = 3000;

/** What was found in this shop, by kind and mode, and in how many machines that were started. */
async function foundHere(em: EntityManager): Promise<{ found: Record<string, number>; machines: number }> {
  const rows = await em.find(
    Fault,
    { state: "closed", causes: { $ne: null } },
    { fields: ["causes"], limit: MOST_CLOSED, orderBy: { closedAt: "desc" } },
  );
  const found: Record<string, number> = {};
  for (const r of rows) for (const c of r.causes ?? []) found[`${c.kind} ${c.mode}`] = (found[`${c.kind} ${c.mode}`] ?? 0) + 1;
  const machines = await em.count(Job, { stage: { $in: ["first-boot", "soak", "handed-over"] } });
  return { found, machines };
}

/** What was seen and done of a fault, in order; what is wrong because of another fault says nothing of it. */
export function happenedIn(v: Pick<JobView, "faults" | "seen">, fault: JobView["faults"][number]): Happened[] {
  const elsewhere = new Set(
    v.faults.flatMap((f) => (f.state === "open" && f.number !== fault.number && f.simulated === fault.simulated ? f.lines : [])),
  );
  const said = new Set(fault.events.flatMap((e) => e.line ?? []));
  // What was seen to work and does not any more: only what was seen since then is of the machine as it is now.
  const broke = !fault.simulated && fault.lines.some((l) => v.seen[l]?.first !== undefined);
  const all = [
    ...Object.entries(v.seen).flatMap(([line, s]) =>
      (s.simulated === true) !== fault.simulated || said.has(line) || elsewhere.has(line) || (broke && s.at < fault.openedAt)
        ? []
        : [{ at: s.at, first: 0, what: { line, value: s.value } as Happened }],
    ),
    ...fault.events.flatMap((e) =>
      e.line
        ? [{ at: e.at, first: 1, what: { line: e.line, value: e.value ?? "" } as Happened }]
        : e.deed && e.result
          ? [{ at: e.at, first: 2, what: { deed: e.deed, result: e.result } as Happened }]
          : [],
    ),
  ];
  return all.sort((a, b) => (a.at < b.at ? -1 : a.at > b.at ? 1 : a.first - b.first)).map((x) => x.what);
}

/** What is to blame for each open fault of a job, by its number. */
export async function diagnosesOf(em: EntityManager, v: JobView): Promise<Record<number, Answer>> {
  const open = v.faults.filter((f) => f.state === "open").slice(0, MOST_FAULTS);
  if (open.length === 0) return {};
  const spares = await sparesFor(em, v.build);
  const asked = { build: own(v.build), ...(await foundHere(em)), ...(spares ? { spares } : {}) };
  const answers = await diagnoseBeside({ ...asked, faults: open.map((f) => happenedIn(v, f)) });
  return Object.fromEntries(open.flatMap((f, i) => (answers?.[i] ? [[f.number, answers[i]]] : [])));
}

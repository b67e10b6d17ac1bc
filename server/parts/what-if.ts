import { z } from "zod";
import { type Build, Policy } from "../../core/assembly";
import { comparePlans, type Plan, type PlanDifference } from "../../core/plan";
import { alternatives, type Change, withTypes } from "../../core/whatif";
import { type EntityManager, ShelfType } from "../../db";
import { buildOfJob, findJob, type JobBuild } from "../build/build-of-job";
import { entryOf } from "../build/parts-of-job";
import { no, type Result, yes } from "../kernel/result";
import { JobNumber, PartKey, TypeId } from "../kernel/text";
import { planInThread } from "../plan/plan-thread";
import { SchoolsPicked } from "../schools/follow";
import { query } from "../unit/action";

export type WiringRows = PlanDifference;

/** Parts changed in the copy, each with the type that stands in its place. */
export const Trial = z
  .array(z.object({ part: PartKey, type: TypeId, adds: z.boolean().optional() }))
  .max(12, "at most 12 parts; keep or drop these first");

export interface AlternativeRow {
  id: string;
  /** What is changed for it: matched parts together, or one part more. */
  changes: { part: string; type: string; adds?: boolean | undefined }[];
  name: string;
  helps: boolean;
  stops: number;
  better: string[];
  worse: string[];
}

export const Alternatives = z.object({ number: JobNumber, part: PartKey, trial: Trial.default([]) });

async function changes(em: EntityManager, b: JobBuild, trial: z.infer<typeof Trial>): Promise<Result<Change[]>> {
  const rows = await em.find(ShelfType, { id: { $in: trial.map((t) => t.type) } }, { limit: 20 });
  const types = new Map(rows.map((r) => [r.id, entryOf(r.body)]));
  const out: Change[] = [];
  for (const t of trial) {
    const type = types.get(t.type);
    const part = b.build.parts.find((p) => p.id === t.part);
    if (!part && !t.adds) return no(`${b.job.number} has no part ${t.part} any more. Look at the parts again.`);
    if (part && t.adds) return no(`${b.job.number} has a part ${t.part} already. Look at the parts again.`);
    if (!type) return no(`The shelf has no part type ${t.type} any more. Look at the shelf again.`);
    if (part && type.kind !== b.types(part.type)?.kind) return no(`${type.name} is a ${type.kind} and cannot stand in for ${part.label ?? part.id}.`);
    out.push({ part: t.part, type, adds: t.adds });
  }
  return yes(out);
}

/** Kinds that may bring ports which a part lacks. */
const BESIDE = ["card", "adapter", "hub", "usb-hub"];

/** Every type of the shelf in place of one part, beside the job as it is, with what else was changed in the copy; those that help first. */
export const alternativesFor = query({
  name: "parts.alternatives",
  input: Alternatives,
  run: async (em, a): Promise<Result<AlternativeRow[]>> => {
    const job = await findJob(em, a.number);
    if (!job) return no(`There is no job ${a.number}.`);
    const b = await buildOfJob(em, job);
    const part = b.build.parts.find((p) => p.id === a.part);
    const was = part && b.types(part.type);
    if (!was) return no(`${a.number} has no part ${a.part} any more. Look at the parts again.`);
    const others = await changes(
      em,
      b,
      a.trial.filter((t) => t.part !== a.part),
    );
    if (!others.ok) return others;
    const shelf = await em.find(ShelfType, { kind: was.kind }, { limit: 400, orderBy: { id: "asc" } });
    const beside = await em.find(ShelfType, { kind: { $in: BESIDE.filter((k) => k !== was.kind) } }, { limit: 400, orderBy: { id: "asc" } });
    const list = alternatives(
      b.build,
      b.types,
      a.part,
      [...shelf, ...beside].map((s) => entryOf(s.body)),
      others.value,
    );
    return yes(
      list.slice(0, 40).map((x) => ({
        id: `${x.type.id}${x.changes[0]?.adds ? "+" : ""}`,
        changes: x.changes.map((c) => ({ part: c.part, type: c.type.id, ...(c.adds ? { adds: true } : {}) })),
        name: x.changes[0]?.adds ? `${x.type.name}, beside it` : x.changes.length > 1 ? `${x.changes.length} × ${x.type.name}` : x.type.name,
        helps: x.helps,
        stops: x.stops,
        better: [
          ...x.comparison.gone.filter((f) => f.severity !== "note").map((f) => `No longer: ${f.message}`),
          ...x.comparison.rows.filter((r) => r.way === "better").map((r) => `${r.what}: ${r.before}, then ${r.after}`),
        ],
        worse: [
          ...x.comparison.come.filter((f) => f.severity !== "note").map((f) => f.message),
          ...x.comparison.rows.filter((r) => r.way === "worse").map((r) => `${r.what}: ${r.before}, then ${r.after}`),
        ],
      })),
    );
  },
});

export const TryWiring = z.object({ number: JobNumber, trial: Trial.default([]), schools: SchoolsPicked.default({}) });

/** Both wirings planned from the parts alone, as the job is and as the copy would be, and what differs. Nothing is stored. */
export async function compareWirings(
  em: EntityManager,
  t: z.infer<typeof TryWiring>,
  make: (build: Build) => Promise<Plan>,
): Promise<Result<PlanDifference>> {
  const job = await findJob(em, t.number);
  if (!job) return no(`There is no job ${t.number}.`);
  const b = await buildOfJob(em, job);
  const changed = await changes(em, b, t.trial);
  if (!changed.ok) return changed;
  // What the last plan took from the shelf is planned anew on both sides, so that the two compare.
  const own = { ...b.build, connections: [], parts: b.build.parts.filter((p) => p.from === "client") };
  const other = withTypes(own, b.types, changed.value).build;
  const policy = Policy.parse({ ...own.policy, ...t.schools });
  const partTypes = [...own.partTypes.filter((x) => !changed.value.some((c) => c.type.id === x.id)), ...changed.value.map((c) => c.type)];
  try {
    const [before, after] = await Promise.all([make(own), make({ ...other, policy, partTypes })]);
    return yes(comparePlans(before, after));
  } catch (e) {
    return no(`The two wirings could not be planned: ${e instanceof Error ? e.message : String(e)}. Nothing was changed. Try again.`);
  }
}

export const tryWiring = query({ name: "parts.try-wiring", input: TryWiring, run: (em, t) => compareWirings(em, t, planInThread) });

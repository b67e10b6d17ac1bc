import { z } from "zod";
import { Policy } from "../core/assembly";
import { SCHOOLS } from "../core/wiring";
import type { EntityManager, TechnicianRow } from "../db";
import { log } from "./log";
import { done, no, type Result } from "./result";
import { withJob } from "./work";

/** Some of the schools; the others stay as they are. */
export const SchoolsPicked = z.strictObject({
  cooling: Policy.shape.cooling.unwrap().optional(),
  caseFans: Policy.shape.caseFans.unwrap().optional(),
  secondCpuPlug: Policy.shape.secondCpuPlug.unwrap().optional(),
  graphicsCables: Policy.shape.graphicsCables.unwrap().optional(),
  mainsV: Policy.shape.mainsV.unwrap().optional(),
});

export const SchoolsChange = z.object({ number: z.string().min(1).max(40), schools: SchoolsPicked });

const inWords = (id: string, answer: unknown): string => {
  const school = SCHOOLS.find((s) => s.id === id);
  const options: Record<string, string> = school?.options ?? {};
  return `${school?.word.toLowerCase() ?? id}: ${options[String(answer)] ?? String(answer)}`;
};

/** A job follows other schools than before. Its plan is stale then, unless it is the mains alone. */
export async function changeSchools(em: EntityManager, by: TechnicianRow, c: z.infer<typeof SchoolsChange>): Promise<Result> {
  return withJob(em, c, async (tx, job, b) => {
    const changed = Object.entries(c.schools).filter(([k, v]) => v !== undefined && b.build.policy[k as keyof typeof c.schools] !== v);
    if (changed.length === 0) return no("Nothing differs from what the job follows already.");
    job.policy = Policy.parse({ ...b.build.policy, ...Object.fromEntries(changed) });
    if (changed.some(([k]) => SCHOOLS.some((s) => s.id === k && s.movesPlugs))) job.partsRevision += 1;
    log(tx, job, by, "school", `Schools: ${changed.map(([k, v]) => inWords(k, v)).join(", ")}.`);
    return done();
  });
}

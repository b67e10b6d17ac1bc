import { powerOn } from "../../core/machine";
import { type EntityManager, Fault, Observation } from "../../db";
import { afterStart, openAfterStart } from "./after-start";
import type { JobBuild } from "./build-of-job";
import { findingsOf, overridesOf, withSetAside } from "./findings";
import { stepsOfJob } from "./steps-of-job";

const count = (n: number, one: string, many: string) => (n === 0 ? [] : [`${n} ${n === 1 ? one : many}`]);

/** What is open, each in a clause: what a hand-over has to answer for. */
export const openWords = (n: { stops: number; faults: number; steps: number; lines: number }, after: ReturnType<typeof openAfterStart>): string[] => [
  ...count(n.stops, "stop", "stops"),
  ...count(n.faults, "open fault", "open faults"),
  ...count(n.steps, "step not done", "steps not done"),
  ...count(n.lines, "line of first boot not looked at", "lines of first boot not looked at"),
  ...count(after.setup, "setting or thing of the system open", "settings and things of the system open"),
  ...(after.soaked ? [] : ["no soak that held"]),
  ...count(after.promises, "promise not proved", "promises not proved"),
  ...after.mustBeOut.map((w) => `${w} is not out again`),
];

/** What is open in a job, from what is stored. */
export async function openIn(em: EntityManager, b: JobBuild): Promise<string[]> {
  const { parts, wiring } = findingsOf(b.graph, b.build.connections.length > 0);
  const found = withSetAside([...parts, ...wiring], await overridesOf(em, b.job.id));
  const { steps } = await stepsOfJob(em, b);
  // What a stand-in showed nobody has seen of the machine.
  const seen = new Set((await em.find(Observation, { job: b.job.id, simulated: false }, { limit: 1000 })).map((o) => o.line));
  return openWords(
    {
      stops: found.filter((f) => f.severity === "stop").length,
      faults: await em.count(Fault, { job: b.job.id, state: "open", simulated: false }),
      steps: steps.filter((s) => !s.done).length,
      lines: powerOn(b.graph).lines.filter((l) => !seen.has(l.id)).length,
    },
    openAfterStart(await afterStart(em, b)),
  );
}

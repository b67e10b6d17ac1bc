import { z } from "zod";
import { Policy } from "../../core/assembly";
import { WORK_SCHOOLS } from "../../core/order";
import { SCHOOLS } from "../../core/wiring";
import { lower } from "../../core/words";
import { done, no } from "../kernel/result";
import { Saw, seenOtherwise } from "../kernel/saw";
import { JobNumber } from "../kernel/text";
import { jobAction } from "../unit/action";

/** Some of the schools; the others stay as they are. */
export const SchoolsPicked = z.strictObject({
  cooling: Policy.shape.cooling.unwrap().optional(),
  caseFans: Policy.shape.caseFans.unwrap().optional(),
  secondCpuPlug: Policy.shape.secondCpuPlug.unwrap().optional(),
  graphicsCables: Policy.shape.graphicsCables.unwrap().optional(),
  mainsV: Policy.shape.mainsV.unwrap().optional(),
  benchTest: Policy.shape.benchTest.unwrap().optional(),
  rehearsal: Policy.shape.rehearsal.unwrap().optional(),
  coolerFirst: Policy.shape.coolerFirst.unwrap().optional(),
  supplyCables: Policy.shape.supplyCables.unwrap().optional(),
  cardTurn: Policy.shape.cardTurn.unwrap().optional(),
  dressing: Policy.shape.dressing.unwrap().optional(),
  sataData: Policy.shape.sataData.unwrap().optional(),
  driver: Policy.shape.driver.unwrap().optional(),
});

export const SchoolsChange = z.object({ number: JobNumber, schools: SchoolsPicked, saw: Saw });

const inWords = (id: string, answer: unknown) => {
  const work = WORK_SCHOOLS.find((s) => s.id === id);
  if (work) return { school: lower(work.word), answer: work.options[String(answer)]?.words ?? String(answer) };
  const school = SCHOOLS.find((s) => s.id === id);
  const options: Record<string, string> = school?.options ?? {};
  return { school: school ? lower(school.word) : id, answer: options[String(answer)] ?? String(answer) };
};

/** A job follows other schools than before. Its plan is stale then, unless it is the mains alone. */
export const changeSchools = jobAction({
  name: "job.schools",
  permission: "plan",
  input: SchoolsChange,
  run: async (unit, c) => {
    const { build } = await unit.build();
    const changed = Object.entries(c.schools).filter(([k, v]) => v !== undefined && build.policy[k as keyof typeof c.schools] !== v);
    const two = seenOtherwise(
      c.saw,
      changed.map(([id, now]) => {
        const field = id as keyof typeof c.schools;
        return { field, word: inWords(id, now).school, is: build.policy[field], now, words: (v) => inWords(id, v).answer };
      }),
    );
    if (two) return two;
    if (changed.length === 0) return no("Nothing differs from what the job follows already.");
    unit.job.policy = Policy.parse({ ...build.policy, ...Object.fromEntries(changed) });
    if (changed.some(([k]) => SCHOOLS.some((s) => s.id === k && s.movesPlugs))) unit.partsChanged();
    unit.emit("schools", { changes: changed.map(([k, v]) => inWords(k, v)) });
    return done();
  },
});

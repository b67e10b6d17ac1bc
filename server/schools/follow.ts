import { z } from "zod";
import { Policy } from "../../core/assembly";
import { SCHOOLS, type SchoolId, schoolInWords } from "../../core/schools";
import { done, no } from "../kernel/result";
import { Saw, seenOtherwise } from "../kernel/saw";
import { JobNumber } from "../kernel/text";
import { jobAction } from "../unit/action";

/** Some of the schools; the others stay as they are. */
const answers = <K extends SchoolId>(id: K) => Policy.shape[id].unwrap().optional();
type Picked = { [K in SchoolId]: ReturnType<typeof answers<K>> };
export const SchoolsPicked = z.strictObject(Object.fromEntries(SCHOOLS.map((s) => [s.id, answers(s.id)])) as Picked);

export const SchoolsChange = z.object({ number: JobNumber, schools: SchoolsPicked, saw: Saw });

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
        return { field, word: schoolInWords(id, now).school, is: build.policy[field], now, words: (v) => schoolInWords(id, v).answer };
      }),
    );
    if (two) return two;
    if (changed.length === 0) return no("Nothing differs from what the job follows already.");
    unit.job.policy = Policy.parse({ ...build.policy, ...Object.fromEntries(changed) });
    if (changed.some(([k]) => SCHOOLS.some((s) => s.id === k && s.movesPlugs))) unit.partsChanged();
    unit.emit("schools", { changes: changed.map(([k, v]) => schoolInWords(k, v)) });
    return done();
  },
});

import { z } from "zod";
import { Observation } from "../../db";
import { done, no } from "../kernel/result";
import { JobNumber, text } from "../kernel/text";
import { jobAction } from "../unit/action";
import { minutesOf, minutesSince } from "./minutes";

export const CloseFault = z.object({
  number: JobNumber,
  fault: z.number().int().min(1),
  finding: text(500).refine((s) => s.length >= 3, "say what it was, in three letters or more"),
});

export const closeFault = jobAction({
  name: "faults.close",
  permission: "record",
  input: CloseFault,
  run: async (unit, c) => {
    const f = (await unit.faults.open()).find((x) => x.number === c.fault);
    if (!f) return no(`Fault ${c.fault} is not open. Somebody may have closed it. Nothing was changed.`);
    unit.faults.note(f.number, { words: c.finding, result: "closed", minutes: await minutesSince(unit, f) });
    if (!f.simulated) f.minutes = await minutesOf(unit, f);
    unit.faults.close(f, c.finding);
    // A line is closed with its fault: what was seen was of the machine as it was, and is to be seen again.
    await unit.tx.nativeDelete(Observation, { job: unit.job.id, line: { $in: f.lines }, ...(f.simulated ? { simulated: true } : {}) });
    unit.emit("fault-closed", { number: f.number, finding: c.finding });
    return done();
  },
});

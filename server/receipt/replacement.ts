import { z } from "zod";
import { Fault, JobPart } from "../../db";
import { done, no } from "../kernel/result";
import { JobNumber, PartKey } from "../kernel/text";
import { findPart } from "../parts/find-part";
import { jobAction } from "../unit/action";
import { closeReturns } from "./returns";

export const Replacement = z.object({ number: JobNumber, part: PartKey });

/** The replacement is here: the part begins anew, the job goes on from where it stood, its old serial stays in the log. */
export const replacementCame = jobAction({
  name: "receipt.replacement",
  permission: "record",
  input: Replacement,
  run: async (unit, r) => {
    const found = await findPart(unit, r.part);
    if (!found.ok) return found;
    const { row, name } = found;
    const closed = await closeReturns(unit, r.part);
    if (row.testResult !== "dead" && closed === 0) return no(`${name} is not on its way back. Nothing was changed.`);
    unit.emit("replaced", { part: r.part, name, serial: row.serial ?? null });
    Object.assign(row, { serial: null, testResult: null, testedWith: null, arrivedAt: unit.when.happened });
    const others = await unit.tx.count(JobPart, { job: unit.job.id, testResult: "dead", id: { $ne: row.id } });
    if (others === 0 && unit.job.stage === "waiting") unit.stage.to("arrived");
    const faults = await unit.tx.find(
      Fault,
      { job: unit.job.id, line: "bench-test", state: "open", title: `${name} dead on arrival` },
      { limit: 50 },
    );
    for (const f of faults) {
      unit.faults.close(f, "Replaced under warranty.");
      unit.emit("fault-closed", { number: f.number, finding: "Replaced under warranty" });
    }
    return done();
  },
});

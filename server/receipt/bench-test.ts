import { z } from "zod";
import { done, no } from "../kernel/result";
import { Day, JobNumber, line, PartKey } from "../kernel/text";
import { findPart } from "../parts/find-part";
import { jobAction } from "../unit/action";
import { sendBack } from "./returns";

export const BenchTest = z.object({
  number: JobNumber,
  part: PartKey,
  result: z.enum(["passed", "dead"]),
  with: line(200).default(""),
  waitUntil: Day.nullable().optional(),
});

/** The test before assembly, with which known-good spare. A dead part starts a return: the job waits for its replacement. */
export const benchTest = jobAction({
  name: "receipt.bench-test",
  permission: "record",
  input: BenchTest,
  run: async (unit, t) => {
    const found = await findPart(unit, t.part);
    if (!found.ok) return found;
    const { row, name } = found;
    if (t.result === "dead") await sendBack(unit, row, name, { why: "dead", words: t.with ? `Tested with ${t.with}.` : "" });
    row.testResult = t.result;
    row.testedWith = t.with || null;
    if (t.result === "passed") {
      unit.emit("tested", { part: t.part, name, result: "passed", with: t.with });
      return done();
    }
    if (!t.waitUntil) return no("A dead part starts a return: say until when the replacement is due. Nothing was changed.");
    unit.stage.to("waits");
    const type = (await unit.build()).types(row.type);
    Object.assign(unit.job, { waitingFor: `a replacement ${type?.name ?? name}`, waitingUntil: t.waitUntil });
    const withWhat = t.with ? ` Tested with ${t.with}.` : "";
    const number = await unit.faults.add({
      line: "bench-test",
      title: `${name} dead on arrival`,
      expected: "passes the bench test",
      seen: `dead.${withWhat}`,
    });
    unit.emit("tested", { part: t.part, name, result: "dead", with: t.with, waitUntil: t.waitUntil });
    unit.emit("fault-opened", { number, what: `${name} dead on arrival` });
    return done();
  },
});

import { z } from "zod";
import { powerOn } from "../../core/machine";
import { Observation } from "../../db";
import { done, no } from "../kernel/result";
import { JobNumber, key } from "../kernel/text";
import { jobAction } from "../unit/action";

export const Try = z.object({ number: JobNumber, element: key(300), result: z.enum(["no change", "that was it"]) });

/** An action tried on all open faults at once: they are explained together. "That was it" closes them. */
export const tryOut = jobAction({
  name: "faults.try",
  permission: "record",
  input: Try,
  run: async (unit, t) => {
    const open = await unit.faults.open();
    if (open.length === 0) return no("There is no open fault to try this on. Nothing was stored.");
    const lines = powerOn((await unit.build()).graph).lines;
    const element = lines.flatMap((l) => l.leans).find((e) => e.id === t.element);
    if (!element) return no("What was tried is no longer part of this machine: the wiring changed. Nothing was stored. Look at the faults again.");
    const explained = open.filter((f) => lines.find((l) => l.id === f.line)?.leans.some((e) => e.id === t.element));
    for (const f of explained)
      f.tried = [...f.tried, { element: t.element, name: element.name, result: t.result, at: unit.when.happened.toISOString() }];
    const closed = t.result === "that was it" ? explained : [];
    for (const f of closed) {
      unit.faults.close(f, element.name);
      // The old symptoms were about the machine as it was: these lines are to be seen again.
      await unit.tx.nativeDelete(Observation, { job: unit.job.id, line: f.line });
    }
    unit.emit("tried", { element: t.element, name: element.name, result: t.result, closed: closed.map((f) => f.number) });
    return done();
  },
});

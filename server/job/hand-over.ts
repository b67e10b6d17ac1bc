import { z } from "zod";
import { openIn } from "../build/open-in";
import { done, no } from "../kernel/result";
import { JobNumber, text } from "../kernel/text";
import { jobAction } from "../unit/action";

export const HandOver = z.object({
  number: JobNumber,
  /** Why it goes with something open. */
  reason: text(500).default(""),
});

/** The machine goes to its client, and the job is closed. With something open it needs a reason. */
export const handOver = jobAction({
  name: "job.hand-over",
  permission: "record",
  input: HandOver,
  run: async (unit, h) => {
    const open = await openIn(unit.tx, await unit.build());
    if (open.length > 0 && h.reason.length < 5)
      return no(`Something is open: ${open.join("; ")}. Nothing was changed. Finish it, or write why it goes like this.`);
    unit.stage.to("handed over");
    unit.emit("handed-over", { open, reason: h.reason });
    return done();
  },
});

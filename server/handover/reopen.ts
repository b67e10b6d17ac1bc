import { z } from "zod";
import { isClosed } from "../../core/job";
import { done, no } from "../kernel/result";
import { JobNumber, text } from "../kernel/text";
import { jobAction } from "../unit/action";

export const Reopen = z.object({ number: JobNumber, reason: text(500).refine((s) => s.length >= 5, "say why, in five letters or more") });

/** A machine that came back: the job is open again. */
export const reopen = jobAction({
  name: "job.reopen",
  permission: "record",
  input: Reopen,
  onClosed: true,
  run: async (unit, r) => {
    if (!isClosed(unit.stage.now())) return no("It was neither handed over nor cancelled. Nothing was changed.");
    unit.stage.to("reopened");
    unit.emit("reopened", { reason: r.reason });
    return done();
  },
});

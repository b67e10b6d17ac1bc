import { z } from "zod";
import { done, no } from "../kernel/result";
import { Day, JobNumber, line, text } from "../kernel/text";
import { jobAction } from "../unit/action";

/** The job waits: for what, and until when if that is known. */
export const park = jobAction({
  name: "job.park",
  permission: "run jobs",
  input: z.object({
    number: JobNumber,
    for: line(200).refine((s) => s.length > 0, "say what it waits for"),
    until: Day.nullable().default(null),
  }),
  run: async (unit, p) => {
    if (unit.stage.now() === "waiting")
      return no(`It waits already, for ${unit.job.waitingFor ?? "a delivery"}. Nothing was changed. Let it go on first.`);
    unit.stage.to("waits");
    Object.assign(unit.job, { waitingFor: p.for, waitingUntil: p.until });
    unit.emit("waiting", { for: p.for, until: p.until });
    return done();
  },
});

/** What it waited for is here, or nobody waits for it any longer. */
export const goOn = jobAction({
  name: "job.go-on",
  permission: "run jobs",
  input: z.object({ number: JobNumber }),
  run: async (unit) => {
    if (unit.stage.now() !== "waiting") return no("It does not wait. Nothing was changed.");
    unit.emit("goes-on", { to: unit.stage.to("arrived") });
    return done();
  },
});

/** Nothing more is built. What the shelf had promised to it is free again, for a job that is closed takes nothing. */
export const cancel = jobAction({
  name: "job.cancel",
  permission: "end jobs",
  input: z.object({ number: JobNumber, reason: text(500).refine((s) => s.length >= 5, "say why, in five letters or more") }),
  run: async (unit, c) => {
    unit.stage.to("cancelled");
    unit.job.bench = null;
    // What the shelf had promised it is there for others.
    await unit.tx.execute(`update "shop" set "shelf_revision" = "shelf_revision" + 1 where "id" = 1`);
    unit.emit("cancelled", { reason: c.reason });
    return done();
  },
});

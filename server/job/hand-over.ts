import { z } from "zod";
import { jobAction } from "../kernel/action";
import { done, no } from "../kernel/result";
import { JobNumber, text } from "../kernel/text";
import { openIn } from "../read/open-in";

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

export const Reopen = z.object({ number: JobNumber, reason: text(500).refine((s) => s.length >= 5, "say why, in five letters or more") });

/** A machine that came back: the job is open again. */
export const reopen = jobAction({
  name: "job.reopen",
  permission: "record",
  input: Reopen,
  onClosed: true,
  run: async (unit, r) => {
    if (unit.stage.now() !== "handed-over") return no("It was not handed over. Nothing was changed.");
    unit.stage.to("reopened");
    unit.emit("reopened", { reason: r.reason });
    return done();
  },
});

export const Soak = z.object({ number: JobNumber });

/** The soak begins: everything was looked at. */
export const startSoak = jobAction({
  name: "job.soak",
  permission: "record",
  input: Soak,
  run: async (unit) => {
    if (unit.stage.now() !== "first-boot") return no("The soak comes after first boot. Nothing was changed. Look at the first-boot sheet first.");
    unit.stage.to("soaks");
    unit.emit("soaking", {});
    return done();
  },
});

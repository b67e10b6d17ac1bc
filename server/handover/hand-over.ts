import { z } from "zod";
import { may } from "../kernel/actor";
import { done, no, type Result } from "../kernel/result";
import { JobNumber, line, text } from "../kernel/text";
import { jobAction } from "../unit/action";
import { leavingOf } from "./leaving";
import { readyOf } from "./recorded";

export const HandOver = z.object({
  number: JobNumber,
  /** Why it goes as it is. */
  reason: text(500).default(""),
  /** Who took it: collected by, or handed to which carrier under which number. */
  who: line(120).default(""),
  saw: text(500).default(""),
  carrier: line(120).default(""),
  tracking: line(120).default(""),
});

const MOST_SAID = 4;

/**
 * The machine goes to its client, and the job is closed. As it is, with something missing, it takes a lead and a reason; with something of
 * the shop's own in it, or with a safety test that failed, it does not leave at all.
 */
export const handOver = jobAction({
  name: "job.hand-over",
  permission: "record",
  input: HandOver,
  run: async (unit, h): Promise<Result> => {
    const { missing } = await readyOf(unit.tx, unit.job, await unit.build());
    const stays = missing.filter((m) => m.stays);
    if (stays.length > 0) return no(`It does not leave the shop: ${stays.map((m) => m.what).join(" ")} Nothing was changed.`);
    if (missing.length > 0) {
      const what = `${missing
        .slice(0, MOST_SAID)
        .map((m) => m.what)
        .join(" ")}${missing.length > MOST_SAID ? ` And ${missing.length - MOST_SAID} more.` : ""}`;
      if (!may(unit.actor, "end jobs"))
        return no(`Something is missing: ${what} Nothing was changed. Finish it, or ask a lead to let it go as it is.`);
      if (h.reason.length < 5) return no(`Something is missing: ${what} Nothing was changed. Finish it, or write why it goes as it is.`);
    }
    const taken = { who: h.who, saw: h.saw, carrier: h.carrier, tracking: h.tracking, by: unit.actor.name, at: unit.when.happened.toISOString() };
    unit.job.leaving = { ...leavingOf(unit.job.leaving), taken } as Record<string, unknown>;
    unit.stage.to("handed over");
    unit.emit("handed-over", { open: missing.map((m) => m.what.replace(/\.$/, "")), reason: h.reason });
    return done();
  },
});

import { z } from "zod";
import { numberIn, stateOf } from "../../core/setup";
import { SetupRow } from "../../db";
import { setupOfJob } from "../build/setup-of-job";
import { done, no, type Result } from "../kernel/result";
import { JobNumber, key, line } from "../kernel/text";
import { jobAction } from "../unit/action";

export const SetUp = z.object({
  number: JobNumber,
  item: key(200),
  state: z.enum(["set", "later", "not"]),
  /** As it was, and as it is. */
  before: line(120).default(""),
  after: line(200).default(""),
  why: line(300).default(""),
  /** How it stood when somebody began; somebody else's word is not overwritten. */
  saw: z.object({ state: z.enum(["set", "later", "not"]), after: z.string().max(200) }).nullable(),
});

/** One thing of the set-up: set, with before and after; put off; or not done, with why. */
export const setUp = jobAction({
  name: "boot.set-up",
  permission: "record",
  input: SetUp,
  run: async (unit, s): Promise<Result> => {
    const item = (await setupOfJob(unit.tx, await unit.build())).find((i) => i.id === s.item);
    if (!item) return no("That is no longer to be set up in this machine. Nothing was kept. Look again.");
    if (s.state === "not" && s.why === "") return no(`Why is it not done? Nothing was kept. Write it down: it stands in the paper for the client.`);
    if (s.state === "set" && item.value !== undefined && Number.isNaN(numberIn(s.after)))
      return no(`How is ${item.what} now? Nothing was kept. Write down what it reads.`);
    const row = await unit.tx.findOne(SetupRow, { job: unit.job.id, item: s.item });
    if ((row?.state ?? null) !== (s.saw?.state ?? null) || (row?.after ?? "") !== (s.saw?.after ?? ""))
      return no(
        `Somebody wrote down ${item.what} meanwhile: ${row ? `${row.state}${row.after ? `, ${row.after}` : ""}` : "taken back"}. Nothing was changed.`,
      );
    const now = {
      target: item.target,
      state: s.state,
      before: s.before || row?.before || "",
      after: s.after,
      why: s.why,
      by: unit.by,
      at: unit.when.happened,
    };
    if (row) Object.assign(row, now);
    else unit.tx.create(SetupRow, { job: unit.job, item: s.item, ...now });
    const stands = stateOf(item, now);
    // The expected speed of memory follows what was set.
    if (item.id === "memory-profile" && s.state === "set") {
      const { settings } = (await unit.build()).build;
      unit.job.settings = { ...settings, memoryProfile: stands === "as wanted" };
    }
    unit.emit("set-up", { what: item.what, target: item.target, state: s.state, before: now.before, after: s.after, why: s.why, stands });
    return done();
  },
});

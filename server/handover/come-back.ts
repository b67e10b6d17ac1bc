import { z } from "zod";
import { isClosed } from "../../core/job";
import { columnsOf, Job } from "../../db";
import { nextNumber } from "../job/number";
import { no, type Result, yes } from "../kernel/result";
import { JobNumber, text } from "../kernel/text";
import { jobAction } from "../unit/action";
import { JobUnit, jobRead } from "../unit/unit";

/** What of an earlier job the machine still is: its parts, its plugs, what was done to it. */
const AS_BUILT = ["job_part", "connection", "step_done"] as const;

/**
 * A machine that was handed over is here again: a job of its own, which begins with the machine as it left, closed and plugged. What was
 * seen then is seen anew.
 */
export const comeBack = jobAction({
  name: "job.come-back",
  permission: "run jobs",
  input: z.object({ number: JobNumber, says: text(500).refine((s) => s.length >= 3, "write what the client says, in three letters or more") }),
  onClosed: true,
  run: async (unit, c): Promise<Result<string>> => {
    const { tx, job } = unit;
    if (!isClosed(unit.stage.now())) return no(`${c.number} is in work: its machine has not left. Nothing was changed.`);
    if (job.stage === "cancelled") return no(`${c.number} was cancelled: no machine of it left. Nothing was changed.`);
    const open = (await tx.find(Job, { serviceOf: job.id }, { limit: 200 })).find((j) => j.stage !== "handed-over" && j.stage !== "cancelled");
    if (open) return no(`The machine is here already, as ${open.number}. Nothing was changed. Open that job.`);
    const number = await nextNumber(tx);
    const made = tx.create(Job, {
      number,
      client: job.client,
      title: job.title,
      purpose: c.says.slice(0, 300),
      stage: "first-boot",
      technician: unit.by,
      policy: job.policy,
      settings: job.settings,
      wishes: job.wishes,
      ways: job.ways,
      pulled: job.pulled,
      brief: { ...(job.brief as object), promises: [], extras: [], mail: "" },
      serviceOf: job,
      aside: [],
      partsRevision: 1,
      version: 1,
      revision: 1,
      createdAt: unit.when.happened,
    });
    await tx.flush();
    for (const table of AS_BUILT) {
      const list = (await columnsOf(tx, table))
        .filter((c) => c !== "id" && c !== "job_id")
        .map((c) => `"${c}"`)
        .join(", ");
      // What was only planned never was in it.
      const only = table === "connection" ? `and "state" in ('plugged', 'checked')` : "";
      await tx.execute(
        `insert into "${table}" ("id", "job_id", ${list}) select gen_random_uuid(), ?, ${list} from "${table}" where "job_id" = ? ${only}`,
        [made.id, job.id],
      );
    }
    const own = new JobUnit(tx, unit.actor, unit.when, jobRead(made), undefined);
    own.emit("came-back", { of: job.number, says: c.says });
    await own.keepEvents();
    unit.emit("in-service", { number, says: c.says });
    return yes(number);
  },
});

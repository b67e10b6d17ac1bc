import { z } from "zod";
import { ProofRow, SetupRow } from "../../db";
import { promisesOf, setupOfJob } from "../build/setup-of-job";
import { no, type Result, yes } from "../kernel/result";
import { JobNumber, key, line } from "../kernel/text";
import { jobAction } from "../unit/action";

/** Several things at once for which there was no time: each is said as not done, with why. What somebody wrote down meanwhile stays. */
export const notDone = jobAction({
  name: "boot.not-done",
  permission: "record",
  input: z.object({
    number: JobNumber,
    items: z.array(key(200)).max(200),
    promises: z.array(z.object({ about: line(40), words: line(500) })).max(100),
    why: line(300).refine((s) => s.length > 0, "say why: it stands in the paper for the client"),
  }),
  run: async (unit, { items, promises, why }): Promise<Result<number>> => {
    const { tx, job } = unit;
    const known = new Map((await setupOfJob(tx, await unit.build())).map((i) => [i.id, i]));
    const has = new Set((await tx.find(SetupRow, { job: job.id }, { limit: 400 })).map((r) => r.item));
    let said = 0;
    for (const id of items) {
      const item = known.get(id);
      // What must be out of the machine is never merely said as not done.
      if (!item || item.mustBeOut || has.has(id)) continue;
      said++;
      tx.create(SetupRow, { job, item: id, target: item.target, state: "not", before: "", after: "", why, by: unit.by, at: unit.when.happened });
      unit.emit("set-up", { what: item.what, target: item.target, state: "not", before: "", after: "", why, stands: "not done" });
    }
    const proofs = await tx.find(ProofRow, { job: job.id }, { limit: 200 });
    for (const p of promisesOf(job.brief)) {
      if (!promises.some((x) => x.about === p.about && x.words === p.words)) continue;
      if (proofs.some((r) => r.about === p.about && r.words === p.words)) continue;
      said++;
      const body = { result: "not tested", conditions: "", why };
      tx.create(ProofRow, { job, about: p.about, words: p.words, body, by: unit.by, at: unit.when.happened });
      unit.emit("proved", { words: p.words, verdict: "not tested", because: why, conditions: "" });
    }
    return said === 0 ? no("Nothing of it is still open. Nothing was changed.") : yes(said);
  },
});

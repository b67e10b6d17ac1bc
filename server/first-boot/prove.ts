import { z } from "zod";
import { type Proof, verdictOf } from "../../core/proof";
import { ProofRow } from "../../db";
import { promisesOf } from "../build/setup-of-job";
import { done, no, type Result } from "../kernel/result";
import { JobNumber, line, text } from "../kernel/text";
import { jobAction } from "../unit/action";

const Given = z.strictObject({
  result: z.enum(["measured", "seen", "not kept", "not tested"]),
  value: z.number().min(0).max(100_000).optional(),
  worst1: z.number().min(0).max(100_000).optional(),
  pixels: z.number().int().min(1).max(200_000_000).optional(),
  conditions: text(500).default(""),
  why: line(300).default(""),
});

export const Prove = z.object({ number: JobNumber, about: line(40), words: line(500), proof: Given });

/** What came of one thing that was promised: measured, seen, not kept, or not tested with why. */
export const prove = jobAction({
  name: "boot.prove",
  permission: "record",
  input: Prove,
  run: async (unit, p): Promise<Result> => {
    const promise = promisesOf(unit.job.brief).find((x) => x.about === p.about && x.words === p.words);
    if (!promise) return no("That is not promised any more. Nothing was kept. Look again.");
    const { result, why, value } = p.proof;
    if ((result === "not tested" || result === "not kept") && why === "")
      return no("Write why: it stands in the paper for the client. Nothing was kept.");
    if (result === "measured" && value === undefined) return no("What was measured? Nothing was kept. Give the number, or say that it was seen.");
    const row = await unit.tx.findOne(ProofRow, { job: unit.job.id, about: p.about, words: p.words });
    const now = { body: p.proof, by: unit.by, at: unit.when.happened };
    if (row) Object.assign(row, now);
    else unit.tx.create(ProofRow, { job: unit.job, about: p.about, words: p.words, ...now });
    const { verdict, because } = verdictOf(promise, p.proof as Proof);
    unit.emit("proved", { words: p.words, verdict, because, conditions: p.proof.conditions });
    return done();
  },
});

import { z } from "zod";
import { done, type Result } from "../kernel/result";
import { JobNumber, key, text } from "../kernel/text";
import { jobAction } from "../unit/action";
import type { JobUnit } from "../unit/unit";
import { skip } from "./took";

export const Note = z.object({
  number: JobNumber,
  text: text(2000).refine((s) => s.length > 0, "write something"),
  kind: z.enum(["note", "skip", "problem"]),
  /** The step it is about. */
  step: key(200).optional(),
});

const KIND = { note: "note", skip: "skipped", problem: "problem" } as const;

/** A note to a job or one of its steps; a problem opens a fault. */
export const note = jobAction({
  name: "bench.note",
  permission: "record",
  input: Note,
  onClosed: true,
  onlyTells: (n) => n.kind === "note",
  run: (unit, n) => say(unit, n),
});

/** One thing said of a step or of the whole job. */
export async function say(unit: JobUnit, n: z.infer<typeof Note>): Promise<Result> {
  const title = n.step && (await unit.step(n.step))?.title;
  const said = title ? `${title}: ${n.text}` : n.text;
  unit.emit(KIND[n.kind], { text: said });
  if (n.kind === "skip" && n.step && title) await skip(unit, n.step, n.text);
  if (n.kind === "problem") {
    const number = await unit.faults.add({ line: "bench", title: said, expected: "", seen: n.text });
    unit.emit("fault-opened", { number, what: said.length > 120 ? `${said.slice(0, 119)}…` : said });
  }
  return done();
}

import { z } from "zod";
import { done, no, type Result } from "../kernel/result";
import { Day, JobNumber, key, line, text } from "../kernel/text";
import { jobAction } from "../unit/action";
import type { JobUnit } from "../unit/unit";
import { type Leaving, leavingOf } from "./leaving";
import { type ReadyView, readyOf } from "./recorded";

const of = { number: JobNumber };
const said = (what: string) => text(500).refine((s) => s.length >= 3, `say ${what}, in three letters or more`);

export const Prepare = z.union([
  z.strictObject({ ...of, way: z.enum(["collected", "travels"]) }),
  /** What the client said to a difference from what was sold. */
  z.strictObject({ ...of, line: key(1500), words: said("what was said"), who: key(120), on: Day }),
  z.strictObject({ ...of, bag: key(400), seen: z.boolean() }),
  z.strictObject({ ...of, packed: key(200), done: z.boolean() }),
  z.strictObject({ ...of, safety: z.enum(["passed", "failed"]), with: line(200).refine((s) => s.length > 0, "say with what it was tested") }),
]);
type Prepare = z.infer<typeof Prepare>;

const WAY = { collected: "it is collected", travels: "it travels" } as const;

/** One thing of how a machine leaves, on record with who and when. */
export const prepare = jobAction({
  name: "handover.prepare",
  permission: "record",
  input: Prepare,
  run: async (unit, p): Promise<Result> => {
    const leaving = leavingOf(unit.job.leaving);
    const by = { by: unit.actor.name, at: unit.when.happened.toISOString() };
    // What the way asks for is another list then; what was done of it stays on record.
    const told = "way" in p ? { what: "How it leaves", says: WAY[p.way], next: { ...leaving, way: p.way } } : await toldOf(unit, p, leaving, by);
    if (typeof told === "string") return no(told);
    unit.job.leaving = told.next as Record<string, unknown>;
    unit.emit("leaving", { what: told.what, says: told.says });
    return done();
  },
});

type Told = { what: string; says: string; next: Leaving };
type By = { by: string; at: string };

async function toldOf(unit: JobUnit, p: Exclude<Prepare, { way: unknown }>, leaving: Leaving, by: By): Promise<Told | string> {
  if ("safety" in p)
    return {
      what: "Electrical safety test",
      says: `${p.safety}, with ${p.with}`,
      next: { ...leaving, safety: { result: p.safety, with: p.with, ...by } },
    };
  const now = await readyOf(unit.tx, unit.job, await unit.build());
  if ("line" in p) return wordOn(unit, p, leaving, by, now);
  if ("bag" in p) {
    if (!now.bag.some((b) => b.what === p.bag)) return `${p.bag} is not in the bag any more. Nothing was changed. Look at the list again.`;
    return { what: p.bag, says: p.seen ? "seen in the bag" : "not in the bag", next: { ...leaving, bag: ticked(leaving.bag, p.bag, p.seen, by) } };
  }
  const packing = now.packing.find((x) => x.id === p.packed);
  if (!packing) return "That is not asked for any more. Nothing was changed. Look at the list again.";
  return { what: packing.what, says: p.done ? "done" : "not done", next: { ...leaving, packed: ticked(leaving.packed, p.packed, p.done, by) } };
}

function wordOn(unit: JobUnit, p: Extract<Prepare, { line: string }>, leaving: Leaving, by: By, now: ReadyView): Told | string {
  const row = now.sold.find((r) => r.id === p.line);
  if (!row) return "That line is not there any more: what was sold or what is in the machine changed. Nothing was stored. Look again.";
  if (row.state === "same" && row.cents === 0) return "That line is as it was sold: there is nothing to agree. Nothing was stored.";
  if (p.on > new Date(unit.when.arrived.getTime() + 86_400_000).toISOString().slice(0, 10)) return `${p.on} is still to come. Nothing was stored.`;
  return {
    what: row.sold === "" ? `${row.built}, not sold` : row.built === "" ? `${row.sold}, missing` : `${row.sold}, now ${row.built}`,
    says: `${p.words} (${p.who}, ${p.on})`,
    next: { ...leaving, words: { ...leaving.words, [p.line]: { words: p.words, who: p.who, on: p.on, ...by } } },
  };
}

function ticked(all: Readonly<Record<string, By>>, key: string, is: boolean, by: By): Record<string, By> {
  const { [key]: _, ...others } = all;
  return is ? { ...others, [key]: by } : others;
}

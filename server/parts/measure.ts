import { z } from "zod";
import { type Measured, measurable } from "../../core/catalogue";
import { done, no, type Result } from "../kernel/result";
import { Saw, seenOtherwise } from "../kernel/saw";
import { JobNumber, key, PartKey } from "../kernel/text";
import { jobAction } from "../unit/action";
import type { JobUnit } from "../unit/unit";
import { findPart } from "./find-part";

export const MeasurePart = z.object({
  number: JobNumber,
  part: PartKey,
  what: key(170),
  /** Null: what the entry says counts again. */
  mm: z.number().min(0).max(5000).nullable(),
  saw: Saw,
});

/** So many lengths of one part are kept. */
const MOST = 40;

/** What a hand measured on this very part counts instead of what its entry says. */
export const measurePart = jobAction({
  name: "parts.measure",
  permission: "change parts",
  input: MeasurePart,
  run: (unit, m) => measureOne(unit, m.part, m.what, m.mm, m.saw),
});

export async function measureOne(unit: JobUnit, part: string, what: string, mm: number | null, saw?: Saw): Promise<Result> {
  const found = await findPart(unit, part);
  if (!found.ok) return found;
  const { row, name } = found;
  const type = (await unit.build()).types(row.type);
  const length = type && measurable(type).find((x) => x.what === what);
  if (!length) return no(`${name} has no such length to measure any more. Nothing was changed.`);
  const { measured: known, ...placing } = row.placing as { measured?: Measured[] };
  const before = known ?? [];
  const was = before.find((x) => x.what === what)?.mm ?? length.mm ?? null;
  const measuredBy = before.find((x) => x.what === what)?.mm ?? null;
  const two = seenOtherwise(saw, [
    { field: "mm", word: `${length.word} of ${name}`, is: measuredBy, now: mm, words: (v) => (v === null ? "as its entry says" : `${v} mm`) },
  ]);
  if (two) return two;
  const others = before.filter((x) => x.what !== what);
  if (mm !== null && others.length >= MOST) return no(`${name} has ${MOST} measured lengths already. Nothing was changed.`);
  const measured = mm === null ? others : [...others, { what, mm }].sort((a, b) => (a.what < b.what ? -1 : 1));
  const next: Record<string, unknown> = measured.length > 0 ? { ...placing, measured } : placing;
  row.placing = next;
  unit.partsChanged();
  unit.emit("part-measured", { part, name, what, word: length.word, mm, was });
  return done();
}

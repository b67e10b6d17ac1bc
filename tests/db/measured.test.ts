import { describe, expect, it } from "vitest";
import { buildGraph } from "../../core/assembly";
import { clearances } from "../../core/fit";
import { buildOfJob } from "../../server/build/build-of-job";
import { takeBack } from "../../server/entries/take-back";
import { changePart } from "../../server/parts/change";
import { measurePart } from "../../server/parts/measure";
import { searchShelf, shelfEntry } from "../../server/shelf/search";
import { carryOut } from "../../server/unit/action";
import { jobOf, testDatabase } from "./setup";

const NUMBER = "FS-1041";
const db = testDatabase();
const graph = async () => {
  const b = await buildOfJob(db.em(), await jobOf(db.em(), NUMBER));
  return buildGraph(b.build, b.types);
};
const measure = async (part: string, what: string, mm: number | null) =>
  carryOut(db.em(), await db.by(), measurePart, { number: NUMBER, part, what, mm });

describe("a millimetre measured by hand", () => {
  it("counts at once, stands beside what the entry says, is offered to the shelf, and can be taken back", async () => {
    const g = await graph();
    const card = [...g.parts.values()].find((p) => p.type.kind === "card");
    const mm = card?.type.body.widthMm;
    if (!card || mm === undefined) throw new Error("FS-1041 has a card");
    const need = async () => clearances(await graph(), ["cards"]).find((c) => c.id === `card-length:${card.id}`)?.need;
    expect(await need()).toBe(mm);
    expect(await measure(card.id, "widthMm", mm + 4)).toMatchObject({ ok: true });
    expect(await need()).toBe(mm + 4);
    const said = (await db.view(NUMBER)).log[0]?.text;
    expect(said).toContain(`length measured, ${mm + 4} mm; ${mm} mm before.`);
    const entry = await shelfEntry(db.em(), card.type.id);
    expect(entry?.measured).toEqual([expect.objectContaining({ number: NUMBER, what: "widthMm", mm: mm + 4, says: mm })]);
    expect(await measure(card.id, "widthMm", mm + 6)).toMatchObject({ ok: true });
    expect(await carryOut(db.em(), await db.by(), takeBack, { number: NUMBER })).toMatchObject({ ok: true });
    expect(await need()).toBe(mm + 4);
    expect(await measure(card.id, "widthMm", null)).toMatchObject({ ok: true });
    expect(await need()).toBe(mm);
    expect((await shelfEntry(db.em(), card.type.id))?.measured).toEqual([]);
  });
  it("of a length or a part that is not there is refused in a sentence; another part has lost what was measured on the one before", async () => {
    expect(await measure("case", "no-such", 5)).toMatchObject({
      ok: false,
      sentence: expect.stringMatching(/has no such length to measure any more\. Nothing/),
    });
    expect(await measure("no-such", "widthMm", 5)).toMatchObject({ ok: false, sentence: expect.stringMatching(/has no part no-such any more/) });
    expect(await measure("case", "maxCardMm", -1)).toMatchObject({ ok: false });
    const card = [...(await graph()).parts.values()].find((p) => p.type.kind === "card");
    const other = (await searchShelf(db.em(), "", "card")).rows.find((r) => r.id !== card?.type.id);
    await measure(card?.id ?? "", "widthMm", 299);
    expect(await carryOut(db.em(), await db.by(), changePart, { number: NUMBER, part: card?.id, type: other?.id })).toMatchObject({ ok: true });
    expect((await graph()).parts.get(card?.id ?? "")?.part.measured).toBeUndefined();
  });
});

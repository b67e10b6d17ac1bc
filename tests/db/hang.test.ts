import { describe, expect, it } from "vitest";
import { placePart } from "../../server/parts/place";
import { carryOut } from "../../server/unit/action";
import { testDatabase } from "./setup";

const db = testDatabase();
const place = async (input: Record<string, unknown>) => carryOut(db.em(), await db.by(), placePart, { number: "FS-1041", ...input });
const mounts = async () => Object.fromEntries((await db.view("FS-1041")).build.parts.flatMap((p) => (p.mount ? [[p.id, p.mount]] : [])));

describe("where things hang", () => {
  it("a radiator goes to another place of the case with its fans, not onto what hangs there already, and back again", async () => {
    const before = await mounts();
    const shell = (await db.view("FS-1041")).build.partTypes.find((t) => t.kind === "case")?.body;
    const [at, other] = ["top", "front"].map((id) => shell?.radiatorPlaces.find((p) => p.id === id || p.label === id));
    if (!at || !other) throw new Error("the case has no two places");
    expect(at.mounts).toContain(before["rad-fan-1"]);
    expect(await place({ part: "cooler", mount: other.id })).toMatchObject({
      ok: false,
      sentence: expect.stringMatching(/^A mount at the front already holds .+ Move that first\. Nothing was changed\.$/),
    });
    expect(await mounts()).toEqual(before);
    for (const fan of ["fan-front-1", "fan-front-2", "fan-front-3"]) expect(await place({ part: fan, mount: null })).toMatchObject({ ok: true });
    expect(await place({ part: "cooler", mount: other.id })).toMatchObject({ ok: true });
    const moved = await mounts();
    for (const fan of ["rad-fan-1", "rad-fan-2", "rad-fan-3"]) expect(other.mounts).toContain(moved[fan]);
    expect((await db.view("FS-1041")).log[0]?.text).toMatch(/its radiator at the front, its fans with it\./);
    expect(await place({ part: "cooler", mount: at.id })).toMatchObject({ ok: true });
    expect(at.mounts).toContain((await mounts())["rad-fan-1"]);
    expect(await place({ part: "cooler", mount: "nowhere" })).toMatchObject({ ok: false, sentence: expect.stringContaining("no place nowhere") });
  });
  it.each([
    [{ part: "card", standoffsSet: true }, /is a card, of which nothing of the kind can be said \(standoffsSet\)/],
    [{ part: "hdd-1", blows: "out" }, /is a drive, of which/],
    [{ part: "case", cage: "the moon" }, /no place the moon for its drive cage/],
    [{ part: "card", mount: "rear-1" }, /does not hang there/],
  ] as const)("%j is refused in a sentence, and nothing is changed", async (input, words) => {
    const was = (await db.view("FS-1041")).head.revision;
    expect(await place(input)).toMatchObject({ ok: false, sentence: expect.stringMatching(words) });
    expect((await db.view("FS-1041")).head.revision).toBe(was);
  });
});

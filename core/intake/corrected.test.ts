import { describe, expect, it } from "vitest";
import { shelf } from "../../tests/fixtures/demo";
import { corrected, fromMail, keysOf, readMail, shelfIndex } from ".";

const index = shelfIndex(shelf);
const byId = new Map(shelf.map((t) => [t.id, t]));
const name = (id: string) => byId.get(id);

describe("what somebody corrects", () => {
  const text = "Hello,\nI would like it in blue.\n- Stellan Gorge board\n- Whirrow 120\n- Whirrow 120\n- 2 x Airbox thing";
  const mail = readMail(text, index, "2026-12-01");
  const key = (words: string, n = 0) => keysOf(mail.lines).filter((k) => k.includes(words))[n] ?? "";
  it("another type, another amount, new, no part, another kind: each line alone, whatever is typed above it", () => {
    const fixes = [
      { key: key("Stellan"), type: "tarnbrook-heron-t40" },
      { key: key("Whirrow", 1), count: 3 },
      { key: key("Airbox"), as: "part" as const, kind: "case" as const },
      { key: key("in blue"), as: "extra" as const },
    ];
    for (const more of ["", "One more line above.\n"]) {
      const read = corrected(readMail(more + text, index, "2026-12-01"), fixes, name);
      const made = fromMail(read, name).build;
      const count = (type: string) => made.parts.filter((p) => p.type === type).length;
      expect([count("tarnbrook-heron-t40"), count("whirrow-120"), made.partTypes.map((t) => t.kind).sort()]).toEqual([1, 4, ["case", "fan"]]);
      expect(read.lines.find((l) => l.text.includes("in blue"))?.as).toBe("extra");
    }
    const none = corrected(
      mail,
      [
        { key: key("Stellan"), as: "talk" },
        { key: key("Whirrow"), type: "new" },
      ],
      name,
    );
    const made = fromMail(none, name);
    expect(made.build.parts.some((p) => p.type.startsWith("new-stellan"))).toBe(false);
    expect(made.made.map((t) => t.name)).toContain("Whirrow 120");
  });
  it("a type that the shelf does not know, or a line that is no more, changes nothing", () => {
    expect(corrected(mail, [{ key: key("Stellan"), type: "no-such" }], name).lines.find((l) => l.text.includes("Stellan"))?.known).toBeUndefined();
    expect(corrected(mail, [{ key: "7 gone", count: 9 }], name)).toEqual(mail);
  });
  it("a part that has no name of its own is called by its kind and what is said of it, a long line by its first piece; own words stay its id", () => {
    const { made } = fromMail(
      readMail(
        "- graphics: something with 12 GB, about 200 W, max 2 slots\n- white case with glass, 3 fans in front, RGB but not too much\n- Ryven 7 class processor, 8 cores, 65 W (no overclock please)",
        index,
        "2026-12-01",
      ),
      name,
    );
    expect(made.filter((t) => !t.name.startsWith("Own fan")).map((t) => t.name)).toEqual(["Ryven 7 class processor", "Card 200 W", "Case white"]);
    expect(made.find((t) => t.kind === "case")?.figures?.front).toMatchObject({ value: 3, is: "said" });
    expect(new Set(made.map((t) => t.id)).size).toBe(made.length);
  });
});

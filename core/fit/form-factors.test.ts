import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { describe, expect, it } from "vitest";
import { PartType } from "../catalogue";

// Against the interface specifications of the form factors (ATX 2.2, microATX 1.2, Mini-ITX 2.0): letters and outlines as they are
// published, distances in inches from memory.
const LETTERS: Record<string, string> = { ATX: "ACFGHJKLM", "E-ATX": "ACFGHJKLM", microATX: "BCFHJLMRS", "Mini-ITX": "CFHJ" };
const OUTLINE_MM: Record<string, readonly [width: number | undefined, height: number]> = {
  ATX: [244, 305],
  // Wider than ATX by as much as its maker likes.
  "E-ATX": [undefined, 305],
  microATX: [244, 244],
  "Mini-ITX": [170, 170],
};
const INCH_MM = 25.4;
/** From one hole to the other, inches: towards the front, or down. */
const APART = [
  ["C", "F", "xMm", 6.1],
  ["C", "H", "yMm", 6.2],
  ["F", "L", "xMm", 2.85],
  ["C", "A", "yMm", 11.1],
  ["F", "G", "yMm", 11.1],
] as const;

const boards = readdirSync("data/shelf").flatMap((f) =>
  (JSON.parse(readFileSync(join("data/shelf", f), "utf8")) as unknown[]).flatMap((t) => {
    const type = PartType.parse(t);
    return type.kind === "board" ? [type] : [];
  }),
);

describe("boards of the shelf against the published form factors", () => {
  it("are of every form factor that a case can name but one", () => {
    expect(new Set(boards.map((b) => b.body.formFactor))).toEqual(new Set(Object.keys(LETTERS)));
  });
  it.each(boards.map((b) => [b.id, b] as const))("%s: outline, letters of its holes, and how far they are apart", (_, { body }) => {
    const form = body.formFactor ?? "";
    const [width, height] = OUTLINE_MM[form] ?? [];
    if (width !== undefined) expect(body.widthMm).toBe(width);
    else expect(body.widthMm ?? 0).toBeGreaterThan(244);
    expect(body.heightMm).toBe(height);
    const holes = new Map(body.holes.map((h) => [h.id, h.at]));
    for (const id of holes.keys()) expect([id, LETTERS[form]?.includes(id)]).toEqual([id, true]);
    // Real micro boards often leave one out.
    expect(holes.size).toBeGreaterThanOrEqual((LETTERS[form]?.length ?? 0) - 1);
    let held = 0;
    for (const [a, b, along, inches] of APART) {
      const [p, q] = [holes.get(a), holes.get(b)];
      if (!p || !q) continue;
      held++;
      expect([a, b, Math.abs(q[along] - p[along] - inches * INCH_MM) <= 1]).toEqual([a, b, true]);
    }
    expect(held).toBeGreaterThanOrEqual(2);
  });
});

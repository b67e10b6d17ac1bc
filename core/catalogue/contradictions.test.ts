import { readdirSync, readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { contradictions, type PartType, PartType as PartTypeOf } from ".";

const shelf = readdirSync("data/shelf").flatMap((f) =>
  (JSON.parse(readFileSync(`data/shelf/${f}`, "utf8")) as unknown[]).map((t) => PartTypeOf.parse(t)),
);
const tower = shelf.find((t) => t.kind === "case" && t.body.cutouts.length > 5) as PartType;
const with1 = (body: Partial<PartType["body"]>): PartType => ({ ...tower, body: { ...tower.body, ...body } });

describe("what an entry says against itself", () => {
  it("nothing on the shelf of the demo does", () => {
    expect(shelf.flatMap((t) => contradictions(t).map((s) => `${t.id}: ${s}`))).toEqual([]);
  });
  it("a cut-out outside the tray, a channel through the board or aslant, a mount over another, a cage out of the case: a sentence each", () => {
    const bad = with1({
      cutouts: [...tower.body.cutouts, { id: "far", label: "far away", at: { xMm: 900, yMm: 30 } }],
      channels: [
        { id: "c1", label: "over the board", from: { xMm: 100, yMm: 100 }, to: { xMm: 100, yMm: 200 }, side: "front" },
        { id: "c2", label: "aslant", from: { xMm: 10, yMm: 10 }, to: { xMm: 60, yMm: 90 }, side: "rear" },
        { id: "c3", label: "behind it", from: { xMm: 100, yMm: 100 }, to: { xMm: 100, yMm: 200 }, side: "rear" },
      ],
      bodies: [{ id: "b", label: "Long cage", kind: "cage", at: { xMm: 400, yMm: 10 }, widthMm: 500, heightMm: 40, side: "front" }],
      mounts: [
        { id: "a", label: "front one", region: "front", takes: ["fan"], at: { xMm: 450, yMm: 80 }, sizeMm: 140, frame: "inside", filter: false },
        { id: "b", label: "front two", region: "front", takes: ["fan"], at: { xMm: 450, yMm: 180 }, sizeMm: 140, frame: "inside", filter: false },
      ],
    });
    const said = contradictions(bad);
    expect(said).toHaveLength(5);
    for (const words of [
      "Cut-out “far away” lies outside the tray, at 900, 30 mm",
      "Channel “over the board” runs through the board",
      "Channel “aslant” runs aslant",
      "“Long cage” reaches outside",
      "Mount “front two” lies over mount “front one”: a fan there and a fan here are 25 by 40 mm in one another.",
    ])
      expect(said.some((s) => s.includes(words))).toBe(true);
  });
});

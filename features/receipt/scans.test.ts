import { describe, expect, it } from "vitest";
import { answer, NO_SCANS, nextLine, scan } from "./scans";

const row = (part: string, type: string, arrivedAt: string | null = null) => ({ part, type, arrivedAt });
const ROWS = [row("fan-1", "fan"), row("fan-2", "fan"), row("fan-3", "fan"), row("drive", "drive"), row("card", "card")];
const all = (codes: readonly string[], front: string | undefined = "fan-1") =>
  codes.reduce((s, c) => scan(ROWS, s, c, s.waiting.length === 0 ? front : undefined, undefined), NO_SCANS);

describe("scans at the receipt", () => {
  it("that follow each other at once are each of a line of their own, in order, none lost and none cut", () => {
    expect(all(["A1", "A2", "A3"])).toEqual({
      waiting: [
        { part: "fan-1", serial: "A1" },
        { part: "fan-2", serial: "A2" },
        { part: "fan-3", serial: "A3" },
      ],
      asking: [],
    });
  });
  it("where the next line is another part it is asked what is in the hand, and what comes meanwhile waits behind", () => {
    const s = all(["A1", "A2", "A3", "B1", "C1"]);
    expect([s.waiting.length, s.asking]).toEqual([3, ["B1", "C1"]]);
    const told = answer(ROWS, s, "card");
    expect(told.waiting.at(-1)).toEqual({ part: "card", serial: "B1" });
    // The one behind would go to the drive, which is another part again.
    expect(told.asking).toEqual(["C1"]);
  });
  it("the same label read twice is one scan; the line that somebody chose is taken without a question", () => {
    expect(all(["A1", "A1"]).waiting).toHaveLength(1);
    expect(scan(ROWS, NO_SCANS, "X", "card", "fan-1")).toEqual({ waiting: [{ part: "card", serial: "X" }], asking: [] });
  });
  it("with every line here a code is asked about, not put anywhere", () => {
    const here = ROWS.map((r) => ({ ...r, arrivedAt: "2026-12-01" }));
    expect([nextLine(here, NO_SCANS), scan(here, NO_SCANS, "X", undefined, undefined)]).toEqual([undefined, { waiting: [], asking: ["X"] }]);
  });
});

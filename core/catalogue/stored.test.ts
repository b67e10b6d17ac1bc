import { describe, expect, it } from "vitest";
import { PartType } from "./part-type";
import { fromStored, STORED_VERSION, toStored } from "./stored";

const old = { id: "f", kind: "fan", maker: "", name: "f", revision: 1, ports: [], leads: [], cables: [], body: { widthMm: 120 }, ratings: {} };

describe("stored part types", () => {
  it("of before there were numbers get what came later, and nothing of theirs is lost", () => {
    const now = fromStored(old);
    expect(now).toEqual(PartType.parse(old));
    expect([now.body.widthMm, now.body.cagePlaces]).toEqual([120, []]);
  });
  it("stored today are read as they are, without being looked through again, and their number does not come along", () => {
    const type = PartType.parse(old);
    const kept = JSON.parse(JSON.stringify(toStored(type)));
    expect(kept.stored).toBe(STORED_VERSION);
    expect(fromStored(kept)).toEqual(JSON.parse(JSON.stringify(type)));
    expect("stored" in fromStored(kept)).toBe(false);
  });
  it("of a later Imbra are not guessed at", () => {
    expect(() => fromStored({ ...old, stored: STORED_VERSION + 1 })).toThrow(/Start a newer one/);
    expect(() => fromStored({ ...old, stored: "x" })).toThrow(/version x/);
  });
});

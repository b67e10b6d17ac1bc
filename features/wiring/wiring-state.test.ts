import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { cases } from "../../tests/cases";
import { fromAddress, STILL, toAddress, type WiringDoing, wiringAfter } from "./wiring-state";

const LOOMS = ["power", "fans", "data"] as const;
const id = fc.constantFrom("fan-1:lead", "board:CPU FAN&1", "a b:c");
const doing: fc.Arbitrary<WiringDoing> = fc.oneof(
  id.map((lead) => ({ do: "choose lead" as const, lead })),
  id.map((port) => ({ do: "choose port" as const, port })),
  id.map((lead) => ({ do: "take" as const, lead })),
  fc.constantFrom<WiringDoing>({ do: "let go" }, { do: "put down" }),
  fc.constantFrom(...LOOMS, null).map((loom) => ({ do: "loom" as const, loom })),
  fc.integer({ min: -3, max: 6 }).map((to) => ({ do: "zoom" as const, to })),
  fc.constant({ do: "region" as const, region: "top left" }),
  fc.constant({ do: "turn" as const }),
);
const there = { lead: () => true, port: () => true, looms: LOOMS };

describe("what the hand holds on the wiring screen", () => {
  it("stands in the address whatever was done, and comes back from it; nothing that was taken is", () => {
    fc.assert(
      fc.property(fc.array(doing, { maxLength: 12 }), (list) => {
        const s = list.reduce(wiringAfter, STILL);
        const back = fromAddress(new URLSearchParams(toAddress(s)), there);
        expect(back).toEqual({ ...wiringAfter(s, { do: "put down" }), region: null });
      }),
      cases(100, 109),
    );
  });
  it("letting go puts down first what was taken, then chooses nothing; and no further", () => {
    const taken = wiringAfter(STILL, { do: "take", lead: "fan-1:lead", aim: "board:X" });
    const put = wiringAfter(taken, { do: "let go" });
    expect(put.hand).toEqual({ at: "lead", lead: "fan-1:lead" });
    const none = wiringAfter(put, { do: "let go" });
    expect([none.hand, wiringAfter(none, { do: "let go" })]).toEqual([{ at: "nothing" }, none]);
  });
  it("an address that names what is not there chooses nothing, and breaks nothing", () => {
    const none = { lead: () => false, port: () => false, looms: LOOMS };
    for (const q of ["lead=x", "port=x&zoom=enormous", "loom=ropes", "lead=%00&zoom=port"])
      expect([q, fromAddress(new URLSearchParams(q), none).hand]).toEqual([q, { at: "nothing" }]);
  });
});

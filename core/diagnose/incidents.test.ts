import { describe, expect, it } from "vitest";
import { pluggedDemo } from "../../tests/fixtures/demo";
import { powerOn } from "../machine";
import { belongsTo } from ".";

describe("what belongs to one fault", () => {
  it("what shares something that nothing has cleared; two that share nothing are two faults", async () => {
    const { lines } = powerOn(await pluggedDemo("fs-1043"));
    const dark = ["turns:fan-floor-1:lead", "turns:fan-floor-2:lead", "turns:fan-floor-3:lead"];
    const seen = lines.map((l) => ({
      line: l.id,
      asExpected: !dark.includes(l.id) && !l.id.startsWith("lit:") && l.id !== "turns:fan-front-1:lead",
    }));
    // Fans of one hub are one fault; a fan of another hub, with its neighbours turning, is another.
    expect(belongsTo(lines, seen, [dark[0] ?? ""], dark[1] ?? "")).toBe(true);
    expect(belongsTo(lines, seen, dark, "turns:fan-front-1:lead")).toBe(false);
    expect(belongsTo(lines, seen, dark, dark[2] ?? "")).toBe(true);
    // While nothing is seen to work, everything may have one cause.
    expect(belongsTo(lines, [], dark, "turns:fan-front-1:lead")).toBe(true);
    // What leans on nothing that is known goes with its like, and with nothing else.
    expect(belongsTo(lines, seen, dark, "cpu-full")).toBe(false);
  });
});

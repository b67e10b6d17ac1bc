import { afterAll, afterEach, describe, expect, it, vi } from "vitest";
import { given, T } from "../../../tests/fixtures/small";
import type { PartCost } from "../cost/cost";

/** A price of the planner's, spoilt: what the verifier works out from the connections must not agree. */
const spoil = vi.hoisted(() => ({ how: (cost: PartCost): PartCost => cost }));
vi.mock("../model/prices", async (original) => {
  const real = await original<typeof import("../model/prices")>();
  return {
    ...real,
    netPrice: (...a: Parameters<typeof real.netPrice>) => spoil.how(real.netPrice(...a)),
    freePriceOf: (...a: Parameters<typeof real.freePriceOf>) => spoil.how(real.freePriceOf(...a)),
  };
});
// Files of a worker share their modules: this one reads the planner anew, and leaves it as it was.
vi.resetModules();
const { plan } = await import("..");
afterAll(() => {
  vi.doUnmock("../model/prices");
  vi.resetModules();
});

const build = () =>
  given(
    [
      T.case("c", [T.mount("f1", "front", 430, 60), T.mount("f2", "front", 430, 160), T.mount("r", "rear", 10, 120)]),
      T.board("b", [T.header("CPU_FAN", 10, { role: "cpu-fan" }), T.header("SYS1", 80), T.header("SYS2", 200)]),
      T.fan("f", 0.2),
      T.fan("g", 0.2, { role: "cpu-fan", need: "mandatory" }),
    ],
    [
      { id: "case", type: "c" },
      { id: "board", type: "b" },
      { id: "tower", type: "g" },
      { id: "a", type: "f", mount: "f1" },
      { id: "z", type: "f", mount: "r" },
      { id: "y", type: "f", mount: "f2" },
    ],
    { policy: { mayOrder: false } },
  );

afterEach(() => {
  spoil.how = (cost) => cost;
});

describe("the verifier shares no price with the planner", () => {
  it("with sound prices the plan is proved", async () => {
    const { build: b, types } = build();
    expect((await plan(b, types)).status).toBe("proved");
  });
  it.each([
    ["lengths", (c: PartCost) => (c.lengthCm === undefined ? c : { ...c, lengthCm: c.lengthCm + 1 })],
    ["hubs", (c: PartCost) => (c.hubsBehind === undefined ? c : { ...c, hubsBehind: c.hubsBehind + 1 })],
    ["functions", (c: PartCost) => (c.functionsReduced === undefined ? c : { ...c, functionsReduced: c.functionsReduced + 1 })],
    ["fans that stay free", (c: PartCost) => (c.fansFree === undefined ? c : { ...c, fansFree: 3 * c.fansFree })],
  ] as const)("a spoilt price of %s is caught: such a plan is not called proved", async (_, how) => {
    spoil.how = how;
    const { build: b, types } = build();
    expect((await plan(b, types)).status).toBe("not yet proved");
  });
});

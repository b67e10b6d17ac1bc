import { describe, expect, it } from "vitest";
import { given, T } from "../../tests/fixtures/small";
import { checkAll, withJudgedRemedies } from ".";

const header = (id: string, x: number, role = "case-fan", currentA = 1) => T.header(id, x, { role, limit: { currentA } });
const build = (state: "planned" | "plugged", headers: string[], more = 0) =>
  given(
    [
      T.board("b", [header("CPU_FAN", 10, "cpu-fan"), header("SYS1", 100, "case-fan", 0.5), ...headers.map((h, i) => header(h, 140 + 20 * i))]),
      { ...T.fan("tower", 0.2, { role: "cpu-fan", need: "mandatory" }), kind: "cooler" },
      T.fan("f", 0.4),
      T.splitter("s2", 2),
    ],
    [
      { id: "board", type: "b" },
      { id: "tower", type: "tower" },
      { id: "split", type: "s2", from: "shelf" },
      ...Array.from({ length: 2 + more }, (_, i) => ({ id: `c${i + 1}`, type: "f" })),
    ],
    {
      connections: [
        { lead: "tower:lead", port: "board:CPU_FAN", state },
        { lead: "split:in", port: "board:SYS1", state },
        { lead: "c1:lead", port: "split:out-1", state },
        { lead: "c2:lead", port: "split:out-2", state },
      ],
    },
  ).graph;
const over = (graph: ReturnType<typeof build>) => withJudgedRemedies(graph, checkAll(graph)).find((f) => f.rule === "root-current");

describe("what a finding about the wiring offers", () => {
  it("is to plan again while it is only planned", () => {
    expect(over(build("planned", ["SYS2"]))?.remedy?.kind).toBe("plan");
  });
  it("is the move by hand once it is plugged, with what comes out for it: a plan moves nothing that is plugged", () => {
    const f = over(build("plugged", ["SYS2"]));
    expect(f).toMatchObject({ severity: "stop", remedy: { kind: "move", port: "board:SYS2" } });
    expect(f?.ways?.[0]).toMatch(/^Move FN-\d\d to SYS2\. Nothing else comes out for it\.$/);
  });
  it("is nothing where no move makes it better, and never the header of the CPU's only signal", () => {
    const f = over(build("plugged", []));
    expect([f?.severity, f?.remedy, f?.ways]).toEqual(["stop", undefined, undefined]);
  });
});

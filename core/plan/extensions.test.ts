import { describe, expect, it } from "vitest";
import { type Given, given, T } from "../../tests/fixtures/small";
import { buildGraph } from "../assembly";
import { check } from "../checks";
import { routesOf } from "../routes";
import { plan } from ".";

type Json = Record<string, unknown>;
const extension = (id: string, socket: string, plug: string, role: string, mm: number): Json => ({
  id,
  kind: "extension",
  maker: "",
  name: id,
  ports: [T.port("in", socket, "in", role, { need: "optional", tailMm: mm })],
  leads: [{ ...T.lead("out", plug, "power-out", mm), flow: "out", fedBy: "in" }],
});
const planned = async (g: Given) => {
  const made = await plan(g.build, g.types);
  return { made, graph: buildGraph(made.build, g.types) };
};
/** A board whose 24-pin and CPU sockets are further from the supply than its cables are long. */
const far = (longMm: number, accessories: { type: string; count: number }[], mayOrder = false) =>
  given(
    [
      T.board("b", [
        T.port("ATX", "atx-24", "in", "board-power", { need: "mandatory" }),
        T.port("CPU", "cpu-8", "in", "cpu-power", { need: "mandatory" }),
      ]),
      T.supply(
        "p",
        [
          { id: "m", label: "main", count: 1, captive: true, outlets: [], ends: [{ id: "e", family: "atx-24", atMm: longMm }] },
          { id: "c", label: "CPU", count: 1, outlets: ["k"], ends: [{ id: "e", family: "cpu-4+4", atMm: longMm }] },
        ],
        ["k"],
      ),
      extension("ext-24", "atx-24", "atx-24", "board-power", 300),
      extension("ext-cpu", "cpu-8", "cpu-4+4", "cpu-power", 300),
    ],
    [
      { id: "board", type: "b" },
      { id: "supply", type: "p" },
    ],
    { policy: { mayOrder }, accessories },
  );

describe("extensions of power leads", () => {
  it("are taken where a cable is too short, one each, and every lead reaches by them", async () => {
    const g = far(250, [
      { type: "ext-24", count: 2 },
      { type: "ext-cpu", count: 2 },
    ]);
    const { made, graph } = await planned(g);
    expect([made.status, made.broken, made.cost.mandatoryFree, made.cost.fromShelf]).toEqual(["proved", [], 0, 2]);
    expect(made.accessories.map((a) => a.type).sort()).toEqual(["ext-24", "ext-cpu"]);
    expect(graph.ofLead.get("supply/c/1:e")?.port).toBe("ext-cpu.1:in");
    expect(graph.ofLead.get("ext-cpu.1:out")?.port).toBe("board:CPU");
    for (const r of routesOf(graph).routes) expect([r.lead, r.needMm <= r.hasMm]).toEqual([r.lead, true]);
    expect(check(graph, "plan").filter((f) => ["reach", "needs-power", "cpu-power"].includes(f.rule))).toEqual([]);
  });
  it("are not taken where the cables reach, and are ordered where the shelf has none", async () => {
    expect((await planned(far(900, [{ type: "ext-cpu", count: 2 }]))).made.accessories).toEqual([]);
    const ordered = await planned(
      far(
        250,
        [
          { type: "ext-24", count: 0 },
          { type: "ext-cpu", count: 0 },
        ],
        true,
      ),
    );
    expect([ordered.made.cost.mandatoryFree, ordered.made.cost.toOrder]).toEqual([0, 2]);
    const none = await planned(far(250, []));
    expect(none.made.cost.mandatoryFree).toBe(2);
    expect(none.made.free.find((f) => f.end === "board:CPU")?.reason).toMatch(/too short|mm/);
  });
});

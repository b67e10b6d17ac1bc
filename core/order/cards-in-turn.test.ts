import { describe, expect, it } from "vitest";
import { given, T } from "../../tests/fixtures/small";
import { buildGraph } from "../assembly";
import { check, checkParts } from "../checks";
import { plan } from "../plan";
import { cardsOver } from "../space";
import { orderOf } from ".";

type Json = Record<string, unknown>;
const card = (id: string, widthMm: number, slots: number, more: Json = {}): Json => ({
  id,
  kind: "card",
  maker: "",
  name: id,
  leads: [T.lead("seat", "pcie-slot", "seat", 0, { need: "wanted" })],
  body: { widthMm, slots, heightMm: 112 },
  ...more,
});
const shell = (more: Json = {}) => T.case("c", [], { widthMm: 470, heightMm: 480, slots: 7, maxCardMm: 400, ...more });
const board = T.board("b", [
  T.port("CPU", "cpu-socket", "out", "cpu", { key: "Q", at: { xMm: 90, yMm: 60 } }),
  T.port("D1", "memory-slot", "out", "memory", { key: "DDR5", at: { xMm: 150, yMm: 60 } }),
  T.port("SLOT_1", "pcie-slot", "out", "expansion", { at: { xMm: 20, yMm: 120 } }),
  T.port("SLOT_2", "pcie-slot", "out", "expansion", { at: { xMm: 20, yMm: 181 }, rank: 1 }),
  T.header("UNDER", 60, { at: { xMm: 60, yMm: 150 } }),
  T.port("SATA_1", "sata-data", "out", "drive-data", { at: { xMm: 240, yMm: 150 }, coveredBy: ["card"] }),
  T.header("BESIDE", 220, { at: { xMm: 60, yMm: 40 } }),
]);
const build = (cards: { id: string; type: string; [k: string]: unknown }[], types: Json[], more: Json = {}) =>
  given(
    [shell(more), board, T.fan("f", 0.2), ...types],
    [{ id: "case", type: "c" }, { id: "board", type: "b" }, { id: "fan", type: "f" }, ...cards],
    {
      policy: { mayOrder: false },
    },
  );
const over = (g: ReturnType<typeof build>, port: string) => {
  const p = g.graph.ports.get(`board:${port}`);
  return p ? cardsOver(g.graph, p).map((c) => c.id) : [];
};

describe("what a card covers", () => {
  it("is what lies under it; a short one covers nothing that it is not long enough for, whatever the board's entry says of cards", () => {
    const long = build([{ id: "g", type: "long" }], [card("long", 300, 3)]);
    expect([over(long, "UNDER"), over(long, "SATA_1"), over(long, "BESIDE")]).toEqual([["g"], ["g"], []]);
    const short = build([{ id: "n", type: "net" }], [card("net", 120, 1)]);
    expect([over(short, "UNDER"), over(short, "SATA_1")]).toEqual([[], []]);
  });
  it("two that collide are a stop with the millimetres; side by side they are not", () => {
    const found = (slots: number) =>
      checkParts(
        build(
          [
            { id: "a", type: "long" },
            { id: "z", type: "long" },
          ],
          [card("long", 300, slots)],
        ).graph,
      ).filter((f) => f.rule === "one-place");
    expect(found(4)[0]).toMatchObject({ severity: "stop", message: expect.stringMatching(/\d+ mm/) });
    expect(found(3)).toEqual([]);
  });
  it("a card without graphics lowers no stop: without a picture the machine is stopped, and none is plugged for the test on the box", () => {
    const cpu = { id: "q", kind: "cpu", maker: "", name: "q", leads: [T.lead("seat", "cpu-socket", "seat", 0, { key: "Q" })] };
    const g = build(
      [
        { id: "n", type: "net" },
        { id: "cpu", type: "q" },
      ],
      [card("net", 120, 1), cpu],
    );
    expect(check(g.graph, "plan").find((f) => f.rule === "picture-source")?.severity).toBe("stop");
    expect(orderOf(g.graph).steps.find((s) => s.id === "bench-test")?.detail ?? "").not.toMatch(/net\b/);
  });
});

describe("cards in turn", () => {
  const at = (ids: readonly string[], id: string) => ids.indexOf(id);
  it("from the lowest slot up, each with its support before the next lies over it", async () => {
    const g = build(
      [
        { id: "a", type: "long" },
        { id: "z", type: "long" },
      ],
      [card("long", 300, 3)],
    );
    const made = await plan(g.build, g.types);
    const graph = buildGraph(made.build, g.types);
    const ids = orderOf(graph).steps.map((s) => s.id);
    const lower = made.connections.find((c) => c.port === "board:SLOT_2")?.lead.split(":")[0];
    const upper = lower === "a" ? "z" : "a";
    expect(at(ids, `plug:${lower}:seat`)).toBeLessThan(at(ids, `support:${lower}`));
    expect(at(ids, `support:${lower}`)).toBeLessThan(at(ids, `plug:${upper}:seat`));
    // The header under the cards is plugged before them.
    const fan = made.connections.find((c) => c.lead === "fan:lead");
    if (fan?.port === "board:UNDER") expect(at(ids, "plug:fan:lead")).toBeLessThan(at(ids, `plug:${upper}:seat`));
  });
  it("one that stands goes on its riser, never into a slot, after what it hides", async () => {
    const ram = { id: "ram", kind: "memory", maker: "", name: "ram", leads: [T.lead("seat", "memory-slot", "seat", 0, { key: "DDR5" })] };
    const g = build(
      [
        { id: "g", type: "long", vertical: true },
        { id: "m", type: "ram" },
      ],
      [card("long", 300, 3), ram],
      {
        vertical: { slots: 3, thicknessMm: 70, at: { xMm: 30, yMm: 110 }, riserMm: 300 },
      },
    );
    expect(over(g, "D1")).toEqual(["g"]);
    const made = await plan(g.build, g.types);
    const { steps } = orderOf(buildGraph(made.build, g.types));
    const step = steps.find((s) => s.id === "plug:g:seat");
    expect(step?.title).toBe("Put long on its riser and screw it to the vertical mount");
    const ids = steps.map((s) => s.id);
    expect(at(ids, "plug:m:seat")).toBeLessThan(at(ids, "plug:g:seat"));
    expect(steps.some((s) => s.id === "support:g")).toBe(false);
  });
});

import { describe, expect, it } from "vitest";
import { demo, demoPlan } from "../../tests/fixtures/demo";
import { buildGraph } from "../assembly";
import { cardsOf, notInYet, orderOf } from ".";

describe("what is not in the machine yet", () => {
  it("on the first card the board alone is there, on the last nothing is missing, and nothing that came in goes again", async () => {
    const { build } = await demoPlan("fs-1045");
    const graph = buildGraph({ ...build, done: [] }, demo("fs-1045").types);
    const order = orderOf(graph);
    const cards = cardsOf(order.steps, order.blocks);
    const sizes = cards.map((c) => notInYet(order.steps, c));
    const first = sizes[0];
    expect(first?.has("supply")).toBe(true);
    expect(first?.has("board")).toBe(false);
    expect(sizes.at(-1)?.size).toBe(0);
    // Done steps are in, wherever a card looks from.
    const all = buildGraph(
      { ...build, done: order.steps.map((s) => s.id), connections: build.connections.map((c) => ({ ...c, state: "plugged" as const })) },
      demo("fs-1045").types,
    );
    const done = orderOf(all);
    expect(notInYet(done.steps, cardsOf(done.steps, done.blocks)[0]).size).toBe(0);
    // What hands hold or plug into is drawn.
    for (const [i, c] of cards.entries())
      for (const s of c.steps) {
        for (const p of s.parts) expect([c.title, p, sizes[i]?.has(p)]).toEqual([c.title, p, false]);
        if (s.port) expect(sizes[i]?.has(s.port.split(":")[0] ?? "")).toBe(false);
      }
  });
  it("without a card everything is there", () => {
    expect(notInYet([], undefined).size).toBe(0);
  });
});

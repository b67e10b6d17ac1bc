import { describe, expect, it } from "vitest";
import { DEMO, demo } from "../../tests/fixtures/demo";
import { buildGraph } from "../assembly";
import { clearances } from "../fit";
import { frontOf, sceneOf } from ".";

const of = (name: string) => {
  const { build, types } = demo(name);
  return buildGraph(build, types);
};

describe("the front section", () => {
  it.each(DEMO)("%s: stands at the heights of the sheets, as deep as the catalogue says, on its own side of the tray", (name) => {
    const graph = of(name);
    const front = frontOf(graph);
    const scene = sceneOf(graph);
    if (!front) throw new Error("no section");
    expect(front.view.heightMm).toBe(scene.view.heightMm);
    for (const b of front.boxes) {
      const box = scene.boxes.find((x) => x.part === b.part && x.kind === b.kind);
      if (b.kind !== "memory") expect([b.rect.yMm, b.rect.heightMm]).toEqual([box?.rect.yMm, box?.rect.heightMm]);
      const body = graph.parts.get(b.part)?.type.body;
      if (b.kind === "cooler") expect(b.rect.widthMm).toBe(body?.heightMm);
      // What the catalogue does not say is told to be typical.
      const level = b.kind === "card" && !graph.parts.get(b.part)?.part.vertical;
      if (level) expect(body?.depthMm === undefined ? b.assumed : b.rect.widthMm).toBe(body?.depthMm ?? true);
      // What lies behind the tray ends at it; board and cooler stand in front of it.
      if (box && box.sheets.join() === "behind") expect(b.rect.xMm + b.rect.widthMm).toBeLessThanOrEqual(front.trayMm);
      if (b.kind === "board" || b.kind === "cooler") expect(b.rect.xMm).toBeGreaterThanOrEqual(front.trayMm);
    }
  });
  it.each(DEMO)("%s: what is drawn beside the cooler is what its clearance says", (name) => {
    const graph = of(name);
    const front = frontOf(graph);
    const height = clearances(graph).find((c) => c.id.startsWith("cooler-height"));
    expect(front?.cooler === undefined).toBe(height === undefined);
    if (front?.cooler && height) expect(front.cooler.toMm - front.cooler.from.xMm).toBeCloseTo(height.left, 6);
  });
  it("has none where there is no case", () => {
    const { build, types } = demo("fs-1041");
    const bare = { ...build, parts: build.parts.filter((p) => types(p.type)?.kind !== "case") };
    expect(frontOf(buildGraph(bare, types))).toBeUndefined();
  });
});

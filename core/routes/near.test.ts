import { describe, expect, it } from "vitest";
import { DEMO, pluggedDemo } from "../../tests/fixtures/demo";
import { bodyOf } from "../space";
import { leadsNear, routesOf } from ".";

describe("leads near a fan", () => {
  it.each(DEMO)("%s: each has a point of its way within reach of the fan, none is the fan's own, the nearest stands first", async (name) => {
    const graph = await pluggedDemo(name);
    const fans = [...graph.parts.values()].filter((p) => p.type.kind === "fan");
    let some = 0;
    for (const f of fans) {
      const near = leadsNear(graph, f.id);
      const body = bodyOf(graph, f.id);
      some += near.length;
      expect(near.map((n) => n.mm)).toEqual([...near.map((n) => n.mm)].sort((a, b) => a - b));
      for (const n of near) {
        expect(graph.leads.get(n.lead)?.part.id).not.toBe(f.id);
        // Sampled along the way, not as the code measures.
        const way = routesOf(graph).byLead.get(n.lead)?.way;
        const points = (way?.stretches ?? [])
          .filter((s) => body?.sheets.includes(s.sheet))
          .flatMap((s) =>
            s.points.slice(1).flatMap((p, i) => {
              const q = s.points[i] ?? p;
              return Array.from({ length: 51 }, (_, k) => ({ x: q.xMm + ((p.xMm - q.xMm) * k) / 50, y: q.yMm + ((p.yMm - q.yMm) * k) / 50 }));
            }),
          );
        const r = body?.rect ?? { xMm: 0, yMm: 0, widthMm: 0, heightMm: 0 };
        const least = Math.min(
          ...points.map((p) => Math.hypot(Math.max(r.xMm - p.x, 0, p.x - r.xMm - r.widthMm), Math.max(r.yMm - p.y, 0, p.y - r.yMm - r.heightMm))),
        );
        expect(Math.abs(least - n.mm)).toBeLessThan(12);
      }
    }
    if (fans.length > 2) expect(some).toBeGreaterThan(0);
  });
});

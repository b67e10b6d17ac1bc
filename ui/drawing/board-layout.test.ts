import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { boardFrame, type DrawnPort, gatherDocks, labelLines, placeDocks, placeLabels, placePorts, routeRound } from "./board-layout";

const ports = fc
  .uniqueArray(fc.record({ x: fc.integer({ min: 2, max: 242 }), y: fc.integer({ min: 2, max: 303 }), n: fc.integer({ min: 1, max: 99 }) }), {
    maxLength: 24,
    selector: (p) => p.n,
  })
  .map((list) => list.map((p): DrawnPort => ({ address: `b:${p.n}`, label: `PORT_${p.n}`, family: "fan-4", turned: 0, xMm: p.x, yMm: p.y })));

describe("labels", () => {
  it("in one column never closer than 16 px, and the same every time", () => {
    fc.assert(
      fc.property(ports, (list) => {
        const frame = boardFrame(244, 305, 1.31);
        const placed = placePorts(frame, list, 244, 305);
        const wanted = placed.map((p) => p.address);
        const labels = placeLabels(frame, placed, wanted);
        for (const anchor of ["start", "end"] as const) {
          const column = labels
            .filter((l) => l.anchor === anchor && l.leader.includes("H"))
            .map((l) => l.y)
            .sort((a, b) => a - b);
          for (let i = 1; i < column.length; i++) expect((column[i] ?? 0) - (column[i - 1] ?? 0)).toBeGreaterThanOrEqual(15.99);
        }
        expect(
          placeLabels(frame, [...placed].reverse(), wanted)
            .map((l) => `${l.address} ${l.x} ${l.y}`)
            .sort(),
        ).toEqual(labels.map((l) => `${l.address} ${l.x} ${l.y}`).sort());
      }),
    );
  });
  it("break at an underscore beyond ten characters", () => {
    expect(labelLines("SYS_FAN1")).toEqual(["SYS_FAN1"]);
    expect(labelLines("CHASSIS_FAN12")).toEqual(["CHASSIS_", "FAN12"]);
  });
});

describe("drawing", () => {
  it("draws ports to scale, at least 10 px", () => {
    const frame = boardFrame(244, 305, 1.31);
    const [p] = placePorts(frame, [{ address: "a", label: "A", family: "atx-24", drawnMm: [52, 10], turned: 90, xMm: 238, yMm: 110 }], 244, 305);
    expect(p?.h).toBeCloseTo(52 * 1.31, 6);
    expect(p?.w).toBeGreaterThanOrEqual(10);
    expect(p?.edge).toBe("right");
  });
  it("keeps docks apart and inside the picture", () => {
    const frame = boardFrame(244, 305, 1.31);
    const docks = placeDocks(
      frame,
      Array.from({ length: 14 }, (_, i) => ({ id: `d${i}`, lines: ["Fan"], side: "right" as const })),
    );
    for (let i = 1; i < docks.length; i++) expect(docks[i]?.y).toBeGreaterThanOrEqual((docks[i - 1]?.y ?? 0) + (docks[i - 1]?.h ?? 0));
    expect((docks.at(-1)?.y ?? 0) + (docks.at(-1)?.h ?? 0)).toBeLessThanOrEqual(frame.height);
  });
  it("more docks than a side can show become trunks with counts: nothing is lost, hubs stay apart, every dock can be read", () => {
    const kind = fc.constantFrom("Fan", "Drive", "Light", "Hub");
    const side = fc.constantFrom("left" as const, "right" as const, "top" as const);
    fc.assert(
      fc.property(fc.array(fc.record({ kind, side }), { maxLength: 90 }), (list) => {
        const frame = boardFrame(244, 244, 1.31);
        const items = list.map((d, i) => ({ id: `${d.kind}-${i}`, lines: [d.kind, `N-${i}`], side: d.side }));
        const hubs = (id: string) => id.startsWith("Hub");
        const docks = gatherDocks(frame, items, hubs);
        expect(docks.flatMap((d) => d.holds ?? [d.id]).sort()).toEqual(items.map((d) => d.id).sort());
        for (const d of docks) {
          if (!d.holds) continue;
          expect(d.holds.some(hubs)).toBe(false);
          expect(d.lines).toEqual([`${d.holds[0]?.split("-")[0]}s`, String(d.holds.length)]);
        }
        if (items.filter((d) => hubs(d.id)).length > 3) return;
        for (const d of placeDocks(frame, docks)) expect(d.side === "top" ? d.w : d.h).toBeGreaterThanOrEqual(d.side === "top" ? 43 : 29);
      }),
    );
  });
  it("lays a route round the board and never across it", () => {
    const frame = boardFrame(244, 305, 1.31);
    const b = frame.board;
    const d = routeRound(frame, { x: frame.width - 54, y: 200, side: "right" }, { x: b.x + 20, y: b.y + b.h - 8, edge: "bottom" });
    const points = [...d.matchAll(/[ML]([\d.]+) ([\d.]+)/g)].map((m) => [Number(m[1]), Number(m[2])] as const);
    for (const [x, y] of points.slice(1, -1)) expect(x <= b.x || x >= b.x + b.w || y <= b.y || y >= b.y + b.h).toBe(true);
  });
});

import { readFileSync } from "node:fs";
import Ajv from "ajv/dist/2020";
import { describe, expect, it } from "vitest";
import { family, shapeOf } from "../../core/catalogue";
import { DEMO, shelf } from "../../tests/fixtures/demo";
import { portSizeMm } from "../../ui/drawing/port-size";

const of = (kind: string) => shelf.filter((t) => t.kind === kind);

describe("the demo shelf", () => {
  it.each([
    ["board", 12],
    ["case", 10],
    ["supply", 10],
    ["cooler", 12],
    ["fan", 15],
    ["card", 12],
    ["cpu", 12],
    ["memory", 12],
    ["drive", 15],
  ])("has at least as many %ss as %i", (kind, least) => {
    expect(of(kind).length).toBeGreaterThanOrEqual(least);
  });
  it("has at least 12 hubs, splitters, extensions and adapters", () => {
    expect(["hub", "splitter", "extension", "adapter", "usb-hub"].reduce((n, k) => n + of(k).length, 0)).toBeGreaterThanOrEqual(12);
  });
  it("every id is there once", () => {
    expect(new Set(shelf.map((t) => t.id)).size).toBe(shelf.length);
  });
  it("ports lie on their board, and no two headers of a board lie on each other", () => {
    for (const b of of("board")) {
      const boxes = b.ports
        .filter((p) => !["m2", "pcie-slot", "memory-slot", "cpu-socket", "sata-data"].includes(p.family))
        .map((p) => ({ p, size: portSizeMm(shapeOf(p.family), p.turned) }));
      for (const { p } of boxes) {
        expect([b.id, p.id, p.at.xMm >= 0 && p.at.xMm <= (b.body.widthMm ?? 0) && p.at.yMm >= 0 && p.at.yMm <= (b.body.heightMm ?? 0)]).toEqual([
          b.id,
          p.id,
          true,
        ]);
      }
      for (const [i, a] of boxes.entries()) {
        for (const z of boxes.slice(i + 1)) {
          const apart =
            Math.abs(a.p.at.xMm - z.p.at.xMm) >= (a.size[0] + z.size[0]) / 2 - 0.5 ||
            Math.abs(a.p.at.yMm - z.p.at.yMm) >= (a.size[1] + z.size[1]) / 2 - 0.5;
          expect([b.id, a.p.id, z.p.id, apart]).toEqual([b.id, a.p.id, z.p.id, true]);
        }
      }
    }
  });
  it("a plug of every family of a supply's cables has a rating or a limit, and no cable's plugs lie on each other", () => {
    for (const s of of("supply"))
      for (const c of s.cables) {
        const at = c.ends.map((e) => e.atMm);
        expect([...at].sort((x, y) => x - y)).toEqual(at);
        for (const e of c.ends) expect(family(e.family).loom).toBe("power");
      }
  });
  it("every supply gives its rating on 12 V, within the guide's share, and has a length", () => {
    for (const s of of("supply")) {
      const twelve = (s.ratings.railsA?.v12 ?? 0) * 12;
      expect([s.id, twelve > (s.ratings.powerW ?? 0) * 0.9 && twelve <= (s.ratings.powerW ?? 0)]).toEqual([s.id, true]);
      expect(s.body.depthMm).toBeGreaterThan(90);
    }
  });
  it("every case says what goes in; every card, cooler, fan and module says how large it is", () => {
    for (const c of of("case"))
      expect([c.id, !!c.body.forms && !!c.body.maxCardMm && !!c.body.maxCoolerMm && !!c.body.maxSupplyMm && !!c.body.slots]).toEqual([c.id, true]);
    for (const c of of("card")) expect([c.id, !!c.body.widthMm && !!c.body.slots]).toEqual([c.id, true]);
    for (const c of of("cooler")) expect([c.id, !!c.body.heightMm || !!c.body.radiator]).toEqual([c.id, true]);
    for (const f of of("fan")) expect([f.id, !!f.body.widthMm && !!f.ratings.flowM3h && !!f.ratings.noiseDb]).toEqual([f.id, true]);
    for (const m of of("memory")) expect([m.id, !!m.body.heightMm && !!m.ratings.profileMts]).toEqual([m.id, true]);
  });
  it("a fan draws within the fan specification: 1.5 A steady at most (Intel, 4-wire fans rev. 1.3; from memory)", () => {
    for (const f of of("fan")) for (const l of f.leads) expect(l.load.currentA).toBeLessThanOrEqual(1.5);
  });
});

describe("the published schemas, read by a general JSON Schema validator", () => {
  const schema = (name: string) => JSON.parse(readFileSync(`schemas/${name}.schema.json`, "utf8")) as object;
  const ajv = new Ajv({ strict: false, allErrors: true });
  it("every part type of the shelf is valid", () => {
    const valid = ajv.compile(schema("part-type"));
    for (const f of ["boards", "cards", "cases", "coolers", "cpus", "drives", "fans", "hubs-and-leads", "memory", "supplies"])
      for (const t of JSON.parse(readFileSync(`data/shelf/${f}.json`, "utf8")) as { id: string }[])
        expect([t.id, valid(t), valid.errors]).toEqual([t.id, true, null]);
  });
  it("every example is valid, and a spoilt one is not", () => {
    const valid = ajv.compile(schema("build"));
    for (const d of [...DEMO, "fs-1041-self-contained"]) {
      const file = JSON.parse(readFileSync(`examples/${d}.json`, "utf8")) as Record<string, unknown>;
      expect([d, valid(file), valid.errors]).toEqual([d, true, null]);
      expect(valid({ ...file, format: "other" })).toBe(false);
      expect(valid({ ...file, parts: [] })).toBe(false);
    }
  });
});

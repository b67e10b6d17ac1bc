import fc from "fast-check";
import { XMLParser, XMLValidator } from "fast-xml-parser";
import { beforeAll, describe, expect, it } from "vitest";
import { cases } from "../../tests/cases";
import { DEMO, demo, demoPlan } from "../../tests/fixtures/demo";
import { generated } from "../../tests/fixtures/generated";
import { build, recipe } from "../../tests/laws/builds";
import { buildGraph, type Graph, partsOfKind } from "../assembly";
import { plan } from "../plan";
import { drawSheet, type Item, type Look, labelLines, paperDrawing, placeLabels, sceneOf, seenAt, seenRect, strandsOf, svgOf } from ".";

const graphs = new Map<string, Graph>();
const of = (name: string) => graphs.get(name) as Graph;
beforeAll(async () => {
  for (const name of DEMO) graphs.set(name, buildGraph((await demoPlan(name)).build, demo(name).types));
}, 120_000);

const SHEETS = ["front", "behind"] as const;
const look = (graph: Graph, scale: number): Look => ({
  scale,
  line: 14,
  letter: 0.52,
  pitch: 5,
  least: 10,
  shown: () => "whole",
  isDone: () => false,
  port: (a) => ({ state: graph.atPort.has(a) ? "planned" : "free" }),
  nameOfPort: (p) => (p.landmark ? undefined : graph.atPort.has(p.address) ? 2 : 1),
  nameOfBox: (b) => (b.kind === "board" ? undefined : 3),
});
const labels = (items: readonly Item[]) => items.flatMap((i) => (i.kind === "label" ? [i.label] : []));
const over = (a: { x: number; y: number; w: number; h: number }, b: typeof a) =>
  a.x < b.x + b.w && b.x < a.x + a.w && a.y < b.y + b.h && b.y < a.y + a.h;

/** No word over another, over a port or beyond the edge, on either side, whole and near. */
function isReadable(graph: Graph): void {
  for (const s of SHEETS)
    for (const scale of [1.25, 3]) {
      const d = drawSheet(sceneOf(graph), s, look(graph, scale));
      const all = labels(d.items);
      const ports = d.items.flatMap((i) => (i.kind === "port" && !i.port.landmark ? [i] : []));
      const f = d.frame;
      const within = ({ box: b }: (typeof all)[number]) => b.x >= f.x && b.x + b.w <= f.x + f.w && b.y >= f.y && b.y + b.h <= f.y + f.h;
      // Gathered, and asked once: an expectation takes longer than what it is about.
      const wrong = all.flatMap((l, i) => [
        ...(within(l) ? [] : [`${l.text} beyond the edge`]),
        ...all.slice(i + 1).flatMap((m) => (over(l.box, m.box) ? [`${l.text} over ${m.text}`] : [])),
        ...(l.inside ? [] : ports.flatMap((p) => (over(l.box, p.box) ? [`${l.text} over the port ${p.port.label}`] : []))),
      ]);
      expect(wrong).toEqual([]);
    }
}

describe("laws of the scene", () => {
  it.each(DEMO)("%s: the same picture whatever the order of the build", (name) => {
    const { build } = of(name);
    const turned = buildGraph({ ...build, connections: [...build.connections].reverse() }, demo(name).types);
    for (const s of SHEETS) expect(svgOf(paperDrawing(turned, s, "x"))).toBe(svgOf(paperDrawing(of(name), s, "x")));
  });
  it.each(DEMO)("%s: no word over another, over a port or beyond the edge; no leader through a word", (name) => isReadable(of(name)));
  it("generated builds, bare and planned: the same, and nothing of which the place is assumed stands out of its case", async () => {
    let assumed = 0;
    const look = (graph: Graph) => {
      isReadable(graph);
      const { widthMm = Number.POSITIVE_INFINITY, heightMm = Number.POSITIVE_INFINITY } = partsOfKind(graph, "case")[0]?.type.body ?? {};
      for (const { name, rect: r, assumed: is } of sceneOf(graph).boxes) {
        if (!is) continue;
        assumed++;
        const inside = r.xMm >= 0 && r.yMm >= 0 && r.xMm + r.widthMm <= widthMm && r.yMm + r.heightMm <= heightMm;
        expect([name, r, inside]).toEqual([name, r, true]);
      }
    };
    await fc.assert(
      fc.asyncProperty(recipe, fc.boolean(), async (r, bare) => {
        const { build: b, types } = build(r);
        look(buildGraph(bare ? b : (await plan(b, types, { deadlineS: 1 })).build, types));
      }),
      cases(40, 20261128),
    );
    for (const leads of [62, 110]) {
      const { build: b, types } = generated(leads, 9011);
      look(buildGraph(b, types));
    }
    expect(assumed).toBeGreaterThan(cases(40, 20261128).numRuns);
  }, 120_000);
  it.each(DEMO)("%s: every open port is named at region view", (name) => {
    const graph = of(name);
    for (const s of SHEETS) {
      const scene = sceneOf(graph);
      const named = new Set(labels(drawSheet(scene, s, look(graph, 3)).items).map((l) => l.id));
      const open = scene.ports.filter((p) => p.sheets.includes(s) && p.onBoard && !p.landmark && !graph.atPort.has(p.address));
      expect(open.filter((p) => !named.has(p.address)).map((p) => p.label)).toEqual([]);
    }
  });
  it.each(DEMO)("%s: what is behind is mirrored, exactly", (name) => {
    const scene = sceneOf(of(name));
    const w = scene.view.widthMm;
    fc.assert(
      fc.property(fc.integer({ min: -50, max: 700 }), fc.integer({ min: -50, max: 700 }), (xMm, yMm) => {
        const seen = seenAt(scene, "behind", { xMm, yMm });
        expect(seen).toEqual({ xMm: w - xMm, yMm });
        expect(seenAt(scene, "behind", seen)).toEqual({ xMm, yMm });
      }),
    );
    const d = drawSheet(scene, "behind", look(of(name), 1));
    const drawn = d.items.flatMap((i) => (i.kind === "rect" && i.of ? [[i.of, i.box] as const] : []));
    expect(drawn.length).toBeGreaterThan(0);
    for (const [id, box] of drawn) {
      const made = scene.boxes.filter((b) => b.part === id && b.sheets.includes("behind")).map((b) => seenRect(scene, "behind", b.rect));
      expect(made.some((r) => Math.abs(r.xMm - box.x) < 1e-6 && Math.abs(r.yMm - box.y) < 1e-6)).toBe(true);
    }
  });
});

describe("strands", () => {
  it.each(DEMO)("%s: no two lie on each other along a straight, unless seven and more make a bundle; ends stay", (name) => {
    const { routes } = sceneOf(of(name)).routes;
    const { strands, bundles } = strandsOf(routes, 4);
    for (const s of strands) {
      const was = routes
        .find((r) => r.lead === s.lead)
        ?.way?.stretches.find((x) => x.sheet === s.sheet && x.points[0]?.xMm === s.points[0]?.xMm && x.points[0]?.yMm === s.points[0]?.yMm);
      expect([s.lead, was !== undefined]).toEqual([s.lead, true]);
    }
    for (const b of bundles) expect(b.leads.length).toBeGreaterThanOrEqual(7);
    const pieces = strands.flatMap((s) =>
      s.points.slice(2, -1).map((p, i) => ({ lead: s.lead, sheet: s.sheet, a: s.points[i + 1] as typeof p, b: p })),
    );
    const bundled = new Set(bundles.flatMap((b) => b.leads));
    for (const [i, p] of pieces.entries())
      for (const q of pieces.slice(i + 1)) {
        if (p.sheet !== q.sheet || p.lead === q.lead || bundled.has(p.lead) || bundled.has(q.lead)) continue;
        const level = p.a.yMm === p.b.yMm && q.a.yMm === q.b.yMm && p.a.yMm === q.a.yMm;
        if (!level) continue;
        const lap =
          Math.min(Math.max(p.a.xMm, p.b.xMm), Math.max(q.a.xMm, q.b.xMm)) - Math.max(Math.min(p.a.xMm, p.b.xMm), Math.min(q.a.xMm, q.b.xMm));
        expect([p.lead, q.lead, lap > 12]).toEqual([p.lead, q.lead, false]);
      }
  });
});

describe("labels", () => {
  it("break at an underscore or a blank, and are never shortened", () => {
    expect(labelLines("SYS_FAN1")).toEqual(["SYS_FAN1"]);
    expect(labelLines("CPU_FAN_OPTIONAL").join("")).toBe("CPU_FAN_OPTIONAL");
    fc.assert(fc.property(fc.string({ maxLength: 40 }), (s) => labelLines(s).join("").replace(/ /g, "") === s.replace(/ /g, "")));
  });
  it("whatever is asked for: none over another, none outside, the first of all always placed where there is room at all", () => {
    const box = fc.record({
      x: fc.integer({ min: 0, max: 380 }),
      y: fc.integer({ min: 0, max: 280 }),
      w: fc.integer({ min: 4, max: 40 }),
      h: fc.integer({ min: 4, max: 40 }),
    });
    fc.assert(
      fc.property(fc.array(box, { minLength: 1, maxLength: 25 }), (boxes) => {
        const room = { bounds: { x: 0, y: 0, w: 420, h: 320 }, keepClear: boxes, line: 14, letter: 0.52 };
        const made = placeLabels(
          boxes.map((at, i) => ({ id: `p${i}`, text: `PORT_${i}`, at, rank: i })),
          room,
        );
        for (const [i, l] of made.entries()) for (const m of made.slice(i + 1)) expect(over(l.box, m.box)).toBe(false);
        for (const l of made) expect(l.box.x >= 0 && l.box.y >= 0 && l.box.x + l.box.w <= 420 && l.box.y + l.box.h <= 320).toBe(true);
      }),
    );
  });
});

describe("where words stand", () => {
  const room = { bounds: { x: 0, y: 0, w: 420, h: 320 }, keepClear: [], line: 14, letter: 0.52 };
  it("not where an outline would run through them, while there is room nearby; else there all the same", () => {
    const at = { x: 200, y: 100, w: 20, h: 60 };
    const wish = { id: "a", text: "FN-01", at, rank: 3 };
    const [plain] = placeLabels([wish], room);
    if (!plain) throw new Error("no word");
    // By hand: an edge through its first place, at the right of it; then one wherever it could stand.
    const edge = { x: plain.box.x + 10, y: plain.box.y - 20, w: 300, h: 54 };
    const [moved] = placeLabels([wish], { ...room, outlines: [at, edge] });
    const crosses = (b: typeof at, o: typeof at) => over(b, o) && !(b.x >= o.x && b.y >= o.y && b.x + b.w <= o.x + o.w && b.y + b.h <= o.y + o.h);
    expect([moved && crosses(moved.box, edge), moved?.leader]).toEqual([false, undefined]);
    const everywhere = Array.from({ length: 40 }, (_, i) => ({ x: 0, y: i * 8, w: 420, h: 4 }));
    expect(placeLabels([wish], { ...room, outlines: everywhere })[0]?.box).toEqual(plain.box);
  });
  it("within what they name before others stand beside, but for what is chosen", () => {
    const drive = { id: "drive", text: "Drive 5", at: { x: 100, y: 100, w: 90, h: 20 }, rank: 5, inside: "may" as const };
    const fan = { id: "fan", text: "FN-05", at: { x: 160, y: 60, w: 10, h: 100 }, rank: 3 };
    const made = placeLabels([drive, fan], room);
    expect(made.map((l) => [l.id, l.inside])).toEqual([
      ["drive", true],
      ["fan", false],
    ]);
    expect(placeLabels([drive, { ...fan, rank: 0 }], room).map((l) => l.id)[0]).toBe("fan");
  });
  it("fs-1043: each of its eight drives is named in its own place", () => {
    const { build, types } = demo("fs-1043");
    const d = drawSheet(sceneOf(buildGraph(build, types)), "front", {
      ...look(of("fs-1043"), 1),
      nameOfPort: () => undefined,
      nameOfBox: (b) => (b.kind === "board" ? undefined : b.kind === "fan" ? (b.faceOn ? 6 : 3) : 5),
    });
    expect(labels(d.items).filter((l) => l.text.startsWith("Dome drive") && l.inside).length).toBe(8);
  });
});

describe("the machine as SVG", () => {
  it.each(DEMO)("%s is well-formed XML (fast-xml-parser), to scale in mm, both sides, with its ports and filled headers named", (name) => {
    const g = of(name);
    const { view } = sceneOf(g);
    for (const s of SHEETS) {
      const d = paperDrawing(g, s, `${name} <"&'> plan`);
      const svg = svgOf(d);
      expect(XMLValidator.validate(svg)).toBe(true);
      const root = new XMLParser({ ignoreAttributes: false }).parse(svg).svg;
      expect(root["@_width"]).toBe(`${view.widthMm + 4}mm`);
      expect(root["@_viewBox"]).toBe(`-2 -2 ${view.widthMm + 4} ${view.heightMm + 4}`);
      if (s === "behind") continue;
      const board = g.parts.get("board");
      const drawn = d.items.flatMap((i) => (i.kind === "port" ? [i.port.address] : []));
      for (const p of board?.type.ports ?? []) expect(drawn).toContain(`board:${p.id}`);
      const names = labels(d.items).map((l) => l.id);
      const filled = (board?.type.ports ?? []).filter(
        (p) => g.atPort.has(`board:${p.id}`) && d.items.some((i) => i.kind === "port" && i.port.address === `board:${p.id}` && !i.port.landmark),
      );
      expect(filled.filter((p) => !names.includes(`board:${p.id}`)).length).toBeLessThanOrEqual(2);
    }
  });
});

describe("what a thing is known by", () => {
  it("every outline has its tone, nearer is lighter; each kind has its own marks where there is room for them", () => {
    const scene = sceneOf(of("fs-1045"));
    const d = drawSheet(scene, "front", look(of("fs-1045"), 1.25));
    const rects = d.items.flatMap((i) => (i.kind === "rect" ? [i] : []));
    const tone = (part: string) => rects.find((r) => r.of === part && r.ink !== "board")?.tone;
    const [inside, tray, board] = ["case", "tray", "board"].map((ink) => rects.find((r) => r.ink === ink)?.tone);
    expect([inside, tray, board]).toEqual([0, 1, 2]);
    expect(tone("card")).toBe(5);
    const details = (part: string) => {
      const at = d.items.findIndex((i) => i.kind === "rect" && i.of === part && i.ink !== "board");
      const next = d.items.findIndex((i, n) => n > at && i.kind !== "detail");
      return d.items.slice(at + 1, next).map((i) => (i.kind === "detail" ? i.d : ""));
    };
    const kinds = new Map(scene.boxes.flatMap((b) => (b.part && b.kind !== "board" ? [[b.kind, details(b.part).join("")] as const] : [])));
    for (const kind of ["fan", "radiator", "card", "pump", "light"] as const)
      expect([kind, (kinds.get(kind) ?? "").length > 20]).toEqual([kind, true]);
    // A cooler is a radiator and a pump: both are found by its name.
    const marks = [...kinds].flatMap(([kind, m]) => (kind === "pump" || m === "" ? [] : [m]));
    expect(new Set(marks).size).toBe(marks.length);
    // Shapes are sound: numbers only, nothing that is no number.
    for (const i of d.items) if (i.kind === "detail") expect(i.d).toMatch(/^[-MLQahvz0-9. ]+$/);
  });
  it("lies on paper in three greys, in file and PDF alike", () => {
    const svg = svgOf(paperDrawing(of("fs-1045"), "front", "FS-1045"));
    expect(XMLValidator.validate(svg)).toBe(true);
    expect(new Set(svg.match(/fill="#[0-9a-f]{3,6}"/g))).toEqual(new Set(['fill="#fff"', 'fill="#ececec"', 'fill="#dcdcdc"', 'fill="#000"']));
  });
});

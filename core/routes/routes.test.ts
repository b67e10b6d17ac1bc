import Graphology from "graphology";
import { singleSource } from "graphology-shortest-path/dijkstra";
import { beforeAll, describe, expect, it } from "vitest";
import { DEMO, demo, demoPlan } from "../../tests/fixtures/demo";
import { generated } from "../../tests/fixtures/generated";
import { buildGraph, type Graph, type Rect, runLengthMm, withConnections } from "../assembly";
import { plan } from "../plan";
import { wireDiameterMm } from "../power";
import { bodies, spotOfLead, spotOfPort } from "../space";
import { bundleMm, cutoutsFor, flatMm, leadToPortMm, networkOf, routesJson, routesOf, routeWords, straightMm } from ".";
import { BEND_COST, makeNetwork, type Network, sizeOf } from "./network";
import { nodesOf, spread } from "./shortest";
import { wayBetween } from "./way";

const graphs = new Map<string, Graph>();
const of = (name: string) => graphs.get(name) as Graph;
/** Builds of the generator stand in the demo's tower, so that they have walls to go round. */
const NAMES = [...DEMO, "made 25/1", "made 40/2", "made 60/3"];
beforeAll(async () => {
  for (const name of DEMO) graphs.set(name, buildGraph((await demoPlan(name)).build, demo(name).types));
  for (const [name, leads, seed] of [
    ["made 25/1", 25, 1],
    ["made 40/2", 40, 2],
    ["made 60/3", 60, 3],
  ] as const) {
    const { build, types } = generated(leads, seed);
    graphs.set(name, buildGraph((await plan(build, types, { deadlineS: 10 })).build, types));
  }
}, 180_000);

/** The network as a general graph: a node for each state (crossing, direction of the last stretch), an edge for each move. */
function asGraph(net: Network, bend: number, cutout: number): Graphology {
  const g = new Graphology({ type: "directed" });
  const nx = net.xs.length;
  const ny = net.ys.length;
  for (let n = 0; n < 2 * nx * ny; n++) for (const d of [0, 1]) g.addNode(`${n}/${d}`);
  const both = (a: number, b: number, d: number, cost: number) => {
    for (const was of [0, 1]) {
      g.addEdge(`${a}/${was}`, `${b}/${d}`, { weight: cost + (was === d ? 0 : bend) });
      g.addEdge(`${b}/${was}`, `${a}/${d}`, { weight: cost + (was === d ? 0 : bend) });
    }
  };
  for (let s = 0; s < 2; s++)
    for (let j = 0; j < ny; j++)
      for (let i = 0; i < nx; i++) {
        const at = s * nx * ny + j * nx + i;
        if (i + 1 < nx) both(at, at + 1, 0, net.right[at] as number);
        if (j + 1 < ny) both(at, at + nx, 1, net.down[at] as number);
        const other = net.link[at] as number;
        if (other > at)
          for (const was of [0, 1])
            for (const d of [0, 1]) {
              g.addEdge(`${at}/${was}`, `${other}/${d}`, { weight: cutout });
              g.addEdge(`${other}/${was}`, `${at}/${d}`, { weight: cutout });
            }
      }
  return g;
}

describe("what was worked out", () => {
  it("is remembered of every build that is asked for in turn, as a server is by its benches, each read anew", async () => {
    const anew = async () => Promise.all(DEMO.map(async (name) => buildGraph((await demoPlan(name)).build, demo(name).types)));
    const ways = (graphs: readonly Graph[]) => graphs.flatMap((g) => routesOf(g).routes.flatMap((r) => (r.way && !r.asked ? [r.way] : [])));
    const [first, second] = [await anew(), await anew()];
    const was = ways(first);
    const again = ways(second);
    expect(again.length).toBe(was.length);
    // The very same: nothing was worked out a second time.
    expect(again.filter((w, i) => w !== was[i])).toEqual([]);
    expect(second.filter((g, i) => networkOf(g) !== networkOf(first[i] as Graph))).toEqual([]);
  });
});

describe("the cheapest way", () => {
  it.each(["fs-1044", "fs-1047"])("%s: costs what Dijkstra of a general graph library (graphology) finds, to every crossing", (name) => {
    const graph = of(name);
    const net = networkOf(graph) as Network;
    const fans = [...graph.leads.values()].filter((l) => l.loom === "fans").slice(0, 2);
    expect(fans.length).toBe(2);
    const g = asGraph(net, BEND_COST, 25 * 20);
    for (const l of fans) {
      const from = spotOfLead(graph, l);
      const s = spread(net, from, { bend: BEND_COST });
      const starts = nodesOf(net, from);
      // A source of its own, with a free edge to each state in which a lead can begin.
      g.addNode("from");
      for (const n of starts) for (const d of [0, 1]) g.addEdge("from", `${n}/${d}`, { weight: 0 });
      // singleSource gives paths; their weights are added up here.
      const paths = singleSource(g, "from", "weight");
      for (let n = 0; n < sizeOf(net) * 2; n += 7) {
        const path = paths[`${n}/0`];
        if (!path) throw new Error(`no path to ${n}`);
        let cost = 0;
        for (let i = 1; i < path.length; i++) cost += g.getEdgeAttribute(path[i - 1], path[i], "weight") as number;
        // Ours adds its tie-break: less than one for the longest way there can be.
        expect(Math.abs((s.cost[n * 2] as number) - cost)).toBeLessThan(1);
      }
      g.dropNode("from");
    }
  });
});

const inside = (r: Rect, x1: number, y1: number, x2: number, y2: number) =>
  Math.max(x1, x2) > r.xMm + 0.01 &&
  Math.min(x1, x2) < r.xMm + r.widthMm - 0.01 &&
  Math.max(y1, y2) > r.yMm + 0.01 &&
  Math.min(y1, y2) < r.yMm + r.heightMm - 0.01;

describe("laws of routes", () => {
  it.each(NAMES)("%s: none goes through anything solid, but out of or into what one of its ends is in", (name) => {
    const graph = of(name);
    const solid = bodies(graph).filter((b) => b.lets === "nothing" && !b.assumed && b.kind !== "light");
    const all = routesOf(graph).routes;
    expect(all.filter((r) => r.way).length).toBeGreaterThan(all.length * 0.9);
    for (const r of all)
      for (const s of r.way?.stretches ?? [])
        for (const [i, p] of s.points.entries()) {
          const q = s.points[i - 1];
          if (!q) continue;
          for (const b of solid) {
            if (!b.sheets.includes(s.sheet) || (s.sheet === "behind" && b.kind === "fan")) continue;
            const near = (e: { xMm: number; yMm: number }) =>
              e.xMm > b.rect.xMm - 8 && e.xMm < b.rect.xMm + b.rect.widthMm + 8 && e.yMm > b.rect.yMm - 8 && e.yMm < b.rect.yMm + b.rect.heightMm + 8;
            if (near(r.from) || near(r.to)) continue;
            expect([name, r.tag, b.name, inside(b.rect, q.xMm, q.yMm, p.xMm, p.yMm)]).toEqual([name, r.tag, b.name, false]);
          }
        }
  });
  it.each(NAMES)("%s: none needs less than the straight line, none is drawn longer than it is unless nothing reaches", (name) => {
    for (const r of routesOf(of(name)).routes) {
      expect(r.way === undefined || r.way.lengthMm + 0.01 >= straightMm(r.from, r.to)).toBe(true);
      // A splitter hangs where there is room; a hub's ports are judged as one, half its width apart.
      if (r.way && r.through.length === 0 && r.needMm <= r.hasMm) expect([r.tag, r.way.lengthMm <= r.hasMm + 45]).toEqual([r.tag, true]);
    }
  });
  it.each(["fs-1041", "fs-1043", "made 40/2"])(
    "%s: the same whatever the order of its connections; of its parts, but for the tags that follow it",
    (name) => {
      const graph = of(name);
      const { build } = graph;
      const types = name.startsWith("made") ? generated(40, 2).types : demo(name as (typeof DEMO)[number]).types;
      const turned = buildGraph({ ...build, parts: build.parts, connections: [...build.connections].reverse() }, types);
      expect(routesJson(turned)).toEqual(routesJson(graph));
      const other = routesOf(buildGraph({ ...build, parts: [...build.parts].reverse() }, types)).byLead;
      for (const r of routesOf(graph).routes) expect([r.lead, other.get(r.lead)?.needMm, other.get(r.lead)?.way]).toEqual([r.lead, r.needMm, r.way]);
    },
  );
  it.each(NAMES)("%s: no lead that is planned needs more than it has", (name) => {
    const graph = of(name);
    expect(routesOf(graph).routes.flatMap((r) => (r.needMm > r.hasMm ? [[r.tag, r.lead, r.port, r.needMm, r.hasMm]] : []))).toEqual([]);
  });
  it.each(DEMO)("%s: a lead that is moved changes nobody else's need or way", (name) => {
    const graph = of(name);
    const fan = graph.connections.find((c) => graph.leads.get(c.lead)?.loom === "fans" && graph.ports.get(c.port)?.part.type.kind === "board");
    if (!fan) return;
    const moved = withConnections(
      graph,
      graph.connections.filter((c) => c !== fan),
    );
    const after = routesOf(moved).byLead;
    const own = new Set([fan.lead, ...graph.connections.filter((c) => c.port.startsWith(`${fan.lead.split(":")[0]}:`)).map((c) => c.lead)]);
    for (const r of routesOf(graph).routes) {
      if (own.has(r.lead)) continue;
      expect([r.tag, after.get(r.lead)?.needMm, after.get(r.lead)?.way?.lengthMm]).toEqual([r.tag, r.needMm, r.way?.lengthMm]);
    }
  });
  it.each(DEMO)("%s: leading leads together lengthens none by more than a tenth", (name) => {
    const graph = of(name);
    const net = networkOf(graph) as Network;
    const apart = makeNetwork(graph, 1) as Network;
    for (const r of routesOf(graph).routes) {
      const [with1, without] = [wayBetween(net, r.from, r.to, "tidy"), wayBetween(apart, r.from, r.to, "tidy")];
      if (with1 && without) expect([r.tag, with1.lengthMm <= without.lengthMm * 1.1 + 20]).toEqual([r.tag, true]);
    }
  });
  it("against the rule of thumb that was used before, most leads come out within a fifth and none at less than a third", () => {
    const ratios: number[] = [];
    for (const name of DEMO) {
      const graph = of(name);
      for (const r of routesOf(graph).routes) {
        const [l, p] = [graph.leads.get(r.lead), graph.ports.get(r.port)];
        if (!l || !p || l.part.cable || r.through.length > 0 || ["splitter", "extension", "adapter"].includes(l.part.type.kind)) continue;
        ratios.push(leadToPortMm(graph, l, p) / runLengthMm(l.origin, p.at, graph.cutouts, graph.boardRect));
      }
    }
    ratios.sort((a, b) => a - b);
    expect(ratios.length).toBeGreaterThan(50);
    expect(ratios[0]).toBeGreaterThan(0.35);
    expect(ratios[Math.floor(ratios.length / 2)]).toBeGreaterThan(0.9);
    expect(ratios[Math.floor(ratios.length / 2)]).toBeLessThan(1.2);
  });
});

describe("a lead led through another cut-out", () => {
  it("goes through it, whatever is planned, takes its own length, and changes nobody else's way", () => {
    const graph = of("fs-1041");
    const { types } = demo("fs-1041");
    const net = networkOf(graph) as Network;
    const fan = routesOf(graph).routes.find((r) => r.tag === "FN-09");
    const id = cutoutsFor(graph, fan?.lead ?? "").find((c) => !fan?.way?.cutouts.includes(net.cutouts.indexOf(c)))?.id ?? "";
    const other = net.cutouts.findIndex((c) => c.id === id);
    expect(other).toBeGreaterThanOrEqual(0);
    const led = buildGraph({ ...graph.build, ways: [{ lead: fan?.lead ?? "", cutout: id }] }, types);
    const after = routesOf(led).byLead.get(fan?.lead ?? "");
    expect(after?.way?.cutouts).toContain(other);
    expect([after?.asked, (after?.needMm ?? 0) >= (fan?.needMm ?? 0)]).toEqual([id, true]);
    for (const r of routesOf(graph).routes)
      if (r.lead !== fan?.lead) expect([r.tag, routesOf(led).byLead.get(r.lead)?.needMm]).toEqual([r.tag, r.needMm]);
    // Twice through the same is no way, and none that is offered is.
    for (const c of cutoutsFor(graph, fan?.lead ?? "")) {
      const so = routesOf(buildGraph({ ...graph.build, ways: [{ lead: fan?.lead ?? "", cutout: c.id }] }, types)).byLead.get(fan?.lead ?? "");
      expect(new Set(so?.way?.cutouts).size).toBe(so?.way?.cutouts.length);
    }
    // One that the case does not have: the usual way, and it is said.
    const none = buildGraph({ ...graph.build, ways: [{ lead: fan?.lead ?? "", cutout: "nowhere" }] }, types);
    const usual = routesOf(none).byLead.get(fan?.lead ?? "");
    expect(usual?.needMm).toBe(fan?.needMm);
    expect(usual && routeWords(none, usual).join(" ")).toContain("It is wanted through the cut-out nowhere, but no way leads through that");
  });
});

describe("what follows from the routes", () => {
  it("a case that names no cut-outs falls back to the rule of thumb, is drawn by what is typical, and says so", () => {
    const { build, types } = demo("fs-1041");
    const bare = buildGraph(build, (id) => {
      const t = types(id);
      return t?.kind === "case" ? { ...t, body: { ...t.body, cutouts: [] } } : t;
    });
    const fan = bare.leads.get("fan-rear:lead");
    const port = bare.ports.get("board:SYS_FAN1");
    if (!fan || !port) throw new Error("no rear fan");
    expect(leadToPortMm(bare, fan, port)).toBe(runLengthMm(fan.origin, port.at, [], bare.boardRect));
    const plugged = withConnections(bare, [{ lead: fan.address, port: port.address, state: "planned" }]);
    expect(routesOf(plugged).assumed).toEqual(["cut-outs"]);
    expect(routesOf(plugged).routes[0]?.way).toBeDefined();
  });
  it("surplus is folded behind the tray, never in front of a fan; SATA data stays untied; fills and thickness add up", () => {
    for (const name of DEMO) {
      const graph = of(name);
      const all = routesOf(graph);
      for (const r of all.routes) {
        // Beside its port only where what is left of a lead that never goes behind does not get there.
        if (r.fold && r.fold.words !== "beside its port") expect([name, r.tag, r.fold.sheet]).toEqual([name, r.tag, "behind"]);
        if (r.fold?.words === "beside its port")
          expect([name, r.tag, r.way?.stretches.some((x) => x.sheet === "behind")]).toEqual([name, r.tag, false]);
        if (r.hasMm - r.needMm >= 40 && r.way && graph.leads.get(r.lead)?.lead.role !== "splitter-in")
          expect([r.tag, r.fold !== undefined]).toEqual([r.tag, true]);
        if (graph.leads.get(r.lead)?.lead.family === "sata-data") expect([r.ties, r.untied !== undefined]).toEqual([[], true]);
      }
      const through = all.routes.flatMap((r) => r.way?.cutouts ?? []).length;
      expect(all.fill.reduce((n, c) => n + c.leads.length, 0)).toBe(through);
    }
  });
  it("bundles follow the harness rule of 1.2 times the root of the sum of squares; wires the published AWG formula", () => {
    // ASTM B258 (from memory): AWG 18 is 1.024 mm, AWG 24 0.511 mm.
    expect(wireDiameterMm(18)).toBeCloseTo(1.024, 2);
    expect(wireDiameterMm(24)).toBeCloseTo(0.511, 2);
    expect(bundleMm([2])).toBe(2);
    expect(bundleMm([2, 2, 2, 2])).toBeCloseTo(4.8, 6);
    // Pressed flat: never thinner than the thickest in it.
    expect(flatMm([6.5, 1])).toBe(6.5);
    expect(flatMm(Array.from({ length: 60 }, () => 4))).toBeGreaterThan(10);
  });
  it("ends at both sides of a way are where the scene draws lead and port", () => {
    const graph = of("fs-1045");
    for (const r of routesOf(graph).routes) {
      const p = graph.ports.get(r.port);
      if (!p || !r.way) continue;
      const last = r.way.stretches.at(-1)?.points.at(-1);
      expect([r.tag, last]).toEqual([r.tag, { xMm: spotOfPort(graph, p).xMm, yMm: spotOfPort(graph, p).yMm }]);
    }
  });
});

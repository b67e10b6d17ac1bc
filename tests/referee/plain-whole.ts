import {
  type Build,
  buildGraph,
  type Graph,
  type LeadNode,
  manhattanMm,
  naturally,
  type PortNode,
  runCostCm,
  runLengthMm,
  type TypeLookup,
} from "../../core/assembly";
import { panelPlaces } from "../../core/brings";
import { family, headerLimit, mate, startingCurrentA, usable } from "../../core/catalogue";
import { LEVELS, type Level, type PartCost, type Piece } from "../../core/plan";
import { cableLimitW, cpuSocketsNeeded, plugLimitW, portDrawW } from "../../core/power";
import { schoolDeparture, zoneOfTest } from "./school";

/**
 * The plain model of a whole build as one piece: a copy of every accessory and every cable, one yes-or-no for each plug
 * and each place, roots followed plug by plug (`r >= x + R - 1`). It shares no row with the planner. Takes what the
 * generated builds are made of: headers, hubs, splitters, chained lights, USB 2 halves, loose panel plugs, plugs that go
 * straight into one port, drives, and the supply's strings; nothing fixed, no adapters, extensions or USB hubs.
 */
export function plainWhole(build: Build, types: TypeLookup): { piece: Piece; levels: Level[] } {
  const copies = build.accessories.flatMap((a) =>
    Array.from({ length: a.count }, (_, i) => ({ id: `${a.type}.x${i + 1}`, type: a.type, from: "shelf" as const })),
  );
  const graph = buildGraph({ ...build, parts: [...build.parts, ...copies], connections: [] }, types);
  const m = new Rows();
  const isCopy = (id: string) => copies.some((c) => c.id === id);
  const usedCopy = new Map(copies.map((c) => [c.id, m.yes({ fromShelf: 1 })]));
  nets(m, graph, build, usedCopy, isCopy);
  strings(m, graph, usedCopy);
  straight(m, graph);
  return { piece: m.piece(), levels: LEVELS.filter((l) => m.costs.some((c) => (c[l] ?? 0) !== 0)) };
}

type Term = [number, number];

class Rows {
  costs: PartCost[] = [];
  rest: boolean[] = [];
  rows: Piece["rows"][number][] = [];
  yes(cost: PartCost = {}, rest = false): number {
    this.rest.push(rest);
    return this.costs.push(cost) - 1;
  }
  most(terms: Term[], upper: number): void {
    if (terms.length > 0) this.rows.push({ lower: Number.NEGATIVE_INFINITY, upper, terms });
  }
  least(terms: Term[], lower: number): void {
    this.rows.push({ lower, upper: Number.POSITIVE_INFINITY, terms });
  }
  same(terms: Term[], value: number): void {
    this.rows.push({ lower: value, upper: value, terms });
  }
  piece(): Piece {
    return {
      vars: this.costs.map((_, i) => i),
      upper: this.costs.map(() => 1),
      rest: this.rest,
      costs: this.costs,
      rows: this.rows,
      helpers: [],
      links: [],
      asked: [],
    };
  }
}

const NET = new Set(["fan-4", "fan-3", "light-5v", "usb2"]);
const ones = (vars: readonly number[], k = 1): Term[] => vars.map((v) => [v, k]);
const freeOf = (need: string): PartCost =>
  need === "mandatory" ? { mandatoryFree: 1 } : need === "wanted" ? { wantedFree: 1 } : { optionalFree: 1 };

function nets(m: Rows, graph: Graph, build: Build, usedCopy: Map<string, number>, isCopy: (id: string) => boolean): void {
  const plugs = [...graph.leads.values()]
    .filter((l) => NET.has(l.lead.family) && l.lead.flow === "in")
    .sort((a, b) => naturally(a.address, b.address));
  const ports = [...graph.ports.values()]
    .filter((p) => NET.has(p.port.family) && p.port.flow === "out")
    .sort((a, b) => naturally(a.address, b.address));
  // A root is a header, or a powered hub with all its ports; a port fed by a lead passes its root on.
  const feed = (p: PortNode) => p.port.fedBy;
  const opener = (p: PortNode) => plugs.find((l) => l.part.id === p.part.id && l.lead.id === feed(p));
  const rootOf = (p: PortNode) => (feed(p) === undefined ? p.address : opener(p) ? undefined : p.part.id);
  const roots = [...new Set(ports.flatMap((p) => rootOf(p) ?? []))];
  const sample = new Map(roots.map((r) => [r, ports.find((p) => rootOf(p) === r) as PortNode]));
  const y = new Map<string, Map<string, number[]>>();
  const w = new Map<string, Map<string, number>>();
  const isSplit = (l: LeadNode) => l.lead.role === "splitter-in";
  const splitNo = (l: LeadNode) => plugs.filter(isSplit).indexOf(l);
  for (const l of plugs) {
    w.set(
      l.address,
      new Map(
        roots.flatMap((r) => {
          const s = sample.get(r) as PortNode;
          if (!usable(mate(l.lead.family, s.port.family)) || s.part.id === l.part.id) return [];
          if (!isSplit(l) && runLengthMm(l.origin, s.at, graph.cutouts, graph.boardRect) > l.lead.lengthMm) return [];
          const lengthCm = isSplit(l) ? 0 : runCostCm(l.origin, s.at, graph.cutouts, graph.boardRect);
          return [[r, m.yes({ lengthCm, schoolDepartures: schoolDeparture(build, l, s) ? 1 : 0 })] as const];
        }),
      ),
    );
  }
  for (const l of plugs) {
    const mine = new Map<string, number[]>();
    y.set(l.address, mine);
    for (const p of ports) {
      const o = opener(p);
      if (p.part.id === l.part.id || !usable(mate(l.lead.family, p.port.family))) continue;
      // Splitters only on splitters before them: copies are alike, and rings cannot form.
      if (o && isSplit(l) && (!isSplit(o) || splitNo(o) >= splitNo(l))) continue;
      if (o && l.lead.family === "usb2") continue;
      mine.set(p.address, l.lead.family === "usb2" ? [m.yes(), m.yes()] : [m.yes()]);
    }
  }
  for (const l of plugs) {
    const mine = [...(y.get(l.address)?.values() ?? [])].flat();
    const on = [...(w.get(l.address)?.values() ?? [])];
    m.same([...ones(mine), ...ones(on, -1)], 0);
    const free = isSplit(l) ? -1 : isCopy(l.part.id) ? -1 : m.yes(freeOf(l.lead.need), true);
    const unit = usedCopy.get(l.part.id);
    if (unit !== undefined) m.same([...ones(mine), [unit, -1]], 0);
    else m.same([...ones(mine), [free, 1]], 1);
    for (const [address, vars] of y.get(l.address) ?? []) {
      const p = graph.ports.get(address) as PortNode;
      const o = opener(p);
      const r = rootOf(p);
      for (const v of vars) {
        if (r !== undefined) {
          const own = w.get(l.address)?.get(r);
          m.most(
            own === undefined
              ? [[v, 1]]
              : [
                  [v, 1],
                  [own, -1],
                ],
            0,
          );
          const copy = usedCopy.get(p.part.id);
          if (copy !== undefined)
            m.most(
              [
                [v, 1],
                [copy, -1],
              ],
              0,
            );
        }
        if (!o) continue;
        // Follows the plug that feeds the port; which itself must be in.
        m.most([[v, 1], ...ones([...(w.get(o.address)?.values() ?? [])], -1)], 0);
        for (const [root, up] of w.get(o.address) ?? []) {
          const own = w.get(l.address)?.get(root);
          m.most(
            own === undefined
              ? [
                  [v, 1],
                  [up, 1],
                ]
              : [
                  [v, 1],
                  [up, 1],
                  [own, -1],
                ],
            1,
          );
        }
      }
    }
  }
  chainsHaveEnds(m, plugs, y, opener, graph);
  for (const p of ports) {
    for (const place of p.port.family === "usb2" ? [0, 1] : [0])
      m.most(ones(plugs.flatMap((l) => y.get(l.address)?.get(p.address)?.[place] ?? [])), 1);
  }
  for (const r of roots) {
    const s = sample.get(r) as PortNode;
    const limit = feed(s) === undefined ? headerLimit(s.port) : (s.part.type.ports.find((q) => q.id === feed(s))?.limit ?? {});
    const sum = (of: (l: LeadNode) => number): Term[] =>
      plugs.flatMap((l): Term[] => {
        const v = w.get(l.address)?.get(r);
        return v === undefined || of(l) === 0 ? [] : [[v, of(l)]];
      });
    const fan = (l: LeadNode) => family(l.lead.family).loom === "fans";
    const none = (l: LeadNode) => l.lead.family === "usb2";
    if (limit.currentA !== undefined)
      m.most(
        sum((l) => (none(l) ? 0 : Math.round(l.lead.load.currentA * 1000))),
        Math.round(limit.currentA * 1000),
      );
    if (limit.startCurrentA !== undefined)
      m.most(
        sum((l) => (fan(l) ? Math.round(startingCurrentA(l.lead.load) * 1000) : 0)),
        Math.round(limit.startCurrentA * 1000),
      );
    if (limit.leds !== undefined && feed(s) === undefined)
      m.most(
        sum((l) => l.lead.load.leds ?? 0),
        limit.leds,
      );
  }
  zones(m, graph, plugs, roots, w, sample);
}

/** A chain of lights starts at a root: each plug's depth is more than that of the one it hangs on. Depth in four binary digits. */
function chainsHaveEnds(
  m: Rows,
  plugs: readonly LeadNode[],
  y: Map<string, Map<string, number[]>>,
  opener: (p: PortNode) => LeadNode | undefined,
  graph: Graph,
): void {
  const lights = plugs.filter((l) => l.lead.family === "light-5v");
  const depth = new Map(lights.map((l) => [l.address, [1, 2, 4, 8].map((k): Term => [m.yes(), k])]));
  for (const l of lights) {
    for (const [address, vars] of y.get(l.address) ?? []) {
      const o = opener(graph.ports.get(address) as PortNode);
      if (!o) continue;
      // depth(l) >= depth(o) + 1 where plugged; 16 where not.
      m.least([...(depth.get(l.address) ?? []), ...(depth.get(o.address) ?? []).map(([v, k]): Term => [v, -k]), ...ones(vars, -16)], 1 - 16);
    }
  }
}

function zones(
  m: Rows,
  graph: Graph,
  plugs: readonly LeadNode[],
  roots: readonly string[],
  w: Map<string, Map<string, number>>,
  sample: Map<string, PortNode>,
): void {
  const of = new Map<string, LeadNode[]>();
  for (const l of plugs) {
    if (family(l.lead.family).loom !== "fans" || l.lead.role === "splitter-in" || l.lead.role === "hub-control") continue;
    of.set(zoneOfTest(graph, l), [...(of.get(zoneOfTest(graph, l)) ?? []), l]);
  }
  const heard = (r: string) => {
    const s = sample.get(r);
    return s?.port.reportsSpeed === true || s?.part.type.ports.some((p) => p.speedTo !== undefined) === true;
  };
  for (const list of of.values()) {
    const on = roots.flatMap((r) => {
      const here = list.flatMap((l) => w.get(l.address)?.get(r) ?? []);
      if (here.length === 0) return [];
      const z = m.yes();
      for (const v of here)
        m.most(
          [
            [v, 1],
            [z, -1],
          ],
          0,
        );
      return [z];
    });
    if (on.length > 1) {
      const extra = on.slice(1).map(() => m.yes({ extraRoots: 1 }));
      m.most([...ones(on), ...ones(extra, -1)], 1);
    }
    const signals = list.filter((l) => l.lead.reportsSpeed);
    if (signals.length === 0) continue;
    const lost = m.yes({ functionsReduced: 1 }, true);
    m.least([...ones(signals.flatMap((l) => roots.filter(heard).flatMap((r) => w.get(l.address)?.get(r) ?? []))), [lost, 1]], 1);
  }
  for (const h of [...graph.ports.values()].filter((p) => p.port.role === "cpu-fan")) {
    const silent = m.yes({ mandatoryFree: 1 }, true);
    const giving = plugs.filter(
      (l) => l.lead.reportsSpeed || (l.lead.role !== "splitter-in" && l.part.type.ports.some((p) => p.speedTo === l.lead.id)),
    );
    m.least([...ones(giving.flatMap((l) => w.get(l.address)?.get(h.address) ?? [])), [silent, 1]], 1);
  }
}

/** Every cable of the bag as a thing of its own, every plug of it to every socket it reaches. */
function strings(m: Rows, graph: Graph, usedCopy: Map<string, number>): void {
  const sockets = [...graph.ports.values()].filter((p) => p.port.flow === "in" && family(p.port.family).loom === "power");
  const feeding = new Map<string, number[]>(sockets.map((s) => [s.address, []]));
  const outlets = new Map<string, number>();
  for (const p of graph.ports.values())
    if (p.port.family === "supply-outlet") outlets.set(p.port.key ?? "", (outlets.get(p.port.key ?? "") ?? 0) + 1);
  const taking = new Map<string, Term[]>();
  for (const node of graph.parts.values()) {
    const bag = node.cable;
    if (!bag || family(bag.cable.ends[0]?.family ?? "sata-data").loom !== "power") continue;
    const taken = m.yes({ fromBag: 1, lengthCm: Math.round(Math.max(...bag.cable.ends.map((e) => e.atMm)) / 10) });
    for (const o of bag.cable.outlets) taking.set(o, [...(taking.get(o) ?? []), [taken, 1]]);
    const owner = graph.parts.get(bag.owner);
    const made: { e: number; s: PortNode; v: number }[] = [];
    for (const [e, end] of bag.cable.ends.entries()) {
      for (const s of sockets) {
        if (!owner || !usable(mate(end.family, s.port.family)) || plugLimitW(end.family, end.limit) < portDrawW(graph, s)) continue;
        if (runLengthMm(owner.origin, s.at, graph.cutouts, graph.boardRect) > end.atMm + s.port.tailMm) continue;
        const v = m.yes();
        made.push({ e, s, v });
        feeding.get(s.address)?.push(v);
        m.most(
          [
            [v, 1],
            [taken, -1],
          ],
          0,
        );
      }
    }
    for (const e of bag.cable.ends.keys()) m.most(ones(made.filter((x) => x.e === e).map((x) => x.v)), 1);
    m.most(
      made.map((x): Term => [x.v, portDrawW(graph, x.s)]),
      cableLimitW(bag.cable.ends, bag.cable.limit),
    );
    for (const a of made)
      for (const b of made)
        if (a.e < b.e && manhattanMm(a.s.at, b.s.at) > (bag.cable.ends[b.e]?.atMm ?? 0) - (bag.cable.ends[a.e]?.atMm ?? 0))
          m.most(
            [
              [a.v, 1],
              [b.v, 1],
            ],
            1,
          );
  }
  for (const [key, terms] of taking) m.most(terms, outlets.get(key) ?? 0);
  const cpu = sockets.filter((s) => s.port.role === "cpu-power");
  for (const s of sockets) {
    const unit = usedCopy.get(s.part.id);
    const vars = feeding.get(s.address) ?? [];
    if (unit !== undefined) m.same([...ones(vars), [unit, -1]], 0);
    else
      m.same(
        [
          ...ones(vars),
          [
            m.yes(cpu.includes(s) && !cpuSocketsNeeded(graph).includes(s) ? {} : freeOf(s.port.need === "optional" ? "optional" : "mandatory"), true),
            1,
          ],
        ],
        1,
      );
  }
}

/** Plugs that go into one port of their own, loose panel plugs by pins, drives to the board by loose cables. */
function straight(m: Rows, graph: Graph): void {
  const taken = new Map<string, number[]>();
  const take = (key: string, v: number) => taken.set(key, [...(taken.get(key) ?? []), v]);
  for (const l of graph.leads.values()) {
    if (NET.has(l.lead.family) || l.lead.flow !== "in" || l.part.cable) continue;
    const mine: number[] = [];
    for (const p of graph.ports.values()) {
      if (p.port.flow !== "out" || !usable(mate(l.lead.family, p.port.family))) continue;
      if (runLengthMm(l.origin, p.at, graph.cutouts, graph.boardRect) > l.lead.lengthMm) continue;
      for (const place of l.lead.family === "panel-loose" ? panelPlaces(l.lead, p.port) : [[0]]) {
        const v = m.yes({ lengthCm: runCostCm(l.origin, p.at, graph.cutouts, graph.boardRect) });
        mine.push(v);
        for (const pin of place) take(`${p.address}#${pin}`, v);
      }
    }
    m.same([...ones(mine), [m.yes(freeOf(l.lead.need), true), 1]], 1);
  }
  const board = [...graph.ports.values()].filter((p) => p.port.family === "sata-data" && p.port.flow === "out");
  const cables = [...graph.parts.values()].filter((p) => p.cable?.cable.ends.every((e) => e.family === "sata-data"));
  const longest = Math.max(0, ...cables.map((c) => c.type.leads[1]?.lengthMm ?? 0));
  const all: number[] = [];
  for (const d of graph.ports.values()) {
    if (d.port.family !== "sata-data" || d.port.flow !== "in") continue;
    const mine = board.flatMap((p) => {
      if (runLengthMm(d.at, p.at, graph.cutouts, graph.boardRect) > longest) return [];
      const v = m.yes({ lengthCm: runCostCm(d.at, p.at, graph.cutouts, graph.boardRect) });
      take(p.address, v);
      return [v];
    });
    all.push(...mine);
    m.same([...ones(mine), [m.yes(freeOf(d.port.need), true), 1]], 1);
  }
  if (all.length > 0) m.most(ones(all), cables.length);
  for (const vars of taken.values()) m.most(ones(vars), 1);
}

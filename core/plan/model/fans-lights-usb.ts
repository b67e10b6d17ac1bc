import type { Graph, LeadNode, PortNode } from "../../assembly";
import { runCostCm, runLengthMm } from "../../assembly";
import { controlLost, mate, type PartType } from "../../catalogue";
import { type Consumer, fitsRoot, type Nets, opened, type Root, schoolDeparture } from "../../wiring";
import { addCost, type PartCost, zeroCost } from "../cost";
import type { Model } from "./model";
import type { Loosened } from "./relaxed";
import { isThrough, reachesThrough } from "./through";

/** A type of accessory that hangs at a root and turns one place into several: a splitter (or, with one, an extension). */
export interface Splitter {
  type: PartType;
  family: string;
  ports: number;
  lengthMm: number;
  shelf: number;
  order: number;
}

export interface NetChoice {
  consumer: Consumer;
  root: Root;
  variable: number;
  via?: { splitter: Splitter; from: "shelf" | "order" };
  /** Too short for the root: it can only hang behind another part. */
  follows?: boolean;
}
export interface NetSplitters {
  splitter: Splitter;
  root: Root;
  from: "shelf" | "order";
  variable: number;
}
export interface NetVariables {
  choices: NetChoice[];
  splitters: NetSplitters[];
  free: Map<string, number>;
  /** Control leads of units that need no header of the board, where nothing else is chosen. */
  alone: Map<string, number>;
  groups: Nets["groups"];
}

/** Weighs outlets above names in the order of equals. */
const OUTLETS_FIRST = 50;
const MOST_SPLITTERS_AT_A_ROOT = 4;
/** Places beyond a root's own that are tried, where places may be added at a price. */
const MOST_PLACES = 8;

/** The group that a lead was planned on before, for "smallest change". */
export type PreviousGroup = (lead: string) => string | undefined;

export function freeCost(node: LeadNode, spare: boolean): PartCost {
  if (spare) return {};
  // A hub with a button of its own works without the board's signal: less can be done with it, nothing stays dark.
  if (node.lead.ownControl) return { functionsReduced: 1 };
  if (node.lead.need === "mandatory") return { mandatoryFree: 1 };
  return node.lead.need === "wanted" ? { wantedFree: 1 } : { optionalFree: 1 };
}

/** A splitter that carries leads costs what they cost when it stays unplugged. */
function freeOf(c: Consumer): PartCost {
  if (c.carries.length === 0) return freeCost(c.node, c.spare);
  const own: PartCost = c.node.lead.role === "splitter-in" ? {} : freeCost(c.node, false);
  return c.carries.reduce((sum, l) => addCost(sum, freeCost(l, false)), addCost(zeroCost(), own));
}

/** Cost of a lead on a root in every level but accessories; the referee and the checker use the same function. */
export function netCost(graph: Graph, node: LeadNode, root: Root): PartCost {
  const lost = mate(node.lead.family, root.sample.port.family, node.lead.key, root.sample.port.key).outcome === "loss";
  return {
    functionsReduced: (controlLost(node.lead, root.sample.port) ? 1 : 0) + (lost ? 1 : 0),
    schoolDepartures: schoolDeparture(graph.build.policy, node, root.sample),
    // A splitter hangs at its header: what hangs on it is measured to there.
    lengthCm: node.lead.role === "splitter-in" ? 0 : runCostCm(node.origin, root.sample.at, graph.cutouts, graph.boardRect),
  };
}

/** Adds fans, lights and USB 2 to the model. `used` gives the variable of a candidate unit; `loose`: limits may be passed at a price. */
export function addNets(
  model: Model,
  graph: Graph,
  nets: Nets,
  splitters: readonly Splitter[],
  used: Map<string, number>,
  previous: PreviousGroup,
  loose?: Loosened,
): NetVariables {
  const { consumers, roots, groups } = nets;
  const out: NetVariables = { choices: [], splitters: [], free: new Map(), alone: new Map(), groups };
  const onRoot = new Map<string, NetChoice[]>();
  const behind: { variable: number; root: Root; hosts: Consumer[] }[] = [];

  for (const [i, consumer] of consumers.entries()) {
    const { node } = consumer;
    const unit = used.get(node.part.id);
    const mine: NetChoice[] = [];
    for (const [r, root] of roots.entries()) {
      if (!fitsRoot(consumer, root)) continue;
      if (!loose && consumer.mA > Math.min(root.mA, groups.get(root.group)?.mA ?? Number.POSITIVE_INFINITY)) continue;
      const before = previous(consumer.address);
      const cost: PartCost = {
        ...netCost(graph, node, root),
        changes: before !== undefined && before !== root.group ? 1 : 0,
        canonical: (consumers.length - i) * r,
      };
      const needMm = runLengthMm(node.origin, root.sample.at, graph.cutouts, graph.boardRect);
      const name = `${consumer.address}>${root.id}`;
      if (node.lead.lengthMm >= needMm || node.lead.role === "splitter-in") {
        mine.push({ consumer, root, variable: model.variable(name, cost) });
        continue;
      }
      const hosts = hostsOf(graph, consumer, consumers, root);
      if (hosts.fixed || hosts.free.length > 0) {
        const variable = model.variable(`${name}+behind`, cost);
        mine.push({ consumer, root, variable, follows: true });
        if (!hosts.fixed) behind.push({ variable, root, hosts: hosts.free });
      }
      if (loose) {
        const mm = Math.ceil(needMm - node.lead.lengthMm);
        const variable = loose.add(model, `${name}+mm`, "longer", () => ({ kind: "longer", end: consumer.address, mm }));
        mine.push({ consumer, root, variable });
      }
      for (const s of splitters) {
        if (s.ports !== 1 || s.family !== root.sample.port.family || node.lead.lengthMm + s.lengthMm < needMm) continue;
        for (const from of ["shelf", "order"] as const) {
          if (s[from] === 0) continue;
          const variable = model.variable(`${name}+${s.type.id}/${from}`, {
            ...cost,
            [from === "shelf" ? "fromShelf" : "toOrder"]: 1,
            canonical: (cost.canonical ?? 0) + splitters.indexOf(s),
          });
          mine.push({ consumer, root, variable, via: { splitter: s, from } });
        }
      }
    }
    if (unit === undefined) {
      const free = model.variable(
        `${consumer.address}>free`,
        addCost(addCost(zeroCost(), freeOf(consumer)), { changes: previous(consumer.address) === undefined ? 0 : 1 }),
        1,
        true,
      );
      out.free.set(consumer.address, free);
      model.exactly([...mine.map((m): [number, number] => [m.variable, 1]), [free, 1]], 1);
    } else {
      const changes = previous(consumer.address) === undefined ? 0 : 1;
      if (node.lead.ownControl) out.alone.set(consumer.address, model.variable(`${consumer.address}>alone`, { ...freeOf(consumer), changes }));
      const alone = [...out.alone].flatMap(([a, v]): [number, number][] => (a === consumer.address ? [[v, 1]] : []));
      model.exactly([...mine.map((m): [number, number] => [m.variable, 1]), ...alone, [unit, -1]], 0);
    }
    for (const m of mine) onRoot.set(m.root.id, [...(onRoot.get(m.root.id) ?? []), m]);
    out.choices.push(...mine);
  }

  // What hangs behind another part is on a root where such a part is.
  for (const b of behind) {
    const above = (onRoot.get(b.root.id) ?? []).filter((c) => b.hosts.includes(c.consumer));
    model.atMost([[b.variable, 1], ...above.map((c): [number, number] => [c.variable, -1])], 0);
  }
  for (const root of roots) {
    const here = onRoot.get(root.id) ?? [];
    const hung: NetSplitters[] = [];
    if (root.sample.port.family !== "usb2" && here.length > 1) {
      for (const s of splitters) {
        if (s.ports < 2 || s.family !== root.sample.port.family) continue;
        for (const from of ["shelf", "order"] as const) {
          const most = Math.min(s[from], MOST_SPLITTERS_AT_A_ROOT);
          if (most === 0) continue;
          hung.push({
            splitter: s,
            root,
            from,
            variable: model.variable(
              `${root.id}<${s.type.id}/${from}`,
              // Among equals the one with the fewest outlets to spare, then by name.
              { [from === "shelf" ? "fromShelf" : "toOrder"]: 1, canonical: OUTLETS_FIRST * s.ports + splitters.indexOf(s) },
              most,
            ),
          });
        }
      }
    }
    out.splitters.push(...hung);
    if (hung.length > 1)
      model.atMost(
        hung.map((h): [number, number] => [h.variable, 1]),
        MOST_SPLITTERS_AT_A_ROOT,
      );
    if (here.length === 0) continue;
    const unit = root.unit === undefined ? undefined : used.get(root.unit);
    const gate = root.needsLead === undefined ? undefined : onLead(out.choices, root.needsLead);
    const taken: [number, number][] = [
      ...here.map((c): [number, number] => [c.variable, c.consumer.weight - c.consumer.opens]),
      ...hung.map((h): [number, number] => [h.variable, 1 - h.splitter.ports]),
    ];
    if (gate) model.atMost([...taken, ...gate.map((g): [number, number] => [g, -root.places])], 0);
    else if (unit !== undefined) model.atMost([...taken, [unit, -root.places]], 0);
    else if (loose) {
      const { address, port } = root.sample;
      const more = loose.add(
        model,
        `${root.id} places`,
        "place",
        (n) => ({ kind: "place", root: address, family: port.family, count: n }),
        MOST_PLACES,
      );
      model.atMost([...taken, [more, -1]], root.places);
    } else model.atMost(taken, root.places);
    // Chains and splitters open places of their own; without the unit nothing may hang on it at all.
    if (unit !== undefined && !gate)
      for (const c of here)
        model.atMost(
          [
            [c.variable, 1],
            [unit, -1],
          ],
          0,
        );
    limit(model, here, "mA", root.mA, loose);
    limit(model, here, "startMA", root.startMA, loose);
    limit(model, here, "leds", root.leds, loose);
  }
  for (const group of groups.values()) {
    const here = out.choices.filter((c) => c.root.group === group.id);
    limit(model, here, "mA", group.mA, loose);
    limit(model, here, "startMA", group.startMA, loose);
  }
  stock(model, out, splitters);
  addZones(model, nets, out, loose === undefined);
  addSpeedSignals(model, graph, nets, out);
  addOwnHeaders(model, graph, nets, out);
  return out;
}

/** Parts with a through-plug that a lead reaches: those that may come onto the root, and whether one is there for good. */
function hostsOf(graph: Graph, consumer: Consumer, consumers: readonly Consumer[], root: Root): { fixed: boolean; free: Consumer[] } {
  const reached = (p: PortNode) => isThrough(p) && reachesThrough(graph, consumer, p);
  const portOf = (address: string) => graph.ports.get(address);
  return {
    fixed: root.ports.some((a) => {
      const p = portOf(a);
      return p !== undefined && reached(p);
    }),
    free: consumers.filter(
      (c) =>
        c !== consumer &&
        c.opens > 0 &&
        opened(c.node.part, c.node.lead).some((o) => {
          const p = portOf(`${c.node.part.id}:${o.id}`);
          return p !== undefined && reached(p);
        }),
    ),
  };
}

/** What was chosen for a root has no order that holds: some of it goes elsewhere, or something more comes in between. Returns the variables of that row. */
export function forbid(model: Model, nets: NetVariables, root: Root, here: readonly NetChoice[], chosen: (v: number) => number): number[] {
  const members = new Set(here.map((c) => c.consumer));
  const onIt = nets.choices.filter((c) => c.root === root);
  const hung = nets.splitters.filter((s) => s.root === root);
  const outlets = hung.reduce((s, h) => s + (h.splitter.ports - 1) * chosen(h.variable), 0);
  const terms = [
    // Another way of the same lead onto the same root (by an extension) may hold.
    ...here.map((c): [number, number] => [c.variable, 1]),
    ...onIt.filter((c) => !members.has(c.consumer) && c.consumer.opens > 0).map((c): [number, number] => [c.variable, -1]),
    ...hung.map((h): [number, number] => [h.variable, 1 - h.splitter.ports]),
  ];
  model.atMost(terms, here.length - 1 - outlets);
  return terms.map(([v]) => v);
}

const onLead = (choices: readonly NetChoice[], address: string) => choices.filter((c) => c.consumer.address === address).map((c) => c.variable);

function limit(model: Model, here: readonly NetChoice[], of: "mA" | "startMA" | "leds", most: number, loose?: Loosened): void {
  if (!Number.isFinite(most)) return;
  const terms = here.map((c): [number, number] => [c.variable, c.consumer[of]]).filter(([, a]) => a > 0);
  const all = terms.reduce((s, [, a]) => s + a, 0);
  if (terms.length === 0 || all <= most) return;
  const root = here[0]?.root;
  if (!loose || !root) {
    model.atMost(terms, Math.max(0, most));
    return;
  }
  const more = loose.add(model, `${root.id} more ${of}`, "limit", (_, chosen) => {
    const over = terms.reduce((s, [v, a]) => s + a * chosen(v), 0) - most;
    return { kind: "limit", root: root.sample.address, of, over };
  });
  model.atMost([...terms, [more, -(all - Math.max(0, most))]], Math.max(0, most));
}

function stock(model: Model, out: NetVariables, splitters: readonly Splitter[]): void {
  for (const s of splitters) {
    for (const from of ["shelf", "order"] as const) {
      const terms: [number, number][] = [
        ...out.splitters.filter((h) => h.splitter === s && h.from === from).map((h): [number, number] => [h.variable, 1]),
        ...out.choices.filter((c) => c.via?.splitter === s && c.via.from === from).map((c): [number, number] => [c.variable, 1]),
      ];
      if (terms.length > 0) model.atMost(terms, s[from]);
    }
  }
}

const zonesOf = (nets: Nets) => [...new Set(nets.consumers.flatMap((c) => (c.zone === undefined ? [] : [c.zone])))].sort();

/** Roots of a zone beyond the first. */
function addZones(model: Model, nets: Nets, out: NetVariables, tight: boolean): void {
  for (const zone of zonesOf(nets)) {
    const here = out.choices.filter((c) => c.consumer.zone === zone);
    const groups = [...new Set(here.map((c) => c.root.group))];
    const kept = new Set(nets.placed.filter((p) => p.consumer.zone === zone).map((p) => p.group));
    const count = here.reduce((n, c) => n.add(c.consumer.address), new Set<string>()).size;
    if (groups.length + kept.size < 2 || (count < 2 && kept.size === 0)) continue;
    const on = groups
      .filter((g) => !kept.has(g))
      .map((g) => {
        const w = model.helper(`zone ${zone} on ${g}`);
        for (const c of here.filter((x) => x.root.group === g))
          model.atMost(
            [
              [c.variable, 1],
              [w, -1],
            ],
            0,
          );
        if (tight) tighten(model, nets, g, zone, out, w);
        return w;
      });
    const extra = model.helper(`zone ${zone} extra`, { extraRoots: 1 }, Math.max(1, on.length + kept.size));
    model.atMost([...on.map((w): [number, number] => [w, 1]), [extra, -1]], 1 - kept.size);
  }
}

/**
 * What a zone puts on a root is within the root's limits and places only where the zone is on it. Says nothing new, but
 * the solver sees at once how many roots and splitters it takes.
 */
function tighten(model: Model, nets: Nets, group: string, zone: string, out: NetVariables, w: number): void {
  const all = out.choices.filter((c) => c.root.group === group);
  const here = all.filter((c) => c.consumer.zone === zone);
  const most = nets.groups.get(group);
  for (const [limitMA, of] of [
    [most?.mA, (c: Consumer) => c.mA],
    [most?.startMA, (c: Consumer) => c.startMA],
  ] as const) {
    if (limitMA === undefined || !Number.isFinite(limitMA) || limitMA <= 0) continue;
    const terms = here.map((c): [number, number] => [c.variable, of(c.consumer)]).filter(([, a]) => a > 0);
    if (terms.reduce((s, [, a]) => s + a, 0) > limitMA) model.atMost([...terms, [w, -limitMA]], 0);
  }
  const places = nets.roots.filter((r) => r.group === group).reduce((s, r) => s + r.places, 0);
  if (here.reduce((s, c) => s + c.consumer.weight, 0) > places)
    model.atMost(
      [
        ...here.map((c): [number, number] => [c.variable, c.consumer.weight]),
        ...all.map((c): [number, number] => [c.variable, -c.consumer.opens]),
        ...out.splitters.filter((s) => s.root.group === group).map((s): [number, number] => [s.variable, 1 - s.splitter.ports]),
        [w, -places],
      ],
      0,
    );
}

const passesSpeed = (root: { sample: { port: { reportsSpeed?: boolean | undefined; speedTo?: string | undefined } } }) =>
  (root.sample.port.reportsSpeed ?? false) || root.sample.port.speedTo !== undefined;

/** A hub passes a speed signal on when any of its ports does. */
export function rootReports(graph: Graph, root: Root): boolean {
  if (passesSpeed(root)) return true;
  return graph.parts.get(root.group)?.type.ports.some((p) => p.speedTo !== undefined) ?? false;
}

/** A zone that reports no speed at all; and the CPU fan header, whose missing signal halts start-up. */
function addSpeedSignals(model: Model, graph: Graph, nets: Nets, out: NetVariables): void {
  for (const zone of zonesOf(nets)) {
    if (nets.placed.some((p) => p.consumer.zone === zone && p.consumer.reports)) continue;
    const seen = out.choices.filter((c) => c.consumer.zone === zone && c.consumer.reports && rootReports(graph, c.root));
    if (!nets.consumers.some((c) => c.zone === zone && c.reports)) continue;
    const lost = model.helper(`zone ${zone} silent`, { functionsReduced: 1 }, 1, true);
    model.atLeast([...seen.map((c): [number, number] => [c.variable, 1]), [lost, 1]], 1);
  }
  for (const header of [...graph.ports.values()].filter((p) => p.port.role === "cpu-fan" && p.port.flow === "out")) {
    if (nets.placed.some((p) => p.group === header.address && p.consumer.reports)) continue;
    const silent = model.helper(`${header.address} silent`, { mandatoryFree: 1 }, 1, true);
    const seen = out.choices.filter((c) => c.root.group === header.address && c.consumer.reports);
    model.atLeast([...seen.map((c): [number, number] => [c.variable, 1]), [silent, 1]], 1);
  }
}

/** With "each its own header", every case fan beyond the first on a root departs from the school. */
function addOwnHeaders(model: Model, graph: Graph, nets: Nets, out: NetVariables): void {
  if (graph.build.policy.caseFans !== "own-header") return;
  for (const group of nets.groups.keys()) {
    const here = out.choices.filter((c) => c.root.group === group && c.consumer.node.lead.role === "case-fan");
    const kept = nets.placed.filter((p) => p.group === group && p.consumer.node.lead.role === "case-fan").length;
    if (here.length + kept < 2) continue;
    const shared = model.helper(`${group} shared`, { schoolDepartures: 1 }, here.length + kept);
    model.atMost([...here.map((c): [number, number] => [c.variable, 1]), [shared, -1]], 1 - kept);
  }
}

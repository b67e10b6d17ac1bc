import {
  type Address,
  type Connection,
  type Graph,
  isConstant,
  naturally,
  outletOf,
  outletWanted,
  type Part,
  type PartNode,
  type PortNode,
  partIdOf,
} from "../../assembly";
import { hostsIn } from "../model/chain-arcs";
import { arrange, arrangeMost, type Spot } from "../model/chains";
import type { OpenRoot } from "../model/consumers";
import type { DirectVariables } from "../model/direct";
import type { NetChoice, NetVariables } from "../model/net-variables";
import { freshId } from "../model/offer";
import { outletGroup, type SupplyVariables } from "../model/supply";
import { isThrough } from "../model/through";

/** Turns chosen variables into connections: copies, port numbers and cable numbers in canonical order. */
export interface Assembly {
  parts: Part[];
  connections: Connection[];
}

type Chosen = (variable: number) => number;

export function assemble(
  graph: Graph,
  units: readonly Part[],
  nets: NetVariables,
  supply: SupplyVariables,
  direct: DirectVariables,
  usedUnits: ReadonlySet<string>,
  chosen: Chosen,
): Assembly {
  const out: Assembly = { parts: units.filter((u) => usedUnits.has(u.id)), connections: [] };
  const previous = new Map(graph.connections.filter((c) => !isConstant(c)).map((c) => [c.lead, c]));
  assembleNets(graph, nets, chosen, previous, out);
  assembleSupply(graph, supply, chosen, previous, out);
  assembleDirect(graph, direct, chosen, previous, out);
  return out;
}

const planned = (lead: Address, port: Address, place?: number[]): Connection => ({ lead, port, state: "planned", ...(place ? { place } : {}) });

function assembleNets(graph: Graph, nets: NetVariables, chosen: Chosen, previous: Map<Address, Connection>, out: Assembly): void {
  const ids = new Set([...graph.build.parts.map((p) => p.id), ...out.parts.map((p) => p.id)]);
  const roots = new Map<string, OpenRoot>();
  for (const c of nets.choices) roots.set(c.root.id, c.root);
  for (const root of [...roots.values()].sort((a, b) => naturally(a.id, b.id))) {
    const here = nets.choices.filter((c) => c.root === root && chosen(c.variable) > 0);
    if (here.length === 0) continue;
    let open: Spot[] = openSpots(graph, nets, root);
    const reporting = here.some((c) => c.consumer.reports);
    for (const s of nets.splitters.filter((x) => x.root === root)) {
      for (let n = chosen(s.variable); n > 0; n--) {
        const part: Part = { id: freshId(s.splitter.type.id, ids), type: s.splitter.type.id, from: s.from };
        const input = s.splitter.type.leads.find((l) => l.flow === "in");
        const spot = spotForSplitter(open, reporting);
        if (!input || !spot) continue;
        open = open.filter((o) => o !== spot);
        out.parts.push(part);
        out.connections.push(planned(`${part.id}:${input.id}`, spot.address));
        for (const p of s.splitter.type.ports.filter((q) => q.flow === "out")) {
          const speed = spot.speed && (p.speedTo !== undefined || p.reportsSpeed === true);
          open.push({ ...spot, address: `${part.id}:${p.id}`, speed, splitters: spot.splitters + 1 });
        }
      }
    }
    const heard = heardAt(nets, root, chosen);
    for (const { choice: c, spot: under } of arrangeMost(graph, here, open, (lead) => previous.get(lead)?.port, heard, hostsIn(nets, root, chosen))) {
      let { address } = under;
      if (c.via) {
        const part: Part = { id: freshId(c.via.splitter.type.id, ids), type: c.via.splitter.type.id, from: c.via.from };
        const input = c.via.splitter.type.leads.find((l) => l.flow === "in");
        const port = c.via.splitter.type.ports.find((p) => p.flow === "out");
        if (!input || !port) continue;
        out.parts.push(part);
        out.connections.push(planned(`${part.id}:${input.id}`, under.address));
        address = `${part.id}:${port.id}`;
      }
      const halves = c.consumer.weight === 2 ? [1, 2] : [under.half ?? 1];
      out.connections.push(planned(c.consumer.address, address, c.consumer.node.lead.family === "usb2" ? halves : undefined));
    }
  }
}

/** A splitter hangs at the root itself where it can, not behind another part, and where the speed signal passes when it matters. */
const spotForSplitter = (open: readonly Spot[], reporting: boolean): Spot | undefined =>
  [...open].sort(
    (a, b) =>
      Number(a.behind !== undefined) - Number(b.behind !== undefined) ||
      a.splitters - b.splitters ||
      (reporting ? Number(b.speed) - Number(a.speed) : 0) ||
      naturally(a.address, b.address),
  )[0];

/** Leads whose speed signal is the one to be heard at a root: those of the zone that was chosen, or the hub that brings it. */
function heardAt(nets: NetVariables, root: OpenRoot, chosen: Chosen): (c: NetChoice) => boolean {
  const zones = new Set(nets.signals.filter((s) => s.group === root.group && chosen(s.variable) > 0).map((s) => s.zone));
  const own = (c: NetChoice) => c.consumer.reports && c.consumer.zone !== undefined && zones.has(c.consumer.zone);
  const hubs = new Set(nets.passes.filter((p) => p.host === root.group && chosen(p.variable) > 0).map((p) => p.hub));
  const hub = (c: NetChoice) => [...nets.nets.groups.values()].some((g) => hubs.has(g.id) && g.speedLead === c.consumer.address);
  return zones.size > 0 ? own : hub;
}

/** Roots on which what was chosen finds no order: too far apart to hang behind one another, or too many. */
export function withoutOrder(graph: Graph, nets: NetVariables, chosen: Chosen): { root: OpenRoot; here: NetChoice[]; places: number }[] {
  const roots = new Set(nets.choices.map((c) => c.root));
  return [...roots].flatMap((root) => {
    const here = nets.choices.filter((c) => c.root === root && chosen(c.variable) > 0);
    const open = openSpots(graph, nets, root);
    if (!here.some((c) => c.consumer.opens > 0) && !open.some((s) => s.behind)) return [];
    for (const s of nets.splitters.filter((x) => x.root === root)) {
      for (let n = chosen(s.variable); n > 0 && open[0]; n--) {
        const spot = spotForSplitter(open, false) ?? open[0];
        open.splice(open.indexOf(spot), 1);
        for (let k = 0; k < s.splitter.ports; k++)
          open.push({ ...spot, address: `${spot.address}/${s.splitter.type.id}/${n}/${k}`, splitters: spot.splitters + 1 });
      }
    }
    return arrange(graph, here, open, () => undefined, undefined, hostsIn(nets, root, chosen)) ? [] : [{ root, here, places: open.length }];
  });
}

function openSpots(graph: Graph, nets: NetVariables, root: OpenRoot): Spot[] {
  const constants = graph.connections.filter(isConstant);
  return root.ports.flatMap((address): Spot[] => {
    const node = graph.ports.get(address);
    if (!node) return [];
    const speed = node.port.reportsSpeed === true || node.port.speedTo !== undefined;
    const splitters = nets.nets.behindSplitter.has(address) ? 1 : 0;
    if (node.port.family !== "usb2")
      return [{ address, at: node.at, speed, splitters, ...(isThrough(node) ? { behind: { port: node, depth: 1 } } : {}) }];
    const taken = new Set(constants.filter((c) => c.port === address).flatMap((c) => c.place ?? [1, 2]));
    return [1, 2].filter((h) => !taken.has(h)).map((half) => ({ address, at: node.at, speed, splitters, half }));
  });
}

function assembleSupply(graph: Graph, supply: SupplyVariables, chosen: Chosen, previous: Map<Address, Connection>, out: Assembly): void {
  const constants = graph.connections.filter(isConstant);
  const constantLeads = new Set(constants.map((c) => c.lead));
  const takenOutlets = new Set(constants.map((c) => c.port));
  const handed = new Set<string>();
  /** Which groups of outlets a cable was planned on. */
  const roots = new Map<string, string[]>();
  const before = new Map([...previous.values()].map((c) => [c.port, partIdOf(c.lead)]));
  const columns = supply.columns
    .filter((c) => chosen(c.variable) > 0)
    .sort((a, b) => naturally(a.class.id, b.class.id) || naturally(a.ends[0]?.consumer.address ?? "", b.ends[0]?.consumer.address ?? ""));
  // Sockets that already had a cable of this kind keep its number where they can.
  const wish = (c: (typeof columns)[number]) =>
    c.ends.map((e) => before.get(e.consumer.address)).find((id) => id !== undefined && c.class.instances.some((i) => i.id === id));
  for (const pass of [true, false]) {
    for (const column of columns) {
      if ((wish(column) !== undefined) !== pass) continue;
      const free = column.class.instances.filter((i) => !handed.has(i.id));
      const instance = free.find((i) => i.id === wish(column)) ?? free[0];
      if (!instance) continue;
      handed.add(instance.id);
      roots.set(instance.id, [...column.outlets]);
      for (const e of column.ends) out.connections.push(planned(`${instance.id}:${e.end}`, e.consumer.node.address));
    }
  }
  for (const a of supply.adapters) if (chosen(a.variable) > 0) out.connections.push(planned(`${a.adapter.id}:${a.lead}`, a.consumer.address));
  // Roots, for cables taken now and for cables that hands left half done.
  const used = new Set([...out.connections, ...constants].map((c) => partIdOf(c.lead)));
  const outlets = [...graph.ports.values()].filter((p) => p.port.family === "supply-outlet").sort((a, b) => naturally(a.address, b.address));
  for (const node of [...graph.parts.values()].filter((p) => p.cable && used.has(p.id)).sort((a, b) => naturally(a.id, b.id))) {
    for (const [n, key] of (node.cable?.cable.outlets ?? []).entries()) {
      const lead = `${node.id}:root-${n + 1}`;
      if (constantLeads.has(lead)) continue;
      const groups = roots.get(node.id);
      const fits = (o: PortNode) =>
        outletOf(o) === outletWanted(node, key) &&
        !takenOutlets.has(o.address) &&
        (groups === undefined || groups.length === 0 || groups.includes(outletGroup(o)));
      const open = outlets.filter(fits);
      const own = open.filter((o) => o.part.id === node.cable?.owner);
      const outlet = open.find((o) => previous.get(lead)?.port === o.address) ?? ofOwnName(node, own) ?? ofOwnName(node, open);
      if (!outlet) continue;
      takenOutlets.add(outlet.address);
      const at = groups?.indexOf(outletGroup(outlet)) ?? -1;
      if (at >= 0 && (groups?.length ?? 0) > 1) groups?.splice(at, 1);
      out.connections.push(planned(lead, outlet.address));
    }
  }
}

/** Among outlets that are alike, the one that is called what the cable is called: its words, then its number. */
function ofOwnName(cable: PartNode, outlets: readonly PortNode[]): PortNode | undefined {
  const words = (s: string) => new Set(s.toLowerCase().match(/[a-z]{3,}|\d+/g));
  const mine = words(`${cable.part.label ?? ""} ${cable.cable?.cable.label ?? ""} ${cable.cable?.cable.id ?? ""}`);
  const shared = (o: PortNode) => [...words(o.port.label)].filter((w) => mine.has(w)).length;
  return [...outlets].sort((a, b) => shared(b) - shared(a))[0];
}

function assembleDirect(graph: Graph, direct: DirectVariables, chosen: Chosen, previous: Map<Address, Connection>, out: Assembly): void {
  for (const c of direct.choices) if (chosen(c.variable) > 0) out.connections.push(planned(c.node.address, c.port.address, c.place));
  const data = direct.data.filter((d) => chosen(d.variable) > 0).sort((a, b) => naturally(a.drive.address, b.drive.address));
  const free = new Set(direct.cables);
  const before = new Map([...previous.values()].map((c) => [c.port, partIdOf(c.lead)]));
  const had = (d: (typeof data)[number]) => before.get(d.drive.address);
  for (const d of [...data.filter((x) => free.has(had(x) ?? "")), ...data.filter((x) => !free.has(had(x) ?? ""))]) {
    const own = had(d);
    const cable = own !== undefined && free.has(own) ? own : [...free][0];
    if (cable === undefined) continue;
    free.delete(cable);
    const [first, second] = graph.parts.get(cable)?.type.leads ?? [];
    if (first && second) out.connections.push(planned(`${cable}:${first.id}`, d.port.address), planned(`${cable}:${second.id}`, d.drive.address));
  }
}

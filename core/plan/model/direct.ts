import { type Address, type Graph, isConstant, type LeadNode, mateOf, naturally, type PartNode, type PortNode } from "../../assembly";
import { displacedBy, panelPlaces } from "../../brings";
import { family, mate, type Port, usable } from "../../catalogue";
import { leadToPortCm, leadToPortMm, portToPortCm, portToPortMm } from "../../routes";
import { bootSlower, cardOrder, driveOrder, lanesLost, needOfSocket, runsHot, slotsInOrder, socketOrder, speaks, tooFewLanes } from "../../wiring";
import type { PartCost } from "../cost/cost";
import type { Model } from "./model";
import { freePrice, needPrice } from "./prices";
import type { Relaxed } from "./relaxed";
import { term, terms } from "./terms";

export interface DirectChoice {
  node: LeadNode;
  port: PortNode;
  place?: number[];
  variable: number;
}
/** A drive that gets one of the loose data cables. */
export interface DataChoice {
  drive: PortNode;
  port: PortNode;
  variable: number;
}
export interface DirectVariables {
  choices: DirectChoice[];
  free: Map<Address, number>;
  data: DataChoice[];
  driveFree: Map<Address, number>;
  cables: string[];
}

/** Price of a lead in a port of its own. Lanes that a slot shares with others are priced with what fills those. */
function directPrice(graph: Graph, node: LeadNode, port: PortNode): PartCost {
  const slot = inSlot(node);
  const lost = mateOf(node, port).outcome === "loss";
  const narrow = lanesLost(node.lead, port.port.link?.lanes) > 0;
  const slow = node.lead.family === "m2" && bootSlower(graph, node, port);
  return {
    functionsReduced: Number(lost) + Number(narrow) + Number(slow),
    lengthCm: slot ? 0 : leadToPortCm(graph, node, port),
  };
}

/** Parts that sit in a slot or socket have no wire to run. */
const inSlot = (node: LeadNode): boolean => node.loom === "seat" || node.lead.family === "m2";

/** What fills a port: the variable, and whose plug it is. */
interface Fill {
  variable: number;
  node: LeadNode;
}

export function addDirect(model: Model, graph: Graph, loose?: Relaxed): DirectVariables {
  const out: DirectVariables = { choices: [], free: new Map(), data: [], driveFree: new Map(), cables: [] };
  const constants = graph.connections.filter(isConstant);
  const constantLeads = new Set(constants.map((c) => c.lead));
  const ports = [...graph.ports.values()].filter((p) => p.port.flow === "out").sort((a, b) => naturally(a.address, b.address));
  const takenPins = new Map<Address, Set<number>>();
  for (const c of constants) takenPins.set(c.port, new Set([...(takenPins.get(c.port) ?? []), ...(c.place ?? [0])]));
  const occupied = new Set(constants.map((c) => c.port));
  const previous = new Map(graph.connections.filter((c) => !isConstant(c)).map((c) => [c.lead, c.port]));
  const onPin = new Map<string, number[]>();
  const fill = new Map<Address, Fill[]>();
  const cards = cardOrder(graph);
  const slots = slotsInOrder(ports.filter((p) => p.port.family === "pcie-slot"));

  const drives = driveOrder(graph);
  const leads = [...graph.leads.values()]
    .filter((l) => family(l.lead.family).planned === "direct" && l.lead.flow === "in" && !constantLeads.has(l.address))
    .sort((a, b) => naturally(a.address, b.address));
  for (const [i, node] of leads.entries()) {
    const mine: number[] = [];
    const kind = node.lead.family;
    for (const [j, port] of ports.entries()) {
      if (!usable(mate(kind, port.port.family, node.lead.key, port.port.key)) || !speaks(node.lead, port.port)) continue;
      if (tooFewLanes(node.lead, port.port.link?.lanes)) continue;
      const missingMm = inSlot(node) ? 0 : Math.ceil(leadToPortMm(graph, node, port) - node.lead.lengthMm);
      if (missingMm > 0 && !loose) continue;
      const pins = takenPins.get(port.address);
      const places = kind === "panel-loose" ? panelPlaces(node.lead, port.port) : [undefined];
      for (const [n, place] of places.entries()) {
        if (place ? place.some((p) => pins?.has(p)) || pins?.has(0) : occupied.has(port.address)) continue;
        const before = previous.get(node.address);
        const variable = model.variable(`${node.address}>${port.address}${place ? `#${place.join(".")}` : ""}`, {
          ...directPrice(graph, node, port),
          changes: before !== undefined && before !== port.address ? 1 : 0,
          canonical: turnOf(node, port, drives, cards, slots) + (leads.length - i) * j + n,
        });
        mine.push(variable);
        out.choices.push({ node, port, variable, ...(place ? { place } : {}) });
        if (missingMm > 0 && loose) {
          const longer = loose.add(model, `${node.address}>${port.address}#${n}`, "longer", () => ({
            kind: "longer",
            end: node.address,
            mm: missingMm,
          }));
          model.atMost([term(variable), term(longer, -1)], 0);
        }
        if (kind === "panel-block" || !place) {
          for (const pin of port.port.family === "panel-block" ? Array.from({ length: 10 }, (_, p) => p + 1) : [0])
            push(onPin, `${port.address}#${pin}`, variable);
        } else for (const pin of place) push(onPin, `${port.address}#${pin}`, variable);
        fill.set(port.address, [...(fill.get(port.address) ?? []), { variable, node }]);
      }
    }
    const free = model.variable(`${node.address}>free`, { ...freePrice(graph, node, false), changes: previous.has(node.address) ? 1 : 0 }, 1, true);
    out.free.set(node.address, free);
    model.exactly(terms([...mine, free]), 1);
  }
  for (const vars of onPin.values()) if (vars.length > 1) model.atMost(terms(vars), 1);
  addData(model, graph, ports, occupied, out, loose);
  displace(model, graph, ports, occupied, fill, out);
  shareLanes(model, graph, ports, occupied, fill, out);
  return out;
}

/** Weighs who gets which slot: each in its turn the first that is left; for drives, where a slot is no faster, the cooler one. */
function turnOf(node: LeadNode, port: PortNode, drives: readonly PartNode[], cards: readonly PartNode[], slots: readonly PortNode[]): number {
  if (node.lead.family === "m2") return slotOrder(drives, node.part, port.port);
  if (node.lead.family !== "pcie-slot") return port.port.rank * 1000;
  return (cards.length - Math.max(0, cards.indexOf(node.part))) * Math.max(0, slots.indexOf(port)) * 1000;
}

function slotOrder(drives: readonly PartNode[], drive: PartNode, slot: Port): number {
  const turn = drives.indexOf(drive);
  return (drives.length - Math.max(0, turn)) * slot.rank * 20_000 + (runsHot(drive, slot) ? 10_000 : 0);
}

function push<K>(map: Map<K, number[]>, key: K, value: number): void {
  map.set(key, [...(map.get(key) ?? []), value]);
}

/** SATA drives: a board port and a loose cable each. */
function addData(
  model: Model,
  graph: Graph,
  ports: readonly PortNode[],
  occupied: ReadonlySet<Address>,
  out: DirectVariables,
  loose?: Relaxed,
): void {
  const constantLeads = new Set(graph.connections.filter(isConstant).map((c) => c.lead));
  const cables = [...graph.parts.values()].filter((p) => p.type.leads.length === 2 && p.type.leads.every((l) => l.family === "sata-data"));
  const bag = cables.filter((c) => c.type.leads.every((l) => !constantLeads.has(`${c.id}:${l.id}`)));
  out.cables = bag.map((c) => c.id).sort(naturally);
  const longestMm = Math.max(0, ...bag.map((c) => c.type.leads[1]?.lengthMm ?? 0));
  const drives = [...graph.ports.values()]
    .filter((p) => p.port.family === "sata-data" && p.port.flow === "in" && !occupied.has(p.address))
    .sort((a, b) => naturally(a.address, b.address));
  const open = ports.filter((p) => p.port.family === "sata-data" && !occupied.has(p.address));
  const previous = dataBefore(graph);
  const onPort = new Map<Address, number[]>();
  const all: number[] = [];
  for (const [i, drive] of drives.entries()) {
    const mine: number[] = [];
    for (const [j, port] of open.entries()) {
      if (portToPortMm(graph, drive, port) > longestMm) continue;
      const before = previous.get(drive.address);
      const variable = model.variable(`${drive.address}~${port.address}`, {
        functionsReduced: drive.part.part.inArray && port.port.arrayCapable === false ? 1 : 0,
        lengthCm: portToPortCm(graph, drive, port),
        outOfOrder: socketOrder(graph, drive.part, port),
        changes: before !== undefined && before !== port.address ? 1 : 0,
        canonical: (drives.length - i) * j,
      });
      mine.push(variable);
      push(onPort, port.address, variable);
      out.data.push({ drive, port, variable });
    }
    const free = model.variable(
      `${drive.address}~free`,
      {
        ...needPrice(needOfSocket(graph, drive)),
        outOfOrder: socketOrder(graph, drive.part, undefined),
        changes: previous.has(drive.address) ? 1 : 0,
      },
      1,
      true,
    );
    out.driveFree.set(drive.address, free);
    model.exactly(terms([...mine, free]), 1);
    all.push(...mine);
  }
  for (const vars of onPort.values()) if (vars.length > 1) model.atMost(terms(vars), 1);
  if (all.length === 0) return;
  const one = cables[0]?.cable;
  const more =
    loose && one
      ? [loose.add(model, "more data cables", "cable", (n) => ({ kind: "cable", owner: one.owner, cable: one.cable.id, count: n }), all.length)]
      : [];
  model.atMost([...terms(all), ...terms(more, -1)], bag.length);
}

/** Drive socket to board port, as the last plan had it. */
function dataBefore(graph: Graph): Map<Address, Address> {
  const out = new Map<Address, Address>();
  for (const p of graph.parts.values()) {
    if (!p.cable || !p.type.leads.every((l) => l.family === "sata-data")) continue;
    const ends = p.type.leads.map((l) => graph.ofLead.get(`${p.id}:${l.id}`)).filter((c) => c !== undefined && !isConstant(c));
    const drive = ends.find((c) => c && graph.ports.get(c.port)?.port.flow === "in");
    const board = ends.find((c) => c && graph.ports.get(c.port)?.port.flow === "out");
    if (drive && board) out.set(drive.port, board.port);
  }
  return out;
}

/** A filled slot that switches ports off leaves them empty; which ones may depend on what sits in it. */
function displace(
  model: Model,
  graph: Graph,
  ports: readonly PortNode[],
  occupied: ReadonlySet<Address>,
  fill: Map<Address, Fill[]>,
  out: DirectVariables,
): void {
  for (const slot of ports) {
    const there = occupied.has(slot.address) ? graph.atPort.get(slot.address)?.find(isConstant) : undefined;
    const held = there && displacedBy(slot.port, graph.leads.get(there.lead)?.lead);
    const all = new Set(displacedBy(slot.port, undefined));
    for (const id of all) {
      const off = `${slot.part.id}:${id}`;
      const users = [...(fill.get(off) ?? []).map((f) => f.variable), ...out.data.filter((d) => d.port.address === off).map((d) => d.variable)];
      if (held?.includes(id)) for (const u of users) model.exactly([term(u)], 0);
      for (const f of fill.get(slot.address) ?? []) {
        if (!displacedBy(slot.port, f.node.lead).includes(id)) continue;
        if (occupied.has(off)) model.exactly([term(f.variable)], 0);
        else for (const u of users) model.atMost([term(f.variable), term(u)], 1);
      }
    }
  }
}

/** Lanes that a slot loses while another is filled: too few for what sits in it, or fewer than it asks. */
function shareLanes(
  model: Model,
  graph: Graph,
  ports: readonly PortNode[],
  occupied: ReadonlySet<Address>,
  fill: Map<Address, Fill[]>,
  out: DirectVariables,
): void {
  for (const slot of ports) {
    for (const f of fill.get(slot.address) ?? []) {
      let lost: number | undefined;
      for (const shared of slot.port.sharesLanes ?? []) {
        const other = `${slot.part.id}:${shared.with}`;
        if (!graph.ports.has(other)) continue;
        const users = [...(fill.get(other) ?? []).map((x) => x.variable), ...out.data.filter((d) => d.port.address === other).map((d) => d.variable)];
        const held = occupied.has(other);
        if (tooFewLanes(f.node.lead, shared.lanes)) {
          if (held) model.exactly([term(f.variable)], 0);
          else for (const u of users) model.atMost([term(f.variable), term(u)], 1);
          continue;
        }
        const narrower = lanesLost(f.node.lead, shared.lanes) > 0 && lanesLost(f.node.lead, slot.port.link?.lanes) === 0;
        if (!narrower || (users.length === 0 && !held)) continue;
        lost ??= model.helper(`${f.node.address} narrow in ${slot.address}`, { functionsReduced: 1 });
        if (held) model.atMost([term(f.variable), term(lost, -1)], 0);
        for (const u of users) model.atMost([term(f.variable), term(u), term(lost, -1)], 1);
      }
    }
  }
}

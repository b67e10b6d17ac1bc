import type { Address, Connection, Graph, LeadNode, PartNode, PortNode } from "../assembly";
import { mateOf } from "../assembly";
import { controlLost, family, type Port, usable } from "../catalogue";
import { rightPins } from "./contact";
import { rootOf } from "./root";

/** The six things that travel along connections (docs/architecture.md, "What a plug brings"). */
export const TRAVELS = ["current", "control", "colour", "speed", "data", "contact"] as const;
export type Travel = (typeof TRAVELS)[number];

/** Where a travel begins or is read: a supply's outlet, a board's (or card's) port, the part's own button, knob or electronics. */
export type End =
  | { kind: "outlet"; port: PortNode }
  /** A captive cable: the supply itself. */
  | { kind: "supply"; part: PartNode }
  | { kind: "header"; port: PortNode }
  | { kind: "own"; part: PartNode; by: "button" | "knob" | "itself" };

/** Why there is no end: nothing plugged, a plug that does not work there, a ring, a port that gives none, a port that is switched off. */
export type Nowhere =
  | { kind: "free"; lead: Address }
  | { kind: "empty"; port: Address }
  | { kind: "mating"; lead: Address; port: Address }
  | { kind: "ring"; at: Address }
  | { kind: "none"; port: Address }
  | { kind: "off"; port: Address; by: Address }
  | { kind: "lost"; lead: Address; port: Address };

export interface Hop {
  lead: LeadNode;
  port: PortNode;
}

/** A travel followed from where it is wanted to its end. `through`: the plugs on the way, nearest first. */
export type Way = { through: Hop[] } & ({ end: End; nowhere?: undefined } | { end?: undefined; nowhere: Nowhere });

const stopped = (through: Hop[], nowhere: Nowhere): Way => ({ through, nowhere });

/** The plug of a lead, if it is in a port where it works. */
function hop(graph: Graph, lead: LeadNode | undefined, address: Address): Hop | Nowhere {
  const c = lead && graph.ofLead.get(lead.address);
  const port = c && graph.ports.get(c.port);
  if (!lead || !port) return { kind: "free", lead: address };
  if (!usable(mateOf(lead, port))) return { kind: "mating", lead: address, port: port.address };
  return { lead, port };
}
const isHop = (x: Hop | Nowhere): x is Hop => !("kind" in x);

/** What reaches the end of a lead, from where, through what. Ends for every graph, whatever is plugged. */
export function wayOfLead(graph: Graph, address: Address, travel: Travel): Way {
  const first = graph.leads.get(address);
  if (travel === "speed" && first && !first.lead.reportsSpeed && !passesSpeed(first)) return stopped([], { kind: "none", port: address });
  return follow(graph, address, travel, [], new Set());
}

const passesSpeed = (l: LeadNode) => l.part.type.ports.some((p) => p.speedTo === l.lead.id);

function follow(graph: Graph, address: Address, travel: Travel, through: Hop[], seen: Set<Address>): Way {
  if (seen.has(address)) return stopped(through, { kind: "ring", at: address });
  seen.add(address);
  const at = hop(graph, graph.leads.get(address), address);
  if (!isHop(at)) return stopped(through, at);
  const way = [...through, at];
  const { lead, port } = at;
  const own = (id: string) => `${port.part.id}:${id}`;
  const isLead = (id: string | undefined): id is string => id !== undefined && port.part.type.leads.some((l) => l.id === id);
  switch (travel) {
    case "current": {
      const from = port.port.fedBy;
      if (isLead(from)) return follow(graph, own(from), travel, way, seen);
      const socket = from === undefined ? mainSocket(port.part) : own(from);
      return socket === undefined ? { through: way, end: { kind: "header", port } } : fed(graph, socket, way, seen);
    }
    case "control":
    case "colour":
      return commanded(graph, at, travel, way, seen);
    case "speed": {
      if (port.port.speedTo !== undefined) return follow(graph, own(port.port.speedTo), travel, way, seen);
      return port.port.reportsSpeed ? { through: way, end: { kind: "header", port } } : stopped(way, { kind: "none", port: port.address });
    }
    case "data": {
      const off = switchedOff(graph, port);
      if (off) return stopped(way, { kind: "off", port: port.address, by: off.address });
      if (lead.part.cable && port.port.flow === "in") {
        // The other end of a loose data cable.
        const other = lead.part.type.leads.find((l) => l.id !== lead.lead.id);
        return other ? follow(graph, `${lead.part.id}:${other.id}`, travel, way, seen) : stopped(way, { kind: "free", lead: address });
      }
      const from = port.port.fedBy;
      return isLead(from) ? follow(graph, own(from), travel, way, seen) : { through: way, end: { kind: "header", port } };
    }
    case "contact": {
      const c = graph.ofLead.get(address) as Connection;
      return rightPins(lead.lead, port.port, c.place)
        ? { through: way, end: { kind: "header", port } }
        : stopped(way, { kind: "mating", lead: address, port: port.address });
    }
  }
}

/** Speed and colour commands: from the header, through what passes them on, or from the part's own button, knob or electronics. */
function commanded(graph: Graph, { lead, port }: Hop, travel: "control" | "colour", way: Hop[], seen: Set<Address>): Way {
  const own = (id: string) => `${port.part.id}:${id}`;
  const by = port.port.controlledBy ?? (port.part.type.leads.some((l) => l.id === port.port.fedBy) ? port.port.fedBy : undefined);
  if (by === undefined) {
    if (port.port.fedBy !== undefined) {
      // A hub without a control lead: it commands by itself, or not at all.
      const itself = travel === "colour" || (port.port.control ?? "none") !== "none";
      return itself ? { through: way, end: { kind: "own", part: port.part, by: "itself" } } : stopped(way, { kind: "none", port: port.address });
    }
    if (travel === "control" && controlLost(lead.lead, port.port)) return stopped(way, { kind: "lost", lead: lead.address, port: port.address });
    return { through: way, end: { kind: "header", port } };
  }
  const up = port.part.type.leads.find((l) => l.id === by);
  if (up?.ownControl && !graph.ofLead.has(own(by))) return { through: way, end: { kind: "own", part: port.part, by: up.ownControl } };
  if (travel === "control" && port.port.fedBy !== by && controlLost(lead.lead, port.port))
    return stopped(way, { kind: "lost", lead: lead.address, port: port.address });
  // A splitter passes on what its header gives: the lead itself must be able to follow that.
  if (travel === "control" && port.port.fedBy === by) {
    const giver = rootOf(graph, port);
    if (giver.kind !== "nothing" && controlLost(lead.lead, giver.port.port))
      return stopped(way, { kind: "lost", lead: lead.address, port: giver.port.address });
  }
  return follow(graph, own(by), travel, way, seen);
}

/** The board's (or card's) own socket, from which its ports are fed; undefined where it has none. */
function mainSocket(part: PartNode): Address | undefined {
  const main = part.type.ports.find((p) => p.flow === "in" && p.role === "board-power");
  return main && `${part.id}:${main.id}`;
}

/** Current into a power socket: to an outlet of the supply, through adapters. */
export function wayOfSocket(graph: Graph, socket: Address): Way {
  return fed(graph, socket, [], new Set());
}

function fed(graph: Graph, socket: Address, through: Hop[], seen: Set<Address>): Way {
  const c = graph.atPort.get(socket)?.[0];
  const lead = c && graph.leads.get(c.lead);
  const port = graph.ports.get(socket);
  if (!lead || !port) return stopped(through, { kind: "empty", port: socket });
  if (seen.has(lead.address)) return stopped(through, { kind: "ring", at: lead.address });
  seen.add(lead.address);
  const way = [...through, { lead, port }];
  if (!usable(mateOf(lead, port))) return stopped(way, { kind: "mating", lead: lead.address, port: socket });
  if (!lead.part.cable) {
    // An adapter: every one of its sockets must be fed.
    const ins = lead.part.type.ports.filter((p) => p.flow === "in" && family(p.family).loom === "power");
    let last: Way = stopped(way, { kind: "none", port: socket });
    for (const p of ins) {
      last = fed(graph, `${lead.part.id}:${p.id}`, last.end ? last.through : way, new Set(seen));
      if (!last.end) return last;
    }
    return last;
  }
  const roots = lead.part.cable.cable.outlets;
  const owner = graph.parts.get(lead.part.cable.owner);
  if (roots.length === 0 && owner) return { through: way, end: { kind: "supply", part: owner } };
  let end: End | undefined;
  for (const n of roots.keys()) {
    const address = `${lead.part.id}:root-${n + 1}`;
    const root = hop(graph, graph.leads.get(address), address);
    if (!isHop(root)) return stopped(way, root);
    way.push(root);
    end = { kind: "outlet", port: root.port };
  }
  return end ? { through: way, end } : stopped(way, { kind: "none", port: socket });
}

/** Ports that a filled port switches off, given what sits in it. */
export function displacedBy(port: Port, plug: { protocol?: string | undefined } | undefined): readonly string[] {
  const when = (port.displacesWhen ?? []).filter((d) => plug === undefined || plug.protocol === undefined || d.protocol === plug.protocol);
  return [...port.displaces, ...when.flatMap((d) => d.ports)];
}

/** The filled port of the same part that switches this one off. */
export function switchedOff(graph: Graph, port: PortNode): PortNode | undefined {
  for (const p of port.part.type.ports) {
    if (p.displaces.length === 0 && !p.displacesWhen?.length) continue;
    const c = graph.atPort.get(`${port.part.id}:${p.id}`)?.[0];
    if (c && displacedBy(p, graph.leads.get(c.lead)?.lead).includes(port.port.id)) return graph.ports.get(`${port.part.id}:${p.id}`);
  }
  return undefined;
}

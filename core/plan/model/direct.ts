import { type Address, type Graph, type LeadNode, naturally, type PartNode, type PortNode, runCostCm, runLengthMm } from "../../assembly";
import { mate, type Port, usable } from "../../catalogue";
import { driveOrder, isConstant, panelPlaces, runsHot } from "../../wiring";
import type { PartCost } from "../cost";
import { freeCost } from "./fans-lights-usb";
import type { Model } from "./model";
import type { Loosened } from "./relaxed";

/** Leads that go straight into one port each: front panel, audio, USB 3, USB-C, drives, slots and sockets. */
const DIRECT = new Set(["panel-loose", "panel-block", "hd-audio", "usb3-20", "usbc-20", "m2", "cpu-socket", "memory-slot", "pcie-slot"]);

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

/** Cost of a direct pair; the checker uses the same function. */
export function directCost(graph: Graph, node: LeadNode, port: PortNode): PartCost {
  const slot = node.loom === "seat" || node.lead.family === "m2";
  const lost = mate(node.lead.family, port.port.family, node.lead.key, port.port.key).outcome === "loss";
  return { functionsReduced: lost ? 1 : 0, lengthCm: slot ? 0 : runCostCm(node.origin, port.at, graph.cutouts, graph.boardRect) };
}

export function addDirect(model: Model, graph: Graph, loose?: Loosened): DirectVariables {
  const out: DirectVariables = { choices: [], free: new Map(), data: [], driveFree: new Map(), cables: [] };
  const constants = graph.connections.filter(isConstant);
  const constantLeads = new Set(constants.map((c) => c.lead));
  const ports = [...graph.ports.values()].filter((p) => p.port.flow === "out").sort((a, b) => naturally(a.address, b.address));
  const takenPins = new Map<Address, Set<number>>();
  for (const c of constants) takenPins.set(c.port, new Set([...(takenPins.get(c.port) ?? []), ...(c.place ?? [0])]));
  const occupied = new Set(constants.map((c) => c.port));
  const previous = new Map(graph.connections.filter((c) => !isConstant(c)).map((c) => [c.lead, c.port]));
  const onPin = new Map<string, number[]>();
  const fill = new Map<Address, number[]>();

  const drives = driveOrder(graph);
  const leads = [...graph.leads.values()]
    .filter((l) => DIRECT.has(l.lead.family) && l.lead.flow === "in" && !constantLeads.has(l.address))
    .sort((a, b) => naturally(a.address, b.address));
  for (const [i, node] of leads.entries()) {
    const mine: number[] = [];
    const family = node.lead.family;
    for (const [j, port] of ports.entries()) {
      if (!usable(mate(family, port.port.family, node.lead.key, port.port.key)) || !speaks(node, port.port)) continue;
      const slot = node.loom === "seat" || family === "m2";
      const missingMm = slot ? 0 : Math.ceil(runLengthMm(node.origin, port.at, graph.cutouts, graph.boardRect) - node.lead.lengthMm);
      if (missingMm > 0 && !loose) continue;
      const pins = takenPins.get(port.address);
      const places = family === "panel-loose" ? panelPlaces(node.lead, port.port) : [undefined];
      for (const [n, place] of places.entries()) {
        if (place ? place.some((p) => pins?.has(p)) || pins?.has(0) : occupied.has(port.address)) continue;
        const before = previous.get(node.address);
        const variable = model.variable(`${node.address}>${port.address}${place ? `#${place.join(".")}` : ""}`, {
          ...directCost(graph, node, port),
          changes: before !== undefined && before !== port.address ? 1 : 0,
          canonical: (family === "m2" ? slotOrder(drives, node.part, port.port) : port.port.rank * 1000) + (leads.length - i) * j + n,
        });
        mine.push(variable);
        out.choices.push({ node, port, variable, ...(place ? { place } : {}) });
        if (missingMm > 0 && loose) {
          const longer = loose.add(model, `${node.address}>${port.address}#${n}`, "longer", () => ({
            kind: "longer",
            end: node.address,
            mm: missingMm,
          }));
          model.atMost(
            [
              [variable, 1],
              [longer, -1],
            ],
            0,
          );
        }
        if (family === "panel-block" || !place) {
          for (const pin of port.port.family === "panel-block" ? Array.from({ length: 10 }, (_, p) => p + 1) : [0])
            push(onPin, `${port.address}#${pin}`, variable);
        } else for (const pin of place) push(onPin, `${port.address}#${pin}`, variable);
        push(fill, port.address, variable);
      }
    }
    const free = model.variable(`${node.address}>free`, { ...freeCost(node, false), changes: previous.has(node.address) ? 1 : 0 }, 1, true);
    out.free.set(node.address, free);
    model.exactly(
      [...mine, free].map((v): [number, number] => [v, 1]),
      1,
    );
  }
  for (const vars of onPin.values())
    if (vars.length > 1)
      model.atMost(
        vars.map((v): [number, number] => [v, 1]),
        1,
      );
  addData(model, graph, ports, occupied, out, loose);
  displace(model, ports, occupied, fill, out);
  return out;
}

/** Weighs which drive gets which slot: each in its turn the fastest that is left; where a slot is no faster, the cooler one. */
function slotOrder(drives: readonly PartNode[], drive: PartNode, slot: Port): number {
  const turn = drives.indexOf(drive);
  return (drives.length - Math.max(0, turn)) * slot.rank * 20_000 + (runsHot(drive, slot) ? 10_000 : 0);
}

function push<K>(map: Map<K, number[]>, key: K, value: number): void {
  map.set(key, [...(map.get(key) ?? []), value]);
}

/** An NVMe drive wants a slot that speaks NVMe. Slots that say nothing take both. */
function speaks(node: LeadNode, port: Port): boolean {
  return node.lead.protocol === undefined || port.protocols === undefined || port.protocols.includes(node.lead.protocol);
}

/** SATA drives: a board port and a loose cable each. */
function addData(
  model: Model,
  graph: Graph,
  ports: readonly PortNode[],
  occupied: ReadonlySet<Address>,
  out: DirectVariables,
  loose?: Loosened,
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
      if (runLengthMm(drive.at, port.at, graph.cutouts, graph.boardRect) > longestMm) continue;
      const before = previous.get(drive.address);
      const variable = model.variable(`${drive.address}~${port.address}`, {
        lengthCm: runCostCm(drive.at, port.at, graph.cutouts, graph.boardRect),
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
        [drive.port.need === "optional" ? "optionalFree" : drive.port.need === "mandatory" ? "mandatoryFree" : "wantedFree"]: 1,
        changes: previous.has(drive.address) ? 1 : 0,
      },
      1,
      true,
    );
    out.driveFree.set(drive.address, free);
    model.exactly(
      [...mine, free].map((v): [number, number] => [v, 1]),
      1,
    );
    all.push(...mine);
  }
  for (const vars of onPort.values())
    if (vars.length > 1)
      model.atMost(
        vars.map((v): [number, number] => [v, 1]),
        1,
      );
  if (all.length === 0) return;
  const one = cables[0]?.cable;
  const more =
    loose && one
      ? [loose.add(model, "more data cables", "cable", (n) => ({ kind: "cable", owner: one.owner, cable: one.cable.id, count: n }), all.length)]
      : [];
  model.atMost([...all.map((v): [number, number] => [v, 1]), ...more.map((v): [number, number] => [v, -1])], bag.length);
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

/** A filled slot that switches ports off leaves them empty. */
function displace(
  model: Model,
  ports: readonly PortNode[],
  occupied: ReadonlySet<Address>,
  fill: Map<Address, number[]>,
  out: DirectVariables,
): void {
  for (const slot of ports) {
    for (const id of slot.port.displaces) {
      const off = `${slot.part.id}:${id}`;
      const users = [...(fill.get(off) ?? []), ...out.data.filter((d) => d.port.address === off).map((d) => d.variable)];
      if (occupied.has(slot.address)) for (const u of users) model.exactly([[u, 1]], 0);
      else if (occupied.has(off)) for (const f of fill.get(slot.address) ?? []) model.exactly([[f, 1]], 0);
      else
        for (const f of fill.get(slot.address) ?? [])
          for (const u of users)
            model.atMost(
              [
                [f, 1],
                [u, 1],
              ],
              1,
            );
    }
  }
}

import type { Graph, LeadNode, PortNode } from "../assembly";
import { mateOf, outletOf, outletWanted } from "../assembly";
import { boardHas, panelPlaces, switchedOff } from "../brings";
import { family, type Need, passesPower, usable } from "../catalogue";
import { cableLimitW, cpuDrawW, cpuFilledW, cpuShareOnceFilled, cpuSockets, cpuSocketW, plugLimitW, portDrawW, wantedDrawW } from "../power";
import { leadToPortMm, plugToPlugMm, portToPortMm } from "../routes";
import { needOf, needOfSocket } from "../wiring";
import type { Claim } from "./claim";
import { fitting, hindrance } from "./hindered";
import { say } from "./words";

/** Has anything of this build been planned? Without a plan nothing is known of what stays free. */
export const isPlanned = (graph: Graph): boolean => graph.connections.some((c) => c.state === "planned");

/** Why a lead has no port: one claim that holds of the graph as it is. */
export function claimFree(graph: Graph, l: LeadNode): Claim {
  if (l.lead.ownControl) return { kind: "own-control", lead: l.address };
  if (l.lead.role === "splitter-in") return { kind: "spare", end: l.address };
  const fits = fitting(graph, l);
  const planned = isPlanned(graph);
  if (fits.length === 0) return { kind: "no-port", lead: l.address };
  if (l.lead.family === "panel-loose") {
    const block = fits[0];
    if (block && !boardHas(l.lead, block.port)) return { kind: "no-pins", lead: l.address, block: block.address };
    if (block && l.lead.positions?.includes("blank") && blankMeetsPin(l, fits))
      return { kind: "middle-blank", lead: l.address, block: block.address };
  }
  const ports = fits.map((p) => ({ port: p, because: hindrance(graph, l, p) }));
  const open = ports.find((x) => x.because === undefined);
  if (open) return { kind: "room", end: l.address, port: open.port.address, planned };
  return {
    kind: "hindered",
    lead: l.address,
    ports: ports.flatMap((x) => (x.because ? [{ port: x.port.address, because: x.because }] : [])),
  };
}

/** A plug with a blank middle, and no block where its blank meets a blank. */
const blankMeetsPin = (l: LeadNode, fits: readonly PortNode[]) => fits.every((p) => panelPlaces(l.lead, p.port).length === 0);

/** Why a power or data socket of a part is empty: one claim that holds of the graph as it is. */
export function claimEmpty(graph: Graph, p: PortNode): Claim {
  if (passesPower(p.part.type)) return { kind: "spare", end: p.address };
  if (family(p.port.family).planned === "cable") return dataEmpty(graph, p);
  if (p.port.role === "cpu-power" && cpuDrawW(graph) > 0) {
    const filled = cpuSockets(graph).filter((s) => graph.atPort.get(s.address)?.length);
    const carriesW = cpuFilledW(graph);
    if (filled.length > 0 && carriesW >= cpuDrawW(graph) - 1e-9 && needOfSocket(graph, p) === "optional")
      return { kind: "cpu-enough", socket: p.address, drawW: cpuDrawW(graph), carriesW, filled: filled.length };
  }
  return powerEmpty(graph, p);
}

function powerEmpty(graph: Graph, p: PortNode): Claim {
  const socket = p.address;
  const cpu = p.port.role === "cpu-power" && cpuDrawW(graph) > 0;
  const w = cpu ? cpuShareOnceFilled(graph, p) : portDrawW(graph, p) || wantedDrawW(graph, p);
  const plugs = [...graph.leads.values()].filter((l) => l.lead.flow === "out" && usable(mateOf(l, p)));
  if (plugs.length === 0) return { kind: "no-plug", socket };
  const carries = (l: LeadNode) => plugLimitW(l.lead.family, l.lead.limit ?? {});
  // The CPU's draw is shared over its plugs: none of them is too weak by itself.
  const strong = cpu ? plugs : plugs.filter((l) => carries(l) >= w - 1e-9);
  if (strong.length === 0) return { kind: "weak-plugs", socket, w, strongestW: Math.max(...plugs.map(carries)) };
  const shortBy = (l: LeadNode) => leadToPortMm(graph, l, p) - l.lead.lengthMm - p.port.tailMm;
  const near = strong.filter((l) => !l.part.cable || shortBy(l) <= 0);
  if (near.length === 0) return { kind: "plugs-short", socket, missingMm: Math.ceil(Math.min(...strong.map(shortBy))) };
  const idle = near.filter((l) => !graph.ofLead.has(l.address));
  if (idle.length === 0) return { kind: "plugs-in-use", socket, plugs: near.length };
  // Further along a cable than its plugs are apart is out of reach too.
  const tethered = idle.filter((l) => !tooFarAlong(graph, l, p));
  const full = tethered.flatMap((l) => {
    const limitW = l.part.cable ? cableLimitW(l.part.cable.cable.ends, l.part.cable.cable.limit) : Number.POSITIVE_INFINITY;
    const sum = w + loadOf(graph, l.part.id, cpu ? p : undefined);
    return sum > limitW + 1e-9 ? [{ cable: l.part.id, w: sum, ofW: limitW }] : [];
  });
  if (tethered.length > 0 && full.length === tethered.length) return { kind: "cables-full", socket, w, cables: unique(full) };
  const roomy = tethered.filter((l) => !full.some((f) => f.cable === l.part.id));
  const rootless = roomy.filter((l) => outletMissing(graph, l));
  if (roomy.length > 0 && rootless.length === roomy.length)
    return { kind: "no-outlet", socket, systems: [...new Set(rootless.flatMap((l) => l.part.cable?.cable.outlets ?? []))] };
  const open = roomy.find((l) => !outletMissing(graph, l));
  return open ? { kind: "room", end: socket, port: open.address, planned: isPlanned(graph) } : { kind: "plugs-in-use", socket, plugs: near.length };
}

const unique = <X extends { cable: string }>(list: readonly X[]): X[] => [...new Map(list.map((x) => [x.cable, x])).values()];

/** Watts that a cable carries; with `more` filled, the CPU's plugs on it carry the less. */
const loadOf = (graph: Graph, cable: string, more?: PortNode): number =>
  graph.connections.reduce((s, c) => {
    const port = c.lead.startsWith(`${cable}:`) ? graph.ports.get(c.port) : undefined;
    if (port?.port.flow !== "in") return s;
    const filledW = cpuFilledW(graph);
    const share = more && port.port.role === "cpu-power" ? filledW / (filledW + cpuSocketW(graph, more.port.family)) : 1;
    return s + portDrawW(graph, port) * share;
  }, 0);

function tooFarAlong(graph: Graph, l: LeadNode, p: PortNode): boolean {
  return (l.part.cable?.cable.ends ?? []).some((e) => {
    const at = graph.ports.get(graph.ofLead.get(`${l.part.id}:${e.id}`)?.port ?? "");
    return at !== undefined && plugToPlugMm(graph, at, p) > Math.abs(l.lead.lengthMm - e.atMm) + p.port.tailMm + at.port.tailMm;
  });
}

/** A cable that is not plugged into the supply yet, and no open outlet of its system. */
function outletMissing(graph: Graph, l: LeadNode): boolean {
  const roots = l.part.cable?.cable.outlets ?? [];
  return roots.some(
    (key, n) =>
      !graph.ofLead.has(`${l.part.id}:root-${n + 1}`) &&
      ![...graph.ports.values()].some(
        (o) => o.port.family === "supply-outlet" && outletOf(o) === outletWanted(l.part, key) && !graph.atPort.get(o.address)?.length,
      ),
  );
}

function dataEmpty(graph: Graph, p: PortNode): Claim {
  const socket = p.address;
  const ports = [...graph.ports.values()].filter((q) => q.port.family === p.port.family && q.port.flow === "out");
  if (ports.length === 0) return { kind: "no-plug", socket };
  const taken = ports.filter((q) => graph.atPort.get(q.address)?.length);
  const off = ports.flatMap((q) => {
    const by = taken.includes(q) ? undefined : switchedOff(graph, q);
    return by ? [{ port: q.address, by: by.address }] : [];
  });
  if (taken.length + off.length === ports.length) return { kind: "data-ports-gone", socket, taken: taken.map((q) => q.address), off };
  const cables = [...graph.parts.values()].filter(
    (x) => x.cable && x.type.leads.length === 2 && x.type.leads.every((l) => l.family === p.port.family),
  );
  const idle = cables.filter((x) => x.type.leads.every((l) => !graph.ofLead.has(`${x.id}:${l.id}`)));
  if (idle.length === 0) return { kind: "no-data-cable", socket, used: cables.length };
  const open = ports.filter((q) => !taken.includes(q) && !off.some((o) => o.port === q.address));
  const longest = Math.max(...idle.flatMap((x) => x.type.leads.map((l) => l.lengthMm)));
  const missing = Math.min(...open.map((q) => portToPortMm(graph, p, q) - longest));
  if (missing > 0) return { kind: "data-cable-short", socket, missingMm: Math.ceil(missing) };
  return { kind: "room", end: socket, port: open[0]?.address ?? "", planned: isPlanned(graph) };
}

/** An end that stays free, with its reason. */
export interface Free {
  end: string;
  what: string;
  need: Need;
  /** The claim in words. */
  reason: string;
  claim: Claim;
}

/** Everything that stays free: leads of parts without a port, sockets without a plug. */
export function freeEnds(graph: Graph): Free[] {
  const out: Free[] = [];
  const add = (end: string, what: string, need: Need, claim: Claim) => out.push({ end, what, need, claim, reason: say(graph, claim) });
  for (const l of graph.leads.values()) {
    if (l.lead.flow !== "in" || l.lead.role === "cable-root" || graph.ofLead.has(l.address)) continue;
    add(l.address, l.name, needOf(graph, l), claimFree(graph, l));
  }
  for (const p of graph.ports.values()) {
    if (p.port.flow !== "in" || graph.atPort.get(p.address)?.length) continue;
    add(p.address, p.name, needOfSocket(graph, p), claimEmpty(graph, p));
  }
  return out;
}

import { type Connection, type Graph, type LeadNode, mateOf, type PortNode, partsOfKind, zoneOf } from "../assembly";
import { commander, hungOn, panelPinout, rootOf, switchedOff, wayOfLead } from "../brings";
import { controlLost, countedByLeds, family, loadCurrentA, passesPower, usable } from "../catalogue";
import { cableLimitW, cpuDrawW, cpuSocketsNeeded, portDrawW, throughCablesW } from "../power";
import { asksHub, departs, schoolWords } from "../schools";
import { bootDrive, cardOrder, lanesAt, runOf, slotMBs, throughLowNoise } from "../wiring";
import type { Claim } from "./claim";
import { fitting, hindrance } from "./hindered";

/** What can be said of why a connection is where it is, with the numbers that decided. Every claim holds of the graph as it is. */
export function claimsHere(graph: Graph, c: Connection): Claim[] {
  const l = graph.leads.get(c.lead);
  const p = graph.ports.get(c.port);
  if (!l || !p) return [];
  const held: Claim[] = c.state === "fixed" ? [{ kind: "fixed", lead: l.address }] : [];
  const all = [...held, ...about(graph, c, l, p)];
  if (all.length > 0) return all;
  if (c.state !== "planned") return [{ kind: "by-hand", lead: l.address }];
  return usable(mateOf(l, p)) ? [{ kind: "fits", lead: l.address, port: p.address }] : [];
}

function about(graph: Graph, c: Connection, l: LeadNode, p: PortNode): Claim[] {
  if (l.lead.role === "cable-root")
    return !usable(mateOf(l, p)) ? [] : [{ kind: "outlet", lead: l.address, system: l.lead.key ?? "", feeds: fedBy(graph, l.part.id) }];
  switch (family(l.lead.family).planned) {
    case "supply":
      return l.lead.flow === "out" ? power(graph, l, p) : [];
    case "cable":
      return p.port.flow === "in" ? data(graph, l, p) : switchedOff(graph, p) ? [] : [{ kind: "data-port", drive: l.address, port: p.address }];
    case "net":
      return net(graph, c, l, p);
    case "direct":
      return direct(graph, c, l, p);
  }
}

/** Sockets that a cable feeds. */
const fedBy = (graph: Graph, part: string): string[] =>
  graph.connections.filter((c) => c.lead.startsWith(`${part}:`) && graph.leads.get(c.lead)?.lead.role !== "cable-root").map((c) => c.port);

function direct(graph: Graph, c: Connection, l: LeadNode, p: PortNode): Claim[] {
  switch (l.lead.family) {
    case "panel-loose": {
      const pins = (c.place ?? []).filter((_, i) => l.lead.positions?.[i] !== "blank");
      const signals = panelPinout(p.port);
      return [
        {
          kind: "pins",
          lead: l.address,
          pins,
          signals: pins.map((n) => signals.get(n) ?? ""),
          polarity: l.lead.positions?.some((s) => s.endsWith("+")) ?? false,
        },
      ];
    }
    case "m2":
      return slot(graph, l, p);
    case "memory-slot":
      return [{ kind: "board-order", lead: l.address, port: p.address, modules: partsOfKind(graph, "memory").length }];
    case "cpu-socket":
      return [{ kind: "cpu-socket", lead: l.address }];
    case "pcie-slot": {
      const lanes = lanesAt(graph, p);
      const wants = l.lead.link?.lanes;
      const first = cardOrder(graph)[0] === l.part && p.port.rank === 0 ? [{ kind: "first-card", lead: l.address, port: p.address } as const] : [];
      return [
        ...first,
        ...(lanes && wants !== undefined
          ? [
              {
                kind: "lanes",
                lead: l.address,
                port: p.address,
                lanes: lanes.lanes,
                wants,
                sharedWith: lanes.sharedWith.map((s) => s.address),
              } as const,
            ]
          : []),
      ];
    }
    default:
      return [...(onlyOne(graph, l) ? [{ kind: "only-kind", lead: l.address } as const] : []), ...run(graph, l, p)];
  }
}

const onlyOne = (graph: Graph, l: LeadNode) => fitting(graph, l).length === 1;

function run(graph: Graph, l: LeadNode, p: PortNode): Claim[] {
  const run = runOf(graph, l, p);
  return run ? [{ kind: "run", lead: l.address, port: p.address, ...run }] : [];
}

function slot(graph: Graph, l: LeadNode, p: PortNode): Claim[] {
  const carries = slotMBs(p.port, l.lead.protocol);
  const reads = l.part.type.ratings.readMBs;
  const others = fitting(graph, l).filter((q) => q.address !== p.address);
  const speed = (q: PortNode) => slotMBs(q.port, l.lead.protocol) ?? 0;
  const fastest = carries !== undefined && others.every((q) => speed(q) <= carries);
  const fastestLeft = carries !== undefined && others.every((q) => speed(q) <= carries || hindrance(graph, l, q) !== undefined);
  return [
    ...(bootDrive(graph)?.id === l.part.id ? [{ kind: "boots", lead: l.address } as const] : []),
    ...(fastest || fastestLeft ? [{ kind: "slot-fastest", lead: l.address, port: p.address, first: fastest, off: p.port.displaces } as const] : []),
    ...(carries !== undefined && reads !== undefined
      ? [{ kind: "slot-speed", lead: l.address, port: p.address, carriesMBs: Math.floor(carries), readsMBs: reads } as const]
      : []),
    ...(p.port.heatsink ? [{ kind: "heatsink", port: p.address } as const] : []),
  ];
}

function data(graph: Graph, l: LeadNode, p: PortNode): Claim[] {
  const end = wayOfLead(graph, l.address, "data").end;
  return end?.kind === "header" ? [{ kind: "data-port", drive: p.address, port: end.port.address }] : [];
}

function net(graph: Graph, c: Connection, l: LeadNode, p: PortNode): Claim[] {
  const on = hungOn(graph, p);
  if (!on) return [];
  const out: Claim[] = [];
  const root = on.hub ?? on.root.address;
  const mates = on.leads.filter((x) => x.address !== l.address);
  const zone = zoneOf(graph, l);
  if (mates.length > 0 && l.lead.role !== "hub-control" && l.lead.family !== "usb2") {
    const one = l.loom === "fans" && l.lead.role !== "splitter-in" && mates.every((m) => m.lead.role !== "hub-control" && zoneOf(graph, m) === zone);
    out.push({ kind: "shares", lead: l.address, root, with: mates.map((m) => m.address), ...(one ? { zone } : {}) });
  }
  if (l.lead.family !== "usb2") {
    if (on.limitA !== undefined && on.currentA > 0) out.push({ kind: "current", root, a: on.currentA, ofA: on.limitA });
    if (on.leds > 0) out.push({ kind: "leds", root, leds: on.leds, ...(on.limitLeds === undefined ? {} : { of: on.limitLeds }) });
    if (countedByLeds(l.lead)) out.push({ kind: "counted-by-leds", lead: l.address, leds: l.lead.load.leds ?? 0, a: loadCurrentA(l.lead) });
  }
  out.push(...school(graph, l, p));
  if (l.lead.role === "hub-control" || l.lead.role === "light-control")
    out.push({ kind: "signal-only", lead: l.address, what: l.lead.role === "hub-control" ? "speed" : "colour" });
  if (l.lead.ownControl === "button") out.push({ kind: "button", lead: l.address });
  if (throughLowNoise(l)) out.push({ kind: "low-noise", lead: l.address });
  if (controlLost(l.lead, on.root.port)) out.push({ kind: "full-speed", lead: l.address, port: on.root.address });
  if (l.lead.family === "usb2") out.push({ kind: "halves", lead: l.address, halves: c.place?.length === 2 ? 2 : 1 });
  out.push(...run(graph, l, p));
  return out;
}

/** The shop's way: said where it is kept; where it is not, what stood in the way at each place that it asks for. */
function school(graph: Graph, l: LeadNode, p: PortNode): Claim[] {
  if (!schoolWords(graph.build.policy, l)) return [];
  const root = rootOf(graph, p);
  if (root.kind === "nothing") return [];
  const hub = root.kind === "hub" ? { id: root.part.id, kind: root.part.type.kind } : undefined;
  const by = commander(graph, p);
  const header = by.kind === "header" ? by.port : undefined;
  // A fan by itself has no place mates to share a curve with.
  const alone = l.lead.role === "case-fan" && graph.build.policy.caseFans === "group-by-place" && !mates(graph, l, p);
  if (!departs(graph, l, { header, hub })) return alone ? [] : [{ kind: "school-kept", lead: l.address }];
  const ask = asksHub(graph.build.policy, l) ? "hub" : "header";
  // On a hub it departs by what commands the hub: that no other port of a hub changes.
  if (ask === "hub" && hub)
    return [{ kind: "school-left", lead: l.address, ...(header ? { at: header.address } : {}), asks: undefined, there: 0, others: [] }];
  const onHub = (q: PortNode) => {
    const at = rootOf(graph, q);
    return at.kind === "hub" && at.part.type.kind === "hub";
  };
  const wanted = fitting(graph, l).filter((q) =>
    ask === "hub" ? onHub(q) : q.part.type.kind === "board" && !departs(graph, l, { header: q, hub: undefined }),
  );
  const others = wanted.flatMap((q) => {
    const because = q.address === p.address ? undefined : hindrance(graph, l, q);
    return because ? [{ port: q.address, because }] : [];
  });
  return [{ kind: "school-left", lead: l.address, ...(header ? { at: header.address } : {}), asks: ask, there: wanted.length, others }];
}

const mates = (graph: Graph, l: LeadNode, p: PortNode): boolean =>
  hungOn(graph, p)?.leads.some((x) => x !== l && x.lead.role === "case-fan" && zoneOf(graph, x) === zoneOf(graph, l)) ?? false;

function power(graph: Graph, l: LeadNode, p: PortNode): Claim[] {
  const w = portDrawW(graph, p);
  const bag = l.part.cable;
  if (!bag) return [{ kind: "adapter", port: p.address, w, ...(l.part.type.kind === "extension" ? { extends: true as const } : {}) }];
  const feeds = fedBy(graph, l.part.id);
  const sum = feeds.reduce((s, a) => s + (graph.ports.has(a) ? portDrawW(graph, graph.ports.get(a) as PortNode) : 0), 0);
  const limitW = cableLimitW(bag.cable.ends, bag.cable.limit);
  const out: Claim[] = [];
  if (p.port.role === "board-power") out.push({ kind: "main-plug", port: p.address });
  if (p.port.role === "cpu-power" && cpuDrawW(graph) > 0)
    out.push({ kind: "cpu-power", drawW: cpuDrawW(graph), plugW: graph.build.policy.cpuPlugW, needed: cpuSocketsNeeded(graph).length });
  if (p.port.role === "graphics-power") {
    out.push({ kind: "card-power", port: p.address, w });
    const same = feeds.filter((a) => graph.ports.get(a)?.part === p.part && graph.ports.get(a)?.port.role === "graphics-power").length;
    if (same > 1 && Number.isFinite(limitW) && !passesPower(p.part.type))
      out.push({
        kind: "doubled",
        cable: l.part.id,
        card: p.part.id,
        wholeW: throughCablesW(p.part),
        limitW,
        within: throughCablesW(p.part) <= limitW + 1e-9,
      });
  }
  if (feeds.length > 1) out.push({ kind: "one-cable", cable: l.part.id, feeds });
  if (sum > 0) out.push({ kind: "cable-load", cable: l.part.id, w: sum, ...(Number.isFinite(limitW) ? { ofW: limitW } : {}) });
  return out;
}

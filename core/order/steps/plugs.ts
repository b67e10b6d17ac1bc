import { type Connection, coolsCpu, type Graph, isDone, type LeadNode, naturally, type PartNode, type PortNode, partsOfKind } from "../../assembly";
import { family, isLiquid, type PartKind, passesPower } from "../../catalogue";
import { clearances } from "../../fit";
import { routesOf } from "../../routes";
import { bodyOf, cardsOver, spotOfPort } from "../../space";
import { throughLowNoise } from "../../wiring";
import type { Posture, Work } from "../model";
import { CAUTION, HAND_MM, HAND_ROOM_MM } from "../practice";
import type { Edge } from "../where";
import { BOARD_IN, inPlace, mountId, nameOf, plugId, posturesAt, type Site } from "./site";

function pinsWords(l: LeadNode, place: number[] | undefined): string {
  if (!place) return "";
  if (l.lead.family === "usb2") return place.length === 2 ? "" : place[0] === 1 ? ", the half with pin 1" : ", the other half";
  const pins = place.filter((_, i) => l.lead.positions?.[i] !== "blank");
  return `, ${pins.length > 1 ? "pins" : "pin"} ${pins.join(" and ")}`;
}

/** Edge of the board at which a port is, and how far along it from the left or the top, 0 to 1. */
function edgeOf(graph: Graph, p: PortNode): { edge: Edge; along: number } | undefined {
  const r = graph.boardRect;
  if (p.part.type.kind !== "board" || !r) return undefined;
  const x = (p.at.xMm - r.xMm) / r.widthMm;
  const y = (p.at.yMm - r.yMm) / r.heightMm;
  const edge = y < 0.08 ? "top edge" : y > 0.92 ? "bottom edge" : x > 0.92 ? "front edge" : x < 0.1 ? "rear edge" : "inside the board";
  return { edge, along: edge === "top edge" || edge === "bottom edge" ? x : y };
}

function edgeWords(e: ReturnType<typeof edgeOf>): string {
  if (!e) return "";
  const level = e.edge === "top edge" || e.edge === "bottom edge";
  const third = level ? ["left third", "middle", "right third"] : ["upper third", "middle", "lower third"];
  return ` (${e.edge}, ${third[e.along < 0.34 ? 0 : e.along > 0.66 ? 2 : 1]}, rear sockets to the left)`;
}

const EDGE_STAGE: Readonly<Record<Edge, number>> = {
  "bottom edge": 500,
  "front edge": 510,
  "top edge": 490,
  "rear edge": 520,
  "inside the board": 530,
};

/** What a plug's card is called and when it usually comes. */
function goOf(graph: Graph, l: LeadNode, p: PortNode): Pick<Work, "where" | "stage" | "along"> {
  const seat = l.lead.family;
  if (seat === "cpu-socket") return { where: { at: "table" }, stage: 10, along: 0 };
  if (seat === "memory-slot") return { where: { at: "table" }, stage: 20, along: 0 };
  if (seat === "m2") return { where: { at: "table" }, stage: 30, along: 0 };
  if (seat === "pcie-slot") return { where: { at: "card", part: l.part.id }, stage: 800, along: 0 };
  if (p.port.role === "graphics-power") return { where: { at: "card", part: p.part.id }, stage: 810, along: 0 };
  if (l.lead.role === "cable-root") return { where: { at: "supply" }, stage: 255, along: 0 };
  if (p.part.type.kind === "drive") {
    const behind = bodyOf(graph, p.part.id)?.sheets[0] === "behind";
    // One drive after the other: both plugs, then in.
    const nth = [...partsOfKind(graph, "drive")].sort((a, z) => naturally(a.id, z.id)).indexOf(p.part);
    return { where: { at: behind ? "drives-behind" : "cage" }, stage: behind ? 480 : 690, along: nth };
  }
  const e = edgeOf(graph, p);
  if (e) return { where: { at: "edge", part: p.part.id, edge: e.edge }, stage: EDGE_STAGE[e.edge], along: e.along };
  if (["hub", "usb-hub"].includes(p.part.type.kind)) return { where: { at: "hub", part: p.part.id, name: nameOf(p.part) }, stage: 470, along: 0 };
  const table = l.part.type.kind === "cooler" && !isLiquid(l.part.type);
  return table ? { where: { at: "table" }, stage: 60, along: 0 } : { where: { at: "led" }, stage: 460, along: 0 };
}
function cautionOf(l: LeadNode): string | undefined {
  if (l.loom === "seat") return l.lead.family === "pcie-slot" ? CAUTION.lift : CAUTION.static;
  if (l.lead.role === "cable-root") return CAUTION.modular;
  if (l.lead.family === "usb3-20") return CAUTION.usb3;
  if (l.lead.family === "sata-data") return CAUTION.sata;
  if (l.loom === "lighting") return CAUTION.light;
  return l.loom === "power" ? CAUTION.live : undefined;
}

const RIGHT: Readonly<Record<string, string>> = {
  "cpu-socket": "Triangle on triangle, it lies flat without force; the socket's cover is kept",
  "memory-slot": "Both ends click",
  m2: "Its standoff stands at the drive's length, and the screw holds it flat",
  "pcie-slot": "The slot clicks, both screws are in, and a long card rests on its support",
  "atx-24": "The latch is over its nose",
  "cpu-8": "The latch is over its nose",
  "gfx-16": "In to the edge, no gap; its cable leaves straight for 35 mm",
  "panel-block": "The block sits on all its pins",
  "sata-data": "It clicks, and hangs loose",
};
const rightOf = (l: LeadNode, p: PortNode): string =>
  l.lead.family === "m2" && p.port.heatsink
    ? `${RIGHT.m2}; film off the pad, heatsink back on`
    : (RIGHT[l.lead.family] ?? RIGHT[p.port.family] ?? "In to the stop, and it does not come out by its own weight");

const SEAT_MEASURE: Readonly<Record<string, string>> = {
  "cpu-socket": "seat-cpu",
  "memory-slot": "seat-memory",
  m2: "seat-m2",
  "pcie-slot": "seat-card",
};

/** What a plug's minutes are kept under: plugs of one kind take about as long. */
export const measureOfPlug = (l: LeadNode): string =>
  SEAT_MEASURE[l.lead.family] ?? (l.lead.role === "cable-root" ? "root" : `plug-${l.lead.family}`);

function titleOf(l: LeadNode, p: PortNode, c: Connection): string {
  if (l.lead.family === "pcie-slot" && l.part.part.vertical) return `Put ${l.name} on its riser and screw it to the vertical mount`;
  if (l.loom === "seat" || l.lead.family === "m2") return `Put ${l.name} into ${p.name}`;
  if (l.lead.role === "cable-root") return `Plug ${l.part.part.label}, supply end, into ${p.port.label}`;
  const plug = passesPower(l.part.type) ? `${nameOf(l.part)}, its plug,` : l.lead.flow === "out" ? l.lead.label : l.name;
  return `Plug ${plug} into ${p.name}${pinsWords(l, c.place)}${throughLowNoise(l) ? ", its low-noise lead between" : ""}`;
}

/** Every connection of the plan is a step. */
export function plugSteps(site: Site): void {
  const { graph, add } = site;
  for (const c of graph.connections) {
    const l = graph.leads.get(c.lead);
    const p = graph.ports.get(c.port);
    if (!l || !p) continue;
    const caution = site.powered && !isDone(c) ? CAUTION.live : cautionOf(l);
    const postures = posturesOf(site, l, p);
    const behind = postures.join() === "behind-up" ? " From behind the tray." : "";
    const keyed = family(p.port.family).keyedBy;
    add({
      id: plugId(c.lead),
      kind: "plug",
      measure: measureOfPlug(l),
      title: titleOf(l, p, c),
      detail: `${l.tag}${edgeWords(edgeOf(graph, p))}. ${keyed ? `Keyed by ${keyed}.` : ""}${behind}`.trim(),
      rightWhen: rightOf(l, p),
      postures,
      ...(onRadiator(site, l.part) && p.part.type.kind === "splitter"
        ? { where: { at: "radiator", cooler: site.radiators.find((r) => r.fans.includes(l.part))?.cooler.id ?? "" }, stage: 272, along: 0 }
        : goOf(graph, l, p)),
      ...(l.lead.family === "m2" ? { screws: 1 } : l.lead.family === "pcie-slot" ? { screws: 2 } : {}),
      parts: l.part.cable ? [] : [l.part.id],
      lead: c.lead,
      port: c.port,
      leads: [c.lead],
      done: isDone(c),
      ...(caution ? { caution } : {}),
    });
    needs(site, l, p);
  }
  roots(site);
}

function posturesOf(site: Site, l: LeadNode, p: PortNode): readonly Posture[] {
  if (["cpu-socket", "memory-slot", "m2"].includes(l.lead.family)) return [];
  if (l.lead.role === "cable-root") return rootsBefore(site, p.part.id) ? [] : ["front-up", "behind-up"];
  // Joined where its part is put together: on the radiator, or beside the cooler.
  if (["splitter", "extension"].includes(p.part.type.kind) && (onRadiator(site, l.part) || l.part.type.kind === "cooler")) return [];
  if (p.part.type.kind === "board" || p.part.type.kind === "card") return ["front-up"];
  if (p.part.type.kind === "drive") return bodyOf(site.graph, p.part.id)?.sheets[0] === "behind" ? ["behind-up"] : ["front-up", "behind-up"];
  return posturesAt(spotOfPort(site.graph, p).on);
}

/** Do the modular cables go into this supply before it goes in? */
function rootsBefore(site: Site, supply: string): boolean {
  const { policy } = site;
  return policy.supplyCables === "before" || (policy.supplyCables === "derived" && bayIsTight(site, supply) !== undefined) || !site.shell;
}

/** Room left beside the supply where no hand gets to its outlets, mm; undefined: there is room, or nobody knows. */
function bayIsTight(site: Site, supply: string): number | undefined {
  const left = clearances(site.graph, ["supplies"]).find((c) => c.id === `supply-length:${supply}`)?.left;
  return left !== undefined && left < HAND_ROOM_MM ? Math.max(0, Math.round(left)) : undefined;
}

function roots(site: Site): void {
  const { edge, graph } = site;
  for (const c of graph.connections) {
    const l = graph.leads.get(c.lead);
    const p = graph.ports.get(c.port);
    if (l?.lead.role !== "cable-root" || !p) continue;
    const supply = p.part.id;
    const tight = bayIsTight(site, supply);
    if (site.policy.supplyCables === "after") edge("school", mountId(supply), plugId(c.lead), "the shop plugs the cables once the supply is in");
    else if (tight !== undefined) edge("covers", plugId(c.lead), mountId(supply), `the bay leaves ${tight} mm: no hand gets to the outlets`);
    else if (site.policy.supplyCables === "before")
      edge("school", plugId(c.lead), mountId(supply), "the shop plugs the cables before the supply goes in");
    else edge("school", mountId(supply), plugId(c.lead), "the bay leaves room for a hand");
  }
}

/** What must be there before this plug can be plugged. */
function needs(site: Site, l: LeadNode, p: PortNode): void {
  const { graph, edge } = site;
  const id = plugId(l.address);
  const onTable = ["cpu-socket", "memory-slot", "m2"].includes(l.lead.family);
  const hung = (part: PartNode) => onRadiator(site, part);
  if (p.part.type.kind === "board") {
    if (!onTable) edge("needs", BOARD_IN, id, "the board is in the case first");
    else edge("school", id, BOARD_IN, "on the table there is room from all sides");
  }
  if (p.part.type.kind === "card") edge("needs", inPlace(p.part), id, "the card is in its slot first");
  if (l.part.type.kind === "cooler" && !isLiquid(l.part.type)) edge("needs", mountId(l.part.id), id, `its lead comes from ${nameOf(l.part)}`);
  if (FIXED.includes(l.part.type.kind) && !hung(l.part)) edge("needs", mountId(l.part.id), id, `its lead comes from ${nameOf(l.part)}`);
  if (FIXED.includes(p.part.type.kind) && !hung(p.part)) edge("needs", mountId(p.part.id), id, `${nameOf(p.part)} is fixed first`);
  const hangs = ["hub", "usb-hub"].includes(p.part.type.kind) ? radiatorOf(site, l) : undefined;
  if (hangs) edge("reach", mountId(hangs), id, "from the table no lead reaches a hub in the case: the radiator hangs first");
  const owner = graph.parts.get(l.part.cable?.owner ?? l.part.id);
  // Under the supply its plugs go in while it lies beside the case, on the length of its cables.
  const under = owner !== undefined && suppliesOver(graph, p).includes(owner);
  if (owner?.type.kind === "supply" && !under && l.lead.role !== "cable-root" && (l.part.cable?.captive || rootsBefore(site, owner.id)))
    edge("needs", mountId(owner.id), id, "its cable hangs from the supply");
  if (l.part.type.kind === "splitter" && p.part.type.kind !== "splitter")
    for (const c of graph.connections)
      if (graph.ports.get(c.port)?.part.id === l.part.id)
        edge("school", plugId(c.lead), id, "joined first, the splitter's lead is plugged with all that hangs on it");
  late(site, l, p);
}

/** Supplies that hang over a port: in front of it and over it, with no room for a hand between. */
function suppliesOver(graph: Graph, p: PortNode): PartNode[] {
  if (p.part.type.kind !== "board") return [];
  return partsOfKind(graph, "supply").filter((s) => {
    const b = bodyOf(graph, s.id);
    if (!b?.sheets.includes("front")) return false;
    const { xMm, yMm, widthMm, heightMm } = b.rect;
    return p.at.xMm > xMm && p.at.xMm < xMm + widthMm && p.at.yMm > yMm && p.at.yMm < yMm + heightMm;
  });
}

const onRadiator = (site: Site, part: PartNode): boolean => site.radiators.some((r) => r.fans.includes(part));

/** Parts that are fixed to the case before anything is plugged at them. */
const FIXED: readonly PartKind[] = ["fan", "lighting", "hub", "usb-hub"];

/** SATA data and the card come when the rest of the board is plugged, if the shop works so. */
function late(site: Site, l: LeadNode, p: PortNode): void {
  const { graph, edge, policy } = site;
  if (p.part.type.kind !== "board" || l.loom === "seat" || l.lead.family === "m2") return;
  const id = plugId(l.address);
  const data = l.lead.family === "sata-data";
  if (policy.sataData === "last" && !data)
    for (const c of graph.connections) {
      const other = graph.leads.get(c.lead);
      if (other?.lead.family === "sata-data" && graph.ports.get(c.port)?.part.type.kind === "board")
        edge("school", id, plugId(c.lead), "SATA data plugs break easily: nobody works beside them any more");
    }
  for (const card of partsOfKind(graph, "card"))
    if (policy.cardTurn === "last") edge("school", id, inPlace(card), "the card goes in when nothing has to go under it any more");
    else if (!cardsOver(graph, p).includes(card)) edge("school", inPlace(card), id, "the shop puts the card in as soon as the board is in");
}

/** What a step hides, from what the board's entry says of its ports; and leads that reach only once their part hangs, for which their ways are asked. */
export function coverPlugs(site: Site, ways: boolean): void {
  const { graph, edge } = site;
  const kinds = {
    // Where they are says what they cover.
    card: [],
    cooler: partsOfKind(graph, "cooler").flatMap((p) => (isLiquid(p.type) ? [] : [{ id: mountId(p.id), name: nameOf(p) }])),
    radiator: partsOfKind(graph, "cooler").flatMap((p) => (isLiquid(p.type) ? [{ id: mountId(p.id), name: "the radiator" }] : [])),
    // Where it hangs says what it covers, whatever the board's entry says.
    supply: [],
    memory: partsOfKind(graph, "memory").map((p) => ({ id: inPlace(p), name: "the memory" })),
  };
  for (const c of graph.connections) {
    const p = graph.ports.get(c.port);
    const l = graph.leads.get(c.lead);
    if (!p || !l) continue;
    for (const what of p.port.coveredBy)
      for (const by of kinds[what]) {
        // Other parts of its kind may hide it; where there are none, its entry says that it hides itself.
        if (by.id === plugId(c.lead) && kinds[what].length > 1) continue;
        edge("covers", plugId(c.lead), by.id, `${p.port.label} lies under ${by.name}`);
        if (ways && what === "radiator") reach(site, l, by.id);
      }
    for (const card of cardsOver(graph, p))
      if (inPlace(card) !== plugId(c.lead))
        edge("covers", plugId(c.lead), inPlace(card), `${p.port.label} lies ${card.part.vertical ? "behind" : "under"} ${nameOf(card)}`);
    for (const s of suppliesOver(graph, p)) edge("covers", plugId(c.lead), mountId(s.id), `${p.port.label} lies under the supply`);
    // The head's lead reaches only from the CPU.
    if (isLiquid(l.part.type) && coolsCpu(l.part))
      edge("reach", `head:${l.part.id}`, plugId(c.lead), `${l.tag} reaches its port only once the pump head is on the CPU`);
  }
}

/** Held beside its place a radiator's lead needs a hand's breadth more than hung. */
function reach(site: Site, l: LeadNode, hang: string): void {
  const hangs = site.radiators.some((r) => r.fans.includes(l.part)) || isRadiatorSplitter(site, l);
  if (!hangs) return;
  const r = routesOf(site.graph).byLead.get(l.address);
  if (!r || r.hasMm - r.needMm >= HAND_MM) return;
  site.edge(
    "reach",
    hang,
    plugId(l.address),
    `${l.tag} has ${Math.max(0, r.hasMm - r.needMm)} mm to spare, ${HAND_MM} are needed to plug it while the radiator is held beside its place`,
  );
}

/** The cooler on whose radiator a lead hangs: that of a fan or a light on it, or of a splitter that only such are joined to. */
function radiatorOf(site: Site, l: LeadNode): string | undefined {
  const on = site.radiators.find(
    (r) => r.fans.includes(l.part) || (l.part.part.mount !== undefined && r.fans.some((f) => f.part.mount === l.part.part.mount)),
  );
  if (on) return on.cooler.id;
  if (!isRadiatorSplitter(site, l)) return undefined;
  const first = site.graph.connections.find((c) => site.graph.ports.get(c.port)?.part.id === l.part.id)?.lead;
  return site.radiators.find((r) => r.fans.some((f) => first?.startsWith(`${f.id}:`)))?.cooler.id;
}

function isRadiatorSplitter(site: Site, l: LeadNode): boolean {
  if (l.part.type.kind !== "splitter") return false;
  const on = site.graph.connections.filter((c) => site.graph.ports.get(c.port)?.part.id === l.part.id);
  return on.length > 0 && on.every((c) => site.radiators.some((r) => r.fans.some((f) => c.lead.startsWith(`${f.id}:`))));
}

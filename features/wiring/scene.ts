import { type Build, buildGraph, type Graph, type LeadNode, naturally, type PartNode, regionOf, runLengthMm, typeLookup } from "../../core/assembly";
import { closesRing, hungOn, panelPlaces } from "../../core/brings";
import { family, headerLimit, mate, shapeOf, usable } from "../../core/catalogue";
import { amps, runOf } from "../../core/wiring";
import type { DockWish, DrawnPort, Side } from "../../ui/drawing/board-layout";

export const graphOf = (build: Build): Graph => buildGraph(build, typeLookup(build, []));

export interface Scene {
  graph: Graph;
  board: PartNode | undefined;
  widthMm: number;
  heightMm: number;
  ports: DrawnPort[];
  docks: DockWish[];
}

const KIND_WORD: Partial<Record<PartNode["type"]["kind"], string>> = {
  fan: "Fan",
  drive: "Drive",
  hub: "Hub",
  "usb-hub": "USB hub",
  cooler: "Cooler",
  card: "Card",
  case: "Case",
  lighting: "Light",
  splitter: "Splitter",
  extension: "Extend",
  adapter: "Adapter",
};

function sideOf(graph: Graph, p: PartNode): Side {
  if (p.type.kind === "case" || p.type.kind === "card") return "right";
  if (p.part.zone === "radiator" || p.type.kind === "cooler") return "top";
  const region = regionOf(graph, p);
  if (region === "top") return "top";
  if (region === "rear") return "left";
  if (region === "bottom" && p.type.kind !== "drive") return "left";
  return ["splitter", "extension", "adapter"].includes(p.type.kind) ? "left" : "right";
}

/** What is drawn: the board's ports to scale, everything else as a dock on its own side. */
export function sceneOf(build: Build): Scene {
  const graph = graphOf(build);
  const board = [...graph.parts.values()].find((p) => p.type.kind === "board" && !p.cable);
  const ports = (board?.type.ports ?? []).map(
    (p): DrawnPort => ({
      address: `${board?.id}:${p.id}`,
      label: p.label,
      family: p.family,
      turned: p.turned,
      xMm: p.at.xMm,
      yMm: p.at.yMm,
      ...shapeOf(p.family),
    }),
  );
  const docks: Scene["docks"] = [];
  for (const p of [...graph.parts.values()].sort((a, b) => a.origin.yMm - b.origin.yMm || a.origin.xMm - b.origin.xMm || naturally(a.id, b.id))) {
    const word = KIND_WORD[p.type.kind];
    if (!word || p.cable || (p.type.leads.every((l) => l.role === "seat") && p.type.ports.length === 0)) continue;
    const tags = p.type.leads.flatMap((l) => graph.leads.get(`${p.id}:${l.id}`)?.tag ?? []);
    docks.push({
      id: p.id,
      side: sideOf(graph, p),
      lines: [word, tags.length === 1 ? (tags[0] ?? "") : tags.length > 1 ? `${tags.length} leads` : ""].filter(Boolean),
    });
  }
  const supply = [...graph.parts.values()].find((p) => p.type.kind === "supply" && !p.cable);
  if (supply) {
    let last = "";
    for (const o of supply.type.ports.filter((p) => p.role === "outlet")) {
      docks.push({
        id: `${supply.id}:${o.id}`,
        side: "bottom",
        lines: [o.label.replace(/_/g, " ")],
        ...(last && last !== o.key ? { gapBefore: 12 } : {}),
      });
      last = o.key ?? "";
    }
    if (supply.type.ports.length === 0) docks.push({ id: supply.id, side: "bottom", lines: ["Supply"] });
  }
  return { graph, board, widthMm: board?.type.body.widthMm ?? 244, heightMm: board?.type.body.heightMm ?? 305, ports, docks };
}

/** Where a lead is seen to start: the dock of its part, or the outlet of its cable. */
export function dockOfLead(graph: Graph, l: LeadNode): string {
  if (!l.part.cable) return l.part.id;
  const root = graph.ofLead.get(`${l.part.id}:root-1`);
  if (root) return root.port;
  // A data cable starts at whatever its other end is in.
  const other = l.part.type.leads.map((x) => `${l.part.id}:${x.id}`).find((a) => a !== l.address);
  const at = graph.ofLead.get(other ?? "")?.port;
  return at ? (graph.ports.get(at)?.part.id ?? l.part.cable.owner) : l.part.cable.owner;
}

export interface Candidate {
  port: string;
  name: string;
  place?: number[];
  words: string;
  outcome: "fits" | "loss";
  here: boolean;
  taken?: string;
  runMm: number;
}

/** Every port this lead could go into, nearest first, with what speaks for and against each. */
export function candidates(graph: Graph, l: LeadNode): Candidate[] {
  const out: Candidate[] = [];
  const c = graph.ofLead.get(l.address);
  for (const p of graph.ports.values()) {
    if (p.part === l.part || (l.lead.flow === "out") !== (p.port.flow === "in") || closesRing(graph, l, p)) continue;
    const m = mate(l.lead.family, p.port.family, l.lead.key, p.port.key);
    if (!usable(m)) continue;
    const runMm = Math.round(runLengthMm(l.origin, p.at, graph.cutouts, graph.boardRect));
    const places: (number[] | undefined)[] =
      l.lead.family === "panel-loose"
        ? panelPlaces(l.lead, p.port)
        : l.lead.family === "usb2"
          ? l.lead.usbPorts === 2
            ? [[1, 2]]
            : [[1], [2]]
          : [undefined];
    for (const place of places) {
      const there = (graph.atPort.get(p.address) ?? []).filter(
        (x) => x.lead !== l.address && (!place || !x.place || x.place.some((n) => place.includes(n))),
      );
      const room = (p.port.places ?? family(p.port.family).places) > 1 && place === undefined ? 0 : 1;
      const holder = there[0] && room ? graph.leads.get(there[0].lead) : undefined;
      const on = l.lead.flow === "in" && l.lead.load.currentA > 0 ? hungOn(graph, p) : undefined;
      const limit = on?.limitA ?? headerLimit(p.port).currentA;
      const already = on?.leads.some((x) => x.address === l.address) ?? false;
      const current = on && limit !== undefined ? `${amps(on.currentA + (already ? 0 : l.lead.load.currentA))} of ${amps(limit)}` : "";
      const run = runOf(graph, l, p);
      const reach = !run ? "" : run.needMm > run.hasMm ? `${run.needMm - run.hasMm} mm too short` : `${run.needMm} mm of ${run.hasMm} mm`;
      out.push({
        port: p.address,
        name:
          place && l.lead.family === "panel-loose"
            ? `${p.name}, pins ${place.join(" ")}`
            : place && l.lead.usbPorts === 1
              ? `${p.name}, half ${place[0]}`
              : p.name,
        ...(place ? { place } : {}),
        words: [current, reach, m.because].filter(Boolean).join("; "),
        outcome: m.outcome === "loss" ? "loss" : "fits",
        here: c?.port === p.address && (!place || JSON.stringify(c.place) === JSON.stringify(place)),
        ...(holder ? { taken: `${holder.tag} ${holder.name}` } : {}),
        runMm,
      });
    }
  }
  return out
    .sort(
      (a, b) =>
        Number(b.here) - Number(a.here) ||
        Number(a.taken !== undefined) - Number(b.taken !== undefined) ||
        a.runMm - b.runMm ||
        naturally(a.port, b.port),
    )
    .slice(0, 60);
}

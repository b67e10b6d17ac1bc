import { type Build, buildGraph, type Graph, isDone, type LeadNode, mateOf, naturally, typeLookup } from "../../core/assembly";
import { closesRing, hungOn, panelPlaces } from "../../core/brings";
import { family, headerLimit, mate, usable } from "../../core/catalogue";
import { leadToPortMm } from "../../core/routes";
import { amps, runOf } from "../../core/wiring";

export const graphOf = (build: Build): Graph => buildGraph(build, typeLookup(build, []));

export interface Candidate {
  port: string;
  name: string;
  place?: number[];
  words: string;
  outcome: "fits" | "loss";
  here: boolean;
  taken?: string;
  /** Whoever is planned there goes into the port that is left: the two change places. */
  swaps?: boolean;
  runMm: number;
}

/** Every port this lead could go into, nearest first, with what speaks for and against each. */
export function candidates(graph: Graph, l: LeadNode): Candidate[] {
  const out: Candidate[] = [];
  const c = graph.ofLead.get(l.address);
  const left = graph.ports.get(c?.port ?? "");
  for (const p of graph.ports.values()) {
    if (p.part === l.part || (l.lead.flow === "out") !== (p.port.flow === "in") || closesRing(graph, l, p)) continue;
    const m = mate(l.lead.family, p.port.family, l.lead.key, p.port.key);
    if (!usable(m)) continue;
    const runMm = Math.round(leadToPortMm(graph, l, p));
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
        ...(holder && left && there[0] && !isDone(there[0]) && !(c && isDone(c)) && usable(mateOf(holder, left)) ? { swaps: true } : {}),
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

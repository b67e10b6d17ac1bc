import { type Build, buildGraph, type Connection, type Graph, type TypeLookup } from "../../core/assembly";
import { panelPlaces } from "../../core/brings";
import { family, mate, usable } from "../../core/catalogue";
import { type Cost, compareCost, verify } from "../../core/plan";

/** Every way to leave a subset of the shelf's accessories in the box. */
function* stocks(build: Build): Generator<Build["parts"]> {
  const copies = build.accessories.flatMap((a) =>
    Array.from({ length: a.count }, (_, i) => ({ id: `${a.type}.${i + 1}`, type: a.type, from: "shelf" as const })),
  );
  for (let mask = 0; mask < 2 ** copies.length; mask++) yield copies.filter((_, i) => (mask >> i) & 1);
}

interface Option {
  port: string;
  place?: number[];
}

function optionsOf(graph: Graph, lead: string): Option[] {
  const l = graph.leads.get(lead);
  if (!l) return [];
  return [...graph.ports.values()].flatMap((p): Option[] => {
    if (p.part === l.part || (l.lead.flow === "out") !== (p.port.flow === "in")) return [];
    if (!usable(mate(l.lead.family, p.port.family, l.lead.key, p.port.key))) return [];
    if (l.lead.family === "panel-loose") return panelPlaces(l.lead, p.port).map((place) => ({ port: p.address, place }));
    if (l.lead.family === "usb2") return (l.lead.usbPorts === 2 ? [[1, 2]] : [[1], [2]]).map((place) => ({ port: p.address, place }));
    return [{ port: p.address }];
  });
}

/**
 * The best plan by trying every assignment of every plug to every place, judged by `verify` alone.
 * Knows nothing of roots, columns or models. For builds of a few plugs only; throws beyond `most` leaves.
 */
export function exhaustive(build: Build, types: TypeLookup, most = 400_000): { cost: Cost; tried: number } {
  const before = buildGraph(build, types);
  const kept = build.connections.filter((c) => c.state !== "planned");
  let best: Cost | undefined;
  let tried = 0;
  for (const extra of stocks(build)) {
    const open: Build = { ...build, parts: [...build.parts, ...extra], connections: kept };
    const graph = buildGraph(open, types);
    const keptLeads = new Set(kept.map((c) => c.lead));
    const leads = [...graph.leads.values()].filter((l) => l.lead.role !== "cable-root" && !keptLeads.has(l.address));
    const choices = leads.map((l) => optionsOf(graph, l.address));
    const taken = new Set(kept.flatMap((c) => (c.place ?? [0]).map((n) => `${c.port}#${n}`)));
    const chosen: Connection[] = [];
    const walk = (i: number): void => {
      if (i === leads.length) {
        if (++tried > most) throw new Error("too large to try everything");
        const connections = [...kept, ...chosen, ...roots(graph, [...kept, ...chosen])];
        const verdict = verify(buildGraph({ ...open, connections }, types), before);
        if (verdict.broken.length === 0 && (!best || compareCost(verdict.cost, best) < 0)) best = verdict.cost;
        return;
      }
      walk(i + 1);
      const l = leads[i];
      for (const o of choices[i] ?? []) {
        const spots = (o.place ?? [0]).map((n) => `${o.port}#${n}`);
        if (!l || spots.some((s) => taken.has(s))) continue;
        for (const s of spots) taken.add(s);
        chosen.push({ lead: l.address, port: o.port, state: "planned", ...(o.place ? { place: o.place } : {}) });
        walk(i + 1);
        chosen.pop();
        for (const s of spots) taken.delete(s);
      }
    };
    walk(0);
  }
  if (!best) throw new Error("no assignment holds");
  return { cost: best, tried };
}

/** The supply end of every cable that is used, into the first open outlet of its system. */
function roots(graph: Graph, connections: readonly Connection[]): Connection[] {
  const used = new Set(connections.map((c) => c.lead.split(":")[0]));
  const taken = new Set(connections.map((c) => c.port));
  const out: Connection[] = [];
  for (const p of graph.parts.values()) {
    if (!p.cable || !used.has(p.id) || family(p.cable.cable.ends[0]?.family ?? "sata-data").loom !== "power") continue;
    for (const [n, key] of p.cable.cable.outlets.entries()) {
      // Hands may have plugged it already.
      if (connections.some((c) => c.lead === `${p.id}:root-${n + 1}`)) continue;
      const outlet = [...graph.ports.values()].find(
        (o) => o.port.family === "supply-outlet" && o.part.id === p.cable?.owner && o.port.key === key && !taken.has(o.address),
      );
      if (!outlet) continue;
      taken.add(outlet.address);
      out.push({ lead: `${p.id}:root-${n + 1}`, port: outlet.address, state: "planned" });
    }
  }
  return out;
}

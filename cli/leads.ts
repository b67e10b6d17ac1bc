import type { Graph, LeadNode, TypeLookup } from "../core/assembly";
import { panelPlaces, rootId, rootOf } from "../core/brings";
import { mate, usable } from "../core/catalogue";
import { whyFree, whyHere } from "../core/claims";
import { costsOfPlaces, LEVELS, type Place, type PlaceCost, type Plan } from "../core/plan";

/** The lead of an address or a tag; of a socket that takes power, the plug that is in it. */
export function leadOf(graph: Graph, name: string): LeadNode | undefined {
  const inIt = graph.ports.get(name)?.port.flow === "in" ? graph.atPort.get(name)?.[0]?.lead : undefined;
  return graph.leads.get(inIt ?? name) ?? [...graph.leads.values()].find((l) => l.tag.toLowerCase() === name.toLowerCase());
}

/** Every place that the plug of a lead goes into. */
function placesOf(graph: Graph, l: LeadNode): Place[] {
  return [...graph.ports.values()]
    .filter((p) => p.port.flow !== l.lead.flow && p.part !== l.part && usable(mate(l.lead.family, p.port.family, l.lead.key, p.port.key)))
    .flatMap((p): Place[] => {
      if (l.lead.family === "panel-loose") return panelPlaces(l.lead, p.port).map((place) => ({ port: p.address, place }));
      if (l.lead.family === "usb2") return (l.lead.usbPorts === 2 ? [[1, 2]] : [[1], [2]]).map((place) => ({ port: p.address, place }));
      return [{ port: p.address }];
    });
}

const named = (graph: Graph, p: PlaceCost) => ({
  port: p.port,
  name: graph.ports.get(p.port)?.name ?? p.port,
  ...(p.place ? { place: p.place } : {}),
  words: p.words,
  holds: p.holds,
  proved: p.proved,
  cost: Object.fromEntries(LEVELS.filter((l) => l !== "canonical").map((l) => [l, p.cost[l]])),
});

/** What every place of a lead would cost against the plan, best first. */
export async function placesJson(made: Plan, graph: Graph, l: LeadNode, types: TypeLookup, deadlineS: number) {
  const priced = await costsOfPlaces(made.build, types, l.address, placesOf(graph, l), { deadlineS });
  return [...priced].sort((a, b) => a.rank - b.rank).map((p) => named(graph, p));
}

/** Why a lead is where it is (or free), and the best other place with what it would cost. */
export async function whyJson(made: Plan, graph: Graph, l: LeadNode, types: TypeLookup, deadlineS: number) {
  const at = made.build.connections.find((c) => c.lead === l.address);
  const priced = await placesJson(made, graph, l, types, deadlineS);
  // Another outlet of the same splitter or hub is no other place.
  const rootAt = (port: string | undefined) => {
    const node = graph.ports.get(port ?? "");
    const root = node && rootOf(graph, node);
    return root && root.kind !== "nothing" ? rootId(root) : port;
  };
  const next = priced.find((p) => p.holds && rootAt(p.port) !== rootAt(at?.port));
  return {
    lead: l.address,
    tag: l.tag,
    name: l.name,
    port: at?.port ?? null,
    why: at ? whyHere(graph, at) : whyFree(graph, l),
    nextBest: next ?? null,
    words: next ? `Next best: ${next.name}, ${next.words}.` : "No other place takes it.",
  };
}

import { family, type Lead, LOOM_TAG, type Loom, type Point } from "../catalogue";
import { isOnRadiator } from "./on-radiators";
import type { LeadNode, PartNode, PortNode } from "./shape";

const add = (a: Point, b: Point): Point => ({ xMm: a.xMm + b.xMm, yMm: a.yMm + b.yMm });

/** Each cable out of a part's bag, as a part of its own. */
export function cableNodes(owner: PartNode): readonly PartNode[] {
  const once = onceOf(owner);
  once.cables ??= makeCables(owner);
  return once.cables;
}

const onceOf = (part: PartNode) => {
  part.once ??= {};
  return part.once;
};

function makeCables(owner: PartNode): PartNode[] {
  return owner.type.cables.flatMap((cable) =>
    Array.from({ length: cable.count }, (_, i): PartNode => {
      const id = `${owner.id}/${cable.id}/${i + 1}`;
      const total = Math.max(...cable.ends.map((e) => e.atMm));
      const isData = cable.ends.every((e) => family(e.family).loom === "data");
      const leads: Lead[] = [
        ...cable.outlets.map(
          (key, n): Lead => ({
            id: `root-${n + 1}`,
            label: `${cable.label}, supply end`,
            family: "supply-outlet",
            key,
            flow: "in",
            role: "cable-root",
            lengthMm: total,
            need: "optional",
            load: { currentA: 0 },
          }),
        ),
        ...cable.ends.map(
          (end, n): Lead => ({
            id: end.id,
            label: cable.ends.length > 1 ? `${cable.label}, plug ${n + 1}` : cable.label,
            family: end.family,
            flow: "out",
            role: isData ? "data" : "power-out",
            lengthMm: end.atMm,
            need: "optional",
            load: { currentA: 0 },
            limit: end.limit,
          }),
        ),
      ];
      return {
        id,
        type: { ...owner.type, id: `${owner.type.id}/${cable.id}`, name: cable.label, ports: [], cables: [], leads },
        part: { ...owner.part, id, label: cable.count > 1 ? `${cable.label} ${i + 1}` : cable.label },
        origin: owner.origin,
        cable: { owner: owner.id, cable, captive: cable.captive },
      };
    }),
  );
}

const whoOf = (part: PartNode) => part.part.label ?? part.type.name;

/** The ports of one part. They follow from the part alone, so a part that did not change keeps its very nodes. */
export function portNodes(part: PartNode): readonly PortNode[] {
  const once = onceOf(part);
  once.ports ??= makePorts(part);
  return once.ports;
}

function makePorts(part: PartNode): PortNode[] {
  const onBoard = part.type.kind === "board";
  return part.type.ports.map((port) => ({
    address: `${part.id}:${port.id}`,
    part,
    port,
    name: onBoard || port.role === "outlet" ? port.label : `${whoOf(part)} ${port.label}`,
    at: add(part.origin, onBoard || part.type.kind === "case" ? port.at : { xMm: 0, yMm: 0 }),
  }));
}

/**
 * The leads of one part, numbered on from `counts`, which it moves forward. The same part at the same count of each of
 * its looms gets the very same nodes.
 */
export function leadNodes(part: PartNode, counts: Map<Loom, number>, frontIo: Point | undefined): readonly LeadNode[] {
  const known = part.once?.leads;
  if (known && known.frontIo === frontIo && known.first.every(([loom, n]) => (counts.get(loom) ?? 0) === n)) {
    for (const [loom, n] of known.after) counts.set(loom, n);
    return known.nodes;
  }
  const first = new Map<Loom, number>();
  const own = part.cable || part.type.kind === "case";
  const many = part.type.leads.length > 1 || part.type.kind === "cooler";
  const nodes = part.type.leads.map((entry): LeadNode => {
    // The same fan is a radiator fan when the build says that it cools the radiator.
    const lead: Lead = entry.role === "case-fan" && isOnRadiator(part.part) ? { ...entry, role: "radiator-fan" } : entry;
    const loom = family(lead.family).loom;
    const before = counts.get(loom) ?? 0;
    if (!first.has(loom)) first.set(loom, before);
    counts.set(loom, before + 1);
    return {
      address: `${part.id}:${lead.id}`,
      part,
      lead,
      loom,
      tag: `${LOOM_TAG[loom]}-${String(before + 1).padStart(2, "0")}`,
      name: own ? lead.label : many ? `${whoOf(part)}, ${lead.label}` : whoOf(part),
      origin: part.type.kind === "case" ? (frontIo ?? part.origin) : part.origin,
    };
  });
  onceOf(part).leads = { nodes, frontIo, first: [...first], after: [...first.keys()].map((l) => [l, counts.get(l) ?? 0]) };
  return nodes;
}

import type { Graph, PortNode } from "../../assembly";
import { mate, usable } from "../../catalogue";
import { leadToPortMm } from "../../routes";
import type { Consumer } from "./consumers";

/** Is this port the through-plug of a part, and not an outlet of a splitter, a hub or the board? */
export const isThrough = ({ part, port }: PortNode): boolean => {
  const up = part.type.leads.find((l) => l.id === port.fedBy);
  return up !== undefined && up.role !== "splitter-in";
};

/** Does a lead, with what an extension adds, reach the through-plug of another part, and does its plug fit? */
export function reachesThrough(graph: Graph, consumer: Consumer, host: PortNode, moreMm = 0): boolean {
  const { lead, part } = consumer.node;
  return (
    host.part.id !== part.id &&
    (!host.port.ownKindOnly || host.part.type.id === part.type.id) &&
    usable(mate(lead.family, host.port.family, lead.key, host.port.key)) &&
    leadToPortMm(graph, consumer.node, host) <= lead.lengthMm + moreMm + host.port.tailMm
  );
}

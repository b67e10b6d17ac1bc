import { type Connection, type Graph, naturally, type PortNode } from "../build";

/** The board port at the other end of a drive's data cable. */
export function boardEnd(graph: Graph, atDrive: Connection | undefined): PortNode | undefined {
  const cable = graph.parts.get(atDrive?.lead.split(":")[0] ?? "");
  const other = cable?.type.leads
    .map((l) => `${cable.id}:${l.id}`)
    .filter((a) => a !== atDrive?.lead)
    .sort(naturally)[0];
  return graph.ports.get(graph.ofLead.get(other ?? "")?.port ?? "");
}

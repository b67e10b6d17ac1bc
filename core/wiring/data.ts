import { type Connection, type Graph, naturally, type PartNode, type PortNode } from "../build";

/** The board port at the other end of a drive's data cable. */
export function boardEnd(graph: Graph, atDrive: Connection | undefined): PortNode | undefined {
  const cable = graph.parts.get(atDrive?.lead.split(":")[0] ?? "");
  const other = cable?.type.leads
    .map((l) => `${cable.id}:${l.id}`)
    .filter((a) => a !== atDrive?.lead)
    .sort(naturally)[0];
  return graph.ports.get(graph.ofLead.get(other ?? "")?.port ?? "");
}

/** The drive that the system starts from: the one that says so, else the first that goes into an M.2 slot. */
export function bootDrive(graph: Graph): PartNode | undefined {
  const drives = [...graph.parts.values()].filter((p) => p.type.kind === "drive").sort((a, b) => naturally(a.id, b.id));
  return drives.find((p) => p.part.boot) ?? drives.find((p) => p.type.leads.some((l) => l.family === "m2"));
}

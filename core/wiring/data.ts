import { type Connection, type Graph, kept, type LeadNode, mateOf, naturally, type PartNode, type PortNode, partIdOf, wholeParts } from "../assembly";
import { type Lead, type Port, usable } from "../catalogue";
import { peakW } from "../power";

/** The port that gives data at the other end of a drive's data cable; undefined where that is loose, or in another drive. */
export function boardEnd(graph: Graph, atDrive: Connection | undefined): PortNode | undefined {
  const other = otherEnd(graph, atDrive);
  return other?.port.flow === "out" ? other : undefined;
}

/** The port at the other end of a drive's data cable, whatever it is. */
export function otherEnd(graph: Graph, atDrive: Connection | undefined): PortNode | undefined {
  const cable = graph.parts.get(partIdOf(atDrive?.lead ?? ""));
  const other = cable?.type.leads
    .map((l) => `${cable.id}:${l.id}`)
    .filter((a) => a !== atDrive?.lead)
    .sort(naturally)[0];
  return graph.ports.get(graph.ofLead.get(other ?? "")?.port ?? "");
}

/** Gigatransfers per second of a lane, by generation, and bits sent for 8 of data (PCI Express base specification, from memory). */
const LANES: Record<number, { gtS: number; of8: number }> = {
  1: { gtS: 2.5, of8: 10 },
  2: { gtS: 5, of8: 10 },
  3: { gtS: 8, of8: (8 * 130) / 128 },
  4: { gtS: 16, of8: (8 * 130) / 128 },
  5: { gtS: 32, of8: (8 * 130) / 128 },
};
/** SATA at 6 Gbit/s, 10 bits sent for 8 of data (Serial ATA, from memory), MB/s. */
export const SATA_MBS = 600;

/** What an M.2 slot carries to a drive in MB/s; undefined where the board's entry does not say. */
export function slotMBs(port: Port, protocol: Lead["protocol"]): number | undefined {
  if (protocol === "sata") return SATA_MBS;
  const lane = port.link && LANES[port.link.generation];
  return lane && port.link ? (lane.gtS * 1000 * port.link.lanes) / lane.of8 : undefined;
}

/** M.2 drives in the order in which they choose a slot: the one that the system starts from, then the fastest, then the hottest. */
export function driveOrder(graph: Graph): PartNode[] {
  const boots = bootDrive(graph);
  return wholeParts(graph)
    .filter((p) => p.type.kind === "drive" && p.type.leads.some((l) => l.family === "m2"))
    .sort(
      (a, b) =>
        Number(b === boots) - Number(a === boots) ||
        (b.type.ratings.readMBs ?? 0) - (a.type.ratings.readMBs ?? 0) ||
        peakW(b) - peakW(a) ||
        naturally(a.id, b.id),
    );
}

/** Drives on cables in the order of the case's mounts, then by name. */
export const cageOrder = (graph: Graph): readonly PartNode[] => kept(graph, "cage-order", ["case", "drive"], () => inCage(graph));

function inCage(graph: Graph): PartNode[] {
  const mounts = wholeParts(graph).flatMap((p) => (p.type.kind === "case" ? p.type.body.mounts.map((m) => m.id) : []));
  const at = (p: PartNode) => (mounts.indexOf(p.part.mount ?? "") + 1 || mounts.length + 1) as number;
  return wholeParts(graph)
    .filter((p) => p.type.kind === "drive" && !p.type.leads.some((l) => l.family === "m2"))
    .sort((a, b) => at(a) - at(b) || naturally(a.id, b.id));
}

/** How far a drive in a data socket (or in none) is from the order in which hands plug them: the drive of the system, then by the cage, from the first socket on. */
export function socketOrder(graph: Graph, drive: PartNode, socket: PortNode | undefined): number {
  const boots = bootDrive(graph);
  const drives = [...cageOrder(graph)].sort((a, b) => Number(b === boots) - Number(a === boots));
  const sockets = [...graph.ports.values()]
    .filter((p) => p.port.family === "sata-data" && p.port.flow === "out")
    .sort((a, b) => Number(b.part.type.kind === "board") - Number(a.part.type.kind === "board") || naturally(a.address, b.address));
  // Lowest in all where the first sockets are used, and the first drive has the first of them. Left out is the last.
  return (drives.length - drives.indexOf(drive)) * (socket ? sockets.indexOf(socket) : sockets.length);
}

/** Drives of the cage that a string passes over between those that it feeds. */
export function passedOver(graph: Graph, fed: readonly PartNode[]): number {
  const order = cageOrder(graph);
  const at = [...new Set(fed)].map((p) => order.indexOf(p)).filter((i) => i >= 0);
  return at.length < 2 ? 0 : Math.max(...at) - Math.min(...at) + 1 - at.length;
}

/** Above this an NVMe drive without a heatsink slows itself down under load, W (common practice). */
const BARE_W = 7;

/** A drive that gets hot where no heatsink helps it. */
export const runsHot = (drive: PartNode, slot: Port): boolean =>
  slot.heatsink === false && drive.type.ratings.ownHeatsink !== true && peakW(drive) > BARE_W;

/** The drive that the system starts from: the one that says so, else the first that goes into an M.2 slot, else the first fast one. */
export function bootDrive(graph: Graph): PartNode | undefined {
  const drives = wholeParts(graph)
    .filter((p) => p.type.kind === "drive")
    .sort((a, b) => naturally(a.id, b.id));
  const fastest = [...drives].sort((a, b) => (b.type.ratings.readMBs ?? 0) - (a.type.ratings.readMBs ?? 0))[0];
  return drives.find((p) => p.part.boot) ?? drives.find((p) => p.type.leads.some((l) => l.family === "m2")) ?? fastest;
}

/** An NVMe drive wants a slot that speaks NVMe. Slots that say nothing take both. */
export const speaks = (lead: Pick<Lead, "protocol">, port: Pick<Port, "protocols">): boolean =>
  lead.protocol === undefined || port.protocols === undefined || port.protocols.includes(lead.protocol);

/** The drive that the system starts from, in a slot that holds it back though the board has a faster one for it. */
export function bootSlower(graph: Graph, l: LeadNode, slot: PortNode): boolean {
  if (bootDrive(graph)?.id !== l.part.id) return false;
  const reads = l.part.type.ratings.readMBs ?? Number.POSITIVE_INFINITY;
  const own = slotMBs(slot.port, l.lead.protocol);
  if (own === undefined || own >= reads) return false;
  return [...graph.ports.values()].some(
    (p) => p.port.flow === "out" && usable(mateOf(l, p)) && speaks(l.lead, p.port) && (slotMBs(p.port, l.lead.protocol) ?? 0) > own,
  );
}

import type { Graph, LeadNode, PartNode, PortNode } from "../assembly";
import { type Need, passesPower } from "../catalogue";
import { cpuSocketsNeeded } from "../power";
import { bootDrive } from "./data";

/** A fan that blows through the CPU's cooler or a radiator. */
export const coolsTheCpu = (l: LeadNode): boolean => l.lead.role === "cpu-fan" || l.lead.role === "radiator-fan";

/** A fan of the case. */
export const caseFan = (l: LeadNode): boolean => l.lead.role === "case-fan";

/**
 * How much a lead is missed when it stays free. A pump, the power switch and the drive that the system starts from are always
 * mandatory, whatever their entries say; what has a button or knob of its own, or only passes something on, is optional.
 */
export function needOf(graph: Graph, l: LeadNode): Need {
  if (l.lead.role === "splitter-in" || l.lead.ownControl) return "optional";
  if (l.lead.role === "pump") return "mandatory";
  if (l.lead.positions?.includes("power switch")) return "mandatory";
  if (l.lead.family === "m2") return driveNeed(graph, l.part, l.lead.need);
  return l.lead.need;
}

const driveNeed = (graph: Graph, drive: PartNode, given: Need): Need =>
  bootDrive(graph)?.id === drive.id ? "mandatory" : given === "mandatory" ? "wanted" : given;

/**
 * How much a socket is missed when it stays empty. CPU sockets by the draw: those that it asks for are mandatory, the others
 * wanted where the shop or overclocking wants both, else optional.
 */
export function needOfSocket(graph: Graph, p: PortNode): Need {
  if (passesPower(p.part.type)) return "optional";
  if (p.port.role === "cpu-power") {
    if (cpuSocketsNeeded(graph).some((s) => s.address === p.address)) return "mandatory";
    return wantsBothCpuPlugs(graph) ? "wanted" : "optional";
  }
  if (p.port.role === "drive-data") return driveNeed(graph, p.part, p.port.need);
  return p.port.need === "optional" ? "optional" : "mandatory";
}

export const wantsBothCpuPlugs = (graph: Graph): boolean =>
  graph.build.policy.secondCpuPlug === "always" ||
  [...graph.parts.values()].some((p) => p.type.kind === "cpu" && p.type.ratings.overclocked === true);

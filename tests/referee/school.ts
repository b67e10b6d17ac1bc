import type { Build, Graph, LeadNode, PortNode } from "../../core/assembly";

/** The schools written down a second time, for what the referee takes: the default policy only. */
export function schoolDeparture(build: Build, fan: LeadNode, header: PortNode): boolean {
  if (build.policy.cooling !== "fans-follow-cpu" || build.policy.caseFans !== "group-by-place")
    throw new Error("the referee knows the default schools only");
  if (fan.part.part.zone === "radiator") return header.port.role !== "cpu-fan" && header.port.role !== "cpu-optional-fan";
  switch (fan.lead.role) {
    case "cpu-fan":
      return !["cpu-fan", "cpu-optional-fan"].includes(header.port.role);
    case "pump":
      return header.port.role !== "pump";
    case "case-fan":
    case "hub-control":
      return header.port.role !== "case-fan";
    default:
      return false;
  }
}

/** The zone of a fan by the case's own mount list. */
export function zoneOfTest(graph: Graph, fan: LeadNode): string {
  if (fan.part.part.zone) return fan.part.part.zone;
  if (fan.lead.role === "pump") return "pump";
  if (fan.lead.role === "cpu-fan") return "cpu";
  const shell = [...graph.parts.values()].find((p) => p.type.kind === "case");
  return shell?.type.body.mounts.find((m) => m.id === fan.part.part.mount)?.region ?? "case";
}

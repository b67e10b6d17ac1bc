import { type Graph, type LeadNode, type Policy, type PortNode, partsOfKind } from "../assembly";

/** Where a fan's command comes from, as a school looks at it. */
export interface Commanded {
  /** The header at the end, through hubs and splitters; undefined: the part's own knob or electronics, or nothing. */
  header?: PortNode | undefined;
  /** The part on whose powered ports it hangs, if any: a hub, or a cooler with outlets. */
  hub?: { id: string; kind: string } | undefined;
}

const COOLING = ["cpu-fan", "cpu-optional-fan"];

/**
 * Does this lead, commanded so, depart from the shop's way? Judged at the header that controls it, through hubs and splitters.
 * Leads that no school speaks of never depart.
 */
export function departs(graph: Graph, lead: LeadNode, { header, hub }: Commanded): boolean {
  const { policy } = graph.build;
  const at = header?.port.role;
  const is = (...roles: string[]) => at !== undefined && roles.includes(at);
  switch (lead.lead.role) {
    case "cpu-fan":
      return !is(...COOLING);
    case "cooler-speed":
      return hub !== undefined || !is("cpu-fan");
    case "pump":
      return policy.cooling === "pump-first" ? !is("cpu-fan") : !is("pump");
    case "radiator-fan":
      if (hub?.kind === "cooler") return false;
      if (policy.cooling === "fans-follow-cpu") return !is(...COOLING);
      if (policy.cooling === "self-controlled") return hub === undefined || hasOutlets(graph);
      return is("cpu-fan", "pump");
    case "case-fan":
      if (policy.caseFans === "hub") return hub === undefined || is(...COOLING, "pump");
      if (policy.caseFans === "own-header") return hub !== undefined || !is("case-fan");
      // On a hub with a knob of its own, or that nothing commands, the board's headers are not asked.
      return hub !== undefined && header === undefined ? false : !is("case-fan");
    default:
      return false;
  }
}

/** A cooler with outlets for its own fans: they belong there. */
const hasOutlets = (graph: Graph): boolean =>
  partsOfKind(graph, "cooler").some((p) => p.type.ports.some((q) => q.flow === "out" && q.fedBy !== undefined));

/** The school of a lead in a clause, for "why here". Empty where no school speaks of it. */
export function schoolWords(policy: Policy, node: LeadNode): string {
  switch (node.lead.role) {
    case "pump":
      return policy.cooling === "pump-first"
        ? "the shop watches the pump on the CPU fan header"
        : "a pump header runs it at full speed and reports it";
    case "radiator-fan":
      return {
        "fans-follow-cpu": "radiator fans follow the CPU",
        "pump-first": "the CPU fan header is the pump's",
        "self-controlled": "the cooler runs its own fans",
      }[policy.cooling];
    case "cpu-fan":
      return "the CPU fan header stops start-up when it sees no speed signal";
    case "cooler-speed":
      return "the cooler reports its speed to the CPU fan header";
    case "case-fan":
      return {
        "group-by-place": "fans of one place share one curve",
        "own-header": "each case fan has its own header",
        hub: "case fans go on the hub",
      }[policy.caseFans];
    default:
      return "";
  }
}

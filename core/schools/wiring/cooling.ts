import { type Graph, type PartNode, partsOfKind } from "../../assembly";
import { COOLING_HEADERS, isAt, type School } from "../school";

/** Pump and radiator fans: what the CPU fan header watches, and what follows it. */
export const cooling: School<"cooling"> = {
  id: "cooling",
  word: "Pump and radiator fans",
  options: {
    "fans-follow-cpu": { words: "fans follow the CPU header, pump on its own" },
    "pump-first": { words: "pump on the CPU header, so that a dead pump is seen" },
    "self-controlled": { words: "the cooler steers itself" },
  },
  movesPlugs: true,
  roles: ["cpu-fan", "cooler-speed", "pump", "radiator-fan"],
  departs: (graph, { lead, part }, at) => {
    const answer = graph.build.policy.cooling;
    // What cools a card follows no CPU: it goes where there is room.
    if (coolsACard(graph, part)) return false;
    if (lead.role === "cpu-fan") return !isAt(at, ...COOLING_HEADERS);
    if (lead.role === "cooler-speed") return at.hub !== undefined || !isAt(at, "cpu-fan");
    if (lead.role === "pump") return answer === "pump-first" ? !isAt(at, "cpu-fan") : !isAt(at, "pump");
    if (at.hub?.kind === "cooler") return false;
    if (answer === "fans-follow-cpu") return !isAt(at, ...COOLING_HEADERS);
    if (answer === "self-controlled") return at.hub === undefined || hasOutlets(graph);
    return isAt(at, "cpu-fan", "pump");
  },
  words: (policy, { lead }) => {
    if (lead.role === "cpu-fan") return "the CPU fan header stops start-up when it sees no speed signal";
    if (lead.role === "cooler-speed") return "the cooler reports its speed to the CPU fan header";
    if (lead.role === "pump")
      return policy.cooling === "pump-first"
        ? "the shop watches the pump on the CPU fan header"
        : "a pump header runs it at full speed and reports it";
    return {
      "fans-follow-cpu": "radiator fans follow the CPU",
      "pump-first": "the CPU fan header is the pump's",
      "self-controlled": "the cooler runs its own fans",
    }[policy.cooling];
  },
};

/** The radiator of a card, or a fan on it. */
function coolsACard(graph: Graph, part: PartNode): boolean {
  const cooler = part.type.kind === "cooler" ? part : graph.parts.get(part.part.zone?.split(":")[1] ?? "");
  return cooler?.part.cools !== undefined && graph.parts.get(cooler.part.cools)?.type.kind === "card";
}

/** A cooler with outlets for its own fans: they belong there. */
const hasOutlets = (graph: Graph): boolean =>
  partsOfKind(graph, "cooler").some((p) => p.type.ports.some((q) => q.flow === "out" && q.fedBy !== undefined));

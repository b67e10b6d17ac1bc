import type { Graph, LeadNode, PortNode } from "../../assembly";
import { controlLost, family, mate, type Need, passesPower } from "../../catalogue";
import { leadToPortCm } from "../../routes";
import { coolsTheCpu, needOf, needOfSocket, wantsBothCpuPlugs } from "../../wiring";
import { addCost, type PartCost, zeroCost } from "../cost/cost";
import type { Consumer, Group, OpenRoot } from "./consumers";

/** What a lead costs when it stays free, by its need; what is wanted by what it is for. */
export function freePrice(graph: Graph, node: LeadNode, spare: boolean): PartCost {
  if (spare) return {};
  // A hub with a button of its own works without the board's signal: less can be done with it, nothing stays dark.
  if (node.lead.ownControl) return { functionsReduced: 1 };
  const need = needOf(graph, node);
  // Each fan on it counts that could be commanded and is not.
  if (commandsFans(node) && need === "wanted") return { optionalFree: 1 };
  return need === "wanted" ? wantedPrice(node) : needPrice(need);
}

export const needPrice = (need: Need): PartCost =>
  need === "mandatory" ? { mandatoryFree: 1 } : need === "wanted" ? { wantedFree: 1 } : { optionalFree: 1 };

function wantedPrice(node: LeadNode): PartCost {
  if (coolsTheCpu(node) || node.lead.role === "cooler-speed") return { coolingFree: 1 };
  if (node.loom === "fans") return { fansFree: 1 };
  return node.loom === "lighting" ? { lightsFree: 1 } : { wantedFree: 1 };
}

/** A splitter that carries leads costs what they cost when it stays unplugged. */
export function freePriceOf(graph: Graph, c: Consumer): PartCost {
  if (c.carries.length === 0) return freePrice(graph, c.node, c.spare);
  const own: PartCost = c.node.lead.role === "splitter-in" ? {} : freePrice(graph, c.node, false);
  return c.carries.reduce((sum, l) => addCost(sum, freePrice(graph, l, false)), addCost(zeroCost(), own));
}

/** Does this lead bring the command of fans that hang on its part? */
const commandsFans = ({ part, lead }: LeadNode): boolean =>
  part.type.ports.some((p) => p.controlledBy === lead.id && family(p.family).loom === "fans");

/** A lead by which a hub takes its command: on another hub it hangs behind that. */
const isHub = ({ part }: LeadNode): boolean => part.type.kind === "hub";

/** Price of a lead on a root in what the root alone decides. */
export function netPrice(graph: Graph, { node }: Consumer, root: OpenRoot, group: Group): PartCost {
  const { port } = root.sample;
  const lost = mate(node.lead.family, port.family, node.lead.key, port.key).outcome === "loss";
  return {
    functionsReduced: (controlLost(node.lead, port) ? 1 : 0) + (lost ? 1 : 0),
    hubsBehind: isHub(node) && !group.header ? 1 : 0,
    // A splitter hangs at its header: what hangs on it is measured to there.
    lengthCm: node.lead.role === "splitter-in" ? 0 : leadToPortCm(graph, node, root.sample),
  };
}

/** What leaving a power socket empty costs, by the need of the part and the shop's way. */
export function powerFreePrice(graph: Graph, node: PortNode): PartCost {
  if (passesPower(node.part.type)) return {};
  const need = needOfSocket(graph, node);
  // A second CPU plug that neither draw nor shop asks for costs nothing to leave out.
  if (node.port.role === "cpu-power" && need === "optional" && !wantsBothCpuPlugs(graph)) return {};
  return needPrice(need);
}

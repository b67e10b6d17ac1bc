import { partsOfKind } from "./kept";
import type { Graph, PartNode } from "./shape";

/** Does this cooler sit on the CPU? One that cools a card, or whose radiator is one of a loop, has no head there. */
export const coolsCpu = (cooler: PartNode): boolean => (cooler.part.cools ?? "cpu") === "cpu";
export const cpuCoolers = (graph: Graph): PartNode[] => partsOfKind(graph, "cooler").filter(coolsCpu);

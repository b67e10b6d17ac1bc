import { type Graph, type PartNode, partsOfKind } from "../assembly";

/** A board whose firmware does not know the CPU yet. */
export interface FirmwareBehind {
  board: PartNode;
  cpu: PartNode;
  has: number;
  needs: number;
  /** It updates without a CPU that it knows. */
  alone: boolean;
}

/** Where the firmware that the board is delivered with has to be newer before the CPU starts; what nobody knows is left out. */
export function firmwareBehind(graph: Graph): FirmwareBehind[] {
  const board = partsOfKind(graph, "board")[0];
  const { chipset, firmware: delivered, flashWithoutCpu } = board?.type.ratings ?? {};
  const has = board?.part.firmware ?? delivered;
  if (!board || !chipset || has === undefined) return [];
  return partsOfKind(graph, "cpu").flatMap((cpu) => {
    const needs = cpu.type.ratings.needsFirmware?.[chipset];
    return needs === undefined || has >= needs ? [] : [{ board, cpu, has, needs, alone: flashWithoutCpu === true }];
  });
}

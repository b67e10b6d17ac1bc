import { type Graph, type PartNode, partsOfKind } from "../assembly";

export interface MemorySpeed {
  mts: number;
  because: string;
  sizeGb: number;
  modules: number;
  perChannel: number;
}

const seated = (graph: Graph, p: PartNode) => p.type.leads.some((l) => l.role === "seat" && graph.ofLead.has(`${p.id}:${l.id}`));

/**
 * Transfer rate in MT/s that the machine will run: the least of module, board and CPU. The module gives its JEDEC
 * default until its profile is switched on; the board's limit may fall with four modules. `listed`: before any plan,
 * all modules of the list count.
 */
export function memorySpeed(graph: Graph, profileOn: boolean, listed = false): MemorySpeed | undefined {
  const modules = partsOfKind(graph, "memory").filter((p) => listed || seated(graph, p));
  const first = modules[0];
  if (!first) return undefined;
  const board = partsOfKind(graph, "board")[0]?.type.ratings;
  const cpu = partsOfKind(graph, "cpu")[0]?.type.ratings;
  const four = modules.length > 2;
  const of = (p: PartNode) => (profileOn ? p.type.ratings.profileMts : p.type.ratings.defaultMts) ?? 0;
  const limits: [number, string][] = [
    [Math.min(...modules.map(of)), profileOn ? "the modules' profile" : "the modules' default, until the profile is switched on"],
    [
      (four ? (board?.limitMtsFour ?? board?.limitMts) : board?.limitMts) ?? Number.POSITIVE_INFINITY,
      four ? "the board, with four modules" : "the board",
    ],
    [cpu?.limitMts ?? Number.POSITIVE_INFINITY, "the CPU"],
  ];
  const [mts, because] = limits.reduce((a, b) => (b[0] < a[0] ? b : a));
  return { mts, because, sizeGb: modules.reduce((s, p) => s + (p.type.ratings.sizeGb ?? 0), 0), modules: modules.length, perChannel: four ? 2 : 1 };
}

/** What tools that read the clock show: memory moves data twice a clock (JEDEC). */
export const clockMhz = (mts: number) => mts / 2;

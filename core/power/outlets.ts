import type { Graph, PartNode, PortNode } from "../assembly";
import { portDrawW } from "./draw";

/** What one outlet of a supply gives in W. */
export const outletLimitW = ({ port }: PortNode): number => port.limit.powerW ?? (port.limit.currentA ?? Number.POSITIVE_INFINITY) * 12;

/** What a 12 V rail of a supply gives in W; without a figure of its own it has no limit of its own. */
export const railLimitW = (supply: PartNode, rail: string): number => (supply.type.ratings.railLimitsA?.[rail] ?? Number.POSITIVE_INFINITY) * 12;

/** What hangs on each outlet and each 12 V rail of the supplies, in W. A cable with two roots loads both alike. */
export interface OutletLoads {
  outlets: Map<PortNode, { watts: number; cables: PartNode[] }>;
  rails: { supply: PartNode; rail: string; watts: number; cables: PartNode[] }[];
}

export function outletLoads(graph: Graph): OutletLoads {
  const outlets: OutletLoads["outlets"] = new Map();
  const rails = new Map<string, OutletLoads["rails"][number]>();
  const onRail = (supply: PartNode, rail: string | undefined, watts: number, cable: PartNode) => {
    if (rail === undefined || watts === 0) return;
    const known = rails.get(`${supply.id} ${rail}`) ?? { supply, rail, watts: 0, cables: [] };
    rails.set(`${supply.id} ${rail}`, { ...known, watts: known.watts + watts, cables: [...known.cables, cable] });
  };
  for (const node of graph.parts.values()) {
    const supply = node.cable && graph.parts.get(node.cable.owner);
    if (!node.cable || !supply) continue;
    const leads = node.type.leads.flatMap((l) => {
      const c = graph.ofLead.get(`${node.id}:${l.id}`);
      const port = c && graph.ports.get(c.port);
      return port ? [{ root: l.role === "cable-root", port }] : [];
    });
    const watts = leads.reduce((s, l) => s + (l.root ? 0 : portDrawW(graph, l.port)), 0);
    const roots = leads.filter((l) => l.root);
    if (roots.length === 0) onRail(supply, node.cable.cable.rail, watts, node);
    for (const { port } of roots) {
      const known = outlets.get(port) ?? { watts: 0, cables: [] };
      outlets.set(port, { watts: known.watts + watts / roots.length, cables: [...known.cables, node] });
      onRail(supply, port.port.rail, watts / roots.length, node);
    }
  }
  return { outlets, rails: [...rails.values()] };
}

import { type Build, buildGraph, type Graph, isConstant, type Part, partIdOf, type TypeLookup } from "../../assembly";
import { rootId, rootOf } from "../../brings";
import { passesPower } from "../../catalogue";
import { netsOf } from "./consumers";
import { addDirect, type DirectVariables } from "./direct";
import { addNets } from "./fans-lights-usb";
import { Model } from "./model";
import type { NetVariables } from "./net-variables";
import { alike, splittersOf } from "./offer";
import type { Relaxed } from "./relaxed";
import { accessoryCost, addSupply, type SupplyVariables } from "./supply";
import { term } from "./terms";

/** A build laid out as a model, with some units (hubs, adapters) on offer beside what is in it. */
export interface Laid {
  graph: Graph;
  units: readonly Part[];
  model: Model;
  /** Which variable says that a unit is taken. */
  used: ReadonlyMap<string, number>;
  nets: NetVariables;
  /** The group of roots that the last plan had each lead on. */
  before: ReadonlyMap<string, string>;
  supply: SupplyVariables;
  direct: DirectVariables;
  /** At least one of these is 1 where any unit is taken. */
  offered: number[];
  /** Family of the plug or socket that a variable is about. */
  familyOf: ReadonlyMap<number, string>;
}

/** With `loose`, limits, lengths and counts may be passed at a price. */
export function layOut(start: Build, before: Graph, types: TypeLookup, units: readonly Part[], loose?: Relaxed): Laid {
  const graph = buildGraph({ ...start, parts: [...start.parts, ...units] }, types);
  const model = new Model();
  const used = new Map(
    units
      .map((u) => {
        const node = graph.parts.get(u.id);
        // Adapters are priced where they are used; a hub is priced here.
        return [u.id, node && passesPower(node.type) ? -1 : model.variable(`use ${u.id}`, node ? accessoryCost(node) : {})] as const;
      })
      .filter(([, v]) => v >= 0),
  );
  for (const v of used.values()) model.links.add(v);
  const takeable = units.filter((u) => used.has(u.id));
  for (const group of alike(graph, takeable)) {
    for (let i = 1; i < group.length; i++) {
      const a = used.get(group[i - 1] ?? "");
      const b = used.get(group[i] ?? "");
      if (a === undefined || b === undefined) continue;
      model.atMost([term(b), term(a, -1)], 0);
    }
  }
  const { group, cable } = lastPlan(before);
  const nets = addNets(
    model,
    graph,
    netsOf(graph, (id) => used.has(id)),
    splittersOf(start, types, loose !== undefined),
    used,
    (l) => group.get(l),
    loose,
  );
  const beforeSupply = model.names.length;
  const supply = addSupply(model, graph, used, (p) => cable.get(p), loose);
  for (let v = beforeSupply; v < model.names.length; v++) model.asked.add(v);
  const direct = addDirect(model, graph, loose);
  return {
    graph,
    units,
    model,
    used,
    nets,
    before: group,
    supply,
    direct,
    offered: [...used.values(), ...supply.adapters.filter((a) => units.some((u) => u.id === a.adapter.id)).map((a) => a.variable)],
    familyOf: new Map([
      ...nets.choices.map((c): [number, string] => [c.variable, c.consumer.node.lead.family]),
      ...[...nets.free].map(([lead, v]): [number, string] => [v, graph.leads.get(lead)?.lead.family ?? ""]),
      ...[...supply.free].map(([port, v]): [number, string] => [v, graph.ports.get(port)?.port.family ?? ""]),
    ]),
  };
}

/** Where the last plan had each lead (the root's group) and what fed each socket (the cable's type): for the smallest change. */
function lastPlan(before: Graph): { group: Map<string, string>; cable: Map<string, string> } {
  const group = new Map<string, string>();
  const cable = new Map<string, string>();
  for (const c of before.connections) {
    if (isConstant(c)) continue;
    const p = before.ports.get(c.port);
    const source = p && rootOf(before, p);
    if (source && source.kind !== "nothing") group.set(c.lead, rootId(source));
    const bag = before.parts.get(partIdOf(c.lead))?.cable;
    if (bag) cable.set(c.port, `${bag.owner}/${bag.cable.id}`);
  }
  return { group, cable };
}

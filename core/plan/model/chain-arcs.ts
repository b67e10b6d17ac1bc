import type { Address, Graph, PortNode } from "../../assembly";
import { type Consumer, type OpenRoot, opened } from "./consumers";
import type { Model } from "./model";
import type { NetChoice, NetVariables } from "./net-variables";
import { each, type Term, term, terms } from "./terms";
import { isThrough, reachesThrough } from "./through";

/** Through-plugs that open with a lead. */
const throughOf = (graph: Graph, { node }: Consumer): PortNode[] =>
  node.lead.family === "usb2"
    ? []
    : opened(node.part, node.lead).flatMap((p) => {
        const port = graph.ports.get(`${node.part.id}:${p.id}`);
        return port && isThrough(port) && !graph.atPort.get(port.address)?.some((c) => c.state !== "planned") ? [port] : [];
      });

/**
 * Which lead hangs behind which, said one by one: needed where an answer has no order that reaches. Each lead is on a place of the
 * root or behind one through-plug that it reaches, each through-plug takes one, no chain closes a ring or is longer than its parts
 * allow. Added once for all roots of these families. Returns the variables of the rows.
 */
export function addArcs(model: Model, graph: Graph, out: NetVariables, families: ReadonlySet<string>): number[] {
  const roots = [...new Set(out.choices.map((c) => c.root))].filter((r) => families.has(r.sample.port.family) && !out.arced.has(r.id));
  const touched: number[] = [];
  const pairs = new Map<string, { host: Address; consumer: Consumer; arcs: number[] }>();
  for (const root of roots) {
    out.arced.add(root.id);
    touched.push(...arcsOf(model, graph, out, root, pairs));
  }
  // Without a longest chain the flow alone keeps rings from closing.
  const bounded = [...pairs.values()].some((p) => p.consumer.node.lead.mostInChain !== undefined);
  if (bounded) touched.push(...chainsEnd(model, out, [...pairs.values()]));
  return touched;
}

function arcsOf(
  model: Model,
  graph: Graph,
  out: NetVariables,
  root: OpenRoot,
  pairs: Map<string, { host: Address; consumer: Consumer; arcs: number[] }>,
): number[] {
  const here = out.choices.filter((c) => c.root === root);
  const fixed = root.ports.flatMap((a) => graph.ports.get(a) ?? []).filter(isThrough);
  const hosts = [...new Set(here.map((c) => c.consumer))].flatMap((consumer) => throughOf(graph, consumer).map((port) => ({ port, consumer })));
  const all: { port: PortNode; consumer?: Consumer }[] = [...fixed.map((port) => ({ port })), ...hosts];
  if (all.length === 0) return [];
  const at = new Map<Address, number[]>();
  // What comes out of the root comes through every link of a chain: so much as hangs on from there.
  const flowIn = new Map<Consumer, Term[]>();
  const flowOut = new Map<Consumer, Term[]>();
  const most = new Set(here.map((c) => c.consumer)).size;
  const touched: number[] = [];
  const arcs: number[] = [];
  for (const choice of here) {
    const own: number[] = [];
    for (const h of all) {
      if (h.consumer === choice.consumer || !reachesThrough(graph, choice.consumer, h.port, choice.via?.splitter.lengthMm ?? 0)) continue;
      const variable = model.variable(`${model.names[choice.variable]} behind ${h.port.address}`);
      own.push(variable);
      at.set(h.port.address, [...(at.get(h.port.address) ?? []), variable]);
      out.arcs.push({ root, host: h.port.address, choice, variable });
      const flow = model.variable(`${model.names[variable]} on`, {}, most);
      model.atMost([term(flow), term(variable, -most)], 0);
      flowIn.set(choice.consumer, [...(flowIn.get(choice.consumer) ?? []), term(flow)]);
      if (h.consumer) flowOut.set(h.consumer, [...(flowOut.get(h.consumer) ?? []), term(flow, -1)]);
      if (h.consumer) {
        const key = `${h.consumer.address} ${choice.consumer.address}`;
        const pair = pairs.get(key) ?? { host: h.consumer.address, consumer: choice.consumer, arcs: [] };
        pair.arcs.push(variable);
        pairs.set(key, pair);
      }
    }
    arcs.push(...own);
    if (choice.follows) model.exactly([...terms(own), term(choice.variable, -1)], 0);
    else if (own.length > 0) model.atMost([...terms(own), term(choice.variable, -1)], 0);
    touched.push(choice.variable, ...own);
  }
  for (const h of all) {
    const behind = at.get(h.port.address);
    if (!behind) continue;
    if (!h.consumer) model.atMost(terms(behind), 1);
    else {
      const there = here.filter((c) => c.consumer === h.consumer).map((c) => c.variable);
      model.atMost([...terms(behind), ...terms(there, -1)], 0);
    }
  }
  for (const consumer of new Set(here.map((c) => c.consumer))) {
    const own = here.filter((c) => c.consumer === consumer);
    const behind = out.arcs.filter((a) => a.root === root && a.choice.consumer === consumer).map((a) => a.variable);
    const head = model.variable(`${consumer.address} head of ${root.id}`, {}, most);
    model.atMost(
      [
        term(head),
        ...terms(
          own.map((c) => c.variable),
          -most,
        ),
        ...terms(behind, most),
      ],
      0,
    );
    model.exactly(
      [
        term(head),
        ...(flowIn.get(consumer) ?? []),
        ...(flowOut.get(consumer) ?? []),
        ...terms(
          own.map((c) => c.variable),
          -1,
        ),
      ],
      0,
    );
  }
  // What hangs behind nothing takes a place of the root, or an outlet of a splitter on it.
  const outlets = (c: Consumer) => c.opens - throughOf(graph, c).length;
  const hung = out.splitters.filter((s) => s.root === root);
  const places = root.places - fixed.length;
  const taken: Term[] = [
    ...each(
      here,
      (c) => c.variable,
      (c) => c.consumer.weight - outlets(c.consumer),
    ),
    ...terms(arcs, -1),
    ...each(
      hung,
      (h) => h.variable,
      (h) => 1 - h.splitter.ports,
    ),
  ];
  model.atMost(taken, places);
  touched.push(...hung.map((h) => h.variable));
  return touched;
}

/** Each part of a chain is deeper than the one it hangs behind, and no deeper than its kind allows: no ring closes. */
function chainsEnd(model: Model, out: NetVariables, pairs: readonly { host: Address; consumer: Consumer; arcs: number[] }[]): number[] {
  const all = new Map<Address, Consumer | undefined>();
  for (const p of pairs) {
    all.set(p.consumer.address, p.consumer);
    if (!all.has(p.host)) all.set(p.host, undefined);
  }
  const most = all.size;
  const depth = new Map([...all].map(([a, c]) => [a, model.variable(`${a} depth ${out.arcs.length}`, {}, depthOf(c, most))]));
  for (const p of pairs) {
    const [deeper, above] = [depth.get(p.consumer.address), depth.get(p.host)];
    if (deeper === undefined || above === undefined) continue;
    // depth(consumer) >= depth(host) + 1 where it hangs behind it; the other way round says as much of the pair (lifted rows of
    // Desrochers and Laporte for orders without rings).
    const back = pairs.find((q) => q.host === p.consumer.address && q.consumer.address === p.host)?.arcs ?? [];
    model.atLeast([term(deeper), term(above, -1), ...terms(p.arcs, -most), ...terms(back, -(most - 2))], 1 - most);
  }
  return [...depth.values(), ...pairs.flatMap((p) => p.arcs)];
}

const depthOf = (c: Consumer | undefined, most: number) => Math.max(0, Math.min(most, (c?.node.lead.mostInChain ?? most + 1) - 1));

/** What each lead of a root hangs behind in an answer, by lead: the through-plug. Nothing where chains were not asked one by one. */
export const hostsIn = (out: NetVariables, root: OpenRoot, chosen: (v: number) => number): ReadonlyMap<Address, Address> =>
  new Map(out.arcs.filter((a) => a.root === root && chosen(a.variable) > 0).map((a) => [a.choice.consumer.address, a.host]));

/** The choices of a root in an order in which each hangs on something that is there already. */
export function inChainOrder(graph: Graph, here: readonly NetChoice[], behind: ReadonlyMap<Address, Address>): NetChoice[] {
  const placed = new Set<string>();
  const out: NetChoice[] = [];
  // What opens outlets for others first.
  let left = [...here].sort((a, b) => outletsOf(graph, b.consumer) - outletsOf(graph, a.consumer));
  for (let grew = true; grew && left.length > 0; ) {
    const ready = left.filter((c) => {
      const port = graph.ports.get(behind.get(c.consumer.address) ?? "");
      return !port || placed.has(port.part.id) || !left.some((x) => x.consumer.node.part === port.part);
    });
    grew = ready.length > 0;
    out.push(...ready);
    for (const c of ready) placed.add(c.consumer.node.part.id);
    left = left.filter((c) => !ready.includes(c));
  }
  return [...out, ...left];
}

const outletsOf = (graph: Graph, c: Consumer) => c.opens - throughOf(graph, c).length;

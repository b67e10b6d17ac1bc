import type { Graph, PortNode } from "../../assembly";
import { signallers } from "../../brings";
import { MOST_DEEP } from "./commands";
import { type Consumer, type Group, isCooling } from "./consumers";
import type { Model } from "./model";
import { type NetChoice, type NetVariables, type Passing, type SpeedSignal, zonesOf } from "./net-variables";
import { term, terms } from "./terms";

/**
 * Speed signals: each header reads one, each splitter and hub passes one on. A zone of which none is read has lost a function;
 * a CPU fan header without one halts start-up. With the school "case fans on the hub" the hub's one signal is what was wanted.
 */
export function addSpeedSignals(model: Model, graph: Graph, out: NetVariables): { signals: SpeedSignal[]; passes: Passing[] } {
  const { nets } = out;
  const held = heldSignals(graph, out);
  const zones = zonesOf(nets).filter((z) => nets.consumers.some((c) => c.zone === z && c.reports));
  const signals: SpeedSignal[] = [];
  const groups = [...nets.groups.values()].filter((g) => g.reads || g.speedLead !== undefined);
  const hubs = groups.filter((g) => g.speedLead !== undefined);
  const own = (zone: string, g: Group) => out.choices.filter((c) => c.root.group === g.id && c.consumer.zone === zone && c.consumer.reports);
  for (const zone of zones)
    for (const g of groups)
      if (held.get(g.id) === undefined && own(zone, g).length > 0) {
        // Among equals what cools the CPU is heard, then by name; by twos, so that one heard through a hub is never the equal of one heard at once.
        const cools = own(zone, g).some((c) => isCooling(c.consumer));
        const variable = model.variable(`${zone} heard at ${g.id}`, { canonical: 2 * ((cools ? 1 : 2) + zones.indexOf(zone)) });
        signals.push({ zone, group: g.id, variable });
        model.atMost(
          [
            term(variable),
            ...terms(
              own(zone, g).map((c) => c.variable),
              -1,
            ),
          ],
          0,
        );
        const there = out.zoneOn.get(`${zone} on ${g.id}`);
        // Says nothing new, but the solver sees that a zone is where it is heard.
        if (there !== undefined) model.implied([term(variable), term(there, -1)], 0);
        firstInChain(model, out, g, variable, own(zone, g));
      }
  // A hub's signal passes where its lead hangs: `passes` by hub and by what it hangs on.
  const passes = hubs.flatMap((hub) =>
    groups.flatMap((host) => {
      const of = out.choices.filter((c) => c.consumer.address === hub.speedLead && c.root.group === host.id);
      const there = nets.placed.some((p) => p.consumer.address === hub.speedLead && p.group === host.id);
      if (hub === host || (of.length === 0 && !there) || (held.get(host.id) !== undefined && !there)) return [];
      const variable = model.variable(`signal of ${hub.id} to ${host.id}`, { canonical: 1 });
      if (!there)
        model.atMost(
          [
            term(variable),
            ...terms(
              of.map((c) => c.variable),
              -1,
            ),
          ],
          0,
        );
      return [{ hub: hub.id, host: host.id, variable, there }];
    }),
  );
  const at = (group: string) => signals.filter((s) => s.group === group).map((s) => s.variable);
  const into = (group: string) => passes.filter((p) => p.host === group).map((p) => p.variable);
  const from = (group: string) => passes.filter((p) => p.hub === group).map((p) => p.variable);
  for (const g of groups) {
    const one = [...at(g.id), ...into(g.id).filter((v) => held.get(g.id) === undefined || passes.some((p) => p.variable === v && p.there))];
    if (one.length > 1) model.atMost(terms(one), 1);
  }
  for (const hub of hubs) {
    // It brings something only where something of it is heard, and something of it is heard only where it brings it on.
    const brings = held.get(hub.id) !== undefined && held.get(hub.id) !== BLOCKED ? 1 : 0;
    const inside = [...at(hub.id), ...into(hub.id)];
    if (brings) for (const v of inside) model.atMost([term(v), ...terms(from(hub.id), -1)], 0);
    // One of all inside, and its lead hangs in one place: the sums are equal, which says more than each by itself.
    else if (inside.length + from(hub.id).length > 0) model.exactly([...terms(inside), ...terms(from(hub.id), -1)], 0);
  }
  for (const hub of hubs) keptToSchool(model, out, new Set([hub.id]), signals, passes);
  // Longer chains of hubs are not judged by the school.
  if (hubs.length > 1 && hubs.length <= MOST_DEEP + 1) keptToSchool(model, out, new Set(hubs.map((h) => h.id)), signals, passes);
  const heard = (zone: string) => [
    ...signals.filter((s) => s.zone === zone).map((s) => s.variable),
    // A cooler watches what hangs on its own outlets.
    ...[...nets.groups.values()].filter((g) => g.part.type.kind === "cooler").flatMap((g) => own(zone, g).map((c) => c.variable)),
    // What a hub holds for good is heard where its lead comes.
    ...hubs.filter((hub) => held.get(hub.id) === zone).flatMap((hub) => from(hub.id)),
  ];
  for (const zone of zones) {
    if ([...held].some(([g, z]) => z === zone && nets.groups.get(g)?.reads)) continue;
    const ofCase = nets.consumers.every((c) => c.zone !== zone || c.node.lead.role === "case-fan");
    if (ofCase && graph.build.policy.caseFans === "hub") continue;
    const lost = model.helper(`zone ${zone} silent`, ofCase ? { signalsLost: 1 } : { functionsReduced: 1 }, 1, true);
    model.atLeast([...terms(heard(zone)), term(lost)], 1);
  }
  for (const header of [...graph.ports.values()].filter((p) => p.port.role === "cpu-fan" && p.port.flow === "out")) {
    if (held.get(header.address) !== undefined && held.get(header.address) !== BLOCKED) continue;
    const silent = model.helper(`${header.address} silent`, { mandatoryFree: 1 }, 1, true);
    model.atLeast([...terms([...at(header.address), ...into(header.address)]), term(silent)], 1);
  }
  return { signals, passes };
}

/**
 * Behind a through-plug no speed signal passes (common practice): on a header's one place, what is heard is the first of a chain.
 * Where a splitter makes more places, it has one of them to itself.
 */
function firstInChain(model: Model, out: NetVariables, group: Group, heard: number, of: readonly NetChoice[]): void {
  const roots = out.nets.roots.filter((r) => r.group === group.id);
  if (!group.header || roots.reduce((s, r) => s + r.places, 0) > 1) return;
  const splits = [
    ...out.splitters.filter((s) => s.root.group === group.id).map((s) => s.variable),
    ...out.choices.filter((c) => c.root.group === group.id && c.consumer.node.part.type.kind === "splitter").map((c) => c.variable),
  ];
  const heads = of.filter((c) => c.consumer.opens > 0).map((c) => c.variable);
  for (const c of out.choices) {
    if (c.root.group !== group.id || c.consumer.opens === 0 || c.consumer.node.part.type.kind === "splitter" || of.includes(c)) continue;
    model.atMost([term(heard), term(c.variable), ...terms(splits, -1), ...terms(heads, -1)], 1);
  }
}

/**
 * Hubs pass on the signal of a zone only to headers under which its leads do not depart, or one does depart. Said for each hub, and
 * for all of them where one may hang on another. Says nothing new: the solver sees how many headers the signals take.
 */
function keptToSchool(model: Model, out: NetVariables, hubs: ReadonlySet<string>, signals: readonly SpeedSignal[], passes: readonly Passing[]): void {
  const kindOf = (d: { roles: ReadonlySet<string> }) => [...d.roles].sort().join();
  const roleOf = (p: Passing) => out.nets.groups.get(p.host)?.header?.port.role ?? "";
  const all = out.departing.filter((d) => hubs.has(d.hub));
  const from = passes.filter((p) => hubs.has(p.hub) && !hubs.has(p.host));
  for (const kind of new Set(all.map(kindOf))) {
    const mine = all.filter((d) => kindOf(d) === kind);
    const heard = signals.filter((s) => mine.some((d) => d.zone === s.zone && d.hub === s.group));
    const right = from.filter((p) => !mine[0]?.roles.has(roleOf(p)));
    if (heard.length === 0 || right.length === from.length) continue;
    // A place departs once, however many hubs pass on signals of it.
    const departs = [...new Set(mine.map((d) => d.zone))].flatMap((zone) => {
      const most = heard.filter((s) => s.zone === zone).length;
      return terms(new Set(mine.flatMap((d) => (d.zone === zone ? d.departs : []))), -most);
    });
    model.implied(
      [
        ...terms(heard.map((s) => s.variable)),
        ...terms(
          right.map((p) => p.variable),
          -1,
        ),
        ...departs,
      ],
      0,
    );
  }
}

/** Something is plugged where the signal would pass, and gives none. */
const BLOCKED = "-";

/** By group: the zone whose signal passes there for good, or that none can. */
function heldSignals(graph: Graph, out: NetVariables): Map<string, string> {
  const { nets } = out;
  const held = new Map<string, string>();
  const constants = nets.placed.map((p) => p.consumer.address);
  const only = constantsOnly(graph);
  for (const g of nets.groups.values()) {
    if (g.reads && g.header) {
      const heard = signallers(only, g.header)[0];
      if (heard) held.set(g.id, zoneOfPlaced(out, heard.lead.address));
      else if (!isOpenTo(only, g.header)) held.set(g.id, BLOCKED);
      continue;
    }
    if (g.speedLead === undefined) continue;
    const port = g.part.type.ports.find((p) => `${g.part.id}:${p.speedTo ?? ""}` === g.speedLead);
    const node = port && graph.ports.get(`${g.part.id}:${port.id}`);
    const there = node && only.atPort.get(node.address)?.[0]?.lead;
    if (there !== undefined && constants.includes(there)) {
      const c = nets.placed.find((p) => p.consumer.address === there)?.consumer;
      if (c?.reports) held.set(g.id, zoneOfPlaced(out, there));
      else if (node && !isOpenTo(only, node)) held.set(g.id, BLOCKED);
    }
  }
  return held;
}

const constantsOnly = (graph: Graph): Graph => {
  const connections = graph.connections.filter((c) => c.state !== "planned");
  const atPort = new Map<string, typeof connections>();
  for (const c of connections) atPort.set(c.port, [...(atPort.get(c.port) ?? []), c]);
  return { ...graph, connections, atPort, ofLead: new Map(connections.map((c) => [c.lead, c])) };
};

const zoneOfPlaced = (out: NetVariables, lead: string): string => {
  const c: Consumer | undefined = out.nets.placed.find((p) => p.consumer.address === lead)?.consumer;
  return c?.zone ?? BLOCKED;
};

/** Can a speed signal still come in here: nothing plugged, or a splitter (or a chain) whose own signal place is open? */
function isOpenTo(graph: Graph, port: PortNode, depth = 0): boolean {
  const c = graph.atPort.get(port.address)?.[0];
  if (!c) return true;
  const lead = graph.leads.get(c.lead);
  const next = lead?.part.type.ports.find((p) => p.speedTo === lead.lead.id);
  const node = lead && next && graph.ports.get(`${lead.part.id}:${next.id}`);
  // A hub's control lead there passes on what the hub gives it.
  if (node && lead.part.type.ports.some((p) => p.id === node.port.fedBy)) return true;
  return node !== undefined && depth < 20 && isOpenTo(graph, node, depth + 1);
}

import type { Address, Graph, PortNode } from "../../assembly";
import { family } from "../../catalogue";
import { leadToPortMm } from "../../routes";
import type { PartCost } from "../cost/cost";
import { chainsAmong } from "./chains";
import { addCommands, departsAlways, departureOf, noRings, pumpsAlone } from "./commands";
import { type Consumer, fitsRoot, isPump, leadsOf, type Nets, type OpenRoot, opened } from "./consumers";
import type { Model } from "./model";
import { type NetChoice, type NetSplitters, type NetVariables, ofOnePump, type Splitter, zonesOf } from "./net-variables";
import { freePriceOf, netPrice } from "./prices";
import type { Relaxed } from "./relaxed";
import { addSpeedSignals } from "./speed-signals";
import { each, type Term, term, terms } from "./terms";
import { isThrough, reachesThrough } from "./through";

/** Weighs outlets above names in the order of equals. */
const OUTLETS_FIRST = 500;
const MOST_SPLITTERS_AT_A_ROOT = 4;
/** Places beyond a root's own that are tried, where places may be added at a price. */
const MOST_PLACES = 8;
const SOURCES = ["shelf", "order"] as const;
const priceOf = (from: "shelf" | "order"): PartCost => (from === "shelf" ? { fromShelf: 1 } : { toOrder: 1 });

/** The group that a lead was planned on before, for "smallest change". */
export type PreviousGroup = (lead: string) => string | undefined;

/** Adds fans, lights and USB 2 to the model. `used` gives the variable of a candidate unit; `loose`: limits may be passed at a price. */
export function addNets(
  model: Model,
  graph: Graph,
  nets: Nets,
  splitters: readonly Splitter[],
  used: Map<string, number>,
  previous: PreviousGroup,
  loose?: Relaxed,
): NetVariables {
  const out: NetVariables = {
    nets,
    choices: [],
    splitters: [],
    free: new Map(),
    alone: new Map(),
    signals: [],
    passes: [],
    zoneOn: new Map(),
    departing: [],
    departures: new Map(),
    departs: new Map(),
    priced: new Map(),
    joined: new Set(),
    arcs: [],
    arced: new Set(),
  };
  for (const [i, consumer] of nets.consumers.entries()) {
    const mine = choicesOf(model, graph, nets, consumer, nets.consumers.length - i, splitters, previous, loose);
    const unit = used.get(consumer.node.part.id);
    const changes = previous(consumer.address) === undefined ? 0 : 1;
    const price = { ...freePriceOf(graph, consumer), changes };
    const here = terms(mine.map((m) => m.variable));
    if (unit === undefined) {
      const free = model.variable(`${consumer.address}>free`, price, 1, true);
      out.free.set(consumer.address, free);
      model.exactly([...here, term(free)], 1);
    } else {
      if (consumer.node.lead.ownControl) {
        const alone = model.variable(`${consumer.address}>alone`, price);
        out.alone.set(consumer.address, alone);
        here.push(term(alone));
      }
      model.exactly([...here, term(unit, -1)], 0);
    }
    if (unit === undefined && isDetail(consumer)) for (const m of mine) model.details.add(m.variable);
    out.choices.push(...mine);
  }
  followTheirHosts(model, graph, out);
  for (const root of nets.roots) addRoot(model, out, root, splitters, used, loose);
  for (const group of nets.groups.values()) {
    const here = out.choices.filter((c) => c.root.group === group.id);
    // A hub's supply, beside the limits of its ports.
    const by = { name: `${group.id} in all`, port: group.gives };
    limit(model, by, here, "mA", group.mA, loose);
    limit(model, by, here, "startMA", group.startMA, loose);
  }
  stock(model, out, splitters);
  addZones(model, out, loose === undefined);
  addLights(model, out);
  pumpsAlone(model, out);
  noRings(model, out);
  addCommands(model, graph, out);
  Object.assign(out, addSpeedSignals(model, graph, out));
  addOwnHeaders(model, graph, out);
  return out;
}

/** A lead on which nothing else hangs, that takes no header for itself. */
const isDetail = (c: Consumer) => c.opens === 0 && c.carries.length === 0 && !isPump(c) && !feedsOrCommands(c);
const feedsOrCommands = ({ node: { part } }: Consumer) => part.type.kind === "hub" || part.type.kind === "usb-hub" || part.type.kind === "splitter";

/** Every root that a lead may go to, as it is, behind another part, or by an extension. */
function choicesOf(
  model: Model,
  graph: Graph,
  nets: Nets,
  consumer: Consumer,
  turn: number,
  splitters: readonly Splitter[],
  previous: PreviousGroup,
  loose: Relaxed | undefined,
): NetChoice[] {
  const { node } = consumer;
  const mine: NetChoice[] = [];
  const before = previous(consumer.address);
  for (const [r, root] of nets.roots.entries()) {
    const group = nets.groups.get(root.group);
    if (!group || !fitsRoot(consumer, root) || isTaken(nets, consumer, root)) continue;
    if (!loose && consumer.mA > Math.min(root.mA, group.mA)) continue;
    const cost: PartCost = {
      ...netPrice(graph, consumer, root, group),
      changes: before !== undefined && before !== root.group ? 1 : 0,
      canonical: turn * (r + 1),
    };
    const needMm = leadToPortMm(graph, node, root.sample);
    const name = `${consumer.address}>${root.id}`;
    if (node.lead.lengthMm >= needMm || node.lead.role === "splitter-in") {
      mine.push({ consumer, root, variable: model.variable(name, cost) });
      continue;
    }
    const hosts = hostsOf(graph, consumer, nets.consumers, root);
    if (hosts.fixed || hosts.free.length > 0) mine.push({ consumer, root, variable: model.variable(`${name}+behind`, cost), follows: true });
    if (loose) {
      const mm = Math.ceil(needMm - node.lead.lengthMm);
      mine.push({
        consumer,
        root,
        variable: loose.add(model, `${name}+mm`, "longer", () => ({ kind: "longer", end: consumer.address, mm })),
      });
    }
    for (const s of splitters) {
      if (s.ports !== 1 || s.family !== root.sample.port.family || node.lead.lengthMm + s.lengthMm < needMm) continue;
      for (const from of SOURCES) {
        if (s[from] === 0) continue;
        const more = { ...cost, ...priceOf(from), canonical: (cost.canonical ?? 0) + splitters.indexOf(s) };
        mine.push({ consumer, root, variable: model.variable(`${name}+${s.type.id}/${from}`, more), via: { splitter: s, from } });
      }
    }
  }
  return mine;
}

/** A pump that is plugged has its header for itself; where anything else is plugged no pump comes. */
function isTaken(nets: Nets, consumer: Consumer, root: OpenRoot): boolean {
  if (!nets.groups.get(root.group)?.header) return false;
  const there = nets.placed.filter((p) => p.group === root.group && !ofOnePump(p.consumer, consumer));
  return isPump(consumer) ? there.length > 0 : there.some((p) => isPump(p.consumer));
}

/** What hangs behind another part is on a root where such a part is. */
function followTheirHosts(model: Model, graph: Graph, out: NetVariables): void {
  const hostsOfChoice = new Map(out.choices.filter((x) => x.follows).map((c) => [c, hostsOf(graph, c.consumer, out.nets.consumers, c.root)]));
  // What reaches neither the root nor anything that does, through others, is never there.
  const reached = new Set(out.choices.filter((c) => !c.follows || hostsOfChoice.get(c)?.fixed));
  const on = new Map<OpenRoot, Set<Consumer>>();
  for (const c of reached) on.set(c.root, (on.get(c.root) ?? new Set()).add(c.consumer));
  for (let grew = true; grew; ) {
    grew = false;
    for (const [c, hosts] of hostsOfChoice)
      if (!reached.has(c) && hosts.free.some((h) => on.get(c.root)?.has(h))) {
        reached.add(c);
        on.set(c.root, (on.get(c.root) ?? new Set()).add(c.consumer));
        grew = true;
      }
  }
  for (const [c, hosts] of hostsOfChoice) {
    if (!reached.has(c)) model.upper[c.variable] = 0;
    if (hosts.fixed) continue;
    const above = out.choices.filter((x) => x.root === c.root && reached.has(x) && hosts.free.includes(x.consumer));
    model.atMost(
      [
        term(c.variable),
        ...terms(
          above.map((x) => x.variable),
          -1,
        ),
      ],
      0,
    );
  }
}

/** Parts with a through-plug that a lead reaches: those that may come onto the root, and whether one is there for good. */
function hostsOf(graph: Graph, consumer: Consumer, consumers: readonly Consumer[], root: OpenRoot): { fixed: boolean; free: Consumer[] } {
  const reached = (p: PortNode | undefined) => p !== undefined && isThrough(p) && reachesThrough(graph, consumer, p);
  return {
    fixed: root.ports.some((a) => reached(graph.ports.get(a))),
    free: consumers.filter(
      (c) => c !== consumer && opened(c.node.part, c.node.lead).some((o) => reached(graph.ports.get(`${c.node.part.id}:${o.id}`))),
    ),
  };
}

/** Places, splitters and own limits of one root. */
function addRoot(
  model: Model,
  out: NetVariables,
  root: OpenRoot,
  splitters: readonly Splitter[],
  used: ReadonlyMap<string, number>,
  loose: Relaxed | undefined,
): void {
  const here = out.choices.filter((c) => c.root === root);
  const hung = splittersAt(model, root, out.nets.roots.indexOf(root), here.length > 1 ? splitters : []);
  out.splitters.push(...hung);
  if (here.length === 0) return;
  const unit = root.unit === undefined ? undefined : used.get(root.unit);
  const gate = root.needsLead === undefined ? undefined : out.choices.filter((c) => c.consumer.address === root.needsLead).map((c) => c.variable);
  const taken: Term[] = [
    ...each(
      here,
      (c) => c.variable,
      (c) => c.consumer.weight - (c.consumer.ownKind === undefined ? c.consumer.opens : 0),
    ),
    ...each(
      hung,
      (h) => h.variable,
      (h) => 1 - h.splitter.ports,
    ),
    ...ownKindChains(model, root, here),
  ];
  if (gate) model.atMost([...taken, ...terms(gate, -root.places)], 0);
  else if (unit !== undefined) model.atMost([...taken, term(unit, -root.places)], 0);
  else if (loose) {
    const { address, port } = root.sample;
    const more = loose.add(
      model,
      `${root.id} places`,
      "place",
      (n) => ({ kind: "place", root: address, family: port.family, count: n }),
      MOST_PLACES,
    );
    model.atMost([...taken, term(more, -1)], root.places);
  } else model.atMost(taken, root.places);
  // Chains and splitters open places of their own; without the unit nothing may hang on it at all.
  if (unit !== undefined && !gate) for (const c of here) model.atMost([term(c.variable), term(unit, -1)], 0);
  splittersBehind(model, out, root, here, hung);
  const by = { name: root.id, port: root.sample.address };
  limit(model, by, here, "mA", root.mA, loose);
  limit(model, by, here, "startMA", root.startMA, loose);
  limit(model, by, here, "leds", root.leds, loose);
}

function splittersAt(model: Model, root: OpenRoot, nth: number, splitters: readonly Splitter[]): NetSplitters[] {
  if (root.sample.port.family === "usb2") return [];
  const hung = splitters
    .filter((s) => s.ports > 1 && s.family === root.sample.port.family)
    .flatMap((s) =>
      SOURCES.flatMap((from): NetSplitters[] => {
        const most = Math.min(s[from], MOST_SPLITTERS_AT_A_ROOT);
        if (most === 0) return [];
        // Among equals the one with the fewest outlets to spare, then by name: of two kinds for two roots it is settled which goes where.
        const cost = { ...priceOf(from), canonical: OUTLETS_FIRST * s.ports + splitters.indexOf(s) * (nth + 1) };
        return [{ splitter: s, root, from, variable: model.variable(`${root.id}<${s.type.id}/${from}`, cost, most) }];
      }),
    );
  if (hung.length > 1) model.atMost(terms(hung.map((h) => h.variable)), MOST_SPLITTERS_AT_A_ROOT);
  return hung;
}

/** Parts whose through-plug takes their own kind only: each takes a place, less one for each that hangs behind another of them. */
function ownKindChains(model: Model, root: OpenRoot, here: readonly NetChoice[]): Term[] {
  const kinds = new Set(here.flatMap((c) => c.consumer.ownKind ?? []));
  return [...kinds].map((kind) => {
    const mine = here.filter((c) => c.consumer.ownKind === kind);
    const any = model.helper(`${root.id} any ${kind}`);
    for (const c of mine) model.atMost([term(c.variable), term(any, -1)], 0);
    const behind = model.variable(`${root.id} behind ${kind}`, {}, mine.length);
    model.atMost(
      [
        term(behind),
        term(any),
        ...terms(
          mine.map((c) => c.variable),
          -1,
        ),
      ],
      0,
    );
    return term(behind, -1);
  });
}

/** Splitters beyond the root's own places hang behind other splitters. */
function splittersBehind(model: Model, out: NetVariables, root: OpenRoot, here: readonly NetChoice[], hung: readonly NetSplitters[]): void {
  const own = here.filter((c) => c.consumer.node.part.type.kind === "splitter");
  const most = hung.reduce((s, h) => s + h.splitter[h.from], 0) + own.length;
  const direct = root.ports.filter((a) => !out.nets.behindSplitter.has(a)).length;
  if (most <= direct) return;
  const behind = model.helper(`${root.id} splitters behind`, { splittersBehind: 1 }, MOST_SPLITTERS_AT_A_ROOT + own.length);
  model.atMost([...terms(hung.map((h) => h.variable)), ...terms(own.map((c) => c.variable)), term(behind, -1)], direct);
}

/**
 * What was chosen for a root has no order that holds: some of it goes elsewhere, or something more comes in between. Leads that
 * cannot hang behind one another need a place of the root each, which rules out far more than this one set. Returns the
 * variables of the row.
 */
export function forbid(
  model: Model,
  graph: Graph,
  out: NetVariables,
  { root, here, places }: { root: OpenRoot; here: readonly NetChoice[]; places: number },
  chosen: (v: number) => number,
): number[] {
  const members = new Set(here.map((c) => c.consumer));
  const onIt = out.choices.filter((c) => c.root === root);
  const hung = out.splitters.filter((s) => s.root === root);
  const between = terms(
    onIt.filter((c) => !members.has(c.consumer) && c.consumer.opens > 0).map((c) => c.variable),
    -1,
  );
  const outlets = each(
    hung,
    (h) => h.variable,
    (h) => 1 - h.splitter.ports,
  );
  const opened = hung.reduce((s, h) => s + (h.splitter.ports - 1) * chosen(h.variable), 0);
  const chains = chainsAmong(graph, here);
  let row: Term[];
  if (chains.length > places) {
    const heads = chains.map((chain, i) => {
      const head = model.helper(`${root.id} head ${model.names.length} ${i}`);
      // Another way of the same lead onto the same root (by an extension) may hold.
      for (const c of chain) model.atMost([term(c.variable), term(head, -1)], 0);
      return head;
    });
    row = [...terms(heads), ...between, ...outlets];
    model.atMost(row, places - opened);
  } else {
    row = [...terms(here.map((c) => c.variable)), ...between, ...outlets];
    model.atMost(row, here.length - 1 - opened);
  }
  return row.map(([v]) => v);
}

function limit(
  model: Model,
  by: { name: string; port: Address },
  here: readonly NetChoice[],
  of: "mA" | "startMA" | "leds",
  most: number,
  loose?: Relaxed,
): void {
  if (!Number.isFinite(most)) return;
  const all = each(
    here,
    (c) => c.variable,
    (c) => c.consumer[of],
  );
  const sum = all.reduce((s, [, a]) => s + a, 0);
  if (all.length === 0 || sum <= most) return;
  // What is bought gives what it gives.
  if (!loose || here[0]?.root.unit !== undefined) {
    model.atMost(all, Math.max(0, most));
    return;
  }
  const more = loose.add(model, `${by.name} more ${of}`, "limit", (_, chosen) => {
    const over = all.reduce((s, [v, a]) => s + a * chosen(v), 0) - most;
    return { kind: "limit", root: by.port, of, over };
  });
  model.atMost([...all, term(more, -(sum - Math.max(0, most)))], Math.max(0, most));
}

function stock(model: Model, out: NetVariables, splitters: readonly Splitter[]): void {
  for (const s of splitters) {
    for (const from of SOURCES) {
      const taken = [
        ...out.splitters.filter((h) => h.splitter === s && h.from === from),
        ...out.choices.filter((c) => c.via?.splitter === s && c.via.from === from),
      ];
      if (taken.length > 0) model.atMost(terms(taken.map((t) => t.variable)), s[from]);
    }
  }
}

/** Roots of a zone beyond the first. */
function addZones(model: Model, out: NetVariables, tight: boolean): void {
  const { nets } = out;
  for (const zone of zonesOf(nets)) {
    const here = out.choices.filter((c) => c.consumer.zone === zone);
    const groups = [...new Set(here.map((c) => c.root.group))];
    const kept = new Set(nets.placed.filter((p) => p.consumer.zone === zone).map((p) => p.group));
    const count = new Set(here.map((c) => c.consumer.address)).size;
    if (groups.length + kept.size < 2 || (count < 2 && kept.size === 0)) continue;
    const on = groups
      .filter((g) => !kept.has(g))
      .map((g) => {
        const w = model.helper(`zone ${zone} on ${g}`);
        out.zoneOn.set(`${zone} on ${g}`, w);
        const mine = here.filter((x) => x.root.group === g);
        // One pump at most is there.
        const pumps = nets.groups.get(g)?.header ? mine.filter((c) => isPump(c.consumer)) : [];
        if (pumps.length > 0) model.atMost([...terms(pumps.map((c) => c.variable)), term(w, -1)], 0);
        for (const c of mine) if (!pumps.includes(c)) model.atMost([term(c.variable), term(w, -1)], 0);
        if (tight) tighten(model, out, g, zone, w);
        return w;
      });
    const whole = [...nets.consumers, ...nets.placed.map((p) => p.consumer)].filter((c) => c.zone === zone).flatMap(leadsOf);
    const radiator = whole.every((l) => l.lead.role === "radiator-fan");
    const extra = model.helper(`zone ${zone} extra`, radiator ? { radiatorDivided: 1 } : { extraRoots: 1 }, Math.max(1, on.length + kept.size));
    model.atMost([...terms(on), term(extra, -1)], 1 - kept.size);
  }
}

/** Lights of a place of the case on headers or hubs beyond the first. */
function addLights(model: Model, out: NetVariables): void {
  const { nets } = out;
  const of = (c: Consumer) => c.lights;
  for (const place of new Set(nets.consumers.flatMap((c) => of(c) ?? []))) {
    const here = out.choices.filter((c) => of(c.consumer) === place);
    const kept = new Set(nets.placed.filter((p) => of(p.consumer) === place).map((p) => p.group));
    const groups = [...new Set(here.map((c) => c.root.group))].filter((g) => !kept.has(g));
    if (groups.length + kept.size < 2 || (kept.size === 0 && new Set(here.map((c) => c.consumer)).size < 2)) continue;
    const on = groups.map((g) => {
      const w = model.helper(`lights of ${place} on ${g}`);
      for (const c of here) if (c.root.group === g) model.atMost([term(c.variable), term(w, -1)], 0);
      return w;
    });
    const extra = model.helper(`lights of ${place} divided`, { lightsDivided: 1 }, Math.max(1, on.length + kept.size));
    model.atMost([...terms(on), term(extra, -1)], 1 - kept.size);
  }
}

/**
 * What a zone puts on a root is within the root's limits and places only where the zone is on it. Says nothing new, but
 * the solver sees at once how many roots and splitters it takes.
 */
function tighten(model: Model, out: NetVariables, group: string, zone: string, w: number): void {
  const all = out.choices.filter((c) => c.root.group === group);
  const here = all.filter((c) => c.consumer.zone === zone);
  const most = out.nets.groups.get(group);
  for (const [limitMA, of] of [
    [most?.mA, (c: NetChoice) => c.consumer.mA],
    [most?.startMA, (c: NetChoice) => c.consumer.startMA],
  ] as const) {
    if (limitMA === undefined || !Number.isFinite(limitMA) || limitMA <= 0) continue;
    const sum = each(here, (c) => c.variable, of);
    if (sum.reduce((s, [, a]) => s + a, 0) > limitMA) model.implied([...sum, term(w, -limitMA)], 0);
  }
  const places = out.nets.roots.filter((r) => r.group === group).reduce((s, r) => s + r.places, 0);
  if (here.reduce((s, c) => s + c.consumer.weight, 0) > places)
    model.implied(
      [
        ...each(
          here,
          (c) => c.variable,
          (c) => c.consumer.weight,
        ),
        ...each(
          all,
          (c) => c.variable,
          (c) => -c.consumer.opens,
        ),
        ...each(
          out.splitters.filter((s) => s.root.group === group),
          (s) => s.variable,
          (s) => 1 - s.splitter.ports,
        ),
        term(w, -places),
      ],
      0,
    );
}

/** With "each its own header" every place departs from the school of which a fan shares one. */
function addOwnHeaders(model: Model, graph: Graph, out: NetVariables): void {
  if (graph.build.policy.caseFans !== "own-header") return;
  const isCaseFan = (c: Consumer) => c.node.lead.role === "case-fan";
  for (const group of out.nets.groups.values()) {
    if (!group.header || family(group.header.port.family).loom !== "fans") continue;
    const here = out.choices.filter((c) => c.root.group === group.id && isCaseFan(c.consumer));
    const kept = out.nets.placed.some((p) => p.group === group.id && isCaseFan(p.consumer));
    if (kept) departsAlways(model, out, here);
    for (const [i, a] of kept ? [] : here.entries())
      for (const b of here.slice(i + 1)) {
        if (a.consumer === b.consumer) continue;
        for (const d of new Set([departureOf(model, out, a.consumer), departureOf(model, out, b.consumer)]))
          model.atMost([term(a.variable), term(b.variable), term(d, -1)], 1);
      }
  }
}

import type { Graph } from "../../assembly";
import { family } from "../../catalogue";
import { departs } from "../../wiring";
import { type Consumer, caseFansOf, type Group, isCooling, isPump } from "./consumers";
import type { Model } from "./model";
import { type NetChoice, type NetVariables, ofOnePump } from "./net-variables";
import { type Term, term, terms } from "./terms";

/** Nothing but a cooler's own signal shares a header with a pump. */
export function pumpsAlone(model: Model, out: NetVariables): void {
  for (const pump of new Set(out.choices.map((c) => c.consumer).filter(isPump))) {
    const mine = out.choices.filter((c) => c.consumer === pump);
    for (const group of new Set(mine.map((c) => c.root.group))) {
      // A hub's place for a pump is its own.
      if (!out.nets.groups.get(group)?.header) continue;
      const there = terms(mine.filter((c) => c.root.group === group).map((c) => c.variable));
      const others = new Map<Consumer, number[]>();
      for (const c of out.choices)
        if (c.root.group === group && c.consumer !== pump && !ofOnePump(c.consumer, pump))
          others.set(c.consumer, [...(others.get(c.consumer) ?? []), c.variable]);
      for (const [other, variables] of others) {
        if (isPump(other) && other.address < pump.address) continue;
        model.atMost([...there, ...terms(variables)], 1);
      }
    }
  }
}

/** Hubs that hang on hubs by their control leads: each one level deeper than the one above, so that no ring closes. */
export function noRings(model: Model, out: NetVariables): void {
  const hubs = [...out.nets.groups.values()].filter((g) => g.controlLeads.length > 0);
  const ids = new Set(hubs.map((g) => g.id));
  const above = hubs.flatMap((hub) => hub.controlLeads.flatMap((l) => hostsOf(out, l).map((h) => ({ hub, ...h })))).filter((h) => ids.has(h.group));
  if (above.length === 0) return;
  const most = hubs.length;
  const level = new Map<string, number>();
  const levelOf = (id: string) => {
    const known = level.get(id) ?? model.helper(`${id} level`, {}, most);
    level.set(id, known);
    return known;
  };
  for (const { hub, group, choice } of above) {
    const deeper = [term(levelOf(hub.id)), term(levelOf(group), -1)];
    if (choice) model.atLeast([...deeper, term(choice.variable, -most)], 1 - most);
    else model.atLeast(deeper, 1);
  }
}

/** Groups on which a lead may hang; without a choice: it is there for good. */
function hostsOf(out: NetVariables, lead: string | undefined): { group: string; choice?: NetChoice }[] {
  const kept = out.nets.placed.find((p) => p.consumer.address === lead);
  if (kept) return [{ group: kept.group }];
  return out.choices.filter((c) => c.consumer.address === lead).map((choice) => ({ group: choice.root.group, choice }));
}

/** A yes or no that is a variable, or known: 1. */
type Yes = { variable: number } | { known: 1 };
const asTerm = (y: Yes, factor = 1): Term[] => ("variable" in y ? [term(y.variable, factor)] : []);
const known = (y: Yes, factor = 1): number => ("variable" in y ? 0 : factor);

/** Where a hub has no header for its command: its own knob, or nothing at all. */
const NOWHERE = "nowhere";

const fansOf = (out: NetVariables): Group[] => {
  const looms = new Map<string, Set<string>>();
  for (const { group, family: f } of [
    ...out.nets.roots.map((r) => ({ group: r.group, family: r.sample.port.family })),
    ...out.nets.placed.map((p) => ({ group: p.group, family: p.root.port.family })),
  ])
    looms.set(group, (looms.get(group) ?? new Set()).add(family(f).loom));
  return [...out.nets.groups.values()].filter((g) => looms.get(g.id)?.has("fans"));
};

/**
 * What follows from where a command comes from. Each header is a control of its own, and so is each hub: whoever commands it,
 * all on it turn together. Where a hub hangs on a header with something else, `hubsOnSharedHeaders` adds what that means.
 */
export function addCommands(model: Model, graph: Graph, out: NetVariables): void {
  const fans = fansOf(out);
  for (const hub of fans.filter((g) => !g.header)) schoolOnHub(model, graph, out, fans, hub);
  for (const g of fans) {
    if (!g.header && g.fanLead === undefined && !g.itself) continue;
    const free = g.header || g.itself || g.fanLead === undefined ? undefined : out.free.get(g.fanLead);
    sharedControl(model, out, g.id, [{ id: g.id, yes: { known: 1 } }], free);
  }
}

/** Leads on a hub depart from the school by the role of the header that commands it, through other hubs too. */
function schoolOnHub(model: Model, graph: Graph, out: NetVariables, fans: readonly Group[], hub: Group): void {
  const here = out.choices.filter((c) => c.root.group === hub.id);
  if (here.length === 0) return;
  const roles = rolesOf(model, out, fans, hub);
  const departing = new Map(
    [...roles].map(([role, { sample }]) => [
      role,
      here.filter((c) =>
        departs(graph, c.consumer.node, {
          header: sample === undefined ? undefined : graph.ports.get(sample),
          hub: { id: hub.id, kind: hub.part.type.kind },
        }),
      ),
    ]),
  );
  const always = here.filter((c) => roles.size > 0 && [...departing.values()].every((list) => list.includes(c)));
  for (const c of always) model.addCost(c.variable, { schoolDepartures: 1 });
  for (const [role, { yes }] of roles) {
    const list = (departing.get(role) ?? []).filter((c) => !always.includes(c));
    if (list.length === 0) continue;
    const d = model.helper(`${hub.id} departs under ${role}`, { schoolDepartures: 1 }, list.length);
    const all = terms(list.map((c) => c.variable));
    model.atMost(
      [...all, ...yes.flatMap((y) => asTerm(y, list.length)), term(d, -1)],
      list.length - yes.reduce((s, y) => s + known(y, list.length), 0),
    );
  }
}

/** By which kinds of header a hub may be commanded: exactly one of the yes-or-nos of one kind is 1 where it is. */
function rolesOf(
  model: Model,
  out: NetVariables,
  fans: readonly Group[],
  hub: Group,
  depth = 0,
): Map<string, { sample: string | undefined; yes: Yes[] }> {
  const roles = new Map<string, { sample: string | undefined; yes: Yes[] }>();
  const add = (role: string, sample: string | undefined, yes: Yes) => {
    const there = roles.get(role) ?? { sample, yes: [] };
    there.yes.push(yes);
    roles.set(role, there);
  };
  for (const h of hostsOf(out, hub.fanLead)) {
    const host = fans.find((g) => g.id === h.group);
    const yes: Yes = h.choice ? { variable: h.choice.variable } : { known: 1 };
    if (host?.header) add(host.header.port.role, host.id, yes);
    else if (host && depth < MOST_DEEP)
      for (const [role, above] of rolesOf(model, out, fans, host, depth + 1)) {
        if ("known" in yes && above.yes.every((y) => "known" in y)) {
          add(role, above.sample, yes);
          continue;
        }
        // Under that hub, and that hub under such a header.
        const both = model.helper(`${hub.id} by ${host.id} under ${role} ${model.names.length}`);
        model.atMost(
          [...asTerm(yes), ...above.yes.flatMap((y) => asTerm(y)), term(both, -1)],
          1 - known(yes) - above.yes.reduce((s, y) => s + known(y), 0),
        );
        add(role, above.sample, { variable: both });
      }
  }
  const free = hub.fanLead === undefined ? undefined : (out.alone.get(hub.fanLead) ?? out.free.get(hub.fanLead));
  if (free !== undefined) add(NOWHERE, undefined, { variable: free });
  else if (roles.size === 0) add(NOWHERE, undefined, { known: 1 });
  return roles;
}

/** Hubs on hubs are looked at so deep where their school is asked. */
const MOST_DEEP = 2;

/** The leads of one zone that are of the case, or that cool the CPU: a zone is one or the other in nearly every build. */
interface Place {
  zone: string;
  cools: boolean;
}
const placeOf = (c: Consumer): Place | undefined => {
  if (c.zone === undefined) return undefined;
  return isCooling(c) ? { zone: c.zone, cools: true } : caseFansOf(c) > 0 ? { zone: c.zone, cools: false } : undefined;
};
const nameOf = (p: Place) => `${p.zone}${p.cools ? " cooling" : ""}`;

const on = (out: NetVariables, group: string) => ({
  choices: out.choices.filter((c) => c.root.group === group),
  placed: out.nets.placed.filter((p) => p.group === group),
});

/** Places of the case that share a control with what cools the CPU, and places beyond the first under one. `free`: nothing commands it. */
function sharedControl(model: Model, out: NetVariables, control: string, all: readonly { id: string; yes: Yes }[], free?: number): number[] {
  const places = new Map<string, Place>();
  let open = false;
  for (const { id } of all) {
    const { choices, placed } = on(out, id);
    for (const c of [...choices.map((x) => x.consumer), ...placed.map((p) => p.consumer)]) {
      const place = placeOf(c);
      if (place) places.set(nameOf(place), place);
    }
    open ||= choices.some((c) => placeOf(c.consumer));
  }
  const ofCase = [...places.values()].filter((p) => !p.cools);
  const cooling = [...places.values()].filter((p) => p.cools);
  if (!open || ofCase.length === 0 || (ofCase.length < 2 && cooling.length === 0)) return [];
  const there = new Map([...places].sort(([a], [b]) => (a < b ? -1 : 1)).map(([name, place]) => [name, isUnder(model, out, place, all, control)]));
  const unless = (factor: number): Term[] => (free === undefined ? [] : [term(free, -factor)]);
  const priced: number[] = [];
  if (ofCase.length > 1) {
    const shared = model.helper(`${control} places ${model.names.length}`, { placesShared: 1 }, ofCase.length);
    priced.push(shared);
    const count = ofCase.map((p) => there.get(nameOf(p)) as Yes);
    model.atMost([...count.flatMap((y) => asTerm(y)), term(shared, -1), ...unless(ofCase.length)], 1 - count.reduce((s, y) => s + known(y), 0));
  }
  for (const p of cooling.length === 0 ? [] : ofCase) {
    const mine = there.get(nameOf(p)) as Yes;
    const shared = model.helper(`${control} ${p.zone} with the CPU ${model.names.length}`, { coolingShared: 1 });
    priced.push(shared);
    for (const c of cooling) {
      const cool = there.get(nameOf(c)) as Yes;
      model.atMost([...asTerm(mine), ...asTerm(cool), term(shared, -1), ...unless(1)], 1 - known(mine) - known(cool));
    }
  }
  for (const v of priced) out.priced.set(v, control);
  return priced;
}

/** Is any lead of a place under a control: on the header itself, or on a hub that is commanded from it? */
function isUnder(model: Model, out: NetVariables, place: Place, all: readonly { id: string; yes: Yes }[], control: string): Yes {
  const is = (c: Consumer) => {
    const p = placeOf(c);
    return p !== undefined && p.zone === place.zone && p.cools === place.cools;
  };
  const pure = out.nets.consumers.every((c) => c.zone !== place.zone || is(c));
  const ways = all.flatMap(({ id, yes }): { on: Yes; yes: Yes }[] => {
    const { choices, placed } = on(out, id);
    if (placed.some((p) => is(p.consumer))) return [{ on: { known: 1 }, yes }];
    const here = choices.filter((c) => is(c.consumer));
    if (here.length === 0) return [];
    const zoneOn = pure ? out.zoneOn.get(`${place.zone} on ${id}`) : undefined;
    if (zoneOn !== undefined) return [{ on: { variable: zoneOn }, yes }];
    if (here.length === 1) return [{ on: { variable: here[0]?.variable ?? -1 }, yes }];
    const any = model.helper(`${nameOf(place)} of ${control} on ${id} ${model.names.length}`);
    for (const c of here) model.atMost([term(c.variable), term(any, -1)], 0);
    return [{ on: { variable: any }, yes }];
  });
  const one = ways[0];
  if (one && ways.length === 1 && !("variable" in one.yes)) return one.on;
  const there = model.helper(`${nameOf(place)} under ${control} ${model.names.length}`);
  for (const w of ways) model.atMost([...asTerm(w.on), ...asTerm(w.yes), term(there, -1)], 1 - known(w.on) - known(w.yes));
  return { variable: there };
}

/**
 * Where an answer hangs a hub on a header beside something else, all of it is one control: from then on the header's control
 * counts what is on such hubs, and the hubs no longer count by themselves. Returns the variables of the rows that came.
 */
export function hubsOnSharedHeaders(model: Model, out: NetVariables, chosen: (v: number) => number): number[] {
  const fans = fansOf(out);
  const hubs = fans.filter((g) => !g.header && !out.joined.has(g.id));
  const under = (hub: Group) => hostsOf(out, hub.fanLead).find((h) => !h.choice || chosen(h.choice.variable) > 0)?.group;
  const isBusy = (group: string, hub: Group) =>
    on(out, group).placed.some((p) => p.consumer.address !== hub.fanLead && p.consumer.node.lead.role !== "splitter-in") ||
    on(out, group).choices.some((c) => chosen(c.variable) > 0 && c.consumer.address !== hub.fanLead && c.consumer.node.lead.role !== "splitter-in");
  const shared = hubs.filter((hub) => {
    const group = under(hub);
    return group !== undefined && isBusy(group, hub);
  });
  if (shared.length === 0) return [];
  // All hubs at once: what they share depends on one another.
  for (const hub of fans.filter((g) => !g.header)) out.joined.add(hub.id);
  for (const v of out.priced.keys())
    model.addCost(v, { placesShared: -(model.costs[v]?.placesShared ?? 0), coolingShared: -(model.costs[v]?.coolingShared ?? 0) });
  out.priced.clear();
  const before = model.names.length;
  const commanded = commandsOfHubs(model, out, fans);
  const touched: number[] = [];
  for (const g of fans) {
    const mine = fans.flatMap((hub) => {
      const yes = hub.header ? undefined : commanded.get(hub.id)?.get(hub.id === g.id ? NOWHERE : g.id);
      return yes && (g.header || (hub.id === g.id && g.itself)) ? [{ id: hub.id, yes }] : [];
    });
    if (!g.header && mine.length === 0) continue;
    touched.push(...sharedControl(model, out, g.id, [...(g.header ? [{ id: g.id, yes: { known: 1 } as Yes }] : []), ...mine]));
  }
  for (let v = before; v < model.names.length; v++) touched.push(v);
  return touched;
}

/** For each hub, by which headers it may be commanded (or `nowhere`), through other hubs too. */
function commandsOfHubs(model: Model, out: NetVariables, fans: readonly Group[]): Map<string, Map<string, Yes>> {
  const hubs = fans.filter((g) => !g.header);
  const possible = new Map<string, Set<string>>();
  const direct = new Map<string, { group: string; yes: Yes }[]>();
  for (const hub of hubs) {
    const hosts = hostsOf(out, hub.fanLead).map((h) => ({ group: h.group, yes: h.choice ? { variable: h.choice.variable } : ({ known: 1 } as Yes) }));
    const free = hub.fanLead === undefined ? undefined : (out.alone.get(hub.fanLead) ?? out.free.get(hub.fanLead));
    if (free !== undefined) hosts.push({ group: NOWHERE, yes: { variable: free } });
    else if (hosts.length === 0) hosts.push({ group: NOWHERE, yes: { known: 1 } });
    direct.set(hub.id, hosts);
    possible.set(hub.id, new Set(hosts.filter((h) => !hubs.some((x) => x.id === h.group)).map((h) => h.group)));
  }
  // A hub under a hub is commanded by whatever may command that one.
  for (let grew = true; grew; ) {
    grew = false;
    for (const hub of hubs)
      for (const h of direct.get(hub.id) ?? [])
        for (const end of possible.get(h.group) ?? [])
          if (!possible.get(hub.id)?.has(end)) {
            possible.get(hub.id)?.add(end);
            grew = true;
          }
  }
  const under = new Map<string, Map<string, Yes>>();
  for (const hub of hubs) {
    const hosts = direct.get(hub.id) ?? [];
    const mine = new Map<string, Yes>();
    for (const end of possible.get(hub.id) ?? []) {
      const straight = hosts.filter((h) => h.group === end);
      const onHubs = hosts.some((h) => possible.get(h.group)?.has(end));
      const one = straight[0];
      mine.set(end, one && straight.length === 1 && !onHubs ? one.yes : { variable: model.helper(`${hub.id} under ${end} ${model.names.length}`) });
    }
    under.set(hub.id, mine);
  }
  for (const hub of hubs)
    for (const [end, yes] of under.get(hub.id) ?? [])
      for (const h of direct.get(hub.id) ?? []) {
        const above = h.group === end ? ({ known: 1 } as Yes) : under.get(h.group)?.get(end);
        if (!above || !("variable" in yes) || ("variable" in h.yes && h.yes.variable === yes.variable)) continue;
        // yes >= h and above
        model.atMost([...asTerm(h.yes), ...asTerm(above), term(yes.variable, -1)], 1 - known(h.yes) - known(above));
      }
  return under;
}

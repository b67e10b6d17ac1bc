import type { Graph, LeadNode, PortNode } from "../../assembly";
import { controlLost } from "../../catalogue";
import { departs } from "../../schools";
import { departureKey } from "../cost/cost";
import { type Consumer, type Group, isPump } from "./consumers";
import { asTerm, fansOf, hostsOf, known, NOWHERE, type Yes } from "./hub-hosts";
import type { Model } from "./model";
import { type NetChoice, type NetVariables, ofOnePump } from "./net-variables";
import { sharedControl } from "./shared-control";
import { term, terms } from "./terms";

/**
 * Nothing but a cooler's own signal shares a header with a pump. Said in the largest sets of which one at most may be there, and
 * by places of the case where they have a yes-or-no: the solver sees at once how many headers the pumps take.
 */
export function pumpsAlone(model: Model, out: NetVariables): void {
  const pumps = [...new Set(out.choices.map((c) => c.consumer).filter(isPump))];
  if (pumps.length === 0) return;
  for (const { id, header } of out.nets.groups.values()) {
    // A hub's place for a pump is its own.
    if (!header) continue;
    const here = out.choices.filter((c) => c.root.group === id);
    const of = (c: Consumer) => terms(here.filter((x) => x.consumer === c).map((x) => x.variable));
    const mine = pumps.map((pump) => ({ pump, there: of(pump) })).filter((p) => p.there.length > 0);
    if (mine.length > 1)
      model.atMost(
        mine.flatMap((p) => p.there),
        1,
      );
    const said = new Set<string>();
    for (const other of new Set(here.map((c) => c.consumer))) {
      if (isPump(other)) continue;
      const against = mine.filter((p) => !ofOnePump(other, p.pump)).flatMap((p) => p.there);
      if (against.length === 0) continue;
      const w = against.length === mine.length && other.zone !== undefined ? out.zoneOn.get(`${other.zone} on ${id}`) : undefined;
      const mixed = here.some((c) => c.consumer.zone === other.zone && (isPump(c.consumer) || mine.some((p) => ofOnePump(c.consumer, p.pump))));
      if (w === undefined || mixed) model.atMost([...against, ...of(other)], 1);
      else if (!said.has(other.zone ?? "")) {
        said.add(other.zone ?? "");
        model.atMost([...against, term(w)], 1);
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

/**
 * What follows from where a command comes from. Each header is a control of its own, and so is each hub: whoever commands it,
 * all on it turn together. Where a hub hangs on a header with something else, `hubsOnSharedHeaders` adds what that means.
 */
export function addCommands(model: Model, graph: Graph, out: NetVariables): void {
  const fans = fansOf(out);
  departsAlways(
    model,
    out,
    out.choices.filter(({ consumer, root }) => {
      const header = out.nets.groups.get(root.group)?.header;
      return header !== undefined && departs(graph, consumer.node, { header });
    }),
  );
  for (const hub of fans.filter((g) => !g.header)) {
    schoolOnHub(model, graph, out, fans, hub);
    withoutControl(model, out, fans, hub);
  }
  for (const g of fans) {
    if (!g.header && g.fanLead === undefined && !g.itself) continue;
    const free = g.header || g.itself || g.fanLead === undefined ? undefined : out.free.get(g.fanLead);
    sharedControl(model, out, g.id, [{ id: g.id, yes: { known: 1 } }], free);
  }
}

/** What is 1 where a lead of this place and role departs from the school: a place counts once, however many of it do. */
export function departureOf(model: Model, out: NetVariables, { zone, address, node }: Consumer): number {
  const key = departureKey(zone ?? address, node.lead.role);
  const known = out.departures.get(key) ?? model.helper(`${key} departs`, { schoolDepartures: 1 });
  out.departures.set(key, known);
  return known;
}

/** Choices that depart from the school wherever their header's or hub's command comes from. */
export function departsAlways(model: Model, out: NetVariables, choices: readonly NetChoice[]): void {
  for (const c of choices) {
    out.departs.set(c.variable, departureKey(c.consumer.zone ?? c.consumer.address, c.consumer.node.lead.role));
    model.atMost([term(c.variable), term(departureOf(model, out, c.consumer), -1)], 0);
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
  departsAlways(model, out, always);
  const against = new Map<string, { roles: Set<string>; departs: Set<number> }>();
  for (const [role, { yes }] of roles) {
    const list = (departing.get(role) ?? []).filter((c) => !always.includes(c));
    for (const zone of new Set(list.map((c) => c.consumer.zone))) {
      const mine = list.filter((c) => c.consumer.zone === zone);
      const all = here.filter((c) => c.consumer.zone === zone);
      const d = new Set(mine.map((c) => departureOf(model, out, c.consumer)));
      const w = zone !== undefined && d.size === 1 && mine.length === all.length ? out.zoneOn.get(`${zone} on ${hub.id}`) : undefined;
      const there = w === undefined ? mine.map((c) => [c.variable, departureOf(model, out, c.consumer)]) : [[w, [...d][0]]];
      for (const [v, departure] of there)
        model.atMost([term(v as number), ...yes.flatMap((y) => asTerm(y)), term(departure as number, -1)], 1 - yes.reduce((s, y) => s + known(y), 0));
      if (zone === undefined || mine.length < all.length) continue;
      const said = against.get(zone) ?? { roles: new Set(), departs: new Set() };
      said.roles.add(role);
      for (const v of d) said.departs.add(v);
      against.set(zone, said);
    }
  }
  for (const [zone, { roles: mine, departs: d }] of against) out.departing.push({ hub: hub.id, zone, roles: mine, departs: [...d] });
}

/** Fans on a hub that nothing commands, neither a header through other hubs nor a knob of its own, run without control: one each. */
function withoutControl(model: Model, out: NetVariables, fans: readonly Group[], hub: Group): void {
  const here = out.choices.filter((c) => c.root.group === hub.id && wantsControl(c.consumer.node, c.root.sample));
  const nobody = here.length === 0 ? [] : uncommanded(model, out, fans, hub);
  if (nobody.length === 0) return;
  const lost = model.helper(`${hub.id} without control`, { functionsReduced: 1 }, here.length);
  model.atMost(
    [...terms(here.map((c) => c.variable)), ...nobody.flatMap((y) => asTerm(y, here.length)), term(lost, -1)],
    here.length - nobody.reduce((s, y) => s + known(y, here.length), 0),
  );
}

/** A lead that could be commanded where this port is, were the port's own lead plugged. */
export const wantsControl = ({ lead }: LeadNode, { port }: PortNode): boolean =>
  port.controlledBy !== undefined && (lead.control ?? "none") !== "none" && !controlLost(lead, port);

/** Yes-or-nos of which exactly one is 1 where a hub has no command at all. */
function uncommanded(model: Model, out: NetVariables, fans: readonly Group[], hub: Group, depth = 0): Yes[] {
  if (hub.itself || hub.fanLead === undefined) return [];
  const free = out.free.get(hub.fanLead);
  const above = hostsOf(out, hub.fanLead).flatMap((h): Yes[] => {
    const host = fans.find((g) => g.id === h.group);
    if (!host || host.header || depth >= MOST_DEEP) return [];
    return uncommanded(model, out, fans, host, depth + 1).map((y): Yes => {
      if (!h.choice) return y;
      const both = model.helper(`${hub.id} by ${host.id} without command ${model.names.length}`);
      model.atMost([term(h.choice.variable), ...asTerm(y), term(both, -1)], 1 - known(y));
      return { variable: both };
    });
  });
  return [...(free === undefined ? [] : [{ variable: free }]), ...above];
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
export const MOST_DEEP = 2;

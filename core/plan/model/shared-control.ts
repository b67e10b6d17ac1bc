import { type Consumer, caseFansOf, type Group, isCooling, isPump } from "./consumers";
import { asTerm, fansOf, hostsOf, known, NOWHERE, type Yes } from "./hub-hosts";
import type { Model } from "./model";
import type { NetVariables } from "./net-variables";
import { type Term, term, terms } from "./terms";

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

/**
 * Places of the case that share a control with what cools the CPU, and places beyond the first under one. `free`: nothing commands
 * it. `found` is told of each place of the case that may be under this control.
 */
export function sharedControl(
  model: Model,
  out: NetVariables,
  control: string,
  all: readonly { id: string; yes: Yes }[],
  free?: number,
  found?: Map<string, Yes[]>,
): number[] {
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
  if (!found && (!open || ofCase.length === 0 || (ofCase.length < 2 && cooling.length === 0))) return [];
  const there = new Map([...places].sort(([a], [b]) => (a < b ? -1 : 1)).map(([name, place]) => [name, isUnder(model, out, place, all, control)]));
  for (const p of ofCase) found?.set(p.zone, [...(found.get(p.zone) ?? []), there.get(nameOf(p)) as Yes]);
  if (!open || ofCase.length === 0 || (ofCase.length < 2 && cooling.length === 0)) return [];
  const unless = (factor: number): Term[] => (free === undefined ? [] : [term(free, -factor)]);
  const priced: number[] = [];
  if (ofCase.length > 1) {
    const shared = model.helper(`${control} places ${model.names.length}`, { placesShared: 1 }, ofCase.length);
    priced.push(shared);
    const count = ofCase.map((p) => there.get(nameOf(p)) as Yes);
    // Where a pump has the header, nothing else is under it.
    const pumps = out.nets.groups.get(control)?.header ? on(out, control).choices.filter((c) => isPump(c.consumer)) : [];
    const taken = terms(pumps.map((c) => c.variable));
    model.atMost(
      [...count.flatMap((y) => asTerm(y)), ...taken, term(shared, -1), ...unless(ofCase.length)],
      1 - count.reduce((s, y) => s + known(y), 0),
    );
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
  // It is there only in one of the ways.
  for (const half of ["on", "yes"] as const) {
    const least = ways.map((w) => (known(w[half]) > 0 ? w[half === "on" ? "yes" : "on"] : w[half]));
    if (least.every((y) => known(y) === 0)) model.implied([term(there), ...least.flatMap((y) => asTerm(y, -1))], 0);
  }
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
  const found = new Map<string, Yes[]>();
  const touched: number[] = [];
  for (const g of fans) {
    const mine = fans.flatMap((hub) => {
      const yes = hub.header ? undefined : commanded.get(hub.id)?.get(hub.id === g.id ? NOWHERE : g.id);
      return yes && (g.header || (hub.id === g.id && g.itself)) ? [{ id: hub.id, yes }] : [];
    });
    if (!g.header && mine.length === 0) continue;
    touched.push(...sharedControl(model, out, g.id, [...(g.header ? [{ id: g.id, yes: { known: 1 } as Yes }] : []), ...mine], undefined, found));
  }
  underSomeControl(model, out, found, fans);
  for (let v = before; v < model.names.length; v++) touched.push(v);
  return touched;
}

/** Each place of the case is under some control, where its leads hang on anything that is commanded. Says nothing new. */
function underSomeControl(model: Model, out: NetVariables, found: ReadonlyMap<string, readonly Yes[]>, fans: readonly Group[]): void {
  const hubs = fans.filter((g) => !g.header);
  if (hubs.some((g) => !g.itself && g.fanLead === undefined)) return;
  const lost = hubs.flatMap((g) => (g.fanLead === undefined ? [] : (out.alone.get(g.fanLead) ?? out.free.get(g.fanLead) ?? [])));
  for (const [zone, all] of found) {
    const lead = out.nets.consumers.find((c) => c.zone === zone && !placeOf(c)?.cools && caseFansOf(c) > 0 && out.free.has(c.address));
    const free = lead && out.free.get(lead.address);
    if (free === undefined || all.some((y) => known(y) > 0)) continue;
    model.implied([...all.flatMap((y) => asTerm(y, -1)), ...terms([...lost, free], -1)], -1);
  }
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
  // One command at most.
  for (const mine of under.values()) {
    const all = [...mine.values()];
    if (all.length > 1 && all.every((y) => known(y) === 0))
      model.implied(
        all.flatMap((y) => asTerm(y)),
        1,
      );
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

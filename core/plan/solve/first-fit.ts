import { type Address, byText, partIdOf } from "../../assembly";

import { addCost, compareCost, LEVELS, type PartCost, zeroCost } from "../cost/cost";
import { type Consumer, type Group, isPump } from "../model/consumers";
import type { Laid } from "../model/lay-out";
import type { NetChoice, NetSplitters } from "../model/net-variables";
import { ofOnePump } from "../model/net-variables";

/**
 * A first answer for fans, lights and USB, zone by zone as hands would go about it: where the last plan had them, else all of a
 * zone on the root that takes most of it at the least cost. Only a start for the solver, which proves or betters it; where it
 * breaks a row it is not used. `withUnits`: hubs on offer may be taken. Values by the names of the variables.
 */
export function firstFit(laid: Laid, before: ReadonlyMap<Address, string>, withUnits = true): Map<string, number> {
  const fit = new FirstFit(laid, withUnits);
  const zones = new Map<string, Consumer[]>();
  for (const c of new Set(laid.nets.choices.map((x) => x.consumer))) {
    // Units hang where they are needed, later.
    if (laid.used.has(c.node.part.id)) continue;
    const zone = c.zone ?? c.address;
    zones.set(zone, [...(zones.get(zone) ?? []), c]);
  }
  const late = new Set<string>();
  for (const c of [...zones.values()].flat()) {
    const was = before.get(c.address);
    const choice = was === undefined ? undefined : fit.choices(c).find((x) => x.root.group === was);
    if (!choice || !fit.place(choice)) late.add(c.address);
  }
  // What is alone has the least choice; then the largest zones, which no splitter saves when they come last.
  const order = [...zones].sort(([a, x], [b, y]) => Number(y.some(mustBe)) - Number(x.some(mustBe)) || y.length - x.length || byText(a, b));
  // Splitters given out anew may leave some for what found no place: once more, then.
  for (let round = 0; round < ROUNDS && late.size > 0; round++) {
    const before = late.size;
    for (const [, all] of order) {
      let left = all.filter((c) => late.has(c.address));
      while (left.length > 0) {
        const placed = fit.onBestRoot(left);
        if (placed.length === 0) break;
        left = left.filter((c) => !placed.includes(c));
        for (const c of placed) late.delete(c.address);
      }
    }
    fit.fewestSplitters();
    if (late.size === before) break;
  }
  return fit.values();
}

const ROUNDS = 4;

const mustBe = (c: Consumer) => c.node.lead.need === "mandatory";

/** What is still open on each root while places are given away. */
interface State {
  places: Map<string, number>;
  groups: Map<string, Group>;
  roots: Map<string, { mA: number; startMA: number; leds: number }>;
  stock: Map<string, number>;
  hung: Map<number, number>;
  chosen: Set<number>;
  /** What hangs on each group, for pumps that want it for themselves. */
  on: Map<string, Consumer[]>;
  open: Set<string>;
  /** What hubs hang on by their control leads, by lead. */
  hosts: Map<Address, string>;
}

class FirstFit {
  private state: State;
  private readonly byConsumer = new Map<string, NetChoice[]>();
  private readonly splittersAt = new Map<string, NetSplitters[]>();

  constructor(
    private readonly laid: Laid,
    private readonly withUnits: boolean,
  ) {
    const { nets } = laid;
    for (const c of nets.choices) {
      if (c.via || c.follows) continue;
      this.byConsumer.set(c.consumer.address, [...(this.byConsumer.get(c.consumer.address) ?? []), c]);
    }
    for (const s of nets.splitters) this.splittersAt.set(s.root.id, [...(this.splittersAt.get(s.root.id) ?? []), s]);
    const roots = new Map(nets.choices.map((c) => [c.root.id, c.root]));
    this.state = {
      places: new Map([...roots].map(([id, r]) => [id, r.places])),
      groups: new Map([...nets.nets.groups].map(([id, g]) => [id, { ...g }])),
      roots: new Map([...roots].map(([id, r]) => [id, { mA: r.mA, startMA: r.startMA, leds: r.leds }])),
      stock: new Map(nets.splitters.map((s) => [stockOf(s), s.splitter[s.from]])),
      hung: new Map(),
      chosen: new Set(),
      on: new Map(),
      open: new Set(),
      hosts: new Map(),
    };
  }

  choices = (c: Consumer): readonly NetChoice[] => this.byConsumer.get(c.address) ?? [];

  /** Gives a lead its place, with a splitter or a hub where it takes one. False: nothing has changed. */
  place(choice: NetChoice, wanted = 1): boolean {
    const kept = copy(this.state);
    if (this.tryPlace(choice, wanted)) return true;
    this.state = kept;
    return false;
  }

  private tryPlace({ consumer, root, variable }: NetChoice, wanted: number): boolean {
    const unit = root.unit ?? (this.laid.used.has(root.group) ? root.group : undefined);
    if (root.needsLead !== undefined && !this.isPlaced(root.needsLead)) return false;
    if (unit !== undefined && !this.state.open.has(unit) && !(this.withUnits && this.open(unit))) return false;
    // Read only now: taking a unit may have given its leads places.
    const s = this.state;
    const own = s.roots.get(root.id);
    const group = s.groups.get(root.group);
    const there = s.on.get(root.group) ?? [];
    if (group?.header && there.some((c) => (isPump(c) || isPump(consumer)) && !ofOnePump(c, consumer))) return false;
    const commands = s.groups.get(consumer.node.part.id)?.controlLeads.includes(consumer.address) === true;
    if (commands && this.hangsOn(root.group, consumer.node.part.id)) return false;
    if (!own || consumer.mA > own.mA || consumer.startMA > own.startMA || consumer.leds > own.leds) return false;
    if (group && (consumer.mA > group.mA || consumer.startMA > group.startMA)) return false;
    const takes = consumer.weight - (consumer.ownKind === undefined ? consumer.opens : 0);
    if ((s.places.get(root.id) ?? 0) < Math.max(takes, 1) && !this.hang(root.id, wanted)) return false;
    s.places.set(root.id, (s.places.get(root.id) ?? 0) - takes);
    own.mA -= consumer.mA;
    own.startMA -= consumer.startMA;
    own.leds -= consumer.leds;
    if (group) {
      group.mA -= consumer.mA;
      group.startMA -= consumer.startMA;
    }
    if (commands) s.hosts.set(consumer.address, root.group);
    s.chosen.add(variable);
    s.on.set(root.group, [...there, consumer]);
    return true;
  }

  /** Is this group the hub, or does it hang on it, through others too? */
  private hangsOn(group: string, hub: string): boolean {
    if (group === hub) return true;
    const leads = this.state.groups.get(group)?.controlLeads ?? [];
    return leads.some((l) => {
      const host = this.state.hosts.get(l);
      return host !== undefined && this.hangsOn(host, hub);
    });
  }

  private isPlaced = (lead: Address) => (this.byConsumer.get(lead) ?? []).some((c) => this.state.chosen.has(c.variable));

  /** Takes a unit: its own leads find their places first. */
  private open(unit: string): boolean {
    this.state.open.add(unit);
    for (const [address, choices] of this.byConsumer) {
      const c = choices[0]?.consumer;
      if (c?.node.part.id !== unit) continue;
      const best = [...choices].filter((x) => x.root.unit === undefined).sort((a, b) => this.compare([a.variable], [b.variable]));
      if (!this.isPlaced(address) && !best.some((x) => this.place(x)) && !c.node.lead.ownControl) return false;
    }
    return true;
  }

  /** One more splitter at a root: the smallest that makes room for so many, else the largest; from the shelf first. */
  private hang(root: string, wanted: number): boolean {
    const s = this.state;
    const there = (this.splittersAt.get(root) ?? []).filter((x) => (s.stock.get(stockOf(x)) ?? 0) > 0);
    const enough = (x: NetSplitters) => x.splitter.ports - 1 + (s.places.get(root) ?? 0) >= wanted;
    const pick = there.sort(
      (a, b) =>
        Number(b.from === "shelf") - Number(a.from === "shelf") ||
        Number(enough(b)) - Number(enough(a)) ||
        (enough(a) ? a.splitter.ports - b.splitter.ports : b.splitter.ports - a.splitter.ports),
    )[0];
    if (!pick) return false;
    s.stock.set(stockOf(pick), (s.stock.get(stockOf(pick)) ?? 0) - 1);
    s.hung.set(pick.variable, (s.hung.get(pick.variable) ?? 0) + 1);
    s.places.set(root, (s.places.get(root) ?? 0) + pick.splitter.ports - 1);
    return true;
  }

  private costOf(variables: readonly number[]): PartCost {
    const { costs } = this.laid.model;
    const departs = new Set(variables.flatMap((v) => this.laid.nets.departs.get(v) ?? []));
    return variables.reduce((sum, v) => addCost(sum, costs[v] ?? {}), { ...zeroCost(), schoolDepartures: departs.size });
  }
  private compare = (a: readonly number[], b: readonly number[]) => compareCost(this.costOf(a), this.costOf(b), true);

  /** Puts as many of a zone as will go onto one root: the one that costs least for what it takes, that takes most. */
  onBestRoot(zone: readonly Consumer[]): Consumer[] {
    const groups = new Set(zone.flatMap((c) => this.choices(c).map((x) => x.root.group)));
    let best: { state: State; placed: Consumer[]; per: PartCost; cost: PartCost } | undefined;
    const kept = this.state;
    for (const group of groups) {
      this.state = copy(kept);
      const placed: Consumer[] = [];
      const variables: number[] = [];
      for (const [i, c] of zone.entries()) {
        const choice = this.choices(c).find((x) => x.root.group === group && this.place(x, zone.length - i));
        if (!choice) continue;
        placed.push(c);
        variables.push(choice.variable);
      }
      if (placed.length === 0) continue;
      const more = [...this.state.hung].flatMap(([v, n]) => Array<number>(n - (kept.hung.get(v) ?? 0)).fill(v));
      const units = [...this.state.open].filter((u) => !kept.open.has(u)).flatMap((u) => this.laid.used.get(u) ?? []);
      const cost = this.costOf([...variables, ...more, ...units]);
      // Functions count for each lead, so that a root for one is not chosen over a root for all.
      const per = Object.fromEntries(LEVELS.slice(0, LEVELS.indexOf("signalsLost")).map((l) => [l, (cost[l] ?? 0) / placed.length])) as PartCost;
      const found = { state: this.state, placed, per, cost };
      if (!best || this.isBetter(found, best)) best = found;
    }
    this.state = best?.state ?? kept;
    return best?.placed ?? [];
  }

  private isBetter(a: { placed: Consumer[]; per: PartCost; cost: PartCost }, b: { placed: Consumer[]; per: PartCost; cost: PartCost }): boolean {
    const above = compareCost(a.per, b.per);
    if (above !== 0) return above < 0;
    if (a.placed.length !== b.placed.length) return a.placed.length > b.placed.length;
    return compareCost(a.cost, b.cost, true) < 0;
  }

  /** Once it is known what hangs where, splitters are given out anew: the largest to the root that lacks most places. */
  fewestSplitters(): void {
    const s = this.state;
    const before = copy(s);
    const lacking = new Map<string, number>();
    for (const x of this.laid.nets.splitters) {
      const n = s.hung.get(x.variable) ?? 0;
      if (n === 0) continue;
      s.hung.delete(x.variable);
      s.stock.set(stockOf(x), (s.stock.get(stockOf(x)) ?? 0) + n);
      s.places.set(x.root.id, (s.places.get(x.root.id) ?? 0) - n * (x.splitter.ports - 1));
    }
    for (const [root, open] of s.places) if (open < 0) lacking.set(root, -open);
    while (lacking.size > 0) {
      const [root] = [...lacking].sort((a, b) => b[1] - a[1] || byText(a[0], b[0]))[0] as [string, number];
      if (!this.hang(root, 0)) {
        this.state = before;
        return;
      }
      const open = s.places.get(root) ?? 0;
      if (open >= 0) lacking.delete(root);
      else lacking.set(root, -open);
    }
  }

  /**
   * Which speed signal passes where, for what was placed: the CPU fan header hears something before all, then each zone where it
   * has a lead, directly or through the hub that its lead is on.
   */
  private signals(): number[] {
    const { nets } = this.laid;
    const out: number[] = [];
    const taken = new Set<string>();
    const heard = new Set<string>();
    const isThere = (zone: string, group: string) =>
      nets.choices.some((c) => c.root.group === group && c.consumer.zone === zone && c.consumer.reports && this.state.chosen.has(c.variable));
    const hostOf = (hub: string) => {
      const lead = nets.nets.groups.get(hub)?.speedLead;
      return lead === undefined ? undefined : (this.state.hosts.get(lead) ?? nets.nets.placed.find((p) => p.consumer.address === lead)?.group);
    };
    const passOf = (hub: string) => nets.passes.find((p) => p.hub === hub && p.host === hostOf(hub));
    const hear = (zone: string, group: string): boolean => {
      const signal = nets.signals.find((s) => s.zone === zone && s.group === group);
      if (!signal || heard.has(zone) || taken.has(group) || !isThere(zone, group)) return false;
      const way: number[] = [signal.variable];
      const groups = [group];
      for (let at = group; !nets.nets.groups.get(at)?.header; ) {
        const pass = passOf(at);
        if (!pass || taken.has(pass.host) || groups.includes(pass.host)) return false;
        way.push(pass.variable);
        groups.push(pass.host);
        at = pass.host;
      }
      for (const g of groups) taken.add(g);
      heard.add(zone);
      out.push(...way);
      return true;
    };
    const groups = [...nets.nets.groups.values()];
    const cpuFirst = [...groups].sort((a, b) => Number(b.header?.port.role === "cpu-fan") - Number(a.header?.port.role === "cpu-fan"));
    const zones = [...new Set(nets.signals.map((s) => s.zone))];
    const ways = (zone: string) => cpuFirst.filter((g) => isThere(zone, g.id));
    for (const g of cpuFirst.filter((x) => x.header?.port.role === "cpu-fan")) {
      const under = [g.id, ...groups.flatMap((hub) => (hostOf(hub.id) === g.id ? [hub.id] : []))];
      zones.some((z) => under.some((u) => hear(z, u)));
    }
    for (const zone of zones.sort((a, b) => ways(a).length - ways(b).length || byText(a, b))) for (const g of ways(zone)) if (hear(zone, g.id)) break;
    return out;
  }

  values(): Map<string, number> {
    const { model, nets, used } = this.laid;
    const { chosen, hung, open } = this.state;
    const out = new Map<number, number>([...chosen].map((v) => [v, 1]));
    for (const [v, n] of hung) out.set(v, n);
    for (const unit of open) out.set(used.get(unit) ?? -1, 1);
    for (const v of this.signals()) out.set(v, 1);
    for (const [lead, v] of nets.free) if (!this.isPlaced(lead)) out.set(v, 1);
    for (const [lead, v] of nets.alone) if (open.has(partIdOf(lead)) && !this.isPlaced(lead)) out.set(v, 1);
    return new Map([...out].map(([v, n]) => [model.names[v] ?? "", n]));
  }
}

const stockOf = (s: NetSplitters) => `${s.splitter.type.id}/${s.from}`;

const copy = (s: State): State => ({
  places: new Map(s.places),
  groups: new Map([...s.groups].map(([id, g]) => [id, { ...g }])),
  roots: new Map([...s.roots].map(([id, r]) => [id, { ...r }])),
  stock: new Map(s.stock),
  hung: new Map(s.hung),
  chosen: new Set(s.chosen),
  on: new Map(s.on),
  open: new Set(s.open),
  hosts: new Map(s.hosts),
});

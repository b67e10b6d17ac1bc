import { feedsPorts, hungW, plugLimitW } from "../../power";
import type { Model } from "./model";
import type { NetVariables } from "./net-variables";
import type { Column, PowerConsumer, SupplyVariables } from "./supply";
import { each, term } from "./terms";

/** Tenths of a watt, so that sums are whole. */
const tenths = (watts: number) => Math.round(watts * 10);

/**
 * A hub draws what hangs on it, which the supply's columns do not know. Where an answer puts more on a cable, a plug or an outlet
 * than it carries, rows are added that say so for every column with that hub; until then none are needed. Returns their variables.
 */
export function limitHubLoads(model: Model, nets: NetVariables, supply: SupplyVariables, chosen: (v: number) => number): number[] {
  const loads = loadsOf(nets);
  if (loads.size === 0) return [];
  const over = supply.columns.filter((x) => chosen(x.variable) > 0 && overBy(loads, x, (part) => loads.get(part)?.watts(chosen) ?? 0) > 1e-6);
  const hubs = new Set(over.flatMap((x) => hubsOf(loads, x).map((k) => k.node.part.id)));
  const touched: number[] = [];
  for (const x of supply.columns) {
    const mine = hubsOf(loads, x);
    if (!mine.some((k) => hubs.has(k.node.part.id)) || overBy(loads, x, (part) => loads.get(part)?.mostW ?? 0) <= 1e-6) continue;
    for (const { limitW, hubs: under } of limitsOf(x, mine)) {
      const sum = under.flatMap((k) => loads.get(k.node.part.id)?.terms ?? []);
      const most = sum.reduce((s, [, w]) => s + w, 0);
      if (most <= tenths(limitW)) continue;
      // Only where the column is taken.
      const slack = most - tenths(limitW);
      model.atMost([...sum, term(x.variable, slack)], tenths(limitW) + slack);
      touched.push(x.variable, ...sum.map(([v]) => v));
    }
  }
  return touched;
}

interface Load {
  terms: (readonly [number, number])[];
  mostW: number;
  watts: (chosen: (v: number) => number) => number;
}

function loadsOf(nets: NetVariables): Map<string, Load> {
  const out = new Map<string, Load>();
  for (const group of nets.nets.groups.values()) {
    if (group.header) continue;
    const here = nets.choices.filter((c) => c.root.group === group.id);
    const held = nets.nets.placed.filter((p) => p.group === group.id).reduce((s, p) => s + hungW(p.consumer.node), 0);
    const watts = (c: (typeof here)[number]) => [c.consumer.node, ...c.consumer.carries].reduce((s, l) => s + hungW(l), 0);
    const sum = each(
      here,
      (c) => c.variable,
      (c) => tenths(watts(c)),
    );
    if (sum.length === 0 && held === 0) continue;
    out.set(group.id, {
      terms: sum,
      mostW: held + sum.reduce((s, [, w]) => s + w, 0) / 10,
      watts: (chosen) => held + sum.reduce((s, [v, w]) => s + w * chosen(v), 0) / 10,
    });
  }
  return out;
}

const hubsOf = (loads: ReadonlyMap<string, Load>, x: Column): PowerConsumer[] =>
  x.ends.map((e) => e.consumer).filter((k) => feedsPorts(k.node) && loads.has(k.node.part.id));

/** What is left on the cable, on each hub's own plug and on the outlets for what hangs on the hubs, in W. */
function limitsOf(x: Column, hubs: readonly PowerConsumer[]): { limitW: number; hubs: readonly PowerConsumer[] }[] {
  const whole = Math.min(x.class.limitW, x.outletW) - x.drawW;
  const plugs = x.ends.flatMap((e) => {
    const end = x.class.ends.find((c) => c.id === e.end);
    return hubs.includes(e.consumer) && end ? [{ limitW: plugLimitW(end.family, end.limit) - e.consumer.drawW, hubs: [e.consumer] }] : [];
  });
  return [{ limitW: whole, hubs }, ...plugs].filter((l) => Number.isFinite(l.limitW));
}

const overBy = (loads: ReadonlyMap<string, Load>, x: Column, watts: (part: string) => number): number =>
  Math.max(0, ...limitsOf(x, hubsOf(loads, x)).map((l) => l.hubs.reduce((s, k) => s + watts(k.node.part.id), 0) - l.limitW));

import type { Laid } from "../model/lay-out";
import type { Column } from "../model/supply";

/**
 * A first answer for the supply, with nothing on offer taken: what the first look found, and where it found nothing, cable by cable
 * the one that feeds most of what is still without. Sockets that get nothing stay free. Values by the names of the variables.
 */
export function firstFeed(laid: Laid, first: ReadonlyMap<string, number>): Map<string, number> {
  const { model, supply, graph } = laid;
  const out = new Map<string, number>();
  const fed = new Set<string>();
  const left = new Map(supply.columns.map((c) => [c.class, c.class.instances.length]));
  const open = new Map<string, number>();
  for (const o of new Set(supply.columns.flatMap((c) => c.outlets))) open.set(o, supply.openOutlets.get(o) ?? 0);
  const wanted = new Set(supply.consumers.filter((k) => k.unit === undefined).map((k) => k.address));
  const take = (c: Column) => {
    out.set(model.names[c.variable] ?? "", (out.get(model.names[c.variable] ?? "") ?? 0) + 1);
    for (const e of c.ends) fed.add(e.consumer.address);
    left.set(c.class, (left.get(c.class) ?? 0) - 1);
    for (const o of c.outlets) open.set(o, (open.get(o) ?? 0) - 1);
  };
  const isOpen = (c: Column) =>
    (left.get(c.class) ?? 0) > 0 &&
    c.outlets.every((o) => (open.get(o) ?? 0) >= c.outlets.filter((x) => x === o).length) &&
    c.ends.every((e) => wanted.has(e.consumer.address) && !fed.has(e.consumer.address));
  for (const c of supply.columns) if ((first.get(model.names[c.variable] ?? "") ?? 0) > 0 && isOpen(c)) take(c);
  const worth = (c: Column) => c.ends.reduce((s, e) => s + ((e.consumer.free.mandatoryFree ?? 0) > 0 ? 2 : 1), 0) - (c.class.bagCost === 0 ? 0 : 0.5);
  for (;;) {
    const best = supply.columns.filter(isOpen).reduce<Column | undefined>((a, c) => (!a || worth(c) > worth(a) ? c : a), undefined);
    if (!best) break;
    take(best);
  }
  for (const [port, v] of supply.free) if (!fed.has(port) && graph.ports.has(port)) out.set(model.names[v] ?? "", 1);
  return out;
}

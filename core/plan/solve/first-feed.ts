import type { Laid } from "../model/lay-out";
import type { Column } from "../model/supply";

/**
 * A first answer for the supply, with nothing on offer taken: what the first look found, and for each socket that it found nothing
 * for the cable that feeds most of what is still without. Sockets that get nothing stay free. Values by the names of the variables.
 */
export function firstFeed(laid: Laid, first: ReadonlyMap<string, number>): Map<string, number> {
  const { model, supply, graph } = laid;
  const out = new Map<string, number>();
  const fed = new Set<string>();
  const left = new Map(supply.columns.map((c) => [c.class, c.class.instances.length]));
  const open = new Map<string, number>();
  for (const o of new Set(supply.columns.flatMap((c) => c.outlets))) open.set(o, supply.openOutlets.get(o) ?? 0);
  const wanted = new Set(supply.consumers.filter((k) => k.unit === undefined).map((k) => k.address));
  const feeding = new Map<string, Column[]>();
  for (const c of supply.columns)
    for (const e of c.ends) {
      const list = feeding.get(e.consumer.address);
      if (list) list.push(c);
      else feeding.set(e.consumer.address, [c]);
    }
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
  // Socket by socket in the order of the parts: cables then lie beside one another, and leave no single ones between them.
  const byNeed = [...supply.consumers].sort((a, b) => (b.free.mandatoryFree ?? 0) - (a.free.mandatoryFree ?? 0));
  for (const k of byNeed) {
    if (fed.has(k.address) || !wanted.has(k.address)) continue;
    const best = (feeding.get(k.address) ?? []).filter(isOpen).reduce<Column | undefined>((a, c) => (!a || worth(c) > worth(a) ? c : a), undefined);
    if (best) take(best);
  }
  for (const [port, v] of supply.free) if (!fed.has(port) && graph.ports.has(port)) out.set(model.names[v] ?? "", 1);
  return out;
}

import type { Build, TypeLookup } from "../../core/assembly";
import { family, headerLimit, type Lead, type PartType, type Port } from "../../core/catalogue";
import type { Loosening } from "../../core/wiring";

type Change = (type: PartType) => PartType;

const split = (address: string): [string, string] => {
  const at = address.indexOf(":");
  return [address.slice(0, at), address.slice(at + 1)];
};
const ports =
  (change: (p: Port) => Port): Change =>
  (t) => ({ ...t, ports: t.ports.map(change) });
const leads =
  (change: (l: Lead) => Lead): Change =>
  (t) => ({ ...t, leads: t.leads.map(change) });

/** A build in which what would let in what stays free has come true: by parts of other data, not by what the planner thinks of them. */
export function loosened(build: Build, types: TypeLookup, needs: readonly Loosening[]): { build: Build; types: TypeLookup } {
  const changes = new Map<string, Change[]>();
  const change = (part: string, how: Change) => changes.set(part, [...(changes.get(part) ?? []), how]);
  let { accessories, connections } = build;
  for (const n of needs) {
    switch (n.kind) {
      case "accessory": {
        const had = accessories.find((a) => a.type === n.type);
        const more = { type: n.type, count: had?.count ?? 0, ordered: (had?.ordered ?? 0) + n.count };
        accessories = [...accessories.filter((a) => a !== had), more];
        break;
      }
      case "release":
        connections = connections.map((c) => (c.lead === n.lead ? { ...c, state: "planned" as const } : c));
        break;
      case "cable":
        change(n.owner, (t) => ({ ...t, cables: t.cables.map((c) => (c.id === n.cable ? { ...c, count: c.count + n.count } : c)) }));
        break;
      case "longer": {
        const [part, id] = split(n.end);
        change(
          part,
          leads((l) => (l.id === id ? { ...l, lengthMm: l.lengthMm + n.mm } : l)),
        );
        change(
          part,
          ports((p) => (p.id === id ? { ...p, tailMm: p.tailMm + n.mm } : p)),
        );
        break;
      }
      case "limit": {
        const [part, id] = split(n.root);
        const of = n.of === "mA" ? "currentA" : n.of === "startMA" ? "startCurrentA" : "leds";
        change(
          part,
          ports((p) =>
            p.id === id ? { ...p, limit: { ...p.limit, [of]: (headerLimit(p)[of] ?? 0) + (n.of === "leds" ? n.over : n.over / 1000) } } : p,
          ),
        );
        break;
      }
      case "place": {
        const [part, id] = split(n.root);
        change(
          part,
          ports((p) => (p.id === id ? { ...p, places: (p.places ?? family(p.family).places) + n.count } : p)),
        );
        break;
      }
    }
  }
  const made = new Map<string, PartType>();
  const parts = build.parts.map((p) => {
    const type = types(p.type);
    const how = changes.get(p.id);
    if (!type || !how) return p;
    const id = `${p.type}-of-${p.id}`;
    made.set(id, { ...how.reduce((t, f) => f(t), type), id });
    return { ...p, type: id };
  });
  return { build: { ...build, parts, accessories, connections }, types: (id) => made.get(id) ?? types(id) };
}

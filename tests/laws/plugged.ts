import type { Build, Connection, Graph } from "../../core/assembly";
import { buildGraph, type TypeLookup } from "../../core/assembly";
import { mate } from "../../core/catalogue";

/** The same wiring, all of it done by hands. */
export const allPlugged = (build: Build): Build => ({ ...build, connections: build.connections.map((c) => ({ ...c, state: "plugged" })) });

/** Plugs moved to ports that their shape allows, as `picks` say: wrong places, rings, chains into themselves, foreign outlets. */
export function scrambled(
  build: Build,
  types: TypeLookup,
  picks: readonly (readonly [number, number])[],
  state: Connection["state"] = "plugged",
): Graph {
  const graph = buildGraph(build, types);
  const list: Connection[] = build.connections.map((c) => ({ ...c, state }));
  const ports = [...graph.ports.values()];
  for (const [n, m] of picks) {
    const c = list[n % Math.max(1, list.length)];
    const l = c && graph.leads.get(c.lead);
    if (!c || !l || c.place) continue;
    const fits = ports.filter(
      (p) => p.port.flow !== l.lead.flow && p.part !== l.part && mate(l.lead.family, p.port.family, l.lead.key, p.port.key).outcome !== "keyed",
    );
    const to = fits[m % Math.max(1, fits.length)];
    if (!to || list.some((o) => o.place && o.port === to.address)) continue;
    const was = c.port;
    for (const o of list) if (o !== c && o.port === to.address) o.port = was;
    c.port = to.address;
  }
  return buildGraph({ ...build, connections: list }, types);
}

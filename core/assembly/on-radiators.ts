import type { PartType } from "../catalogue";
import type { Part } from "./schema";

type Place = PartType["body"]["radiatorPlaces"][number];
type Radiator = NonNullable<PartType["body"]["radiator"]>;

/** A radiator where it hangs: the place of the case, and the mounts of it that the radiator covers. */
export interface Hanging {
  place?: Place;
  mounts: readonly string[];
}

interface ACooler {
  part: Part;
  radiator: Radiator;
}
interface AFan {
  part: Part;
  sizeMm: number | undefined;
}

/** Fans of a machine with one radiator may just be said to be on the radiator. */
const ON_IT = "radiator";
const zoneOf = (cooler: string, alone: boolean): string => (alone ? ON_IT : `${ON_IT}:${cooler}`);
/** Does a fan blow through a radiator, by its zone as the graph has it? */
export const isOnRadiator = (part: Pick<Part, "zone">): boolean => part.zone === ON_IT || part.zone?.startsWith(`${ON_IT}:`) === true;
/** Is it on the radiator of this cooler? */
export const isOnRadiatorOf = (fan: Pick<Part, "zone">, cooler: string, alone: boolean): boolean =>
  fan.zone === `${ON_IT}:${cooler}` || fan.zone === cooler || (alone && fan.zone === ON_IT);

/**
 * Where each radiator hangs, each at a place of its own: the one that the cooler names, if none of its own fans is elsewhere; else that on which
 * its own fans are, else one on which fans of a radiator are, else the first that takes it, as the case lists them.
 */
export function hangings(body: PartType["body"] | undefined, coolers: readonly ACooler[], fans: readonly AFan[]): ReadonlyMap<string, Hanging> {
  const places = body?.radiatorPlaces ?? [];
  const alone = coolers.length === 1;
  const used = new Set<string>();
  const found = new Map<string, Place>();
  const marked = (c: ACooler) => fans.filter((f) => isOnRadiatorOf(f.part, c.part.id, alone));
  const bare = fans.filter((f) => f.part.zone === ON_IT);
  const on = (p: Place, list: readonly AFan[]) => list.some((f) => p.mounts.includes(f.part.mount ?? ""));
  const takes = (p: Place, r: Radiator) => p.fanMm.includes(r.fanMm) && r.lengthMm <= p.maxLengthMm;
  const named = (c: ACooler, p: Place) => p.id === c.part.mount && !used.has(p.id);
  const tries: ((c: ACooler) => Place | undefined)[] = [
    (c) => places.find((p) => named(c, p) && (on(p, marked(c)) || !places.some((o) => on(o, marked(c))))),
    (c) => places.find((p) => on(p, marked(c)) && !used.has(p.id)),
    (c) => places.find((p) => named(c, p)),
    (c) => places.find((p) => on(p, bare) && takes(p, c.radiator) && !used.has(p.id)),
    (c) => places.find((p) => takes(p, c.radiator) && !used.has(p.id)),
  ];
  for (const look of tries)
    for (const c of coolers) {
      if (found.has(c.part.id)) continue;
      const place = look(c);
      if (!place) continue;
      found.set(c.part.id, place);
      used.add(place.id);
    }
  return new Map(
    coolers.map((c): [string, Hanging] => {
      const place = found.get(c.part.id);
      if (!place) return [c.part.id, { mounts: [] }];
      const own = [...marked(c), ...(alone ? [] : bare)].flatMap((f) =>
        place.mounts.includes(f.part.mount ?? "") ? [place.mounts.indexOf(f.part.mount ?? "")] : [],
      );
      return [c.part.id, { place, mounts: covered(place, c.radiator, own) }];
    }),
  );
}

/** As many mounts in a row as the radiator has fans, with its own fans among them; from the first where nothing says. */
function covered(place: Place, r: Radiator, own: readonly number[]): string[] {
  const n = Math.min(place.mounts.length, Math.max(r.fans, own.length > 0 ? Math.max(...own) - Math.min(...own) + 1 : 0));
  const from = own.length === 0 ? 0 : Math.min(Math.min(...own), place.mounts.length - n);
  return place.mounts.slice(from, from + n);
}

const zoned = new WeakMap<Part, Map<string, Part>>();
function withZone(part: Part, zone: string): Part {
  if (part.zone === zone) return part;
  const known = zoned.get(part) ?? new Map<string, Part>();
  zoned.set(part, known);
  const made = known.get(zone) ?? { ...part, zone };
  known.set(zone, made);
  return made;
}

/** Fans that hang where a radiator hangs blow through it, whether anybody has said so or not. Each gets its radiator as its zone. */
export function withRadiators<P extends { part: Part; type: PartType }>(placed: readonly P[]): readonly P[] {
  const coolers = placed.flatMap(({ part, type }) => (type.kind === "cooler" && type.body.radiator ? [{ part, radiator: type.body.radiator }] : []));
  if (coolers.length === 0) return placed;
  const alone = coolers.length === 1;
  const body = placed.find((p) => p.type.kind === "case")?.type.body;
  const fans = placed.flatMap(({ part, type }) => (type.kind === "fan" ? [{ part, sizeMm: type.body.widthMm }] : []));
  const where = hangings(body, coolers, fans);
  const of = ({ part, type }: P): string | undefined => {
    const said = coolers.find((c) => part.zone === c.part.id);
    if (said) return zoneOf(said.part.id, alone);
    if (part.zone !== undefined && part.zone !== ON_IT) return undefined;
    const there = coolers.find((c) => where.get(c.part.id)?.mounts.includes(part.mount ?? ""));
    if (!there) return undefined;
    // A fan of another size does not go onto it; that one was marked all the same is a finding.
    const fits = type.body.widthMm === undefined || type.body.widthMm === there.radiator.fanMm;
    return fits || part.zone === ON_IT ? zoneOf(there.part.id, alone) : undefined;
  };
  return placed.map((p) => {
    const zone = p.type.kind === "fan" ? of(p) : undefined;
    return zone === undefined || zone === p.part.zone ? p : { ...p, part: withZone(p.part, zone) };
  });
}

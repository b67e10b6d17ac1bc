import { type Graph, hangings, isOnRadiatorOf, kept, type PartNode, partsOfKind } from "../assembly";
import type { PartType, Point } from "../catalogue";

type Radiator = NonNullable<PartType["body"]["radiator"]>;
type Place = PartType["body"]["radiatorPlaces"][number];

export interface RadiatorSeat {
  cooler: PartNode;
  radiator: Radiator;
  /** Undefined when no place of the case takes it. */
  place?: Place;
  fans: PartNode[];
  /** What its fans take inside the frame: one row or two; none where all of them sit outside it. */
  fanDepthMm: number;
  /** What they take outside the frame, behind the panel. */
  outerDepthMm: number;
  pushPull: boolean;
  /** Both ends of the radiator, in case millimetres. */
  ends: Point[];
  /** Top and bottom of what it covers, in case millimetres. */
  spanY?: [number, number];
}

/** Depth of a usual fan, mm (common practice). */
export const FAN_MM = 25;

/** Does a fan sit outside the frame: said so, else where its mount has no other side. */
export const isOutside = (fan: PartNode, mount: { frame: string } | undefined): boolean =>
  (fan.part.frame ?? (mount?.frame === "outside" ? "outside" : "inside")) === "outside";

/** Where each radiator hangs, each at a place of its own, with the fans that blow through it. */
export const radiatorSeats = (graph: Graph): RadiatorSeat[] => kept(graph, "radiator-seats", ["case", "cooler", "fan"], () => seats(graph));

function seats(graph: Graph): RadiatorSeat[] {
  const shell = partsOfKind(graph, "case")[0];
  const mounts = new Map((shell?.type.body.mounts ?? []).map((m) => [m.id, m]));
  const withRadiator = partsOfKind(graph, "cooler").filter((c) => c.type.body.radiator);
  const alone = withRadiator.length === 1;
  const all = partsOfKind(graph, "fan");
  const where = hangings(
    shell?.type.body,
    withRadiator.map((c) => ({ part: c.part, radiator: c.type.body.radiator as Radiator })),
    all.map((f) => ({ part: f.part, sizeMm: f.type.body.widthMm })),
  );
  return withRadiator.map((cooler): RadiatorSeat => {
    const radiator = cooler.type.body.radiator as Radiator;
    const { place, mounts: covers = [] } = where.get(cooler.id) ?? {};
    const own = all.filter((f) => isOnRadiatorOf(f.part, cooler.id, alone));
    const fans = place ? own.filter((f) => f.part.mount === undefined || place.mounts.includes(f.part.mount)) : own;
    const pushPull = fans.length > radiator.fans;
    const outside = new Set(fans.filter((f) => isOutside(f, mounts.get(f.part.mount ?? ""))));
    const inner = fans.filter((f) => !outside.has(f));
    const depthOf = (list: readonly PartNode[]) => Math.max(0, ...list.map((f) => f.type.body.depthMm ?? FAN_MM));
    const innerRows = inner.length > radiator.fans ? 2 : 1;
    const at = covers.flatMap((id) => mounts.get(id) ?? []);
    const first = at[0];
    const last = at.at(-1);
    const half = radiator.lengthMm / 2;
    const level = place?.region === "top" || place?.region === "bottom";
    const middle = first && last ? { xMm: (first.at.xMm + last.at.xMm) / 2, yMm: (first.at.yMm + last.at.yMm) / 2 } : undefined;
    const ends = middle
      ? level
        ? [
            { xMm: middle.xMm - half, yMm: middle.yMm },
            { xMm: middle.xMm + half, yMm: middle.yMm },
          ]
        : [
            { xMm: middle.xMm, yMm: middle.yMm - half },
            { xMm: middle.xMm, yMm: middle.yMm + half },
          ]
      : [];
    return {
      cooler,
      radiator,
      ...(place ? { place } : {}),
      fans,
      fanDepthMm: fans.length === 0 ? FAN_MM : depthOf(inner) * innerRows,
      outerDepthMm: depthOf([...outside]),
      pushPull,
      ends,
      ...(middle && !level ? { spanY: [middle.yMm - half, middle.yMm + half] as [number, number] } : {}),
    };
  });
}

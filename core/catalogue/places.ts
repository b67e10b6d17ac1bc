import type { PartType } from "./part-type";

type CaseBody = PartType["body"];
type Mount = CaseBody["mounts"][number];

/** An outline seen from the side, mm of the case, from its top left corner. */
export interface Outline {
  xMm: number;
  yMm: number;
  widthMm: number;
  heightMm: number;
}

const within = (v: number, least: number, most: number) => Math.max(least, Math.min(most, v));
const sizeOf = (b: CaseBody) => ({ w: b.widthMm ?? 450, h: b.heightMm ?? 450 });
/** A supply stands this far from the wall, mm. */
const GAP_MM = 3;
/** Of a fan outside the frame so much stands behind the front panel, as a share of its depth. */
const OUTSIDE = 0.7;
/** Depth of a usual fan, and a supply whose entry says nothing of its size, mm (common practice; ATX12V design guide: 150 by 86, from memory). */
const FAN_DEEP_MM = 25;
export const SUPPLY_MM = { long: 150, high: 86, wide: 150 } as const;

/** A fan on a wall is seen edge-on, one on the side panel or the tray from its broad side. */
export const isFaceOn = (m: Mount): boolean => m.region === "side" || m.region === "behind-tray";

/** Where a fan stands at a mount. */
export function fanOutline(b: CaseBody, m: Mount, size = m.sizeMm ?? 120, deep = FAN_DEEP_MM, inside = m.frame !== "outside"): Outline {
  if (isFaceOn(m)) return { xMm: m.at.xMm - size / 2, yMm: m.at.yMm - size / 2, widthMm: size, heightMm: size };
  const { w, h } = sizeOf(b);
  const level = m.region === "top" || m.region === "bottom";
  const [fw, fh] = level ? [size, deep] : [deep, size];
  const out = inside || m.region !== "front" ? 0 : deep * OUTSIDE;
  return {
    xMm: within(m.at.xMm - fw / 2 + out, 0, w - fw + (inside ? 0 : deep)),
    yMm: within(m.at.yMm - fh / 2, 0, h - fh),
    widthMm: fw,
    heightMm: fh,
  };
}

/** Where a supply stands at its mount: at the rear where that is at the bottom or the rear, else around the place itself. Laid flat, over the board or behind the tray, its broad side is seen. */
export function supplyOutline(
  b: CaseBody,
  m: Pick<Mount, "at" | "region" | "offMm">,
  long: number = SUPPLY_MM.long,
  high: number = SUPPLY_MM.high,
): Outline {
  const { w, h } = sizeOf(b);
  const tall = m.offMm === undefined && m.region !== "behind-tray" ? high : SUPPLY_MM.wide;
  return {
    xMm: m.region === "bottom" || m.region === "rear" ? GAP_MM : within(m.at.xMm - long / 2, 0, w - long - GAP_MM),
    yMm: within(m.at.yMm - tall / 2, 0, h - tall - GAP_MM),
    widthMm: long,
    heightMm: tall,
  };
}

/** Less room behind the tray takes no lead: a thin one is 2 mm, tied it is twice that (common practice). */
const LEAST_BEHIND_MM = 5;
/** A rack, an open frame, a cube: nothing is led behind its tray. An entry that says nothing of it has room there. */
export const noRoomBehind = (b: Pick<CaseBody, "behindTrayMm"> | undefined): boolean =>
  b?.behindTrayMm !== undefined && b.behindTrayMm < LEAST_BEHIND_MM;

/** How far two outlines lie in one another, mm in each direction; 0 where they do not. */
export function overlap(a: Outline, b: Outline): { xMm: number; yMm: number } {
  const span = (from: number, size: number, otherFrom: number, otherSize: number) =>
    Math.min(from + size, otherFrom + otherSize) - Math.max(from, otherFrom);
  const xMm = span(a.xMm, a.widthMm, b.xMm, b.widthMm);
  const yMm = span(a.yMm, a.heightMm, b.yMm, b.heightMm);
  return xMm > 0 && yMm > 0 ? { xMm, yMm } : { xMm: 0, yMm: 0 };
}

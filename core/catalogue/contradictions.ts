import type { PartType } from "./part-type";
import { fanOutline, noRoomBehind, overlap, supplyOutline } from "./places";
import type { Point } from "./values";

/** Boards by form, mm: ATX, microATX and FlexATX (ATX and microATX specifications, Intel), Mini-ITX, E-ATX (common practice); from memory. */
const FORM_MM: Readonly<Record<string, { w: number; h: number }>> = {
  "E-ATX": { w: 272, h: 305 },
  ATX: { w: 244, h: 305 },
  microATX: { w: 244, h: 244 },
  FlexATX: { w: 229, h: 191 },
  "Mini-ITX": { w: 170, h: 170 },
};
/** Fans may be entered this much closer than their frames are wide, mm: entries are rounded. */
const ROUNDED_MM = 4;

const there = (p: Point) => `${Math.round(p.xMm)}, ${Math.round(p.yMm)} mm`;

/**
 * What an entry says against itself, a sentence each: nothing is refused for it, but drawings and ways leave out what cannot be so.
 */
export function contradictions(type: PartType): string[] {
  if (type.kind === "board") return portsUnder(type);
  if (type.kind !== "case") return [];
  const b = type.body;
  const { widthMm: w, heightMm: h } = b;
  if (w === undefined || h === undefined) return [];
  const out: string[] = [];
  const outside = (p: Point) => p.xMm < 0 || p.yMm < 0 || p.xMm > w || p.yMm > h;
  const whole = `the case is ${w} by ${h} mm`;
  for (const c of b.cutouts) if (outside(c.at)) out.push(`Cut-out “${c.label}” lies outside the tray, at ${there(c.at)}: ${whole}. It is left out.`);
  for (const t of b.tiePoints)
    if (outside(t.at)) out.push(`Tie point “${t.label}” lies outside the tray, at ${there(t.at)}: ${whole}. It is left out.`);
  for (const m of b.mounts) if (outside(m.at)) out.push(`Mount “${m.label}” lies outside the case, at ${there(m.at)}: ${whole}.`);
  for (const x of b.bodies ?? [])
    if (outside(x.at) || outside({ xMm: x.at.xMm + x.widthMm, yMm: x.at.yMm + x.heightMm }))
      out.push(`“${x.label}” reaches outside the case: ${whole}.`);
  // Against the smallest board that goes in: what crosses that is never free.
  const form = (b.forms ?? [])
    .map((f) => FORM_MM[f])
    .reduce<{ w: number; h: number } | undefined>((m, f) => (f && (!m || f.w * f.h < m.w * m.h) ? f : m), undefined);
  for (const c of b.channels ?? []) {
    if (outside(c.from) || outside(c.to)) out.push(`Channel “${c.label}” leaves the case: ${whole}. It is left out.`);
    else if (c.from.xMm !== c.to.xMm && c.from.yMm !== c.to.yMm)
      out.push(`Channel “${c.label}” runs aslant: give its ends the same x or the same y. It is left out.`);
    else if (c.side === "front" && form && b.boardAt && crosses(c.from, c.to, b.boardAt, form))
      out.push(`Channel “${c.label}” runs through the board, which lies from ${there(b.boardAt)} on, ${form.w} by ${form.h} mm. It is left out.`);
  }
  if (noRoomBehind(b))
    for (const m of b.mounts)
      if (m.region === "behind-tray") out.push(`Mount “${m.label}” lies behind the tray, where there are ${b.behindTrayMm} mm.`);
  out.push(...mountsOver(b));
  return out;
}

/** A port stands so near to what the entry names on the board that it is in it, mm. */
const TOUCHES_MM = 2;

/** Ports that stand inside of what else the entry has on the board: the block of rear sockets, a heatsink. */
function portsUnder(type: PartType): string[] {
  return type.body.landmarks.flatMap((m) =>
    type.ports.flatMap(({ label, at }) =>
      at &&
      at.xMm > m.at.xMm - TOUCHES_MM &&
      at.xMm < m.at.xMm + m.widthMm + TOUCHES_MM &&
      at.yMm > m.at.yMm - TOUCHES_MM &&
      at.yMm < m.at.yMm + m.heightMm + TOUCHES_MM
        ? [
            `${label} stands inside “${m.label}”: at ${there(at)}, which reaches from ${there(m.at)} to ${there({ xMm: m.at.xMm + m.widthMm, yMm: m.at.yMm + m.heightMm })}.`,
          ]
        : [],
    ),
  );
}

/** What is at a mount of the inside of the case at the least: a fan of its size, a usual supply. A place for drives says nothing of their size. */
function leastAt(b: PartType["body"], m: PartType["body"]["mounts"][number]) {
  if (m.takes.includes("hub") || m.region === "side") return undefined;
  if (m.takes.includes("fan") && m.sizeMm !== undefined) return { what: "fan", at: fanOutline(b, m) };
  if (m.takes.includes("supply") && m.offMm === undefined) return { what: "supply", at: supplyOutline(b, m) };
  return undefined;
}

/** Mounts on which nothing can stand while something is on the other. */
function mountsOver(b: PartType["body"]): string[] {
  const all = b.mounts.flatMap((m) => {
    const least = leastAt(b, m);
    return least ? [{ m, ...least }] : [];
  });
  return all.flatMap((one, i) =>
    all.slice(i + 1).flatMap((other) => {
      if ((one.m.region === "behind-tray") !== (other.m.region === "behind-tray")) return [];
      // What only sits outside the frame stands in nobody's way inside.
      if (one.m.frame === "outside" || other.m.frame === "outside") return [];
      const { xMm, yMm } = overlap(one.at, other.at);
      return xMm > ROUNDED_MM && yMm > ROUNDED_MM
        ? [
            `Mount “${other.m.label}” lies over mount “${one.m.label}”: a ${other.what} there and a ${one.what} here are ${Math.round(xMm)} by ${Math.round(yMm)} mm in one another.`,
          ]
        : [];
    }),
  );
}

function crosses(a: Point, z: Point, at: Point, size: { w: number; h: number }): boolean {
  return (
    Math.max(a.xMm, z.xMm) > at.xMm &&
    Math.min(a.xMm, z.xMm) < at.xMm + size.w &&
    Math.max(a.yMm, z.yMm) > at.yMm &&
    Math.min(a.yMm, z.yMm) < at.yMm + size.h
  );
}

/** Can a channel be used as it is entered: within the case, straight, and not through the board. */
export const isUsable = (type: PartType, channel: { label: string }): boolean =>
  !contradictions(type).some((s) => s.startsWith(`Channel “${channel.label}”`));

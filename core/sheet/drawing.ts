import { type Graph, naturally, partsOfKind } from "../assembly";
import { LOOM_NAME, type Loom, type Port } from "../catalogue";

/** What a board plan is made of, in millimetres from its top left corner: drawn as SVG and into the PDF alike. */
export type Item =
  | { kind: "rect"; x: number; y: number; w: number; h: number; heavy?: boolean }
  | { kind: "line"; points: [number, number][]; loom: Loom; done: boolean }
  | { kind: "text"; x: number; y: number; text: string; size: number; anchor: "start" | "middle" | "end"; bold?: boolean; upright?: boolean };

export interface Drawing {
  title: string;
  w: number;
  h: number;
  items: Item[];
}

const MARGIN_MM = 34;
/** Labels closer than this would touch. */
const PITCH_MM = 4.2;
const PORT_MM = { w: 9, h: 4 };
/** Sockets that are drawn as large as they are: along, across. DDR slot length as JEDEC has it; the others rounded. */
const SIZE_MM: Partial<Record<Port["role"], [number, number]>> = { cpu: [45, 45], memory: [5, 133], expansion: [90, 6] };

type Side = "left" | "right" | "top" | "bottom";
interface Label {
  x: number;
  y: number;
  text: string;
  loom: Loom;
  done: boolean;
}

/** Spread along an edge: in the order of where they belong, each at least a pitch from the one before, within the edge. */
export function spread(wanted: readonly number[], pitch: number, most: number): number[] {
  const out: number[] = [];
  for (const [i, w] of wanted.entries()) out.push(Math.max(w, i === 0 ? 0 : (out[i - 1] ?? 0) + pitch));
  let limit = most;
  for (let i = out.length - 1; i >= 0; i--) {
    out[i] = Math.min(out[i] ?? 0, limit);
    limit = (out[i] ?? 0) - pitch;
  }
  // More than the edge holds: closer together, none lost.
  return (out[0] ?? 0) < 0 ? wanted.map((_, i) => (most * i) / Math.max(1, wanted.length - 1)) : out;
}

/** The board from above with every plug that goes into it: the tag at the nearest edge, a line to its port. */
export function boardDrawing(graph: Graph, title: string): Drawing | undefined {
  const board = partsOfKind(graph, "board")[0];
  const r = graph.boardRect;
  if (!board || !r) return undefined;
  const items: Item[] = [{ kind: "rect", x: MARGIN_MM, y: MARGIN_MM, w: r.widthMm, h: r.heightMm, heavy: true }];
  const sides: Record<Side, Label[]> = { left: [], right: [], top: [], bottom: [] };
  for (const p of board.type.ports) {
    const [along, across] = SIZE_MM[p.role] ?? [PORT_MM.w, PORT_MM.h];
    const upright = p.turned % 180 !== 0;
    const [w, h] = upright ? [across, along] : [along, across];
    const x = MARGIN_MM + p.at.xMm;
    const y = MARGIN_MM + p.at.yMm;
    items.push({ kind: "rect", x: x - w / 2, y: y - h / 2, w, h });
    const here = (graph.atPort.get(`${board.id}:${p.id}`) ?? []).flatMap((c) => {
      const l = graph.leads.get(c.lead);
      return l && l.loom !== "seat" && l.lead.lengthMm > 0 ? [{ l, c }] : [];
    });
    const first = here[0];
    const tags = here.map((t) => t.l.tag).sort(naturally);
    // Beside an upright port, along a memory slot, above all others: names of neighbours do not meet.
    if (p.role === "memory") items.push({ kind: "text", x: x + 0.9, y, text: p.label, size: 2.6, anchor: "middle", upright: true });
    else if (h > w) items.push({ kind: "text", x: x - w / 2 - 1, y: y + 0.8, text: p.label, size: 2.4, anchor: "end" });
    else
      items.push({ kind: "text", x, y: h > 20 ? y : p.at.yMm < 12 ? y + h / 2 + 2.6 : y - h / 2 - 0.8, text: p.label, size: 2.4, anchor: "middle" });
    if (!first) continue;
    const gaps: [Side, number][] = [
      ["left", p.at.xMm],
      ["right", r.widthMm - p.at.xMm],
      ["top", p.at.yMm],
      ["bottom", r.heightMm - p.at.yMm],
    ];
    const [side] = gaps.reduce((a, b) => (b[1] < a[1] ? b : a));
    const text = `${tags.slice(0, 4).join(" ")}${tags.length > 4 ? ` +${tags.length - 4}` : ""}`;
    sides[side].push({ x, y, text, loom: first.l.loom, done: here.every((t) => t.c.state === "plugged" || t.c.state === "checked") });
  }
  const [x0, x1, y0, y1] = [MARGIN_MM, MARGIN_MM + r.widthMm, MARGIN_MM, MARGIN_MM + r.heightMm];
  for (const side of ["left", "right"] as const) {
    const list = sides[side].sort((a, b) => a.y - b.y || a.x - b.x);
    const at = spread(
      list.map((l) => l.y - y0),
      PITCH_MM,
      r.heightMm,
    );
    const edge = side === "left" ? x0 - 6 : x1 + 6;
    for (const [i, l] of list.entries()) {
      const y = y0 + (at[i] ?? 0);
      items.push({
        kind: "line",
        points: [
          [l.x, l.y],
          [side === "left" ? x0 - 2 : x1 + 2, y],
          [edge, y],
        ],
        loom: l.loom,
        done: l.done,
      });
      items.push({
        kind: "text",
        x: side === "left" ? edge - 1 : edge + 1,
        y: y + 1,
        text: l.text,
        size: 3,
        anchor: side === "left" ? "end" : "start",
        bold: true,
      });
    }
  }
  for (const side of ["top", "bottom"] as const) {
    const list = sides[side].sort((a, b) => a.x - b.x || a.y - b.y);
    const at = spread(
      list.map((l) => l.x - x0),
      // Tags are wider than high: each takes the room of its longest word.
      Math.max(PITCH_MM, ...list.map((l) => l.text.length * 1.9 + 2)),
      r.widthMm,
    );
    const edge = side === "top" ? y0 - 6 : y1 + 6;
    for (const [i, l] of list.entries()) {
      const x = x0 + (at[i] ?? 0);
      items.push({
        kind: "line",
        points: [
          [l.x, l.y],
          [x, side === "top" ? y0 - 2 : y1 + 2],
          [x, edge],
        ],
        loom: l.loom,
        done: l.done,
      });
      items.push({ kind: "text", x, y: side === "top" ? edge - 1 : edge + 3.4, text: l.text, size: 3, anchor: "middle", bold: true });
    }
  }
  return { title, w: r.widthMm + 2 * MARGIN_MM, h: r.heightMm + 2 * MARGIN_MM, items };
}

/** One pattern a loom, so that a sheet without colour can be read: dash and gap in mm; none: unbroken. */
export const LOOM_DASH: Partial<Record<Loom, readonly [dash: number, gap: number]>> = {
  "front-panel": [1, 1],
  fans: [4, 1.2],
  lighting: [0.4, 1.6],
  data: [2, 2.4],
};

const plain = (s: string) => s.replace(/[<>&"']/g, (c) => `&#${c.charCodeAt(0)};`);
const n = (v: number) => String(Math.round(v * 100) / 100);

/** The drawing as an SVG file, black on white, to scale in millimetres. */
export function svgOf(d: Drawing): string {
  const body = d.items.map((i) => {
    if (i.kind === "rect")
      return `<rect x="${n(i.x)}" y="${n(i.y)}" width="${n(i.w)}" height="${n(i.h)}" fill="none" stroke="#000" stroke-width="${i.heavy ? 0.8 : 0.3}"/>`;
    if (i.kind === "line")
      return `<polyline points="${i.points.map(([x, y]) => `${n(x)},${n(y)}`).join(" ")}" fill="none" stroke="#000" stroke-width="${i.done ? 0.8 : 0.4}"${LOOM_DASH[i.loom] ? ` stroke-dasharray="${LOOM_DASH[i.loom]?.join(" ")}"` : ""}><title>${plain(LOOM_NAME[i.loom])}</title></polyline>`;
    return `<text x="${n(i.x)}" y="${n(i.y)}" font-size="${n(i.size)}" text-anchor="${i.anchor}"${i.bold ? ' font-weight="700"' : ""}${i.upright ? ` transform="rotate(-90 ${n(i.x)} ${n(i.y)})"` : ""}>${plain(i.text)}</text>`;
  });
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${n(d.w)}mm" height="${n(d.h)}mm" viewBox="0 0 ${n(d.w)} ${n(d.h)}" font-family="sans-serif"><title>${plain(d.title)}</title><rect width="${n(d.w)}" height="${n(d.h)}" fill="#fff"/>${body.join("")}</svg>\n`;
}

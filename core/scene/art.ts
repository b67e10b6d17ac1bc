import type { Box } from "./labels";
import type { SceneBox } from "./scene";

/**
 * How far in front something is, darkest to lightest: the inside of the case, the tray, the board, what sits on the board, parts, and
 * what stands before them all.
 */
export type Tone = 0 | 1 | 2 | 3 | 4 | 5;

/** A shape within an outline: what hands know a thing by. `d` as SVG writes paths, in units of the drawing. */
export interface Detail {
  d: string;
  fill?: Tone;
  line: boolean;
}

const TONE: Readonly<Record<SceneBox["kind"], Tone>> = {
  board: 2,
  heatsink: 3,
  cover: 2,
  cage: 2,
  cooler: 4,
  pump: 5,
  fan: 4,
  radiator: 4,
  light: 5,
  supply: 5,
  drive: 4,
  hub: 4,
  card: 5,
  dock: 4,
  hung: 5,
};
export const toneOf = (b: SceneBox): Tone => TONE[b.kind];

const f = (v: number) => String(Math.round(v * 10) / 10);
const line = (x1: number, y1: number, x2: number, y2: number) => `M${f(x1)} ${f(y1)}L${f(x2)} ${f(y2)}`;
const rect = ({ x, y, w, h }: Box) => `M${f(x)} ${f(y)}h${f(w)}v${f(h)}h${f(-w)}z`;
const circle = (x: number, y: number, r: number) => `M${f(x - r)} ${f(y)}a${f(r)} ${f(r)} 0 1 0 ${f(2 * r)} 0a${f(r)} ${f(r)} 0 1 0 ${f(-2 * r)} 0z`;
const inset = (b: Box, by: number): Box => ({ x: b.x + by, y: b.y + by, w: Math.max(0, b.w - 2 * by), h: Math.max(0, b.h - 2 * by) });

/** Below this many units on the short side nothing of it can be told apart. */
const LEAST = 9;
/** Lines of fins stand so far apart, units; a thing has at most so many. */
const FIN = 5;
const MOST_FINS = 70;

/** Parallel lines over a box: fins. `across`: each runs up and down. */
function fins(b: Box, across: boolean): string {
  const long = across ? b.w : b.h;
  const step = Math.max(FIN, long / MOST_FINS);
  let d = "";
  for (let at = step / 2; at < long; at += step) d += across ? line(b.x + at, b.y, b.x + at, b.y + b.h) : line(b.x, b.y + at, b.x + b.w, b.y + at);
  return d;
}

/** Blades and hub of a fan seen face on. */
function rotor(x: number, y: number, r: number, blades = 7): Detail[] {
  let d = "";
  for (let i = 0; i < blades; i++) {
    const a = (2 * Math.PI * i) / blades;
    const [c, s] = [Math.cos(a), Math.sin(a)];
    const [c2, s2] = [Math.cos(a + 0.55), Math.sin(a + 0.55)];
    d += `M${f(x + c * r * 0.32)} ${f(y + s * r * 0.32)}Q${f(x + Math.cos(a + 0.1) * r * 0.75)} ${f(y + Math.sin(a + 0.1) * r * 0.75)} ${f(x + c2 * r * 0.96)} ${f(y + s2 * r * 0.96)}`;
  }
  return [
    { d: circle(x, y, r), fill: 3, line: true },
    { d, line: true },
    { d: circle(x, y, r * 0.32), fill: 5, line: true },
  ];
}

/** A fan seen from its edge: the corners of its frame, its hub, and blades between. */
function edgeOn(b: Box): Detail[] {
  const level = b.w > b.h;
  const [long, thick] = level ? [b.w, b.h] : [b.h, b.w];
  const box = (from: number, to: number, out = 0.1): Box =>
    level
      ? { x: b.x + from * long, y: b.y + thick * out, w: (to - from) * long, h: thick * (1 - 2 * out) }
      : { x: b.x + thick * out, y: b.y + from * long, w: thick * (1 - 2 * out), h: (to - from) * long };
  let d = "";
  for (const at of [0.13, 0.21, 0.29, 0.71, 0.79, 0.87]) {
    const [p, q] = [at * long - thick * 0.14, at * long + thick * 0.14];
    d += level ? line(b.x + p, b.y + thick * 0.78, b.x + q, b.y + thick * 0.22) : line(b.x + thick * 0.22, b.y + p, b.x + thick * 0.78, b.y + q);
  }
  return [
    { d, line: true },
    { d: rect(box(0.34, 0.66, 0.14)), fill: 3, line: true },
    { d: rect(box(0, 0.045, 0)) + rect(box(0.955, 1, 0)), fill: 5, line: true },
  ];
}

function radiator(b: Box): Detail[] {
  const level = b.w > b.h;
  const tank = Math.min(0.09 * Math.max(b.w, b.h), 1.2 * Math.min(b.w, b.h));
  const core: Box = level ? { x: b.x + tank, y: b.y, w: b.w - 2 * tank, h: b.h } : { x: b.x, y: b.y + tank, w: b.w, h: b.h - 2 * tank };
  return [
    { d: rect(core), fill: 3, line: true },
    { d: fins(core, level), line: true },
  ];
}

function supply(b: Box): Detail[] {
  const r = Math.min(b.w, b.h) * 0.36;
  const [x, y] = [b.x + b.w / 2, b.y + b.h / 2];
  let d = circle(x, y, r) + circle(x, y, r * 0.72) + circle(x, y, r * 0.44) + circle(x, y, r * 0.16);
  for (let i = 0; i < 8; i++) {
    const a = (Math.PI * i) / 4;
    d += line(x + Math.cos(a) * r * 0.16, y + Math.sin(a) * r * 0.16, x + Math.cos(a) * r, y + Math.sin(a) * r);
  }
  return [{ d, line: true }];
}

/** A card in its slot, seen from its edge: circuit board on top, bracket at the rear, the fins of its cooler, its fans below. */
function cardOnEdge(b: Box, scale: number): Detail[] {
  const pcb = Math.max(2, 2.4 * scale);
  const bracket = Math.max(2, 2.2 * scale);
  const fan = Math.min(b.h * 0.2, 14 * scale);
  const body: Box = { x: b.x + bracket + 2, y: b.y + pcb, w: b.w - bracket - 4, h: Math.max(0, b.h - pcb - fan) };
  const n = b.w / scale > 255 ? 3 : b.w / scale > 185 ? 2 : 1;
  const fans = Array.from({ length: n }, (_, i) => {
    const each = body.w / n;
    return rect({ x: body.x + each * (i + 0.08), y: b.y + b.h - fan, w: each * 0.84, h: fan * 0.8 });
  });
  return [
    { d: rect({ ...body, x: b.x, w: b.w, h: pcb, y: b.y }), fill: 3, line: true },
    ...(b.h > 24 * scale
      ? [
          { d: fins(inset(body, 3), true), line: true },
          { d: fans.join(""), fill: 4 as Tone, line: true },
        ]
      : []),
    { d: rect({ x: b.x, y: b.y, w: bracket, h: b.h }), fill: 3, line: true },
  ];
}

/** A card that stands before the board: its fans face the panel. */
function cardFaceOn(b: Box, scale: number): Detail[] {
  const n = b.w / scale > 255 ? 3 : b.w / scale > 185 ? 2 : 1;
  const r = Math.min(b.h * 0.42, (b.w / n) * 0.42);
  const bracket = Math.max(2, 2.2 * scale);
  return [
    ...Array.from({ length: n }, (_, i) => rotor(b.x + (b.w * (i + 0.5)) / n, b.y + b.h / 2, r, 9)).flat(),
    { d: rect({ x: b.x, y: b.y, w: bracket, h: b.h }), fill: 3, line: true },
  ];
}

/** An air cooler seen from above: a low one by its fan, a tower by its fins and the fan clipped to their front. */
function cooler(b: Box, low: boolean): Detail[] {
  if (low) return rotor(b.x + b.w / 2, b.y + b.h / 2, Math.min(b.w, b.h) * 0.42);
  const fan = Math.min(b.w * 0.3, b.h * 0.22);
  const stack: Box = { x: b.x, y: b.y, w: b.w - fan, h: b.h };
  return [
    { d: fins(stack, false), line: true },
    { d: rect({ x: b.x + b.w - fan, y: b.y, w: fan, h: b.h }), fill: 5, line: true },
    ...edgeOn({ x: b.x + b.w - fan, y: b.y, w: fan, h: b.h }),
    { d: [0.2, 0.4, 0.6, 0.8].map((t) => circle(stack.x + stack.w / 2, b.y + b.h * t, Math.min(stack.w, b.h) * 0.05)).join(""), fill: 3, line: true },
  ];
}

/** A pump head: its cap, and the two glands of its tubes. */
function pump(b: Box): Detail[] {
  const r = Math.min(b.w, b.h);
  const gland = (x: number): Detail => ({ d: circle(b.x + b.w * x, b.y + r * 0.12, r * 0.09), fill: 3, line: true });
  return [{ d: circle(b.x + b.w / 2, b.y + b.h / 2, r * 0.36), fill: 4, line: true }, gland(0.36), gland(0.64)];
}

/** A drive in its tray: the handle at one end, the rails along it. */
function drive(b: Box): Detail[] {
  const level = b.w > b.h;
  const handle = Math.min(10, (level ? b.w : b.h) * 0.12);
  const grip: Box = level ? { x: b.x + b.w - handle, y: b.y, w: handle, h: b.h } : { x: b.x, y: b.y, w: b.w, h: handle };
  const rails = level
    ? line(b.x, b.y + b.h * 0.18, b.x + b.w - handle, b.y + b.h * 0.18) + line(b.x, b.y + b.h * 0.82, b.x + b.w - handle, b.y + b.h * 0.82)
    : line(b.x + b.w * 0.12, b.y + handle, b.x + b.w * 0.12, b.y + b.h) + line(b.x + b.w * 0.88, b.y + handle, b.x + b.w * 0.88, b.y + b.h);
  return [
    { d: rails, line: true },
    { d: rect(grip), fill: 5, line: true },
  ];
}

function lights(b: Box): Detail[] {
  const level = b.w > b.h;
  const [long, thick] = level ? [b.w, b.h] : [b.h, b.w];
  const n = Math.max(2, Math.min(40, Math.floor(long / Math.max(9, thick * 2))));
  const r = Math.max(0.8, thick * 0.2);
  const dots = Array.from({ length: n }, (_, i) => {
    const at = ((i + 0.5) * long) / n;
    return level ? circle(b.x + at, b.y + thick / 2, r) : circle(b.x + thick / 2, b.y + at, r);
  });
  return [{ d: dots.join(""), fill: 3, line: true }];
}

/** The block of rear sockets: one hole below the other. */
function sockets(b: Box): Detail[] {
  const n = Math.max(2, Math.min(9, Math.round(b.h / Math.max(8, b.w * 0.55))));
  const each = b.h / n;
  return [
    {
      d: Array.from({ length: n }, (_, i) => rect({ x: b.x, y: b.y + each * (i + 0.18), w: b.w * 0.62, h: each * 0.64 })).join(""),
      fill: 2,
      line: true,
    },
  ];
}

function hub(b: Box): Detail[] {
  const r = Math.max(1, Math.min(b.w, b.h) * 0.07);
  return [
    {
      d: [
        [0.05, 0.5],
        [0.95, 0.5],
      ]
        .map(([x, y]) => circle(b.x + b.w * (x ?? 0), b.y + b.h * (y ?? 0), r))
        .join(""),
      fill: 1,
      line: true,
    },
  ];
}

/** What is drawn within an outline, so that a newcomer names it without a word. Nothing where it is too small to tell. */
export function artOf(b: SceneBox, at: Box, scale: number): Detail[] {
  if (Math.min(at.w, at.h) < (b.kind === "light" ? 3 : LEAST)) return [];
  switch (b.kind) {
    case "fan":
      return b.faceOn ? [...rotor(at.x + at.w / 2, at.y + at.h / 2, Math.min(at.w, at.h) * 0.46)] : edgeOn(at);
    case "radiator":
      return radiator(at);
    case "supply":
      return supply(at);
    case "card":
      return b.faceOn ? cardFaceOn(at, scale) : cardOnEdge(at, scale);
    case "cooler":
      return cooler(at, b.low === true);
    case "pump":
      return pump(at);
    case "drive":
      return drive(at);
    case "light":
      return lights(at);
    case "hub":
      return hub(at);
    case "heatsink":
      return /socket/i.test(b.label) ? sockets(at) : [{ d: fins(inset(at, Math.min(at.w, at.h) * 0.12), at.w > at.h), line: true }];
    default:
      return [];
  }
}

/** A slot for a memory module, and the module in it: latches at both ends, the notch that tells which way round. */
export function memoryArt(b: Box, filled: boolean): Detail[] {
  const tall = b.h > b.w;
  const end = (tall ? b.h : b.w) * 0.035;
  const latch = (from: number): Box => (tall ? { x: b.x - 1, y: b.y + from, w: b.w + 2, h: end } : { x: b.x + from, y: b.y - 1, w: end, h: b.h + 2 });
  const long = tall ? b.h : b.w;
  // The notch of a module is off the middle: it goes in one way round only.
  const notch: Box = tall
    ? { x: b.x, y: b.y + long * 0.46, w: b.w * 0.5, h: long * 0.02 }
    : { x: b.x + long * 0.46, y: b.y, w: long * 0.02, h: b.h * 0.5 };
  return [
    { d: rect(b), fill: filled ? 5 : 3, line: true },
    { d: rect(latch(0)) + rect(latch(long - end)), fill: 3, line: true },
    { d: rect(notch), fill: 1, line: true },
  ];
}

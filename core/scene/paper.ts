import { type Graph, isDone } from "../assembly";
import { LOOM_NAME, type Loom } from "../catalogue";
import type { Sheet } from "../space";
import { type Drawn, drawSheet, type Ink, type Item } from "./draw";
import type { PlacedLabel } from "./labels";
import { type Scene, type SceneBox, sceneOf } from "./scene";

/** A drawing on paper, in millimetres of the machine. */
export interface PaperDrawing extends Drawn {
  title: string;
  words: string;
}

/** One pattern a loom, so that a sheet without colour can be read: dash and gap in mm; none: unbroken. */
export const LOOM_DASH: Partial<Record<Loom, readonly [dash: number, gap: number]>> = {
  "front-panel": [1, 1],
  fans: [4, 1.2],
  lighting: [0.4, 1.6],
  data: [2, 2.4],
};

/** Tones of depth on paper: three greys, the nearest white. */
export const PAPER_TONE = ["#dcdcdc", "#dcdcdc", "#ececec", "#ececec", "#fff", "#fff"] as const;

/** Width of an ink on paper, in mm of the machine, and its dash. */
export const PAPER_INK: Record<Ink, { width: number; dash?: readonly [number, number]; grey?: true }> = {
  case: { width: 1.2 },
  tray: { width: 0.3, grey: true },
  board: { width: 0.9 },
  part: { width: 0.6 },
  hung: { width: 0.6 },
  dock: { width: 0.5 },
  port: { width: 0.5 },
  overlay: { width: 0.5, grey: true },
  landmark: { width: 0.35, grey: true },
  cutout: { width: 0.35, grey: true },
  ghost: { width: 0.35, dash: [2, 2], grey: true },
  free: { width: 0.3, dash: [2, 2], grey: true },
};

/** A line of words on paper, in mm of the machine: at 190 mm of page for the widest case of 620 mm that is still over 7 points. */
const LINE_MM = 9;

/** What somebody who has never built one calls the things that are seen, by their kind; what is left out has no name. */
export type PlainNames = Partial<Record<SceneBox["kind"], string>>;

/** The machine without leads and plugs, its things in plain words. */
function inPlainWords(scene: Scene, names: PlainNames): Scene {
  return {
    ...scene,
    ports: scene.ports.filter((p) => p.landmark),
    ties: [],
    holes: [],
    boxes: scene.boxes.filter((b) => b.kind !== "hung" && b.kind !== "dock").map((b) => ({ ...b, label: names[b.kind] ?? "" })),
    routes: { ...scene.routes, routes: [], byLead: new Map(), joints: [] },
  };
}

/** One side of the tray for print and file: every lead on it, every filled port and every fan named. */
export function paperDrawing(graph: Graph, sheet: Sheet, title: string, line = LINE_MM, names?: PlainNames): PaperDrawing {
  const whole = sceneOf(graph);
  const scene = names ? inPlainWords(whole, names) : whole;
  const filled = (address: string) => graph.atPort.get(address) ?? [];
  const drawn = drawSheet(scene, sheet, {
    scale: 1,
    line,
    letter: 0.56,
    pitch: 2.2,
    least: 5,
    shown: () => "whole",
    isDone: (l) => isDone(graph.ofLead.get(l) ?? { lead: l, port: "", state: "planned" }),
    port: (address) => {
      const there = filled(address);
      return { state: there.length === 0 ? "free" : there.every(isDone) ? "done" : "planned" };
    },
    nameOfPort: (p) => (p.onBoard && !p.landmark && filled(p.address).length > 0 ? 2 : undefined),
    nameOfBox: (b) =>
      names
        ? names[b.kind]
          ? 1
          : undefined
        : b.kind === "board" || b.kind === "heatsink" || b.kind === "pump" || b.kind === "cooler"
          ? undefined
          : b.kind === "hung"
            ? 3
            : 1,
  });
  const words = sheet === "front" ? "Front of the tray, rear sockets to the left." : "Behind the tray, seen from behind: rear sockets to the right.";
  return { ...drawn, title, words: `${words}${scene.assumed.length > 0 ? ` Assumed: ${scene.assumed.join(", ")}.` : ""}` };
}

const plain = (s: string) => s.replace(/[<>&"']/g, (c) => `&#${c.charCodeAt(0)};`);
const n = (v: number) => String(Math.round(v * 100) / 100);

const strokeOf = (ink: Ink) => {
  const i = PAPER_INK[ink];
  return `stroke="${i.grey ? "#666" : "#000"}" stroke-width="${n(i.width)}"${i.dash ? ` stroke-dasharray="${i.dash.join(" ")}"` : ""}`;
};

/** The drawing as an SVG file, black on white, to scale in millimetres. */
export function svgOf(d: PaperDrawing): string {
  const body = d.items.map((i) => svgItem(i));
  const m = 2;
  const [x, y, w, h] = [d.frame.x - m, d.frame.y - m, d.frame.w + 2 * m, d.frame.h + 2 * m];
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${n(w)}mm" height="${n(h)}mm" viewBox="${n(x)} ${n(y)} ${n(w)} ${n(h)}" font-family="sans-serif"><title>${plain(d.title)}</title><desc>${plain(d.words)}</desc><rect x="${n(x)}" y="${n(y)}" width="${n(w)}" height="${n(h)}" fill="#fff"/>${body.join("")}</svg>\n`;
}

function svgItem(i: Item): string {
  switch (i.kind) {
    case "rect":
      return `<rect x="${n(i.box.x)}" y="${n(i.box.y)}" width="${n(i.box.w)}" height="${n(i.box.h)}" fill="${i.tone === undefined ? "none" : PAPER_TONE[i.tone]}" ${strokeOf(i.ink)}${i.dashed && !PAPER_INK[i.ink].dash ? ' stroke-dasharray="4 1.5"' : ""}${i.round ? ` rx="${n(Math.min(i.round, 4))}"` : ""}>${i.title ? `<title>${plain(i.title)}</title>` : ""}</rect>`;
    case "detail":
      return `<path d="${i.d}" fill="${i.fill === undefined ? "none" : PAPER_TONE[i.fill]}"${i.line ? ' stroke="#888" stroke-width="0.25"' : ""}/>`;
    case "tick":
      return `<polyline points="${pointsOf(i.points)}" fill="none" ${strokeOf(i.ink)}/>`;
    case "hole":
      return `<circle cx="${n(i.x)}" cy="${n(i.y)}" r="${n(i.r)}" fill="none" ${strokeOf("landmark")}/>`;
    case "lead": {
      const dash = LOOM_DASH[i.loom];
      return `<polyline points="${pointsOf(i.points)}" fill="none" stroke="#000" stroke-width="${i.done ? 1.1 : 0.7}"${dash ? ` stroke-dasharray="${dash.join(" ")}"` : ""}><title>${plain(LOOM_NAME[i.loom])}</title></polyline>`;
    }
    case "count":
      return `<circle cx="${n(i.x)}" cy="${n(i.y)}" r="6" fill="#fff" stroke="#000" stroke-width="0.4"/><text x="${n(i.x)}" y="${n(i.y + 2.6)}" font-size="7.5" text-anchor="middle">${i.words}</text>`;
    case "port":
      return `<rect x="${n(i.box.x)}" y="${n(i.box.y)}" width="${n(i.box.w)}" height="${n(i.box.h)}" fill="${i.state === "done" && !i.port.landmark ? "#000" : "#fff"}" ${strokeOf(i.port.landmark ? "landmark" : "port")}${i.port.landmark ? ' fill-opacity="0"' : ""}><title>${plain(i.port.label)}</title></rect>${i.state === "planned" && !i.port.landmark ? `<circle cx="${n(i.box.x + i.box.w / 2)}" cy="${n(i.box.y + i.box.h / 2)}" r="1" fill="#000"/>` : ""}`;
    case "label": {
      const { leader } = i.label;
      const { lines, high, turn, middle } = laid(i.label);
      const top = middle.y - (high * lines.length) / 2;
      const text = lines.map((t, k) => `<tspan x="${n(middle.x)}" y="${n(top + high * (k + 0.78))}">${plain(t)}</tspan>`).join("");
      const line = leader
        ? `<line x1="${n(leader.x1)}" y1="${n(leader.y1)}" x2="${n(leader.x2)}" y2="${n(leader.y2)}" ${strokeOf("landmark")}/>`
        : "";
      return `${line}<text${turn ? ` transform="rotate(-90 ${n(middle.x)} ${n(middle.y)})"` : ""} font-size="${n(high * 0.86)}" text-anchor="middle" paint-order="stroke" stroke="#fff" stroke-width="1.2"${i.mono ? ' font-family="monospace"' : ""}>${text}</text>`;
    }
  }
}

/** Where the lines of a label stand round its middle, before it is turned. */
export function laid({ box, lines, turned }: PlacedLabel): {
  lines: readonly string[];
  high: number;
  turn: boolean;
  middle: { x: number; y: number };
} {
  return {
    lines,
    high: (turned ? box.w : box.h) / lines.length,
    turn: turned === true,
    middle: { x: box.x + box.w / 2, y: box.y + box.h / 2 },
  };
}

const pointsOf = (points: readonly (readonly [number, number])[]) => points.map(([x, y]) => `${n(x)},${n(y)}`).join(" ");

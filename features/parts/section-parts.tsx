"use client";
import type { Clearance } from "../../core/fit";

export const PAD = 30;
export const BOX = { w: 366, h: 500 };

/** A part as a box of a section; dashed where only what is typical is known of it. */
export function Box({ name, box, on, onChoose, dashed }: { name: string; box: DrawnBox; on: boolean; onChoose: () => void; dashed: boolean }) {
  return (
    <g onClick={onChoose} className="cursor-pointer">
      <title>{name}</title>
      <rect
        x={box.x}
        y={box.y}
        width={Math.max(2, box.w)}
        height={Math.max(2, box.h)}
        fill={on ? "var(--rule)" : "var(--raised)"}
        stroke="var(--ink)"
        strokeWidth={on ? 2.5 : 1.5}
        strokeDasharray={dashed ? "4 4" : undefined}
      />
    </g>
  );
}

export interface DrawnBox {
  x: number;
  y: number;
  w: number;
  h: number;
}

const LETTER = 6.4;
const LINE = 16;

/** What boxes are called, each at its end away from the tray, where it has room for its words and no words stand yet; the first come first. */
export function BoxWords({ of }: { of: readonly { id: string; words: string; box: DrawnBox }[] }) {
  const placed: DrawnBox[] = [];
  return of.map(({ id, words, box }) => {
    const w = words.length * LETTER;
    const at = { x: box.x + box.w - 5 - w, y: box.y + Math.min(LINE, box.h / 2 + 4) - 12, w, h: LINE };
    const free = placed.every((p) => p.x >= at.x + at.w || p.x + p.w <= at.x || p.y >= at.y + at.h || p.y + p.h <= at.y);
    if (box.w <= w + 8 || box.h <= 14 || !free) return null;
    placed.push(at);
    return (
      <text
        key={id}
        x={at.x + w}
        y={at.y + 12}
        textAnchor="end"
        fontSize="12"
        fill="var(--ink)"
        pointerEvents="none"
        paintOrder="stroke"
        stroke="var(--raised)"
        strokeWidth="4"
      >
        {words}
      </text>
    );
  });
}

/** A dimension line with ticks and its words. */
export function Dimension({ x1, y1, x2, y2, words, bad }: { x1: number; y1: number; x2: number; y2: number; words: string; bad: boolean }) {
  const flat = Math.abs(x2 - x1) >= Math.abs(y2 - y1);
  const tick = flat ? [0, 6] : [6, 0];
  const colour = bad ? "var(--stop)" : "var(--ink)";
  return (
    <g pointerEvents="none">
      <path
        d={`M${x1} ${y1}L${x2} ${y2}M${x1 - (tick[0] ?? 0)} ${y1 - (tick[1] ?? 0)}L${x1 + (tick[0] ?? 0)} ${y1 + (tick[1] ?? 0)}M${x2 - (tick[0] ?? 0)} ${y2 - (tick[1] ?? 0)}L${x2 + (tick[0] ?? 0)} ${y2 + (tick[1] ?? 0)}`}
        stroke={colour}
        strokeWidth="2"
        fill="none"
      />
      <text
        x={flat && Math.abs(x2 - x1) < 90 ? Math.max(x1, x2) : (x1 + x2) / 2}
        y={Math.min(y1, y2) - 8}
        textAnchor={flat && Math.abs(x2 - x1) < 90 ? "end" : "middle"}
        fontSize="12"
        fontWeight="650"
        fill={colour}
        paintOrder="stroke"
        stroke="var(--sheet)"
        strokeWidth="4"
      >
        {words}
      </text>
    </g>
  );
}

export const spare = (c: Clearance) => (c.left < 0 ? `${-c.left} ${c.unit} too much` : `${c.left} ${c.unit} to spare`);

"use client";
import { type ReactNode, useMemo, useRef } from "react";
import type { Graph, Rect } from "../../core/assembly";
import type { Point } from "../../core/catalogue";
import { drawSheet, type Scene, type SceneBox, sceneOf, seenAt, seenRect } from "../../core/scene";
import { useBoxSize } from "../frame/use-box-size";
import { SceneItems } from "./scene-items";

/** From mm of the machine to px of the drawing. */
export interface Px {
  scale: number;
  at: (p: Point) => { x: number; y: number };
  box: (r: Rect) => { x: number; y: number; w: number; h: number };
}

const PAD = 30;
/** No smaller than so many px, however little room there is. */
const LEAST = 120;

/**
 * The machine without its leads, as large as `most` lets it be, and a layer over it: clearances, arrows of air, suspects. The same
 * drawing as on every other screen.
 */
export function MachineView({
  graph,
  most,
  label,
  on,
  names,
  marked,
  onPart,
  sheet = "front",
  built,
  fills,
  later,
  children,
}: {
  graph: Graph;
  most: { w: number; h: number };
  /** It takes all the room that it is given; `most` is for the first look. */
  fills?: boolean;
  label: string;
  /** Parts that are pointed out. */
  on?: ReadonlySet<string>;
  /** The port that hands go to next. */
  marked?: string;
  /** Which things are named; all parts if left out. */
  names?: (b: SceneBox) => boolean;
  onPart?: (id: string) => void;
  sheet?: "front" | "behind";
  /** With the leads that hands have plugged, each on its way. */
  built?: boolean;
  /** Parts that are not in yet. */
  later?: ReadonlySet<string>;
  children?: (px: Px, scene: Scene) => ReactNode;
}) {
  const scene = useMemo(() => sceneOf(graph), [graph]);
  const box = useRef<HTMLDivElement>(null);
  const room = useBoxSize(box, { w: most.w + 2 * PAD, h: most.h + 2 * PAD });
  const size = fills ? { w: Math.max(LEAST, room.w - 2 * PAD), h: Math.max(LEAST, room.h - 2 * PAD) } : most;
  const scale = Math.min(size.w / scene.view.widthMm, size.h / scene.view.heightMm);
  const drawn = useMemo(
    () =>
      drawSheet(scene, sheet, {
        scale,
        line: 14,
        letter: 0.52,
        pitch: 4,
        least: 3,
        shown: () => (built ? "whole" : "none"),
        isDone: () => built === true,
        port: (a) => ({ state: built && graph.atPort.has(a) ? "done" : "free", chosen: a === marked }),
        ...(later ? { later: (p: string) => later.has(p) } : {}),
        nameOfPort: (p) => (p.address === marked ? 0 : undefined),
        // Small as it is: words stand where they fit, only what is pointed out is named beside itself.
        nameOfBox: (b) =>
          ["board", "heatsink", "pump", "cooler", "hung"].includes(b.kind) || (names && !names(b))
            ? undefined
            : b.part && on?.has(b.part)
              ? 0.5
              : b.kind === "fan" || b.kind === "light"
                ? -2
                : -1,
      }),
    [scene, graph, sheet, scale, names, on, marked, built, later],
  );
  const v = scene.view;
  const px: Px = {
    scale,
    at: (p) => {
      const q = seenAt(scene, sheet, p);
      return { x: (q.xMm - v.xMm) * scale, y: (q.yMm - v.yMm) * scale };
    },
    box: (r) => {
      const q = seenRect(scene, sheet, r);
      return { x: (q.xMm - v.xMm) * scale, y: (q.yMm - v.yMm) * scale, w: q.widthMm * scale, h: q.heightMm * scale };
    },
  };
  const f = drawn.frame;
  return (
    <div ref={box} className="mt-2 min-h-0 w-full flex-1">
      <svg
        className="block h-full w-full"
        preserveAspectRatio="xMidYMin meet"
        viewBox={`${f.x - PAD} ${f.y - PAD} ${f.w + 2 * PAD} ${f.h + 2 * PAD}`}
        role="img"
        aria-label={label}
      >
        <SceneItems id={`view-${sheet}`} drawn={drawn} {...(on ? { on } : {})} {...(onPart ? { onPart } : {})} />
        {children?.(px, scene)}
        <text x={f.x} y={f.y + f.h + 20} fontSize="12" fill="var(--soft)">
          {sheet === "front" ? "rear" : "front"}
        </text>
        <text x={f.x + f.w} y={f.y + f.h + 20} fontSize="12" textAnchor="end" fill="var(--soft)">
          {sheet === "front" ? "front" : "rear"}
        </text>
      </svg>
    </div>
  );
}

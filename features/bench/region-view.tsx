"use client";
import { useMemo } from "react";
import type { Graph } from "../../core/assembly";
import { looksAlike } from "../../core/catalogue";
import { drawSheet, type ScenePort, sceneOf, seenRect } from "../../core/scene";
import { SceneItems } from "../drawing/scene-items";

const W = 640;
const H = 312;
const PX_PER_MM = 3;
const INSET_PX = 80;
const LABEL_PX = 24;

/** The port of this step in its surroundings, with the whole machine as an inset. Rear sockets to the left, from behind to the right. */
export function RegionView({ graph, port, label }: { graph: Graph; port: string | undefined; label: string }) {
  const scene = useMemo(() => sceneOf(graph), [graph]);
  const target = scene.ports.find((p) => p.address === port);
  const sheet = target?.sheets[0] ?? "front";
  const { drawn, view, inset } = useMemo(() => {
    const s = target ? PX_PER_MM : Math.min((H - 8) / scene.view.heightMm, (W - 8) / scene.view.widthMm);
    const v = scene.view;
    const at = target ? seenRect(scene, sheet, target.rect) : v;
    const [cx, cy] = [(at.xMm + at.widthMm / 2 - v.xMm) * s, (at.yMm + at.heightMm / 2 - v.yMm) * s];
    const hold = (c: number, half: number, most: number) => (most <= 2 * half ? most / 2 : Math.min(Math.max(c, half), most - half)) - half;
    const view = { x: hold(cx, W / 2, v.widthMm * s), y: hold(cy, H / 2, v.heightMm * s) };
    // Words keep clear of the inset in the lower right corner.
    const shown = { x: view.x / s + v.xMm, y: view.y / s + v.yMm, w: W / s, h: H / s };
    const seen = { xMm: shown.x, yMm: shown.y, widthMm: shown.w, heightMm: shown.h };
    const node = target && graph.ports.get(target.address);
    const alike = (p: ScenePort) => {
      const other = graph.ports.get(p.address);
      return node !== undefined && other !== undefined && p.onBoard && looksAlike(other.port.family, node.port.family);
    };
    const look = {
      scale: s,
      line: LABEL_PX * 1.1,
      letter: 0.58,
      pitch: 8,
      least: 10,
      shown: () => "none" as const,
      isDone: () => false,
      port: (a: string) => ({ state: "free" as const, chosen: a === port }),
      nameOfPort: (p: ScenePort) => (p.address === port ? 0 : alike(p) ? 1 : undefined),
      nameOfBox: () => undefined,
      region: seenRect(scene, sheet, seen),
      clear: [{ x: view.x + W - INSET_PX - 16, y: view.y + H - INSET_PX - 16, w: INSET_PX + 16, h: INSET_PX + 16 }],
    };
    return { drawn: drawSheet(scene, sheet, look), view, inset: { s: INSET_PX / Math.max(v.widthMm, v.heightMm), x: cx / s, y: cy / s } };
  }, [scene, target, sheet, port, graph]);
  const v = scene.view;
  return (
    <svg
      viewBox={`${view.x} ${view.y} ${W} ${H}`}
      width={W}
      height={H}
      role="img"
      aria-label={
        !target
          ? "The machine, rear sockets to the left"
          : sheet === "front"
            ? `${label}, rear sockets to the left`
            : `${label}, behind the tray, seen from behind, rear sockets to the right`
      }
      className="block h-full w-full bg-ground"
    >
      <SceneItems id="bench" drawn={drawn} bench font={LABEL_PX} />
      {sheet === "behind" ? (
        <text x={view.x + 12} y={view.y + 30} fontSize="24" fill="var(--ink)" stroke="var(--ground)" strokeWidth="5" paintOrder="stroke">
          from behind
        </text>
      ) : null}
      {target ? (
        <g transform={`translate(${view.x + W - v.widthMm * inset.s - 8} ${view.y + H - v.heightMm * inset.s - 8})`}>
          <rect x={-4} y={-4} width={v.widthMm * inset.s + 8} height={v.heightMm * inset.s + 8} fill="var(--ground)" />
          <rect width={v.widthMm * inset.s} height={v.heightMm * inset.s} fill="var(--sheet)" stroke="var(--ink)" strokeWidth={2} />
          {scene.board && sheet === "front" ? (
            <rect
              x={(scene.board.xMm - v.xMm) * inset.s}
              y={(scene.board.yMm - v.yMm) * inset.s}
              width={scene.board.widthMm * inset.s}
              height={scene.board.heightMm * inset.s}
              fill="none"
              stroke="var(--edge)"
            />
          ) : null}
          <rect x={inset.x * inset.s - 5} y={inset.y * inset.s - 5} width={10} height={10} fill="var(--mark)" />
        </g>
      ) : null}
    </svg>
  );
}

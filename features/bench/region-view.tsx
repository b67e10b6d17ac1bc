"use client";
import { useMemo } from "react";
import type { Graph } from "../../core/assembly";
import { looksAlike } from "../../core/catalogue";
import { drawSheet, type ScenePort, sceneOf, seenAt, seenRect } from "../../core/scene";
import { SceneItems } from "../drawing/scene-items";

const W = 640;
const H = 312;
const PX_PER_MM = 3;
const INSET_PX = 80;
const LABEL_PX = 24;
/** So far round what was asked for the inset stays away, px. */
const CLEAR_PX = 14;

/** Room round the ports of a card, mm. */
const ROUND_MM = 40;

/**
 * The ports of this card in their surroundings, as large as they fit, with the whole machine as an inset; without ports the whole machine
 * with its parts marked and its leads led. Rear sockets to the left, from behind to the right.
 */
export function RegionView({
  graph,
  ports,
  parts = [],
  leads = [],
  later,
  from,
  label,
}: {
  graph: Graph;
  /** The first is the one that hands are at. */
  ports: readonly string[];
  parts?: readonly string[];
  leads?: readonly string[];
  /** Parts that are not in yet. */
  later?: ReadonlySet<string>;
  /** As the case lies. */
  from: "front" | "behind";
  label: string;
}) {
  const scene = useMemo(() => sceneOf(graph), [graph]);
  const key = ports.join(" ");
  const targets = useMemo(() => {
    const want = new Set(key.split(" "));
    const all = scene.ports.filter((p) => want.has(p.address));
    const sheet = all.some((p) => p.sheets.includes(from)) ? from : (all[0]?.sheets[0] ?? from);
    return { sheet, list: all.filter((p) => p.sheets.includes(sheet)) };
  }, [scene, key, from]);
  const { sheet } = targets;
  const target = targets.list.find((p) => p.address === ports[0]) ?? targets.list[0];
  // Nothing of it is a port: the board itself is what hands are at, and the holes of its screws.
  const board = !target && parts.some((p) => graph.parts.get(p)?.type.kind === "board") ? scene.board : undefined;
  const on = useMemo(() => new Set(target ? [] : parts.filter((p) => p !== "case" && p !== "board")), [parts, target]);
  const { drawn, view, inset, s } = useMemo(() => {
    const v = scene.view;
    const boxes = targets.list.map((p) => seenRect(scene, sheet, p.rect));
    const [x1, y1] = [Math.min(...boxes.map((r) => r.xMm)), Math.min(...boxes.map((r) => r.yMm))];
    const [x2, y2] = [Math.max(...boxes.map((r) => r.xMm + r.widthMm)), Math.max(...boxes.map((r) => r.yMm + r.heightMm))];
    const whole = Math.min((H - 8) / v.heightMm, (W - 8) / v.widthMm);
    const s = target ? Math.max(whole, Math.min(PX_PER_MM, W / (x2 - x1 + 2 * ROUND_MM), H / (y2 - y1 + 2 * ROUND_MM))) : whole;
    const [mx, my] = target ? [(x1 + x2) / 2, (y1 + y2) / 2] : [v.xMm + v.widthMm / 2, v.yMm + v.heightMm / 2];
    const [cx, cy] = [(mx - v.xMm) * s, (my - v.yMm) * s];
    const hold = (c: number, half: number, most: number) => (most <= 2 * half ? most / 2 : Math.min(Math.max(c, half), most - half)) - half;
    const view = { x: hold(cx, W / 2, v.widthMm * s), y: hold(cy, H / 2, v.heightMm * s) };
    // The inset goes where nothing that was asked for is: the lower right corner if it can. Words keep clear of it.
    const small = INSET_PX / Math.max(v.widthMm, v.heightMm);
    const [iw, ih] = [v.widthMm * small + 8, v.heightMm * small + 8];
    const asked = boxes.map((r) => ({ x: (r.xMm - v.xMm) * s - view.x, y: (r.yMm - v.yMm) * s - view.y, w: r.widthMm * s, h: r.heightMm * s }));
    const covers = (c: { x: number; y: number }) =>
      asked.filter((b) => b.x < c.x + iw + CLEAR_PX && b.x + b.w > c.x - CLEAR_PX && b.y < c.y + ih + CLEAR_PX && b.y + b.h > c.y - CLEAR_PX).length;
    const corners = [
      { x: W - iw - 4, y: H - ih - 4 },
      { x: 4, y: H - ih - 4 },
      { x: W - iw - 4, y: 4 },
      { x: 4, y: 4 },
    ];
    const corner = corners.reduce((best, c) => (covers(c) < covers(best) ? c : best));
    const shown = { x: view.x / s + v.xMm, y: view.y / s + v.yMm, w: W / s, h: H / s };
    const seen = { xMm: shown.x, yMm: shown.y, widthMm: shown.w, heightMm: shown.h };
    const want = new Set(targets.list.map((p) => p.address));
    const node = target && graph.ports.get(target.address);
    const alike = (p: ScenePort) => {
      const other = graph.ports.get(p.address);
      return targets.list.length === 1 && node !== undefined && other !== undefined && p.onBoard && looksAlike(other.port.family, node.port.family);
    };
    const look = {
      scale: s,
      line: LABEL_PX * 1.1,
      letter: 0.58,
      pitch: 8,
      least: 10,
      shown: () => "none" as const,
      isDone: () => false,
      port: (a: string) => ({ state: "free" as const, chosen: want.has(a) }),
      nameOfPort: (p: ScenePort) => (want.has(p.address) ? (p.address === target?.address ? 0 : 0.5) : alike(p) ? 1 : undefined),
      nameOfBox: (b: { part?: string }) => (b.part !== undefined && on.has(b.part) ? 0.5 : undefined),
      region: seenRect(scene, sheet, seen),
      ...(later ? { later: (p: string) => later.has(p) } : {}),
      clear: target ? [{ x: view.x + corner.x - 4, y: view.y + corner.y - 4, w: iw + 8, h: ih + 8 }] : [],
    };
    return { drawn: drawSheet(scene, sheet, look), view, s, inset: { s: small, x: cx / s, y: cy / s, at: corner } };
  }, [scene, targets, target, sheet, graph, on, later]);
  const v = scene.view;
  return (
    <svg
      viewBox={`${view.x} ${view.y} ${W} ${H}`}
      width={W}
      height={H}
      role="img"
      aria-label={
        !target
          ? `${label}, ${sheet === "front" ? "rear sockets to the left" : "behind the tray, seen from behind, rear sockets to the right"}`
          : sheet === "front"
            ? `${label}, rear sockets to the left`
            : `${label}, behind the tray, seen from behind, rear sockets to the right`
      }
      className="block h-full w-full bg-ground"
    >
      <SceneItems id="bench" drawn={drawn} bench font={LABEL_PX} on={on} />
      {board && sheet === "front" ? (
        <g fill="none" stroke="var(--mark)" strokeWidth="5">
          <rect x={(board.xMm - v.xMm) * s} y={(board.yMm - v.yMm) * s} width={board.widthMm * s} height={board.heightMm * s} />
          {scene.holes
            .filter((h) => h.is !== "remove")
            .map((h) => (
              <circle key={h.id} cx={(h.at.xMm - v.xMm) * s} cy={(h.at.yMm - v.yMm) * s} r="7" fill="var(--ground)" />
            ))}
        </g>
      ) : null}
      {leads.flatMap((lead) =>
        (scene.routes.byLead.get(lead)?.way?.stretches ?? [])
          .filter((x) => x.sheet === sheet)
          .map((x) => {
            const d = x.points
              .map((p) => seenAt(scene, sheet, p))
              .map((p, n) => `${n === 0 ? "M" : "L"}${((p.xMm - v.xMm) * s).toFixed(1)} ${((p.yMm - v.yMm) * s).toFixed(1)}`);
            return <path key={lead + d[0]} d={d.join("")} fill="none" stroke="var(--mark)" strokeWidth="4" />;
          }),
      )}
      {sheet === "behind" ? (
        <text x={view.x + 12} y={view.y + 30} fontSize="24" fill="var(--ink)" stroke="var(--ground)" strokeWidth="5" paintOrder="stroke">
          from behind
        </text>
      ) : null}
      {target ? (
        <g transform={`translate(${view.x + inset.at.x + 4} ${view.y + inset.at.y + 4})`}>
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

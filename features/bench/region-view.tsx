"use client";
import { useMemo } from "react";
import type { Build } from "../../core/assembly";
import { looksAlike } from "../../core/catalogue";
import { boardFrame, placePorts } from "../../ui/drawing/board-layout";
import { sceneOf } from "../wiring/scene";

const W = 640;
const H = 312;
const PX_PER_MM = 3;

/** The port of this step in its surroundings, with the whole board as an inset. Rear sockets to the left. */
export function RegionView({ build, port, label }: { build: Build; port: string | undefined; label: string }) {
  const scene = useMemo(() => sceneOf(build), [build]);
  const frame = useMemo(() => boardFrame(scene.widthMm, scene.heightMm, PX_PER_MM), [scene]);
  const ports = useMemo(() => placePorts(frame, scene.ports, scene.widthMm, scene.heightMm), [frame, scene]);
  const target = ports.find((p) => p.address === port);
  const elsewhere = port === undefined || !target;
  const cx = target ? target.cx : frame.board.x + frame.board.w / 2;
  const cy = target ? target.cy : frame.board.y + frame.board.h / 2;
  const scale = elsewhere ? Math.min((H - 24) / frame.board.h, (W - 24) / frame.board.w) : 1;
  const vw = W / scale;
  const vh = H / scale;
  const x0 = elsewhere ? cx - vw / 2 : Math.min(Math.max(cx - vw / 2, frame.board.x - 90), frame.board.x + frame.board.w + 90 - vw);
  const y0 = elsewhere ? cy - vh / 2 : Math.min(Math.max(cy - vh / 2, frame.board.y - 60), frame.board.y + frame.board.h + 60 - vh);
  const near = target
    ? ports.filter((p) => p !== target && looksAlike(p.family, target.family) && p.cx > x0 && p.cx < x0 + vw && p.cy > y0 && p.cy < y0 + vh)
    : [];
  const insetScale = 80 / frame.board.h;
  return (
    <svg
      viewBox={`${x0} ${y0} ${vw} ${vh}`}
      width={W}
      height={H}
      role="img"
      aria-label={target ? `${label} on the board, rear sockets to the left` : "The board, rear sockets to the left"}
      className="block h-full w-full bg-ground"
    >
      <rect
        x={frame.board.x}
        y={frame.board.y}
        width={frame.board.w}
        height={frame.board.h}
        fill="var(--sheet)"
        stroke="var(--ink)"
        strokeWidth={2 / scale}
      />
      {scene.board?.type.body.landmarks.map((m) => (
        <rect
          key={m.label}
          x={frame.board.x + m.at.xMm * PX_PER_MM}
          y={frame.board.y + m.at.yMm * PX_PER_MM}
          width={m.widthMm * PX_PER_MM}
          height={m.heightMm * PX_PER_MM}
          fill="none"
          stroke="var(--edge)"
        />
      ))}
      {scene.board?.type.body.holes.map((h) => (
        <circle
          key={h.id}
          cx={frame.board.x + h.at.xMm * PX_PER_MM}
          cy={frame.board.y + h.at.yMm * PX_PER_MM}
          r={5}
          fill="none"
          stroke="var(--edge)"
        />
      ))}
      {ports.map((p) => (
        <rect
          key={p.address}
          x={p.x}
          y={p.y}
          width={p.w}
          height={p.h}
          fill="var(--sheet)"
          stroke={p.landmark ? "var(--edge)" : "var(--ink)"}
          strokeWidth={p.landmark ? 1 : 1.5}
        />
      ))}
      {target ? (
        <g>
          <rect x={target.x - 7} y={target.y - 7} width={target.w + 14} height={target.h + 14} fill="none" stroke="var(--ink)" strokeWidth={4} />
          <rect x={target.x} y={target.y} width={target.w} height={target.h} fill="var(--mark)" />
        </g>
      ) : null}
      {near
        .sort((a, b) => a.cx - b.cx)
        .slice(0, 4)
        .map((p, i) => (
          <Name key={p.address} p={p} view={{ x0, y0, vw, vh }} bold={false} avoid={target} row={i % 2} />
        ))}
      {target ? <Name p={target} view={{ x0, y0, vw, vh }} bold avoid={undefined} row={0} /> : null}
      {target ? (
        <g transform={`translate(${x0 + vw - 80} ${y0 + vh - 90}) scale(${insetScale})`}>
          <rect x={-10} y={-10} width={frame.board.w + 20} height={frame.board.h + 20} fill="var(--ground)" />
          <rect width={frame.board.w} height={frame.board.h} fill="var(--sheet)" stroke="var(--ink)" strokeWidth={2 / insetScale} />
          <rect x={target.cx - frame.board.x - 40} y={target.cy - frame.board.y - 40} width={80} height={80} fill="var(--mark)" />
        </g>
      ) : null}
    </svg>
  );
}

interface Spot {
  cx: number;
  cy: number;
  x: number;
  y: number;
  w: number;
  h: number;
  label: string;
  edge: string;
}

/** Names keep to 24 px and stay inside the picture; look-alikes step aside from the chosen name. */
function Name({
  p,
  view,
  bold,
  avoid,
  row,
}: {
  p: Spot;
  view: { x0: number; y0: number; vw: number; vh: number };
  bold: boolean;
  avoid: Spot | undefined;
  row: number;
}) {
  const width = p.label.length * 14.5;
  const below = p.cy < view.y0 + view.vh / 2;
  const close = avoid !== undefined && Math.abs(avoid.cx - p.cx) < width + 30 && Math.abs(avoid.cy - p.cy) < 60;
  const step = row * 30;
  const y = below ? p.y + p.h + (close ? 58 : 30) + step : p.y - (close ? 40 : 14) - step;
  const x = Math.min(Math.max(p.cx, view.x0 + width / 2 + 6), view.x0 + view.vw - width / 2 - 6);
  return (
    <text
      x={x}
      y={y}
      textAnchor="middle"
      className="mono"
      fontSize="24"
      fontWeight={bold ? 750 : 450}
      fill="var(--ink)"
      stroke="var(--sheet)"
      strokeWidth="5"
      paintOrder="stroke"
    >
      {p.label}
    </text>
  );
}

"use client";
import { useMemo } from "react";
import type { Graph } from "../../core/assembly";
import { said } from "../../core/fit";
import { frontOf } from "../../core/scene";
import { BOX, Box, BoxWords, Dimension, PAD, spare } from "./section-parts";

/** The case from the front to scale, tray to the left: the scene's front section, with what is measured in it. */
export function FrontSection({ graph, chosen, onChoose }: { graph: Graph; chosen: string; onChoose: (id: string) => void }) {
  const front = useMemo(() => frontOf(graph), [graph]);
  if (!front)
    return <p className="py-6">The case says nothing of its size, so that there is no section to scale. Its part type on the shelf takes it.</p>;
  const { view, trayMm, boxes, leads, cooler } = front;
  const s = Math.min(BOX.w / view.widthMm, BOX.h / view.heightMm);
  const [w, h] = [view.widthMm * s, view.heightMm * s];
  // What is only typical lies below, and what covers less over what covers more.
  const order = [...boxes]
    .sort((a, b) => Number(b.assumed ?? false) - Number(a.assumed ?? false) || b.rect.widthMm * b.rect.heightMm - a.rect.widthMm * a.rect.heightMm)
    .map((b) => ({ ...b, box: { x: b.rect.xMm * s, y: b.rect.yMm * s, w: b.rect.widthMm * s, h: b.rect.heightMm * s } }));
  return (
    <svg
      className="mt-2 min-h-0 w-full flex-1"
      preserveAspectRatio="xMidYMin meet"
      viewBox={`${-PAD} ${-PAD} ${w + 2 * PAD} ${h + 2 * PAD}`}
      role="img"
      aria-label={`The case from the front, tray to the left${cooler ? `; ${said(cooler.clearance)}` : ""}${leads ? `; leads lie ${leads.thicknessMm} of ${leads.roomMm} mm thick behind the tray` : ""}`}
    >
      <rect width={w} height={h} fill="var(--sheet)" stroke="var(--ink)" strokeWidth="2" />
      {order.map((b) => (
        <Box
          key={`${b.part}${b.kind}`}
          name={b.name}
          box={b.box}
          dashed={b.assumed === true}
          on={b.part === chosen}
          onChoose={() => onChoose(b.part)}
        />
      ))}
      <BoxWords of={[...order].reverse().map((b) => ({ id: `${b.part}${b.kind}`, words: b.label, box: b.box }))} />
      {leads ? (
        <g pointerEvents="none">
          <title>{`leads behind the tray, ${leads.thicknessMm} of ${leads.roomMm} mm`}</title>
          <rect
            x={leads.rect.xMm * s}
            y={leads.rect.yMm * s}
            width={Math.max(2, leads.rect.widthMm * s)}
            height={leads.rect.heightMm * s}
            fill={leads.thicknessMm > leads.roomMm ? "var(--stop)" : "var(--ink)"}
          />
        </g>
      ) : null}
      <path d={`M${trayMm * s} 0V${h}`} stroke="var(--ink)" strokeWidth="2" />
      {cooler ? (
        <Dimension
          x1={cooler.from.xMm * s}
          y1={cooler.from.yMm * s}
          x2={cooler.toMm * s}
          y2={cooler.from.yMm * s}
          words={spare(cooler.clearance)}
          bad={cooler.clearance.verdict === "not"}
        />
      ) : null}
      <text x={trayMm * s} y={-8} fontSize="12" fill="var(--soft)">
        tray
      </text>
      <text x={w} y={-8} fontSize="12" textAnchor="end" fill="var(--soft)">
        side panel
      </text>
      <text x={0} y={h + 20} fontSize="12" fill="var(--ink)">
        {leads ? `behind the tray: leads ${leads.thicknessMm} of ${leads.roomMm} mm` : `behind the tray: ${trayMm} mm`}
      </text>
    </svg>
  );
}

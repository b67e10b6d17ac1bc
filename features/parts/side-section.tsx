"use client";
import { useMemo } from "react";
import { boardPorts, type Graph, type PartNode } from "../../core/assembly";
import { type Clearance, fanSeats, said, standoffsNow, tubes } from "../../core/fit";
import { MachineView, type Px } from "../drawing/machine-view";
import { BOX, Dimension, spare } from "./section-parts";

/** The case from the side to scale, rear to the left, with what does not fit measured in it. */
export function SideSection({
  graph,
  shell,
  chosen,
  clearance,
  onChoose,
}: {
  graph: Graph;
  shell: PartNode;
  chosen: string;
  clearance: Clearance | undefined;
  onChoose: (id: string) => void;
}) {
  const on = useMemo(() => new Set([chosen]), [chosen]);
  const fans = fanSeats(graph).length;
  const cards = [...graph.parts.values()].filter((p) => p.type.kind === "card" && !p.cable).length;
  return (
    <MachineView
      graph={graph}
      most={BOX}
      fills
      on={on}
      onPart={onChoose}
      label={`${shell.type.name} from the side, ${fans} fans, ${cards} cards${clearance ? `; ${said(clearance)}` : ""}`}
    >
      {(px, scene) => (
        <>
          <Standoffs graph={graph} px={px} />
          <Tubes graph={graph} px={px} />
          {clearance?.line ? (
            <Dimension
              x1={px.at(clearance.line.from).x}
              y1={px.at(clearance.line.from).y}
              x2={px.at(clearance.line.to).x}
              y2={px.at(clearance.line.to).y}
              words={spare(clearance)}
              bad={clearance.verdict === "not"}
            />
          ) : null}
          <path d={`M0 -12H${scene.view.widthMm * px.scale}M0 -15v6M${scene.view.widthMm * px.scale} -15v6`} stroke="var(--soft)" />
          <text x={(scene.view.widthMm * px.scale) / 2} y={-16} textAnchor="middle" fontSize="12" fill="var(--ink)">
            {scene.view.widthMm} mm
          </text>
        </>
      )}
    </MachineView>
  );
}

/** What of the standoffs has to be added or taken out, by the name of its hole. */
function Standoffs({ graph, px }: { graph: Graph; px: Px }) {
  const off = standoffsNow(graph);
  const r = graph.boardRect;
  if (!off || !r) return null;
  const all = [
    ...off.keep.map((x) => ({ ...x, k: "keep" })),
    ...off.add.map((x) => ({ ...x, k: "add" })),
    ...off.remove.map((x) => ({ ...x, k: "out" })),
  ];
  return all.map((o) => {
    const { x: cx, y: cy } = px.at({ xMm: r.xMm + o.at.xMm, yMm: r.yMm + o.at.yMm });
    return (
      <g key={`${o.k}${o.id}`} pointerEvents="none">
        <title>{`standoff ${o.id}: ${o.k === "keep" ? "stands right" : o.k === "add" ? "add one" : "take it out"}`}</title>
        <circle
          cx={cx}
          cy={cy}
          r={3.5}
          fill={o.k === "keep" ? "var(--edge)" : "var(--sheet)"}
          stroke={o.k === "out" ? "var(--stop)" : "var(--ink)"}
          strokeWidth="1.500"
        />
        {o.k === "add" ? <path d={`M${cx - 6} ${cy}h12M${cx} ${cy - 6}v12`} stroke="var(--ink)" strokeWidth="2" /> : null}
        {o.k === "out" ? <path d={`M${cx - 5} ${cy - 5}l10 10M${cx + 5} ${cy - 5}l-10 10`} stroke="var(--stop)" strokeWidth="2.500" /> : null}
        {o.k === "keep" ? null : (
          <text x={cx + 8} y={cy - 5} fontSize="12" className="mono" fill="var(--ink)" paintOrder="stroke" stroke="var(--sheet)" strokeWidth="3">
            {o.id}
          </text>
        )}
      </g>
    );
  });
}

function Tubes({ graph, px }: { graph: Graph; px: Px }) {
  const cpu = boardPorts(graph, "cpu")[0];
  if (!cpu) return null;
  const head = px.at(cpu.at);
  return tubes(graph).map((t) => {
    const { x, y } = px.at({ xMm: t.room.x + t.room.w / 2, yMm: t.room.y + t.room.h / 2 });
    const room = px.box({ xMm: t.room.x, yMm: t.room.y, widthMm: t.room.w, heightMm: t.room.h });
    const words = `tubes of ${t.seat.cooler.type.name}, out at the ${t.end} end: ${Math.round(t.reachMm)} of ${t.seat.radiator.tubeMm} mm`;
    return (
      <g key={t.seat.cooler.id} pointerEvents="none">
        <title>{words}</title>
        {[-3, 3].map((off) => (
          <path
            key={off}
            d={`M${x + off} ${y}Q${x + off} ${head.y + off} ${head.x} ${head.y + off}`}
            fill="none"
            stroke={t.blocks.length > 0 ? "var(--stop)" : "var(--soft)"}
            strokeWidth="2.5"
          />
        ))}
        <rect
          x={room.x}
          y={room.y}
          width={room.w}
          height={room.h}
          fill="none"
          stroke={t.blocks.length > 0 ? "var(--stop)" : "var(--soft)"}
          strokeDasharray="3 3"
        />
      </g>
    );
  });
}

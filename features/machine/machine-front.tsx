"use client";
import { useMemo } from "react";
import type { Graph } from "../../core/assembly";
import { type SceneBox, sceneOf } from "../../core/scene";
import type { SimulatedState } from "../../server/machine/simulated";

const STAGES = ["CPU", "memory", "graphics"] as const;

/** The open machine as one stands before it, of the same scene as every drawing: what turns turns, what is lit is lit. */
export function MachineFront({
  graph,
  state,
  chosen,
  onChoose,
}: {
  graph: Graph;
  state: SimulatedState | null;
  chosen: string;
  onChoose: (part: string) => void;
}) {
  const scene = useMemo(() => sceneOf(graph), [graph]);
  const { view, board } = scene;
  const boxes = useMemo(
    () => scene.boxes.filter((b) => b.sheets.includes("front")).sort((a, b) => b.rect.widthMm * b.rect.heightMm - a.rect.widthMm * a.rect.heightMm),
    [scene],
  );
  const turning = new Map<string, boolean>();
  for (const f of state?.fans ?? []) turning.set(f.part, (turning.get(f.part) ?? false) || f.turns);
  const lit = new Set(state?.lights.filter((l) => l.lit).map((l) => l.part));
  const on = state?.fans.filter((f) => f.turns).length ?? 0;
  const words = state === null ? "no simulated machine" : `${on} of ${state.fans.length} fans turn, ${lit.size} parts are lit`;
  return (
    <svg
      className="min-h-0 w-full flex-1"
      viewBox={`${view.xMm - 6} ${view.yMm - 6} ${view.widthMm + 12} ${view.heightMm + 12}`}
      role="img"
      aria-label={`The open machine, ${words}`}
    >
      <rect x={view.xMm} y={view.yMm} width={view.widthMm} height={view.heightMm} fill="var(--sheet)" stroke="var(--ink)" strokeWidth="2" />
      {boxes.map((b) => (
        <Thing
          key={`${b.id}${b.kind}`}
          box={b}
          turns={b.part === undefined ? undefined : turning.get(b.part)}
          lit={b.part !== undefined && lit.has(b.part)}
          chosen={b.part !== undefined && b.part === chosen}
          onChoose={() => b.part && onChoose(b.part)}
        />
      ))}
      {board ? (
        <g transform={`translate(${board.xMm + 8} ${board.yMm + board.heightMm - 10})`}>
          <circle r="4" cx="2" cy="-3" fill={state?.standbyLit ? "var(--loom-lighting)" : "none"} stroke="var(--ink)" strokeWidth="1" />
          <text x="10" fontSize="10" fill="var(--ink)">
            standby
          </text>
          {STAGES.map((s, i) => (
            <g key={s} transform={`translate(${62 + i * 58} 0)`}>
              <rect x="-2" y="-7" width="8" height="8" fill={state?.stage === s ? "var(--stop)" : "none"} stroke="var(--ink)" strokeWidth="1" />
              <text x="10" fontSize="10" fill="var(--ink)">
                {s}
              </text>
            </g>
          ))}
        </g>
      ) : null}
    </svg>
  );
}

function Thing({
  box,
  turns,
  lit,
  chosen,
  onChoose,
}: {
  box: SceneBox;
  turns: boolean | undefined;
  lit: boolean;
  chosen: boolean;
  onChoose: () => void;
}) {
  const { xMm: x, yMm: y, widthMm: w, heightMm: h } = box.rect;
  const along = Math.min(w, h);
  const faceOn = box.kind === "fan" && (box.faceOn === true || Math.abs(w - h) < along * 0.3);
  const fanned = turns !== undefined && along > 8;
  return (
    <g onClick={onChoose} className="cursor-pointer">
      <title>{`${box.name}${turns === undefined ? "" : turns ? ", turns" : ", stands still"}${lit ? ", lit" : ""}`}</title>
      <rect
        x={x}
        y={y}
        width={w}
        height={h}
        rx="2"
        fill={box.kind === "board" ? "var(--ground)" : "var(--sheet)"}
        stroke={lit ? "var(--loom-lighting)" : "var(--ink)"}
        strokeWidth={chosen ? 4 : lit ? 4 : 1.2}
      />
      {fanned ? (
        faceOn ? (
          <g transform={`translate(${x + w / 2} ${y + h / 2})`}>
            <circle r={along / 2 - 3} fill="none" stroke="var(--rule)" strokeWidth="1.5" />
            <g className={turns ? "rotor" : undefined}>
              {[0, 60, 120].map((a) => (
                <path key={a} d={`M${-(along / 2 - 5)} 0H${along / 2 - 5}`} transform={`rotate(${a})`} stroke="var(--soft)" strokeWidth="3" />
              ))}
            </g>
          </g>
        ) : (
          // Edge on: the blades pass by.
          <path
            d={h >= w ? `M${x + w / 2} ${y + 3}V${y + h - 3}` : `M${x + (w > 46 ? 38 : 3)} ${y + h / 2}H${x + w - 3}`}
            stroke="var(--soft)"
            strokeWidth={Math.max(2, along * 0.4)}
            strokeDasharray="6 8"
            className={turns ? "blades" : undefined}
          />
        )
      ) : null}
      {w > 46 && h > 14 && box.kind !== "board" ? (
        <text x={x + 4} y={y + 11} fontSize="9.5" fill="var(--ink)" stroke="var(--sheet)" strokeWidth="3" paintOrder="stroke">
          {box.label.length * 5.2 > w - 6 ? `${box.label.slice(0, Math.max(3, Math.floor((w - 12) / 5.2)))}…` : box.label}
        </text>
      ) : null}
    </g>
  );
}

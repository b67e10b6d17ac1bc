"use client";
import { useMemo } from "react";
import { type Build, buildGraph, typeLookup } from "../../core/build";
import { fullName } from "./full-name";

/** The case from the side, to scale, rear to the left: board, mounts and what hangs on them, cut-outs. */
export function CaseSection({ build, chosen, onChoose }: { build: Build; chosen: string; onChoose: (id: string) => void }) {
  const graph = useMemo(() => buildGraph(build, typeLookup(build, [])), [build]);
  const shell = [...graph.parts.values()].find((p) => p.type.kind === "case" && !p.cable);
  const board = [...graph.parts.values()].find((p) => p.type.kind === "board" && !p.cable);
  const card = [...graph.parts.values()].find((p) => p.type.kind === "card");
  if (!shell) return <p className="p-6">No case in the parts list: nothing to draw to scale.</p>;
  const b = shell.type.body;
  const w = b.widthMm ?? 450;
  const h = b.heightMm ?? 450;
  const at = b.boardAt ?? { xMm: 0, yMm: 0 };
  const scale = Math.min(360 / w, 520 / h);
  const used = new Map([...graph.parts.values()].filter((p) => p.part.mount && !p.cable).map((p) => [p.part.mount ?? "", p]));
  const fan = (m: (typeof b.mounts)[number]) => (m.region === "top" || m.region === "bottom" ? [m.sizeMm ?? 120, 25] : [25, m.sizeMm ?? 120]);
  const spare = card && b.maxCardMm !== undefined && card.type.body.widthMm !== undefined ? b.maxCardMm - card.type.body.widthMm : undefined;
  const cardY = at.yMm + (board?.type.ports.find((p) => p.role === "expansion")?.at.yMm ?? 160);
  const pad = 26;
  return (
    <div className="flex h-full flex-col p-4">
      <h2 className="text-key font-[650]">{fullName(shell.type)}</h2>
      <p className="text-second text-soft">From the side, rear to the left, to scale. {b.behindTrayMm} mm behind the tray.</p>
      <svg
        className="mt-2 min-h-0 w-full flex-1"
        preserveAspectRatio="xMidYMin meet"
        viewBox={`${-pad} ${-pad} ${w * scale + 2 * pad} ${h * scale + 2 * pad}`}
        role="img"
        aria-label={`${shell.type.name}, side section with ${used.size} filled mounts`}
      >
        <rect width={w * scale} height={h * scale} fill="var(--sheet)" stroke="var(--ink)" strokeWidth="2" />
        {board ? (
          <g onClick={() => onChoose(board.id)} className="cursor-pointer">
            <rect
              x={at.xMm * scale}
              y={at.yMm * scale}
              width={(board.type.body.widthMm ?? 244) * scale}
              height={(board.type.body.heightMm ?? 244) * scale}
              fill={chosen === board.id ? "var(--rule)" : "var(--raised)"}
              stroke="var(--ink)"
              strokeWidth="1.500"
            />
            <text x={(at.xMm + 8) * scale} y={(at.yMm + (board.type.body.heightMm ?? 244) - 14) * scale} fontSize="12" fill="var(--ink)">
              {board.type.name}
            </text>
          </g>
        ) : null}
        {b.cutouts.map((c) => (
          <rect key={c.id} x={c.at.xMm * scale - 5} y={c.at.yMm * scale - 8} width={10} height={16} rx={5} fill="var(--ground)" stroke="var(--edge)">
            <title>{`cut-out, ${c.label}`}</title>
          </rect>
        ))}
        {b.mounts
          .filter((m) => m.takes.includes("fan"))
          .map((m) => {
            const [fw = 25, fh = 120] = fan(m);
            const p = used.get(m.id);
            return (
              <g key={m.id} onClick={() => p && onChoose(p.id)} className={p ? "cursor-pointer" : undefined}>
                <rect
                  x={(m.at.xMm - fw / 2) * scale}
                  y={(m.at.yMm - fh / 2) * scale}
                  width={fw * scale}
                  height={fh * scale}
                  fill={p ? (chosen === p.id ? "var(--rule)" : "var(--raised)") : "none"}
                  stroke={p ? "var(--ink)" : "var(--edge)"}
                  strokeWidth={chosen === p?.id && p ? 2.5 : 1.5}
                  strokeDasharray={p ? undefined : "4 4"}
                />
                <title>{`${m.label}: ${p ? (p.part.label ?? p.type.name) : "free"}`}</title>
              </g>
            );
          })}
        {[...used.values()]
          .filter((p) => p.type.kind === "drive" || p.type.kind === "hub")
          .map((p) => (
            <g key={p.id} onClick={() => onChoose(p.id)} className="cursor-pointer">
              <rect
                x={(p.origin.xMm - 50) * scale}
                y={(p.origin.yMm - 10) * scale}
                width={100 * scale}
                height={20 * scale}
                fill={chosen === p.id ? "var(--rule)" : "var(--raised)"}
                stroke="var(--ink)"
                strokeWidth="1.500"
              />
              <title>{p.part.label ?? p.type.name}</title>
            </g>
          ))}
        {[...graph.parts.values()]
          .filter((p) => p.type.kind === "supply" && !p.cable)
          .map((p) => (
            <g key={p.id} onClick={() => onChoose(p.id)} className="cursor-pointer">
              <rect
                x={Math.max(4, p.origin.xMm - 65) * scale}
                y={(p.origin.yMm - 40) * scale}
                width={150 * scale}
                height={78 * scale}
                fill={chosen === p.id ? "var(--rule)" : "var(--raised)"}
                stroke="var(--ink)"
                strokeWidth="1.500"
              />
              <text x={Math.max(10, p.origin.xMm - 58) * scale} y={(p.origin.yMm + 4) * scale} fontSize="12" fill="var(--ink)">
                {p.type.name}
              </text>
            </g>
          ))}
        {card ? (
          <g onClick={() => onChoose(card.id)} className="cursor-pointer">
            <rect
              x={at.xMm * scale}
              y={cardY * scale}
              width={(card.type.body.widthMm ?? 200) * scale}
              height={40 * scale}
              fill={chosen === card.id ? "var(--rule)" : "var(--sheet)"}
              fillOpacity="0.92"
              stroke="var(--ink)"
              strokeWidth="1.500"
            />
            <text x={(at.xMm + 10) * scale} y={(cardY + 25) * scale} fontSize="12" fill="var(--ink)">
              {card.type.name}, {card.type.body.widthMm} mm
            </text>
            {spare !== undefined ? (
              <text
                x={(at.xMm + (card.type.body.widthMm ?? 0) - 8) * scale}
                y={(cardY + 25) * scale}
                textAnchor="end"
                fontSize="12"
                fontWeight="650"
                paintOrder="stroke"
                stroke="var(--sheet)"
                strokeWidth="4"
                fill={spare < 2 ? "var(--stop)" : "var(--ink)"}
              >
                {spare < 0 ? `${-spare} mm too long` : `${spare} mm to spare`}
              </text>
            ) : null}
          </g>
        ) : null}
        <text x={-8} y={h * scale + 20} fontSize="12" fill="var(--soft)">
          rear
        </text>
        <text x={w * scale + 8} y={h * scale + 20} fontSize="12" textAnchor="end" fill="var(--soft)">
          front
        </text>
        <path d={`M0 ${-14}H${w * scale}M0 -17v6M${w * scale} -17v6`} stroke="var(--soft)" />
        <text x={(w * scale) / 2} y={-18} textAnchor="middle" fontSize="12" fill="var(--ink)">
          {w} mm
        </text>
      </svg>
    </div>
  );
}

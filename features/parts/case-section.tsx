"use client";
import { useState } from "react";
import type { Graph, PartNode } from "../../core/build";
import { type Clearance, clearances, fanSeats, radiatorSeats, SLOT_PITCH_MM, said, standoffs } from "../../core/fit";
import { fullName } from "./full-name";

const PAD = 30;
const BOX = { w: 366, h: 500 };

/** The case to scale: from the side with the rear to the left, or from the front with the tray to the left. */
export function CaseSection({
  graph,
  chosen,
  clearance,
  onChoose,
}: {
  graph: Graph;
  chosen: string;
  clearance: Clearance | undefined;
  onChoose: (id: string) => void;
}) {
  const [view, setView] = useState<"side" | "front">("side");
  const shell = [...graph.parts.values()].find((p) => p.type.kind === "case" && !p.cable);
  if (!shell) return <p className="p-6">No case in the parts list: nothing to draw to scale. Add one.</p>;
  const b = shell.type.body;
  return (
    <div className="flex h-full flex-col p-4">
      <div className="flex items-start gap-2">
        <div className="min-w-0 flex-1">
          <h2 className="truncate text-key font-[650]">{fullName(shell.type)}</h2>
          <p className="text-second text-soft">
            {view === "side"
              ? `From the side, rear to the left, to scale. ${b.behindTrayMm ?? "?"} mm behind the tray.`
              : "From the front, tray to the left, to scale."}
          </p>
        </div>
        {(["side", "front"] as const).map((v) => (
          <button key={v} type="button" className="key shrink-0 px-2 text-second" aria-pressed={view === v} onClick={() => setView(v)}>
            {v === "side" ? "Side" : "Front"}
          </button>
        ))}
      </div>
      {view === "side" ? (
        <Side graph={graph} shell={shell} chosen={chosen} clearance={clearance} onChoose={onChoose} />
      ) : (
        <Front graph={graph} shell={shell} chosen={chosen} onChoose={onChoose} />
      )}
    </div>
  );
}

function Box({
  p,
  x,
  y,
  w,
  h,
  chosen,
  onChoose,
  words,
  dashed,
}: {
  p?: PartNode;
  x: number;
  y: number;
  w: number;
  h: number;
  chosen: string;
  onChoose: (id: string) => void;
  words?: string;
  dashed?: boolean;
}) {
  const on = p !== undefined && p.id === chosen;
  return (
    <g onClick={() => p && onChoose(p.id)} className={p ? "cursor-pointer" : undefined}>
      <rect
        x={x}
        y={y}
        width={Math.max(2, w)}
        height={Math.max(2, h)}
        fill={p ? (on ? "var(--rule)" : "var(--raised)") : "none"}
        stroke={p ? "var(--ink)" : "var(--edge)"}
        strokeWidth={on ? 2.5 : 1.5}
        strokeDasharray={dashed ? "4 4" : undefined}
      />
      <title>{p ? (p.part.label ?? p.type.name) : words}</title>
      {p && words && w > words.length * 6.4 ? (
        <text x={x + 5} y={y + Math.min(16, h / 2 + 4)} fontSize="12" fill="var(--ink)">
          {words}
        </text>
      ) : null}
    </g>
  );
}

/** A dimension line with ticks and its words. */
function Dimension({ x1, y1, x2, y2, words, bad }: { x1: number; y1: number; x2: number; y2: number; words: string; bad: boolean }) {
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

const spare = (c: Clearance) => (c.left < 0 ? `${-c.left} ${c.unit} too much` : `${c.left} ${c.unit} to spare`);

function Side({
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
  const b = shell.type.body;
  const w = b.widthMm ?? 450;
  const h = b.heightMm ?? 450;
  const at = b.boardAt ?? { xMm: 0, yMm: 0 };
  const s = Math.min(BOX.w / w, BOX.h / h);
  const board = [...graph.parts.values()].find((p) => p.type.kind === "board" && !p.cable);
  const seats = fanSeats(graph);
  const bySeat = new Map(seats.map((x) => [x.mount.id, x]));
  const hung = radiatorSeats(graph);
  const cards = [...graph.parts.values()].filter((p) => p.type.kind === "card" && !p.cable);
  const off = standoffs(graph);
  const slots = [...graph.ports.values()].filter((p) => p.port.role === "expansion").sort((x, y) => x.at.yMm - y.at.yMm);
  const pick = { chosen, onChoose };
  return (
    <svg
      className="mt-2 min-h-0 w-full flex-1"
      preserveAspectRatio="xMidYMin meet"
      viewBox={`${-PAD} ${-PAD} ${w * s + 2 * PAD} ${h * s + 2 * PAD}`}
      role="img"
      aria-label={`${shell.type.name} from the side, ${seats.length} fans, ${cards.length} cards${clearance ? `; ${said(clearance)}` : ""}`}
    >
      <rect width={w * s} height={h * s} fill="var(--sheet)" stroke="var(--ink)" strokeWidth="2" />
      {board ? (
        <Box
          p={board}
          x={at.xMm * s}
          y={at.yMm * s}
          w={(board.type.body.widthMm ?? 244) * s}
          h={(board.type.body.heightMm ?? 244) * s}
          words=""
          {...pick}
        />
      ) : null}
      {board ? (
        <text x={(at.xMm + 20) * s} y={(at.yMm + 44) * s} fontSize="12" fill="var(--ink)">
          {board.type.name}
        </text>
      ) : null}
      {b.cutouts.map((c) => (
        <rect key={c.id} x={c.at.xMm * s - 4} y={c.at.yMm * s - 7} width={8} height={14} rx={4} fill="var(--ground)" stroke="var(--edge)">
          <title>{`cut-out, ${c.label}`}</title>
        </rect>
      ))}
      {off
        ? [
            ...off.keep.map((x) => ({ ...x, k: "keep" })),
            ...off.add.map((x) => ({ ...x, k: "add" })),
            ...off.remove.map((x) => ({ ...x, k: "out" })),
          ].map((o) => {
            const [cx, cy] = [(at.xMm + o.at.xMm) * s, (at.yMm + o.at.yMm) * s];
            return (
              <g key={`${o.k}${o.id}`}>
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
                  <text
                    x={cx + 8}
                    y={cy - 5}
                    fontSize="12"
                    className="mono"
                    fill="var(--ink)"
                    paintOrder="stroke"
                    stroke="var(--sheet)"
                    strokeWidth="3"
                  >
                    {o.id}
                  </text>
                )}
              </g>
            );
          })
        : null}
      {b.mounts
        .filter((m) => m.takes.includes("fan"))
        .map((m) => {
          const seat = bySeat.get(m.id);
          const size = seat?.sizeMm ?? m.sizeMm ?? 120;
          const deep = seat?.depthMm ?? 25;
          const level = m.region === "top" || m.region === "bottom";
          if (m.region === "side") return null;
          const away = seat && !seat.inside ? (m.region === "front" ? deep * 0.7 : 0) : 0;
          return (
            <Box
              key={m.id}
              {...(seat ? { p: seat.part } : {})}
              words={seat ? "" : `${m.label}: free`}
              x={
                Math.min(w - (level ? size : deep) + (seat && !seat.inside ? deep : 0), Math.max(0, m.at.xMm - (level ? size : deep) / 2 + away)) * s
              }
              y={Math.min(h - (level ? deep : size), Math.max(0, m.at.yMm - (level ? deep : size) / 2)) * s}
              w={(level ? size : deep) * s}
              h={(level ? deep : size) * s}
              dashed={!seat}
              {...pick}
            />
          );
        })}
      {hung.map((r) => {
        if (!r.place || r.ends.length < 2) return null;
        const [a, z] = [r.ends[0], r.ends[1]];
        if (!a || !z) return null;
        const level = r.place.region === "top" || r.place.region === "bottom";
        const t = r.radiator.thicknessMm;
        const d = r.fanDepthMm;
        return (
          <Box
            key={r.cooler.id}
            p={r.cooler}
            words={r.cooler.type.name}
            x={(level ? a.xMm : a.xMm - d / 2 - t) * s}
            y={(level ? a.yMm + d / 2 : a.yMm) * s}
            w={(level ? z.xMm - a.xMm : t) * s}
            h={(level ? t : z.yMm - a.yMm) * s}
            {...pick}
          />
        );
      })}
      {[...graph.parts.values()]
        .filter((p) => (p.type.kind === "drive" || p.type.kind === "hub") && p.part.mount && !p.cable)
        .map((p) => (
          <Box
            key={p.id}
            p={p}
            words={p.part.label ?? p.type.name}
            x={(p.origin.xMm - 50) * s}
            y={(p.origin.yMm - 11) * s}
            w={100 * s}
            h={22 * s}
            {...pick}
          />
        ))}
      {[...graph.parts.values()]
        .filter((p) => p.type.kind === "supply" && !p.cable)
        .map((p) => {
          const long = p.type.body.depthMm ?? 150;
          const high = p.type.body.heightMm ?? 86;
          const bottom = (b.mounts.find((m) => m.takes.includes("supply"))?.region ?? "bottom") === "bottom";
          return (
            <Box
              key={p.id}
              p={p}
              words={p.type.name}
              x={(bottom ? 3 : p.origin.xMm - long / 2) * s}
              y={Math.min(h - high - 3, p.origin.yMm - high / 2) * s}
              w={(bottom ? long : Math.min(long, w - p.origin.xMm + long / 2 - 3)) * s}
              h={high * s}
              {...pick}
            />
          );
        })}
      {cards.map((card, i) => {
        const seat = graph.ports.get(graph.ofLead.get(`${card.id}:seat`)?.port ?? "") ?? slots[i];
        const y = seat?.at.yMm ?? at.yMm + 160;
        return (
          <Box
            key={card.id}
            p={card}
            words={`${card.type.name}, ${card.type.body.widthMm ?? "?"} mm`}
            x={at.xMm * s}
            y={y * s}
            w={(card.type.body.widthMm ?? 200) * s}
            h={(card.type.body.slots ?? 2) * SLOT_PITCH_MM * s * 0.92}
            {...pick}
          />
        );
      })}
      {clearance?.line ? (
        <Dimension
          x1={clearance.line.from.xMm * s}
          y1={clearance.line.from.yMm * s}
          x2={clearance.line.to.xMm * s}
          y2={clearance.line.to.yMm * s}
          words={spare(clearance)}
          bad={clearance.verdict === "not"}
        />
      ) : null}
      <text x={0} y={h * s + 20} fontSize="12" fill="var(--soft)">
        rear
      </text>
      <text x={w * s} y={h * s + 20} fontSize="12" textAnchor="end" fill="var(--soft)">
        front
      </text>
      <path d={`M0 ${-12}H${w * s}M0 -15v6M${w * s} -15v6`} stroke="var(--soft)" />
      <text x={(w * s) / 2} y={-16} textAnchor="middle" fontSize="12" fill="var(--ink)">
        {w} mm
      </text>
    </svg>
  );
}

/** How far the upper face of the board stands off the tray: standoff and board, mm (common practice). */
const BOARD_FACE_MM = 8;
const SOCKET_MM = 7;

function Front({ graph, shell, chosen, onChoose }: { graph: Graph; shell: PartNode; chosen: string; onChoose: (id: string) => void }) {
  const b = shell.type.body;
  const h = b.heightMm ?? 450;
  const behind = b.behindTrayMm ?? 20;
  const room = BOARD_FACE_MM + SOCKET_MM + (b.maxCoolerMm ?? 160);
  const w = behind + room;
  const s = Math.min(BOX.w / w, BOX.h / h);
  const at = b.boardAt ?? { xMm: 0, yMm: 0 };
  const x0 = behind;
  const board = [...graph.parts.values()].find((p) => p.type.kind === "board" && !p.cable);
  const cpu = [...graph.ports.values()].find((p) => p.port.role === "cpu");
  const cooler = [...graph.parts.values()].find((p) => p.type.kind === "cooler");
  const memory = [...graph.parts.values()].find((p) => p.type.kind === "memory");
  const slot = [...graph.ports.values()].find((p) => p.port.role === "memory");
  const cards = [...graph.parts.values()].filter((p) => p.type.kind === "card" && !p.cable);
  const slots = [...graph.ports.values()].filter((p) => p.port.role === "expansion").sort((x, y) => x.at.yMm - y.at.yMm);
  const seats = radiatorSeats(graph).filter((r) => r.place?.region === "top");
  const tall = cooler?.type.body.heightMm;
  const wide = cooler?.type.body.widthMm ?? 70;
  const list = clearances(graph);
  const height = list.find((c) => c.id.startsWith("cooler-height"));
  const pick = { chosen, onChoose };
  const face = x0 + BOARD_FACE_MM;
  return (
    <svg
      className="mt-2 min-h-0 w-full flex-1"
      preserveAspectRatio="xMidYMin meet"
      viewBox={`${-PAD} ${-PAD} ${w * s + 2 * PAD} ${h * s + 2 * PAD}`}
      role="img"
      aria-label={`${shell.type.name} from the front, tray to the left${height ? `; ${said(height)}` : ""}`}
    >
      <rect width={w * s} height={h * s} fill="var(--sheet)" stroke="var(--ink)" strokeWidth="2" />
      <path d={`M${x0 * s} 0V${h * s}`} stroke="var(--ink)" strokeWidth="2" />
      <text x={(x0 * s) / 2} y={h * s - 8} textAnchor="middle" fontSize="12" fill="var(--ink)">
        {behind}
      </text>
      {board ? <Box p={board} words="" x={x0 * s} y={at.yMm * s} w={BOARD_FACE_MM * s} h={(board.type.body.heightMm ?? 244) * s} {...pick} /> : null}
      {memory && slot ? (
        <Box p={memory} words="" x={face * s} y={(slot.at.yMm - 66) * s} w={(memory.type.body.heightMm ?? 32) * s} h={133 * s} {...pick} />
      ) : null}
      {cooler && cpu && tall !== undefined ? (
        <Box p={cooler} words={cooler.type.name} x={(face + SOCKET_MM) * s} y={(cpu.at.yMm - wide / 2) * s} w={tall * s} h={wide * s} {...pick} />
      ) : null}
      {seats.map((r) => (
        <Box
          key={r.cooler.id}
          p={r.cooler}
          words={`radiator ${r.radiator.thicknessMm} mm`}
          x={(face + (r.place?.offsetMm ?? 30)) * s}
          y={(12 + r.fanDepthMm / 2) * s}
          w={r.radiator.widthMm * s}
          h={r.radiator.thicknessMm * s}
          {...pick}
        />
      ))}
      {cards.map((card, i) => (
        <Box
          key={card.id}
          p={card}
          words={card.type.name}
          x={face * s}
          y={(slots[i]?.at.yMm ?? at.yMm + 160) * s}
          w={(card.type.body.depthMm ?? 112) * s}
          h={(card.type.body.slots ?? 2) * SLOT_PITCH_MM * s * 0.92}
          {...pick}
        />
      ))}
      {height && tall !== undefined && cpu ? (
        <Dimension
          x1={(face + SOCKET_MM + tall) * s}
          y1={cpu.at.yMm * s}
          x2={w * s}
          y2={cpu.at.yMm * s}
          words={spare(height)}
          bad={height.verdict === "not"}
        />
      ) : null}
      <text x={0} y={h * s + 20} fontSize="12" fill="var(--soft)">
        behind the tray
      </text>
      <text x={w * s} y={h * s + 20} fontSize="12" textAnchor="end" fill="var(--soft)">
        side panel
      </text>
    </svg>
  );
}

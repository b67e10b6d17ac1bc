"use client";
import { boardPorts, type Graph, type PartNode } from "../../core/assembly";
import { type Clearance, fanSeats, radiatorSeats, SLOT_PITCH_MM, said, slotOf, standoffs, tubes } from "../../core/fit";
import { BOX, Box, Dimension, PAD, spare } from "./section-parts";

/** The case from the side to scale, rear to the left. */
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
  const cpu = boardPorts(graph, "cpu")[0];
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
        <text x={(at.xMm + 20) * s} y={(at.yMm + (board.type.body.heightMm ?? 244)) * s - 26} fontSize="12" fill="var(--ink)">
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
      {cards.map((card) => {
        const y = slotOf(graph, card)?.at.yMm ?? at.yMm + 160;
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
      {cpu
        ? tubes(graph).map((t) => {
            const [x, y] = [(t.room.x + t.room.w / 2) * s, (t.room.y + t.room.h / 2) * s];
            const words = `tubes of ${t.seat.cooler.type.name}, out at the ${t.end} end: ${Math.round(t.reachMm)} of ${t.seat.radiator.tubeMm} mm`;
            return (
              <g key={t.seat.cooler.id} pointerEvents="none">
                <title>{words}</title>
                {[-3, 3].map((off) => (
                  <path
                    key={off}
                    d={`M${x + off} ${y}Q${x + off} ${cpu.at.yMm * s + off} ${cpu.at.xMm * s} ${cpu.at.yMm * s + off}`}
                    fill="none"
                    stroke={t.blocks.length > 0 ? "var(--stop)" : "var(--soft)"}
                    strokeWidth="2.5"
                  />
                ))}
                <rect
                  x={t.room.x * s}
                  y={t.room.y * s}
                  width={t.room.w * s}
                  height={t.room.h * s}
                  fill="none"
                  stroke={t.blocks.length > 0 ? "var(--stop)" : "var(--soft)"}
                  strokeDasharray="3 3"
                />
              </g>
            );
          })
        : null}
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

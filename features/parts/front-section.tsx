"use client";
import { boardPorts, type Graph, type PartNode } from "../../core/assembly";
import { clearances, radiatorSeats, SLOT_PITCH_MM, said, slotOf } from "../../core/fit";
import { BOX, Box, Dimension, PAD, spare } from "./section-parts";

/** How far the upper face of the board stands off the tray: standoff and board, mm (common practice). */
const BOARD_FACE_MM = 8;
const SOCKET_MM = 7;

/** The case from the front to scale, tray to the left. */
export function FrontSection({ graph, shell, chosen, onChoose }: { graph: Graph; shell: PartNode; chosen: string; onChoose: (id: string) => void }) {
  const b = shell.type.body;
  const h = b.heightMm ?? 450;
  const behind = b.behindTrayMm ?? 20;
  const room = BOARD_FACE_MM + SOCKET_MM + (b.maxCoolerMm ?? 160);
  const w = behind + room;
  const s = Math.min(BOX.w / w, BOX.h / h);
  const at = b.boardAt ?? { xMm: 0, yMm: 0 };
  const x0 = behind;
  const board = [...graph.parts.values()].find((p) => p.type.kind === "board" && !p.cable);
  const cpu = boardPorts(graph, "cpu")[0];
  const cooler = [...graph.parts.values()].find((p) => p.type.kind === "cooler");
  const memory = [...graph.parts.values()].find((p) => p.type.kind === "memory");
  const slot = boardPorts(graph, "memory")[0];
  const cards = [...graph.parts.values()].filter((p) => p.type.kind === "card" && !p.cable);
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
      {cards.map((card) => (
        <Box
          key={card.id}
          p={card}
          words={card.type.name}
          x={face * s}
          y={(slotOf(graph, card)?.at.yMm ?? at.yMm + 160) * s}
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

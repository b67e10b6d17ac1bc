import { seatMonitors } from "../../picture";
import { PARTS_ONLY, partsFinding, type Rule } from "../rule";

const name = (m: { widthPx: number; heightPx: number; hz: number; socket: string }) => `${m.widthPx} × ${m.heightPx} at ${m.hz} Hz (${m.socket})`;

/** The client's monitors against the outputs of what gives the picture. */
export const monitors: Rule = {
  id: "monitors",
  title: "Every monitor has an output that is fast enough",
  protects: "a screen that stays dark on the client's desk",
  on: PARTS_ONLY,
  reads: ["card", "board", "cpu"],
  run: ({ graph }) => {
    const seated = graph.build.wishes.monitors.length > 0 ? seatMonitors(graph) : undefined;
    if (!seated) return [];
    const { from, seats, outputs } = seated;
    const who = from.part.label ?? from.type.name;
    const without = seats.filter((s) => !s.output);
    const slow = seats.filter((s) => s.slow);
    return [
      ...(without.length > 0
        ? [
            partsFinding("monitors", {
              severity: "stop" as const,
              message: `${without.length} of ${seats.length} ${seats.length === 1 ? "monitor has" : "monitors have"} no output on ${who}, which has ${outputs}: ${without.map((s) => name(s.monitor)).join(", ")}.`,
              parts: [from.id],
              swap: from.id,
            }),
          ]
        : []),
      ...slow.map((s) =>
        partsFinding("monitors", {
          severity: "warn" as const,
          message: `A monitor shows ${name(s.monitor)}; the ${s.output?.socket} output of ${who} gives ${s.output?.widthPx} × ${s.output?.heightPx} at ${s.output?.hz} Hz.`,
          parts: [from.id],
          ifIgnored: "It runs slower or coarser than the client paid for.",
        }),
      ),
    ];
  },
};

import { type Graph, type PartNode, partsOfKind } from "../assembly";
import type { PartType } from "../catalogue";

type Output = NonNullable<PartType["ratings"]["outputs"]>[number];
type Socket = Output["socket"];
type Monitor = Graph["build"]["wishes"]["monitors"][number];

/** Sockets that a passive cable or adapter joins, output first (common practice): a display output of the one feeds a monitor of the other. */
const ADAPTS: Partial<Record<Socket, readonly Socket[]>> = {
  DisplayPort: ["HDMI", "DVI"],
  "USB-C": ["DisplayPort", "HDMI"],
  HDMI: ["DVI"],
};

export interface MonitorSeat {
  monitor: Monitor;
  /** Undefined: no output is left for it. */
  output?: Output;
  /** The sockets differ: an adapter or a cable with two ends. */
  adapter?: boolean;
  /** What the output gives is less than the monitor shows. */
  slow?: boolean;
}

/** The part that gives the picture: the first graphics card, else the board, where the CPU has graphics. */
export function pictureFrom(graph: Graph): PartNode | undefined {
  const card = partsOfKind(graph, "card").find((c) => c.type.ratings.hasGraphics);
  if (card) return card;
  return partsOfKind(graph, "cpu").some((c) => c.type.ratings.hasGraphics) ? partsOfKind(graph, "board")[0] : undefined;
}

const rate = (x: { widthPx: number; heightPx: number; hz: number }) => x.widthPx * x.heightPx * x.hz;
const tooSlow = (m: Monitor, o: Output) =>
  o.widthPx !== undefined && o.heightPx !== undefined && o.hz !== undefined && rate(m) > rate({ widthPx: o.widthPx, heightPx: o.heightPx, hz: o.hz });

/** Each monitor of the client with the output that it gets: the most demanding first, its own socket before an adapter. Undefined: outputs unknown. */
export function seatMonitors(graph: Graph): { from: PartNode; seats: MonitorSeat[]; outputs: number } | undefined {
  const from = pictureFrom(graph);
  const outputs = from?.type.ratings.outputs;
  if (!from || !outputs) return undefined;
  const free = outputs.flatMap((o) => Array.from({ length: o.count }, () => o));
  const all = free.length;
  const monitors = graph.build.wishes.monitors.flatMap((m) => Array.from({ length: m.count }, () => m)).sort((a, b) => rate(b) - rate(a));
  const seats = monitors.map((monitor): MonitorSeat => {
    const cost = (o: Output) => (tooSlow(monitor, o) ? 2 : 0) + (o.socket === monitor.socket ? 0 : 1);
    const may = free.filter((o) => o.socket === monitor.socket || ADAPTS[o.socket]?.includes(monitor.socket)).sort((a, b) => cost(a) - cost(b));
    const output = may[0];
    if (!output) return { monitor };
    free.splice(free.indexOf(output), 1);
    return {
      monitor,
      output,
      ...(output.socket === monitor.socket ? {} : { adapter: true }),
      ...(tooSlow(monitor, output) ? { slow: true } : {}),
    };
  });
  return { from, seats, outputs: all };
}

/** A part with wireless: the board, or a card. */
export const wirelessPart = (graph: Graph): PartNode | undefined =>
  [...partsOfKind(graph, "board"), ...partsOfKind(graph, "card")].find((p) => p.type.ratings.wireless === true);

import type { Address, Graph, PortNode } from "../assembly";
import { type Free, freeEnds, type TiedBack, tiedBack } from "../claims";
import { orderOf } from "../order";
import { looseCables, runOf, throughLowNoise } from "../wiring";

/** One plug of the wiring sheet, in plugging order. */
export interface SheetRow {
  order: number;
  tag: string;
  lead: Address;
  /** What the plug belongs to. */
  plug: string;
  port: Address;
  into: string;
  /** Pins of a front-panel block, or the half of a USB 2 header. */
  place?: number[];
  state: string;
  lengthMm: number;
  /** How far it has to run; left out where there is no wire, and where a splitter or a chain is between. */
  runMm?: number;
  region: string;
  caution?: string;
}

export interface Sheet {
  rows: SheetRow[];
  free: Free[];
  /** Plugs that go nowhere and cannot go into the bag. */
  tied: TiedBack[];
  /** Supply cables that stay in the bag. */
  bag: string[];
}

const DOWN = ["top", "middle", "bottom"];
const ACROSS = ["left", "centre", "right"];
/** The nine regions of a board in reading order, each with its middle as a share of the board. */
export const BOARD_REGIONS = DOWN.flatMap((down, y) =>
  ACROSS.map((across, x) => ({ name: `${down} ${across}`, x: (x + 0.5) / 3, y: (y + 0.5) / 3 })),
);

/** The region in which a point of the board lies. Millimetres from its top left corner. */
export function regionOfBoard(at: { xMm: number; yMm: number }, size: { widthMm: number; heightMm: number }): string {
  const third = (n: number, of: number) => Math.min(2, Math.max(0, Math.floor((n / of) * 3)));
  return BOARD_REGIONS[third(at.yMm, size.heightMm) * 3 + third(at.xMm, size.widthMm)]?.name ?? "middle centre";
}

/** The part of the board where a port sits, in words: third by third, seen with the rear sockets left. */
export function boardRegion(graph: Graph, port: PortNode): string {
  const r = graph.boardRect;
  if (port.part.type.kind !== "board" || !r) return `on ${port.part.part.label ?? port.part.type.name}`;
  return `board, ${regionOfBoard({ xMm: port.at.xMm - r.xMm, yMm: port.at.yMm - r.yMm }, r)}`;
}

/** Everything that is plugged or to be plugged, in the order in which hands reach it; then what stays free, and the bag. */
export function sheetOf(graph: Graph): Sheet {
  const { steps } = orderOf(graph);
  const at = new Map(steps.flatMap((s, i) => (s.lead ? [[s.lead, { i, s }] as const] : [])));
  const rows = graph.connections
    .flatMap((c) => {
      const lead = graph.leads.get(c.lead);
      const port = graph.ports.get(c.port);
      if (!lead || !port) return [];
      const step = at.get(c.lead);
      const run = runOf(graph, lead, port);
      return [
        {
          sort: step?.i ?? steps.length,
          row: {
            order: 0,
            tag: lead.tag,
            lead: c.lead,
            plug: throughLowNoise(lead) ? `${lead.name}, low-noise lead between` : lead.name,
            port: c.port,
            into: port.name,
            ...(c.place ? { place: c.place } : {}),
            state: c.state,
            lengthMm: lead.lead.lengthMm,
            ...(run ? { runMm: run.needMm } : {}),
            region: boardRegion(graph, port),
            ...(step?.s.caution ? { caution: step.s.caution } : {}),
          } satisfies SheetRow,
        },
      ];
    })
    .sort((a, b) => a.sort - b.sort || (a.row.lead < b.row.lead ? -1 : 1))
    .map(({ row }, i) => ({ ...row, order: i + 1 }));
  return { rows, free: freeEnds(graph), tied: tiedBack(graph), bag: looseCables(graph).inBag.map((p) => p.part.label ?? p.type.name) };
}

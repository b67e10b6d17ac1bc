import { type Address, type Graph, type PortNode, runLengthMm } from "../build";
import { stepsOf } from "../order";
import { type Free, freeEnds, looseCables } from "../wiring";

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
  /** How far it has to run; left out where there is no wire. */
  runMm?: number;
  region: string;
  caution?: string;
}

export interface Sheet {
  rows: SheetRow[];
  free: Free[];
  /** Supply cables that stay in the bag. */
  bag: string[];
}

/** The part of the board where a port sits, in words: third by third, seen with the rear sockets left. */
export function boardRegion(graph: Graph, port: PortNode): string {
  const r = graph.boardRect;
  if (port.part.type.kind !== "board" || !r) return `on ${port.part.part.label ?? port.part.type.name}`;
  const third = (n: number, size: number) => Math.min(2, Math.max(0, Math.floor((n / size) * 3)));
  const down = ["top", "middle", "bottom"][third(port.at.yMm - r.yMm, r.heightMm)];
  const across = ["left", "centre", "right"][third(port.at.xMm - r.xMm, r.widthMm)];
  return `board, ${down} ${across}`;
}

/** Everything that is plugged or to be plugged, in the order in which hands reach it; then what stays free, and the bag. */
export function sheetOf(graph: Graph): Sheet {
  const { steps } = stepsOf(graph);
  const at = new Map(steps.flatMap((s, i) => (s.lead ? [[s.lead, { i, s }] as const] : [])));
  const rows = graph.connections
    .flatMap((c) => {
      const lead = graph.leads.get(c.lead);
      const port = graph.ports.get(c.port);
      if (!lead || !port) return [];
      const step = at.get(c.lead);
      const wired = lead.loom !== "seat" && lead.lead.lengthMm > 0;
      return [
        {
          sort: step?.i ?? steps.length,
          row: {
            order: 0,
            tag: lead.tag,
            lead: c.lead,
            plug: lead.name,
            port: c.port,
            into: port.name,
            ...(c.place ? { place: c.place } : {}),
            state: c.state,
            lengthMm: lead.lead.lengthMm,
            ...(wired ? { runMm: Math.round(runLengthMm(lead.origin, port.at, graph.cutouts, graph.boardRect)) } : {}),
            region: boardRegion(graph, port),
            ...(step?.s.caution ? { caution: step.s.caution } : {}),
          } satisfies SheetRow,
        },
      ];
    })
    .sort((a, b) => a.sort - b.sort || (a.row.lead < b.row.lead ? -1 : 1))
    .map(({ row }, i) => ({ ...row, order: i + 1 }));
  return { rows, free: freeEnds(graph), bag: looseCables(graph).inBag.map((p) => p.part.label ?? p.type.name) };
}

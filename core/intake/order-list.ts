import { cpuCoolers, type Graph, kept, partsOfKind, wholeParts } from "../assembly";
import { passesPower } from "../catalogue";
import { radiatorSeats, riserNeedMm, standoffsNow } from "../fit";
import { seatMonitors } from "../picture";
import { cableLimitW, peakW, throughCablesW } from "../power";

export interface OrderItem {
  id: string;
  what: string;
  count: number;
  /** `shelf`: taken from stock and to be replaced; `order`: to be bought. */
  from: "shelf" | "order";
  needFor: "wiring" | "mounting" | "cooling";
  because: string;
}

/** Cards longer than this sag without a support (common practice). */
const SAGS_MM = 300;

/**
 * What is still missing for wiring, mounting and cooling, each with its reason. Wiring comes from the plan: without
 * one, only what the parts themselves say.
 */
export function orderList(graph: Graph): OrderItem[] {
  return [
    ...wiring(graph),
    ...graphicsCables(graph),
    ...kept(graph, "order:mounting", ["case", "board", "supply", "card"], () => mounting(graph)),
    ...dataCables(graph),
    ...displayAdapters(graph),
    ...kept(graph, "order:cooling", ["cpu", "cooler", "case", "fan"], () => cooling(graph)),
  ];
}

function wiring(graph: Graph): OrderItem[] {
  const items = new Map<string, OrderItem>();
  for (const p of wholeParts(graph)) {
    const from = p.part.from;
    if (from === "client") continue;
    const hung = p.type.ports.flatMap((port) => (graph.atPort.get(`${p.id}:${port.id}`) ?? []).flatMap((c) => graph.leads.get(c.lead)?.name ?? []));
    const key = `${from}:${p.type.id}`;
    const had = items.get(key);
    const because =
      hung.length > 0 ? `Carries ${hung.slice(0, 4).join(", ")}${hung.length > 4 ? ` and ${hung.length - 4} more` : ""}.` : "Taken by the plan.";
    items.set(key, {
      id: key,
      what: p.type.name,
      count: (had?.count ?? 0) + 1,
      from: from === "order" ? "order" : "shelf",
      needFor: "wiring",
      because: had ? `${had.because} ${because}` : because,
    });
  }
  return [...items.values()];
}

/** Monitors whose socket is another than the output's. */
function displayAdapters(graph: Graph): OrderItem[] {
  const pairs = new Map<string, number>();
  for (const s of graph.build.wishes.monitors.length > 0 ? (seatMonitors(graph)?.seats ?? []) : [])
    if (s.adapter && s.output) {
      const pair = `${s.output.socket} to ${s.monitor.socket}`;
      pairs.set(pair, (pairs.get(pair) ?? 0) + 1);
    }
  return [...pairs].map(([pair, count]) => ({
    id: `display:${pair}`,
    what: `Display adapter or cable, ${pair}`,
    count,
    from: "order",
    needFor: "mounting",
    because: "The client's monitor has another socket than the output that is left for it.",
  }));
}

/** Where the bag made one cable do what two should: one more, for the supply's outlet system. */
function graphicsCables(graph: Graph): OrderItem[] {
  return [...graph.parts.values()].flatMap((node): OrderItem[] => {
    const sockets = node.cable
      ? graph.connections.flatMap((c) => {
          const port = c.lead.startsWith(`${node.id}:`) ? graph.ports.get(c.port) : undefined;
          return port?.port.role === "graphics-power" && !passesPower(port.part.type) ? [port] : [];
        })
      : [];
    const cards = new Set(sockets.map((p) => p.part));
    const limitW = node.cable ? cableLimitW(node.cable.cable.ends, node.cable.cable.limit) : 0;
    const heavy = [...cards].find((card) => sockets.filter((p) => p.part === card).length > 1 && throughCablesW(card) > limitW + 1e-9);
    if (cards.size < 2 && !heavy) return [];
    const owner = graph.parts.get(node.cable?.owner ?? "");
    return [
      {
        id: `graphics:${node.id}`,
        what: `Graphics cable for ${owner?.part.label ?? owner?.type.name ?? "the supply"}`,
        count: 1,
        from: "order",
        needFor: "wiring",
        because: heavy
          ? `Both plugs of ${node.part.label} feed ${heavy.part.label ?? heavy.type.name}, which may draw ${throughCablesW(heavy)} W through its cables, of ${Math.round(limitW)} W that one is good for.`
          : `${node.part.label} feeds ${cards.size} cards.`,
      },
    ];
  });
}

function mounting(graph: Graph): OrderItem[] {
  const out: OrderItem[] = [];
  const s = standoffsNow(graph);
  if (s && s.add.length > 0)
    out.push({
      id: "standoffs",
      what: "Standoffs",
      count: s.add.length,
      from: "shelf",
      needFor: "mounting",
      because: `Holes ${s.add.map((h) => h.id).join(", ")} of the board have none under them${s.remove.length > 0 ? `; ${Math.min(s.remove.length, s.add.length)} that must come out can serve` : ""}.`,
    });
  const supply = partsOfKind(graph, "supply")[0];
  const shell = partsOfKind(graph, "case")[0];
  const form = supply?.type.body.formFactor;
  if (form?.startsWith("SFX") && shell?.type.body.supplyForms && !shell.type.body.supplyForms.some((f) => f === form))
    out.push({
      id: "supply-bracket",
      what: `Bracket, ${form} to ATX`,
      count: 1,
      from: "order",
      needFor: "mounting",
      because: `${supply?.type.name} is ${form}; the bay is for ATX.`,
    });
  for (const card of partsOfKind(graph, "card")) {
    const long = card.type.body.widthMm ?? 0;
    const needMm = card.part.vertical ? riserNeedMm(graph, card) : undefined;
    const has = shell?.type.body.vertical?.riserMm;
    if (card.part.vertical && (has === undefined || (needMm ?? 0) > has))
      out.push({
        id: `riser:${card.id}`,
        what: needMm === undefined ? "Riser lead and vertical bracket" : `Riser lead, ${Math.ceil(needMm / 10) * 10} mm or longer`,
        count: 1,
        from: "order",
        needFor: "mounting",
        because: `${card.type.name} goes on the vertical mount${has === undefined ? "" : `; the riser of the case has ${has} mm`}.`,
      });
    else if (!card.part.vertical && long >= SAGS_MM)
      out.push({
        id: `support:${card.id}`,
        what: "Card support",
        count: 1,
        from: "shelf",
        needFor: "mounting",
        because: `${card.type.name} is ${long} mm long and would sag (common practice from ${SAGS_MM} mm).`,
      });
  }
  return out;
}

function dataCables(graph: Graph): OrderItem[] {
  const drives = partsOfKind(graph, "drive").filter((d) => d.type.ports.some((p) => p.family === "sata-data"));
  const cables = wholeParts(graph).reduce(
    (s, p) => s + p.type.cables.reduce((n, c) => n + (c.ends.some((e) => e.family === "sata-data") ? c.count : 0), 0),
    0,
  );
  if (drives.length <= cables) return [];
  return [
    {
      id: "sata-cables",
      what: "SATA data cable",
      count: drives.length - cables,
      from: "order",
      needFor: "wiring",
      because: `${drives.length} SATA drives, ${cables} data cables came with the parts.`,
    },
  ];
}

function cooling(graph: Graph): OrderItem[] {
  const out: OrderItem[] = [];
  const cpu = partsOfKind(graph, "cpu")[0];
  for (const c of cpuCoolers(graph)) {
    if (cpu && c.type.ratings.pasteApplied !== true)
      out.push({
        id: `paste:${c.id}`,
        what: "Thermal paste, one portion",
        count: 1,
        from: "shelf",
        needFor: "cooling",
        because: `${c.type.name} comes without paste; ${peakW(cpu)} W to carry.`,
      });
  }
  for (const s of radiatorSeats(graph)) {
    const missing = s.radiator.fans - s.fans.length;
    const own = s.cooler.type.leads.filter((l) => l.role === "radiator-fan" || l.role === "cpu-fan").length;
    if (missing > own)
      out.push({
        id: `radiator-fans:${s.cooler.id}`,
        what: `${s.radiator.fanMm} mm radiator fan`,
        count: missing - own,
        from: "order",
        needFor: "cooling",
        because: `${s.cooler.type.name} takes ${s.radiator.fans} fans, ${s.fans.length + own} are in the list.`,
      });
  }
  return out;
}

import { type Address, type Graph, isDone, type LeadNode, naturally, type PortNode, partsOfKind, regionOf } from "../assembly";
import { family } from "../catalogue";
import { standoffs } from "../fit";
import { throughLowNoise } from "../wiring";

export interface Step {
  id: string;
  title: string;
  detail: string;
  minutes: number;
  /** The connection this step makes, when it makes one. */
  lead?: Address;
  port?: Address;
  part?: string;
  caution?: string;
  /** What this step makes hard to reach afterwards. */
  covers?: string;
  /** Steps that must be done before. */
  after: string[];
  phase: number;
  done: boolean;
}

const CAUTION = {
  live: "Supply switch off, mains lead out, press the button once. Then plug.",
  static: "Wrist strap on, clipped to a proper earth point.",
  modular: "Only cables of this supply. If a plug resists, stop and look.",
  light: "5 V and 12 V lighting plugs are not interchangeable.",
  usb3: "Straight on, never at an angle: bent pins cannot be mended.",
  edge: "Case edges and slot covers cut.",
  board: "All screws started before any is tight; crosswise, hand-tight. Stop when the board bows.",
  sata: "SATA data plugs break easily: leave them loose.",
  cooler: "Film off the cold plate. Screws crosswise, a few turns each.",
  lift: "Card by its edges; the slot latch must click.",
} as const;

interface Draft {
  id: string;
  title: string;
  detail: string;
  minutes: number;
  phase: number;
  lead?: Address;
  port?: Address;
  part?: string;
  caution?: string;
  after?: string[];
  done: boolean;
}

/**
 * The steps of a build in an order that hands can follow: each after what it needs, and nothing covered
 * that is still needed. Steps without a connection are done when `doneSteps` names them. Once the machine has been
 * `powered`, every plug carries the mains caution.
 */
export function stepsOf(graph: Graph, doneSteps: ReadonlySet<string> = new Set(), powered = false): { steps: Step[]; conflicts: string[] } {
  const drafts = [...preparation(graph, doneSteps), ...plugs(graph)].map((d) => (powered && d.lead && !d.done ? { ...d, caution: CAUTION.live } : d));
  const ids = new Set(drafts.map((d) => d.id));
  const after = new Map(drafts.map((d) => [d.id, new Set((d.after ?? []).filter((a) => ids.has(a)))]));
  const coveredBy = cover(graph, drafts, ids, after);
  const { order, stuck } = sorted(drafts, after);
  const title = new Map(drafts.map((d) => [d.id, d.title]));
  const steps = order.map((d): Step => {
    const covered = coveredBy.get(d.id) ?? [];
    return {
      ...d,
      after: [...(after.get(d.id) ?? [])],
      ...(covered.length > 0
        ? {
            covers: `Covers ${covered.slice(0, 4).join(", ")}${covered.length > 4 ? ` and ${covered.length - 4} more` : ""}. All of them must be in.`,
          }
        : {}),
    };
  });
  return { steps, conflicts: stuck.map((s) => `${title.get(s) ?? s} needs something first that needs it first.`) };
}

const BOARD_IN = "board-in";

function preparation(graph: Graph, done: ReadonlySet<string>): Draft[] {
  const out: Draft[] = [];
  const step = (d: Omit<Draft, "done">) => out.push({ ...d, done: done.has(d.id) });
  const board = partsOfKind(graph, "board")[0];
  if (board) {
    if (board.type.ratings.looseIoShield)
      step({
        id: "io-shield",
        title: "Press the rear I/O shield into the case",
        detail: "From inside, until all four corners click. Forgotten, the board comes out again.",
        minutes: 2,
        phase: 5,
        caution: CAUTION.edge,
      });
    if (partsOfKind(graph, "case")[0]?.part.cage === "out")
      step({
        id: "cage-out",
        title: "Take the drive cage out of the case",
        detail: "The supply needs its room. Its screws and the cage go into the bag for the client.",
        minutes: 3,
        phase: 4,
        caution: CAUTION.edge,
      });
    const s = standoffs(graph);
    const names = (list: readonly { id: string }[]) => list.map((h) => h.id).join(", ");
    const moves = [s && s.remove.length > 0 ? `take out ${names(s.remove)}` : "", s && s.add.length > 0 ? `add ${names(s.add)}` : ""].filter(Boolean);
    step({
      id: "standoffs",
      title: moves.length > 0 ? `Standoffs: ${moves.join(", ")}` : `Check the standoffs: ${board.type.body.holes.length} for this board`,
      detail: `One under each hole of ${board.type.name}, none anywhere else under the board.`,
      minutes: 3,
      phase: 6,
    });
    step({
      id: BOARD_IN,
      title: "Lay the board into the case and screw it down",
      detail: `${board.type.name}, ${board.type.body.holes.length - (s?.posts.length ?? 0)} screws${s && s.posts.length > 0 ? `; none at the fixed post ${names(s.posts)}` : ""}.`,
      minutes: 8,
      phase: 60,
      caution: CAUTION.board,
      after: ["io-shield", "standoffs"],
    });
  }
  for (const p of [...partsOfKind(graph, "fan")].sort((a, b) => naturally(a.id, b.id))) {
    if (p.part.zone === "radiator") continue;
    step({
      id: `mount:${p.id}`,
      part: p.id,
      title: `Fit ${p.part.label ?? p.type.name} at the ${regionOf(graph, p) ?? "case"}`,
      detail: "Air leaves on the side with the struts; go by the arrow. Lead towards the cable side. Four screws, loose until all are started.",
      minutes: 3,
      phase: 50,
    });
  }
  for (const p of partsOfKind(graph, "lighting"))
    step({
      id: `mount:${p.id}`,
      part: p.id,
      title: `Fix ${p.part.label ?? p.type.name}`,
      detail: "Wipe the metal first; lead towards the cable side.",
      minutes: 2,
      phase: 52,
    });
  for (const p of partsOfKind(graph, "hub"))
    step({
      id: `mount:${p.id}`,
      part: p.id,
      title: `Fix ${p.part.label ?? p.type.name} behind the tray`,
      detail: "Sockets towards the cut-outs.",
      minutes: 2,
      phase: 53,
    });
  for (const p of partsOfKind(graph, "supply"))
    step({
      id: `mount:${p.id}`,
      part: p.id,
      title: "Slide the power supply in",
      detail: `${p.type.name}. Fan towards the vent, four screws. Its cables go on first where the bay is tight.`,
      minutes: 6,
      phase: 95,
      caution: CAUTION.live,
    });
  for (const p of partsOfKind(graph, "cooler")) {
    const liquid = [...graph.parts.values()].some((f) => f.part.zone === "radiator");
    step({
      id: `mount:${p.id}`,
      part: p.id,
      title: liquid ? "Fix the radiator with its fans, then the pump head" : `Fix ${p.part.label ?? p.type.name}`,
      detail: p.type.ratings.pasteApplied ? "Paste is on the plate. Do not touch it." : "A pea of paste in the middle of the CPU.",
      minutes: liquid ? 15 : 8,
      phase: liquid ? 130 : 40,
      caution: CAUTION.cooler,
      after: [...(liquid ? [BOARD_IN] : []), ...seatSteps(graph, "cpu")],
    });
  }
  for (const p of partsOfKind(graph, "drive")) {
    if (p.type.leads.some((l) => l.role === "seat")) continue;
    step({
      id: `mount:${p.id}`,
      part: p.id,
      title: `Slide ${p.part.label ?? p.type.name} into its cage`,
      detail: "Plugs in first where no hand fits behind it.",
      minutes: 2,
      phase: 155,
    });
  }
  step({
    id: "look",
    title: "Look once more before power",
    detail: "Nothing loose, no screw left in the case, no cable near a fan. Monitor on the right socket.",
    minutes: 3,
    phase: 200,
  });
  return out;
}

const seatSteps = (graph: Graph, kind: "cpu" | "memory") =>
  partsOfKind(graph, kind).flatMap((p) => p.type.leads.filter((l) => l.role === "seat").map((l) => `plug:${p.id}:${l.id}`));

function phaseOf(graph: Graph, l: LeadNode, p: PortNode): number {
  const own = family(l.lead.family).turn;
  if (own !== undefined) return own;
  if (l.lead.family === "usb2") return l.part.type.kind === "case" ? 72 : 142;
  if (p.port.role === "graphics-power") return 190;
  if (l.lead.flow === "out") return 150;
  if (l.lead.role === "pump" || l.lead.role === "cooler-speed" || p.port.coveredBy.includes("radiator")) return 120;
  if (l.loom === "fans") return graph.parts.get(p.part.id)?.type.kind === "board" ? 140 : 138;
  return 160;
}

function place(l: LeadNode, place: number[] | undefined): string {
  if (!place) return "";
  if (l.lead.family === "usb2") return place.length === 2 ? "" : place[0] === 1 ? ", the half with pin 1" : ", the other half";
  const pins = place.filter((_, i) => l.lead.positions?.[i] !== "blank");
  return `, ${pins.length > 1 ? "pins" : "pin"} ${pins.join(" and ")}`;
}

const reached = (p: PortNode) =>
  family(p.port.family).side === "behind" && !["board", "card"].includes(p.part.type.kind) ? " From behind the tray." : "";

function where(graph: Graph, p: PortNode): string {
  const r = graph.boardRect;
  if (p.part.type.kind !== "board" || !r) return "";
  const x = (p.at.xMm - r.xMm) / r.widthMm;
  const y = (p.at.yMm - r.yMm) / r.heightMm;
  const edge = y < 0.08 ? "top edge" : y > 0.92 ? "bottom edge" : x > 0.92 ? "front edge" : x < 0.1 ? "rear edge" : "inside the board";
  const side =
    edge.startsWith("top") || edge.startsWith("bottom")
      ? x < 0.34
        ? ", left third"
        : x > 0.66
          ? ", right third"
          : ", middle"
      : y < 0.34
        ? ", upper third"
        : y > 0.66
          ? ", lower third"
          : ", middle";
  return ` (${edge}${side}, rear sockets to the left)`;
}

function plugs(graph: Graph): Draft[] {
  return graph.connections.flatMap((c): Draft[] => {
    const l = graph.leads.get(c.lead);
    const p = graph.ports.get(c.port);
    if (!l || !p) return [];
    const seat = l.loom === "seat" || l.lead.family === "m2";
    const isRoot = l.lead.role === "cable-root";
    const verb = seat
      ? `Put ${l.name} into ${p.name}`
      : isRoot
        ? `Plug ${l.part.part.label}, supply end, into ${p.port.label}`
        : `Plug ${l.lead.flow === "out" ? l.lead.label : l.name} into ${p.name}${place(l, c.place)}${throughLowNoise(l) ? ", its low-noise lead between" : ""}`;
    const caution =
      l.loom === "seat"
        ? l.lead.family === "pcie-slot"
          ? CAUTION.lift
          : CAUTION.static
        : isRoot
          ? CAUTION.modular
          : l.lead.family === "usb3-20"
            ? CAUTION.usb3
            : l.lead.family === "sata-data"
              ? CAUTION.sata
              : l.loom === "lighting"
                ? CAUTION.light
                : l.loom === "power"
                  ? CAUTION.live
                  : undefined;
    const after = [
      ...(p.part.type.kind === "board" && !seat ? [BOARD_IN] : []),
      ...(l.lead.family === "pcie-slot" ? [BOARD_IN] : []),
      ...(p.port.role === "graphics-power" ? p.part.type.leads.filter((x) => x.role === "seat").map((x) => `plug:${p.part.id}:${x.id}`) : []),
      ...(["fan", "lighting", "hub"].includes(l.part.type.kind) && l.part.part.zone !== "radiator" ? [`mount:${l.part.id}`] : []),
    ];
    return [
      {
        id: `plug:${c.lead}`,
        lead: c.lead,
        port: c.port,
        title: verb,
        minutes: seat ? 3 : 1,
        phase: phaseOf(graph, l, p),
        after,
        detail:
          `${l.tag}${where(graph, p)}. ${family(p.port.family).keyedBy ? `Keyed by ${family(p.port.family).keyedBy}.` : ""}${reached(p)}`.trim(),
        ...(caution ? { caution } : {}),
        done: isDone(c),
      },
    ];
  });
}

/** Work on a covered port comes before what covers it. Returns, per covering step, the names it covers. */
function cover(graph: Graph, drafts: readonly Draft[], ids: ReadonlySet<string>, after: Map<string, Set<string>>): Map<string, string[]> {
  const out = new Map<string, string[]>();
  const liquid = [...graph.parts.values()].some((p) => p.part.zone === "radiator");
  const coverers: Record<string, string[]> = {
    card: partsOfKind(graph, "card").map((p) => `plug:${p.id}:${p.type.leads.find((l) => l.role === "seat")?.id ?? ""}`),
    cooler: liquid ? [] : partsOfKind(graph, "cooler").map((p) => `mount:${p.id}`),
    radiator: liquid ? partsOfKind(graph, "cooler").map((p) => `mount:${p.id}`) : [],
    supply: partsOfKind(graph, "supply").map((p) => `mount:${p.id}`),
  };
  for (const d of drafts) {
    const p = d.port === undefined ? undefined : graph.ports.get(d.port);
    for (const what of p?.port.coveredBy ?? []) {
      for (const by of coverers[what] ?? []) {
        if (!ids.has(by) || by === d.id) continue;
        after.get(by)?.add(d.id);
        out.set(by, [...(out.get(by) ?? []), p?.port.label ?? ""]);
      }
    }
  }
  return out;
}

/** Kahn's algorithm; among what is ready the lowest phase goes first, then the natural order of names. */
function sorted(drafts: readonly Draft[], after: Map<string, Set<string>>): { order: Draft[]; stuck: string[] } {
  const left = new Map(drafts.map((d) => [d.id, d]));
  const placed = new Set<string>();
  const order: Draft[] = [];
  while (left.size > 0) {
    const ready = [...left.values()].filter((d) => [...(after.get(d.id) ?? [])].every((a) => placed.has(a)));
    const next = ready.sort((a, b) => a.phase - b.phase || naturally(a.port ?? a.id, b.port ?? b.id) || naturally(a.id, b.id))[0];
    if (!next) return { order: [...order, ...left.values()], stuck: [...left.keys()] };
    order.push(next);
    placed.add(next.id);
    left.delete(next.id);
  }
  return { order, stuck: [] };
}

import { assumedIn, boardPorts, cpuCoolers, type Graph, kept, type PartNode, partsOfKind, type RestsOn } from "../assembly";
import type { PartKind } from "../catalogue";
import { behindThePanel, supplies } from "./cage";
import { SLOT_PITCH_MM, slotOf, slotsTaken } from "./cards";
import { type Clearance, clearance, nameOf, round } from "./clearance";
import { inFrontOfCard } from "./fans";
import { type RadiatorSeat, radiatorSeats } from "./radiators";
import { sides } from "./tubes";

/** A memory slot with its latches, seen from above; DDR4 and DDR5 modules are 133.35 mm long (JEDEC, from memory). */
const MEMORY_SLOT_MM = 133.35;

const GROUPS = {
  cards: { reads: ["case", "board", "card", "fan", "cooler"], work: (graph: Graph, shell: PartNode) => cards(graph, shell) },
  coolers: { reads: ["case", "cooler"], work: (graph: Graph, shell: PartNode) => coolers(graph, shell) },
  memory: { reads: ["case", "memory", "cooler"], work: (graph: Graph) => memoryUnderCooler(graph) },
  radiators: {
    reads: ["case", "cooler", "fan", "memory", "board", "card"],
    work: (graph: Graph) => radiatorSeats(graph).flatMap((s) => radiators(graph, s)),
  },
  supplies: { reads: ["case", "supply", "drive"], work: (graph: Graph, shell: PartNode) => supplies(graph, shell) },
  front: { reads: ["case", "fan"], work: (graph: Graph, shell: PartNode) => behindThePanel(graph, shell) },
} satisfies Record<string, { reads: PartKind[]; work: (graph: Graph, shell: PartNode) => Clearance[] }>;
export type FitGroup = keyof typeof GROUPS;
const ALL = Object.keys(GROUPS) as FitGroup[];
const NAMES = Object.fromEntries(ALL.map((g) => [g, `clearances:${g}`])) as Record<FitGroup, string>;

/** Every clearance of the build that its catalogue entries say enough about, worst first; or those of some groups. */
export function clearances(graph: Graph, groups: readonly FitGroup[] = ALL): Clearance[] {
  return toldApart(
    graph,
    groups.flatMap((g) => ofGroup(graph, g)),
  ).sort(worstFirst);
}

/** Several of one kind are named by the part that goes in. */
function toldApart(graph: Graph, list: readonly Clearance[]): Clearance[] {
  const times = new Map<string, number>();
  for (const c of list) times.set(c.what, (times.get(c.what) ?? 0) + 1);
  return list.map((c) => {
    const part = graph.parts.get(c.parts[0] ?? "");
    return part && (times.get(c.what) ?? 0) > 1 ? { ...c, what: `${c.what}, ${nameOf(part)}` } : c;
  });
}

/** What is left, in mm whatever it is counted in. */
const leftMm = (c: Clearance): number => (c.unit === "slots" ? c.left * SLOT_PITCH_MM : c.left);
const worstFirst = (a: Clearance, b: Clearance) => leftMm(a) - leftMm(b) || (a.id < b.id ? -1 : 1);

function ofGroup(graph: Graph, group: FitGroup): readonly Clearance[] {
  const shell = partsOfKind(graph, "case")[0];
  return shell ? kept(graph, NAMES[group], GROUPS[group].reads, () => GROUPS[group].work(graph, shell).map((c) => withAssumed(graph, c))) : [];
}

/** Figures that a clearance is measured by. */
const RESTS: Readonly<Record<string, RestsOn>> = {
  "card-length": { card: ["lengthMm"], case: ["cardMm"] },
  "card-width": { card: ["slots"] },
  "card-vertical": { card: ["slots", "lengthMm"] },
  "cooler-height": { cooler: ["heightMm"], case: ["coolerMm"] },
  "memory-under-cooler": { memory: ["heightMm"], cooler: ["heightMm"] },
  "memory-under-radiator": { memory: ["heightMm"], cooler: ["thickMm"] },
  "radiator-length": { cooler: ["radiatorMm"], case: ["top", "front"] },
  "radiator-thickness": { cooler: ["thickMm"], case: ["topThickMm"] },
  "supply-length": { supply: ["lengthMm"], case: ["supplyMm"] },
};
function withAssumed(graph: Graph, c: Clearance): Clearance {
  const rests = RESTS[c.id.split(":")[0] ?? ""];
  const assumed = rests ? assumedIn(graph, rests, c.parts) : [];
  return assumed.length > 0 ? { ...c, assumed } : c;
}

/** Clearances of some groups that do not hold, or only just: worst first. */
export const tightOrWorse = (graph: Graph, groups: readonly FitGroup[]): Clearance[] =>
  groups.flatMap((g) => ofGroup(graph, g).filter((c) => c.verdict !== "fits")).sort(worstFirst);

/** The worst of all. */
export function worstClearance(graph: Graph): Clearance | undefined {
  let worst: Clearance | undefined;
  for (const g of ALL) for (const c of ofGroup(graph, g)) if (!worst || worstFirst(c, worst) < 0) worst = c;
  return worst;
}

function cards(graph: Graph, shell: PartNode): Clearance[] {
  const { body } = shell.type;
  return partsOfKind(graph, "card").flatMap((card): Clearance[] => {
    const b = card.type.body;
    const out: Clearance[] = [];
    if (card.part.vertical) return verticalCard(graph, card, shell);
    const seat = slotOf(graph, card);
    const y = seat?.at.yMm ?? card.origin.yMm;
    const boardX = graph.boardRect?.xMm ?? 0;
    const thick = slotsTaken(card) * SLOT_PITCH_MM;
    if (b.widthMm !== undefined && body.maxCardMm !== undefined) {
      const front = inFrontOfCard(graph, y, y + thick);
      const taken = Math.max(0, ...front.map((f) => f.takesMm));
      out.push(
        clearance({
          id: `card-length:${card.id}`,
          what: "Card length",
          parts: [card.id, ...front.filter((f) => f.takesMm > 0).map((f) => f.part.id)],
          need: b.widthMm,
          has: body.maxCardMm - taken,
          subject: `${nameOf(card)} (${b.widthMm} mm)`,
          room:
            taken > 0
              ? `between the rear and the front ${front.some((f) => f.radiator) ? "radiator" : "fans"} (${body.maxCardMm} - ${taken} mm)`
              : "the case",
          ifIgnored: "Found at the last step, with everything else wired.",
          line: { from: { xMm: boardX + b.widthMm, yMm: y + thick / 2 }, to: { xMm: boardX + body.maxCardMm - taken, yMm: y + thick / 2 } },
        }),
      );
    }
    if (b.slots !== undefined && body.slots !== undefined && graph.boardRect) {
      const index = seat ? Math.max(0, Math.round((seat.at.yMm - (firstSlotY(graph) ?? seat.at.yMm)) / SLOT_PITCH_MM)) : 0;
      out.push(
        clearance({
          id: `card-width:${card.id}`,
          what: "Card width",
          parts: [card.id],
          unit: "slots",
          need: b.slots,
          has: body.slots - index,
          subject: `${nameOf(card)} (${b.slots} ${b.slots === 1 ? "slot" : "slots"})`,
          room: `the covers below ${seat?.port.label ?? "its slot"}`,
          ifIgnored: "It covers the slot below, or presses on the floor of the case.",
        }),
      );
    }
    return out;
  });
}

/** What a riser bends away at its two ends, mm together (common practice). */
const RISER_BENDS_MM = 40;

/** The riser that a card on the vertical mount needs, mm, from its slot to the mount; undefined when the case does not say where it is. */
export function riserNeedMm(graph: Graph, card: PartNode): number | undefined {
  const at = partsOfKind(graph, "case")[0]?.type.body.vertical?.at;
  const slot = slotOf(graph, card);
  if (!at || !slot) return undefined;
  return Math.abs(at.xMm - slot.at.xMm) + Math.abs(at.yMm - slot.at.yMm) + RISER_BENDS_MM;
}

function verticalCard(graph: Graph, card: PartNode, shell: PartNode): Clearance[] {
  const mount = shell.type.body.vertical;
  const b = card.type.body;
  if (!mount || b.slots === undefined) return [];
  const needMm = riserNeedMm(graph, card);
  return [
    ...(needMm === undefined || mount.riserMm === undefined
      ? []
      : [
          clearance({
            id: `riser:${card.id}`,
            what: "Riser",
            parts: [card.id],
            need: needMm,
            has: mount.riserMm,
            subject: "The riser of the case",
            room: "from the slot to the vertical mount, bends included",
            ifIgnored: "It pulls on the slot, or does not reach.",
          }),
        ]),
    clearance({
      id: `card-vertical:${card.id}`,
      what: "Card on the vertical mount",
      parts: [card.id],
      need: b.slots * SLOT_PITCH_MM,
      has: mount.thicknessMm,
      subject: `${nameOf(card)} (${b.slots} slots)`,
      room: "between the vertical mount and the side panel",
      ifIgnored: "Its fans stand against the glass and get no air.",
    }),
  ];
}

const firstSlotY = (graph: Graph) => boardPorts(graph, "expansion")[0]?.at.yMm;

function coolers(graph: Graph, shell: PartNode): Clearance[] {
  const has = shell.type.body.maxCoolerMm;
  return cpuCoolers(graph).flatMap((c) => {
    if (has === undefined || c.type.body.heightMm === undefined) return [];
    // A fan clipped higher stands over the heatsink by as much (common practice: it ends level with it).
    const need = c.type.body.heightMm + (c.part.fanUpMm ?? 0);
    return [
      clearance({
        id: `cooler-height:${c.id}`,
        what: "Cooler height",
        parts: [c.id],
        need,
        has,
        subject: `${nameOf(c)} (${need} mm)`,
        room: "under the side panel",
        ifIgnored: "The panel does not close.",
      }),
    ];
  });
}

function memoryUnderCooler(graph: Graph): Clearance[] {
  const modules = partsOfKind(graph, "memory").filter((m) => m.type.body.heightMm !== undefined);
  const tallest = modules.reduce<PartNode | undefined>((a, m) => ((m.type.body.heightMm ?? 0) > (a?.type.body.heightMm ?? 0) ? m : a), undefined);
  return cpuCoolers(graph).flatMap((c) => {
    if (c.type.body.underMm === undefined || !tallest) return [];
    const has = c.type.body.underMm + (c.part.fanUpMm ?? 0);
    return [
      clearance({
        id: `memory-under-cooler:${c.id}`,
        what: "Memory under the cooler",
        parts: [...new Set(modules.map((m) => m.id)), c.id],
        need: tallest.type.body.heightMm ?? 0,
        has,
        subject: `Memory (${tallest.type.body.heightMm} mm high)`,
        room: `under ${nameOf(c)}`,
        ifIgnored: "The cooler does not sit flat, or its fan stands higher than the case allows.",
      }),
    ];
  });
}

function radiators(graph: Graph, seat: RadiatorSeat): Clearance[] {
  const { cooler, radiator, place, fanDepthMm } = seat;
  const name = nameOf(cooler);
  if (!place) return [];
  const stackMm = radiator.thicknessMm + fanDepthMm;
  const out = [
    clearance({
      id: `radiator-length:${cooler.id}`,
      what: "Radiator length",
      parts: [cooler.id],
      need: radiator.lengthMm,
      has: place.maxLengthMm,
      subject: `${name} (${radiator.lengthMm} mm)`,
      room: `at the ${place.label}`,
      ifIgnored: "It does not go in, or presses on the frame.",
    }),
    clearance({
      id: `radiator-thickness:${cooler.id}`,
      what: "Radiator with fans",
      parts: [cooler.id, ...seat.fans.map((f) => f.id)],
      need: stackMm,
      has: place.maxThicknessMm,
      subject: `${name} with its fans (${radiator.thicknessMm} + ${fanDepthMm} mm)`,
      room: `at the ${place.label}`,
      ifIgnored: "Fans or tubes meet the board.",
    }),
  ];
  const [side] = sides(graph, seat);
  if (side) {
    out.push(
      clearance({
        id: `tubes:${cooler.id}`,
        what: "Tubes",
        parts: [cooler.id],
        need: side.reachMm,
        has: radiator.tubeMm,
        subject: `The tubes of ${name}`,
        many: true,
        room: `from the CPU to the ${side.end} end of the ${place.label} place`,
        ifIgnored: "The tubes kink or do not reach.",
      }),
    );
  }
  const memory = partsOfKind(graph, "memory").filter((m) => m.type.body.heightMm !== undefined);
  const slot = boardPorts(graph, "memory")[0];
  if (place.region === "top" && place.overBoardMm !== undefined && memory.length > 0 && slot && graph.boardRect) {
    // How far radiator and fans hang over the board, against where the modules begin.
    const hangsMm = stackMm - place.overBoardMm;
    const modulesAtMm = slot.at.yMm - MEMORY_SLOT_MM / 2 - graph.boardRect.yMm;
    const tallest = Math.max(...memory.map((m) => m.type.body.heightMm ?? 0));
    const passes = place.offsetMm !== undefined && tallest <= place.offsetMm;
    if (!passes)
      out.push(
        clearance({
          id: `memory-under-radiator:${cooler.id}`,
          what: "Memory below the top radiator",
          parts: [...memory.map((m) => m.id), cooler.id],
          need: Math.max(0, hangsMm),
          has: modulesAtMm,
          subject: `The radiator hangs ${round(Math.max(0, hangsMm))} mm over the board and`,
          room: "above the memory, which is taller than the radiator stands off",
          ifIgnored: "The fans press on the memory; the radiator is hung again.",
        }),
      );
  }
  return out;
}

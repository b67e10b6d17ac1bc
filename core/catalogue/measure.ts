import type { PartType } from "./part-type";

/** A length of a part that hands can measure, mm. */
export interface Measurable {
  /** `heightMm`, `radiator.thicknessMm`, `lead:fan`, `end:sata-power:2`. */
  what: string;
  word: string;
  /** As its entry has it; left out where it has none. */
  mm?: number;
}

type BodyLength = {
  [K in keyof PartType["body"]]-?: NonNullable<PartType["body"][K]> extends number ? K : never;
}[keyof PartType["body"]];

/** The lengths of a body that something is worked out from, by kind. */
const BODY: Partial<Record<PartType["kind"], readonly (readonly [BodyLength, string])[]>> = {
  case: [
    ["maxCardMm", "Room for a card"],
    ["maxCoolerMm", "Room for a cooler"],
    ["maxSupplyMm", "Room for a supply, cage out"],
    ["maxSupplyWithCageMm", "Room for a supply, cage in"],
    ["behindTrayMm", "Behind the tray"],
    ["frontGapMm", "Behind the front panel"],
  ],
  cooler: [
    ["heightMm", "Height"],
    ["underMm", "Room for memory under it"],
  ],
  memory: [["heightMm", "Height"]],
  card: [
    ["widthMm", "Length"],
    ["depthMm", "Height over the board"],
  ],
  supply: [
    ["depthMm", "Length"],
    ["heightMm", "Height"],
  ],
  fan: [
    ["widthMm", "Size"],
    ["depthMm", "Thickness"],
  ],
};

const RADIATOR = [
  ["lengthMm", "Radiator, length"],
  ["thicknessMm", "Radiator, thickness"],
  ["tubeMm", "Tubes"],
] as const;

/** What can be measured on a part of this type: its lengths, its leads and its cables. */
export function measurable(type: PartType): Measurable[] {
  const { body } = type;
  const own = (BODY[type.kind] ?? []).map(([what, word]): Measurable => ({ what, word, ...given(body[what]) }));
  const radiator = body.radiator ? RADIATOR.map(([f, word]): Measurable => ({ what: `radiator.${f}`, word, mm: body.radiator?.[f] ?? 0 })) : [];
  const leads = type.leads.flatMap((l): Measurable[] => (l.lengthMm > 0 ? [{ what: `lead:${l.id}`, word: `Lead: ${l.label}`, mm: l.lengthMm }] : []));
  const ends = type.cables.flatMap((c) =>
    c.ends.map(
      (e, i): Measurable => ({ what: `end:${c.id}:${e.id}`, word: c.ends.length > 1 ? `${c.label}, to plug ${i + 1}` : c.label, mm: e.atMm }),
    ),
  );
  return [...own, ...radiator, ...leads, ...ends];
}

const given = (mm: number | undefined) => (mm === undefined ? {} : { mm });

/** What a hand measured on one part, mm. */
export interface Measured {
  what: string;
  mm: number;
}

/** The type as this one part really is. What it does not have is left alone. */
export function withMeasured(type: PartType, measured: readonly Measured[] | undefined): PartType {
  if (!measured || measured.length === 0) return type;
  const known = made.get(type) ?? new Map<string, PartType>();
  made.set(type, known);
  const key = measured.map((m) => `${m.what}=${m.mm}`).join(" ");
  const out = known.get(key) ?? measured.reduce(put, type);
  // A type of one part: few are measured more than a few times.
  if (known.size > MOST_KEPT) known.clear();
  known.set(key, out);
  return out;
}

/** The same type with the same measures is the same object, so that what was worked out from it still holds. */
const made = new WeakMap<PartType, Map<string, PartType>>();
const MOST_KEPT = 50;

function put(type: PartType, { what, mm }: Measured): PartType {
  const [kind, first, second] = what.split(":");
  if (kind === "lead") return { ...type, leads: type.leads.map((l) => (l.id === first ? { ...l, lengthMm: mm } : l)) };
  if (kind === "end")
    return {
      ...type,
      cables: type.cables.map((c) => (c.id === first ? { ...c, ends: c.ends.map((e) => (e.id === second ? { ...e, atMm: mm } : e)) } : c)),
    };
  const { body } = type;
  const field = RADIATOR.find(([f]) => `radiator.${f}` === what)?.[0];
  if (field && body.radiator) return { ...type, body: { ...body, radiator: { ...body.radiator, [field]: mm } } };
  return BODY[type.kind]?.some(([f]) => f === what) ? { ...type, body: { ...body, [what]: mm } } : type;
}

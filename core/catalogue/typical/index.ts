import { type PartKind, PartType } from "../part-type";
import { BOARD } from "./board";
import { CASE } from "./case";
import type { Beside, Figure, FigureValue, TypicalKind, Values } from "./kind";
import { CARD, COOLER, SUPPLY } from "./large-parts";
import { CPU, DRIVE, FAN_KIND, HUB, LIGHTING, MEMORY, SPLITTER } from "./small-parts";

export type { Beside, Figure, FigureValue, Values } from "./kind";

const KINDS: Partial<Record<PartKind, TypicalKind>> = {
  board: BOARD,
  case: CASE,
  card: CARD,
  cooler: COOLER,
  cpu: CPU,
  drive: DRIVE,
  fan: FAN_KIND,
  hub: HUB,
  lighting: LIGHTING,
  memory: MEMORY,
  splitter: SPLITTER,
  supply: SUPPLY,
};

/** Kinds of which a provisional part can be made. */
export const TYPICAL_KINDS = Object.keys(KINDS) as PartKind[];
export const figuresOf = (kind: PartKind): readonly Figure[] => KINDS[kind]?.figures ?? [];

const valuesOf = (t: Pick<PartType, "figures">): Values => Object.fromEntries(Object.entries(t.figures ?? {}).map(([id, f]) => [id, f.value]));

function made(kind: PartKind, head: Pick<PartType, "id" | "maker" | "name" | "revision">, figures: NonNullable<PartType["figures"]>): PartType {
  const k = KINDS[kind];
  if (!k) throw new Error(`no ${kind} is typical`);
  return PartType.parse({ ...head, kind, figures, ...k.make(valuesOf({ figures })) });
}

/**
 * A part that nobody knows but from some words: what is said of it stands, the rest is as it usually is.
 * @throws for a kind of which nothing is typical (see `TYPICAL_KINDS`).
 */
export function provisional(kind: PartKind, head: { id: string; maker?: string; name: string }, said: Values, beside: Beside): PartType {
  const k = KINDS[kind];
  if (!k) throw new Error(`no ${kind} is typical`);
  const usual = k.typical(said, beside);
  const figures = Object.fromEntries(
    Object.entries(usual).map(([id, u]): [string, NonNullable<PartType["figures"]>[string]] =>
      said[id] === undefined ? [id, { value: u.value, is: "typical", from: u.rule }] : [id, { value: said[id] as FigureValue, is: "said" }],
    ),
  );
  return made(kind, { id: head.id, maker: head.maker ?? "", name: head.name, revision: 1 }, figures);
}

/** Is anything of it only taken to be so? */
export const isProvisional = (t: PartType): boolean => Object.values(t.figures ?? {}).some((f) => f.is === "typical");
/** Figures that nobody has confirmed. */
export const assumed = (t: PartType): Figure[] => figuresOf(t.kind).filter((f) => t.figures?.[f.id]?.is === "typical");

/** The same part with one figure otherwise: tried, or as somebody says it is. */
export function withFigure(
  t: PartType,
  id: string,
  value: FigureValue,
  is: "typical" | "said" | "measured" | "confirmed" = "typical",
  note: { by?: string; at?: string } = {},
): PartType {
  const had = t.figures?.[id];
  if (!t.figures || !had) return t;
  const figures = { ...t.figures, [id]: { value, is, ...(is === "typical" && had.from ? { from: had.from } : {}), ...note } };
  return made(t.kind, t, figures);
}
/** What a figure may plausibly be besides what stands. */
export const rangeOf = (t: PartType, f: Figure): readonly FigureValue[] => f.range(valuesOf(t));

/** A figure in words: "3 slots", "yes", "DDR5". */
export function figureWords(f: Figure, value: FigureValue): string {
  if (typeof value === "boolean") return value ? "yes" : "no";
  return f.unit ? `${value} ${f.unit}` : String(value);
}

import { type PartKind, PartType } from "../part-type";
import { BOARD } from "./board";
import { CARD } from "./card";
import { CASE } from "./case";
import { COOLER } from "./cooler";
import { CPU } from "./cpu";
import { DRIVE } from "./drive";
import { FAN_KIND } from "./fan";
import { HUB } from "./hub";
import type { Beside, Figure, FigureValue, TypicalKind, Values } from "./kind";
import { LIGHTING } from "./lighting";
import { MEMORY } from "./memory";
import { SPLITTER } from "./splitter";
import { SUPPLY } from "./supply";

export type { Beside, Figure, FigureValue, Values } from "./kind";
export { figureOfPort, type ManualLine, MOST_MANUAL_LINES, manualLines } from "./manual";

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
/** What else usually lies in the box of such a part (common practice). */
export const comesAlong = (kind: PartKind): readonly string[] => KINDS[kind]?.along ?? [];
export const figuresOf = (kind: PartKind): readonly Figure[] => KINDS[kind]?.figures ?? [];

const valuesOf = (t: Pick<PartType, "figures">): Values => Object.fromEntries(Object.entries(t.figures ?? {}).map(([id, f]) => [id, f.value]));

type Head = Pick<PartType, "id" | "maker" | "name" | "revision"> & Partial<Pick<PartType, "placed">>;

function made(kind: PartKind, { id, maker, name, revision, placed }: Head, figures: NonNullable<PartType["figures"]>): PartType {
  const k = KINDS[kind];
  if (!k) throw new Error(`no ${kind} is typical`);
  const { ports, body, ...more } = k.make(valuesOf({ figures }));
  const at = <X extends { id: string; at?: unknown; label?: string }>(x: X): X => {
    const p = placed?.[x.id];
    if (!p) return x;
    const was = (x.at ?? {}) as { xMm?: number; yMm?: number };
    return { ...x, ...(p.label ? { label: p.label } : {}), ...(x.at ? { at: { xMm: p.xMm ?? was.xMm, yMm: p.yMm ?? was.yMm } } : {}) };
  };
  return PartType.parse({
    id,
    maker,
    name,
    revision,
    ...(placed && Object.keys(placed).length > 0 ? { placed } : {}),
    kind,
    figures,
    ...more,
    ports: ports.map(at),
    body: { ...body, ...(body.mounts ? { mounts: body.mounts.map(at) } : {}) },
  });
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

/**
 * A part as somebody counts it: what was counted is confirmed, by whom and when; the rest is as that of one alike, or as it usually is.
 * @throws for a kind of which nothing is typical, and for values that no part can have.
 */
export function counted(
  kind: PartKind,
  head: Head,
  given: Values,
  { alike, by, at }: { alike?: PartType | undefined; by?: string; at?: string } = {},
): PartType {
  const k = KINDS[kind];
  if (!k) throw new Error(`no ${kind} is typical`);
  const like = alike?.kind === kind ? (alike.figures ?? {}) : {};
  const known = { ...Object.fromEntries(Object.entries(like).map(([id, f]) => [id, f.value])), ...given };
  const figures = Object.fromEntries(
    Object.entries(k.typical(known, {})).map(([id, u]): [string, NonNullable<PartType["figures"]>[string]] =>
      given[id] !== undefined
        ? [id, { value: given[id] as FigureValue, is: "confirmed", ...(by ? { by } : {}), ...(at ? { at } : {}) }]
        : like[id]
          ? [id, { value: like[id].value, is: "typical", from: `as ${alike?.name ?? "one alike"} has it`.slice(0, 200) }]
          : [id, { value: u.value, is: "typical", from: u.rule }],
    ),
  );
  return made(kind, head, figures);
}
/** Headings under which one counts a kind, with their figures. */
export function groupsOf(kind: PartKind): { word: string; figures: Figure[] }[] {
  const k = KINDS[kind];
  if (!k) return [];
  const byId = new Map(k.figures.map((f) => [f.id, f]));
  const under = new Set(Object.values(k.groups ?? {}).flat());
  return [
    { word: "", figures: k.figures.filter((f) => !under.has(f.id)) },
    ...Object.entries(k.groups ?? {}).map(([word, ids]) => ({ word, figures: ids.flatMap((id) => byId.get(id) ?? []) })),
  ].filter((g) => g.figures.length > 0);
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

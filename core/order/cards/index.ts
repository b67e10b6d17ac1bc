import { type Minutes, POSTURE_WORDS, type Posture, type Step } from "../model";
import { type Where, type WhereAt, whereKey } from "../where";
import { CARD } from "./card";
import { CASE } from "./case";
import { COOLING } from "./cooling";
import { DRIVES } from "./drives";
import { FIXED } from "./fixed";
import { GATE } from "./gate";
import type { CardKind, CardOf, Cards } from "./kind";
import { LEADS } from "./leads";
import { PLUGS } from "./plugs";
import { SUPPLY } from "./supply";
import { TABLE } from "./table";

export type { CardKind } from "./kind";

/** What hands do in one go: one card of the bench, and of the order's strip. */
export interface Card {
  /** Its first step names it: as long as that is not done it stays the same card. */
  id: string;
  kind: CardKind;
  title: string;
  steps: Step[];
  posture?: Posture;
  /** The case is turned before it. */
  turn?: Posture;
  minutes: Minutes;
  done: boolean;
}

/** Every place has a card. Adding one is adding it to core/order/where.ts and its card here. */
const CARDS: Cards<WhereAt> = { ...TABLE, ...CASE, ...COOLING, ...FIXED, ...SUPPLY, ...LEADS, ...PLUGS, ...DRIVES, ...CARD, ...GATE };

/** One step names itself; several are what their place makes of them. */
function titleOf(steps: readonly Step[]): { kind: CardKind; title: string } {
  const [first] = steps;
  if (!first) return { kind: "step", title: "" };
  if (first.kind === "gate") return { kind: "gate", title: first.title };
  if (steps.length === 1) return { kind: "step", title: first.title };
  const { kind, title } = CARDS[first.where.at] as CardOf;
  return { kind: typeof kind === "string" ? kind : kind(steps), title: title(steps, first.where as Where) };
}

/** Steps that follow one another at one place are one card; a turn of the case begins a new one. */
export function cardsOf(steps: readonly Step[], blocks: readonly Posture[]): Card[] {
  const out: Card[] = [];
  let at: { steps: Step[]; key: string } | undefined;
  const groups: Step[][] = [];
  for (const s of steps) {
    const key = `${s.block} ${whereKey(s.where)}`;
    if (at?.key === key) at.steps.push(s);
    else {
      at = { steps: [s], key };
      groups.push(at.steps);
    }
  }
  let lies: Posture | undefined = blocks[0];
  for (const list of groups) {
    const first = list[0] as Step;
    const posture = list.find((s) => s.posture)?.posture;
    const sum = (of: keyof Minutes) => Math.round(list.reduce((n, s) => n + s.minutes[of], 0) * 10) / 10;
    out.push({
      id: first.id,
      ...titleOf(list),
      steps: list,
      ...(posture ? { posture } : {}),
      ...(posture && posture !== lies ? { turn: posture } : {}),
      minutes: { handsOn: sum("handsOn"), unattended: sum("unattended") },
      done: list.every((s) => s.done),
    });
    if (posture) lies = posture;
  }
  return numbered(out);
}

/** No two cards have the same title: who has pressed Done sees that another one came. */
function numbered(cards: readonly Card[]): Card[] {
  const all = new Map<string, Card[]>();
  for (const c of cards) all.set(c.title, [...(all.get(c.title) ?? []), c]);
  return cards.map((c) => {
    const same = all.get(c.title) ?? [];
    return same.length < 2 ? c : { ...c, title: `${c.title} (${same.indexOf(c) + 1} of ${same.length})` };
  });
}

export const turnWords = (to: Posture): string => `Turn the case: ${POSTURE_WORDS[to]}`;

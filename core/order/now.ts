import { type Card, cardsOf } from "./cards";
import type { Order, Problem, Step } from "./model";

export interface Now {
  /** Steps that can be done, in order. */
  can: string[];
  /** Steps that wait, and for what. */
  waits: { step: string; for: string }[];
  /** With the minutes that are left: the last card that still fits, and what comes after it. */
  stop?: { after: string; minutes: number; next?: string };
  words: string;
}

/**
 * What can be done with some parts missing or some minutes left, and where to stop so that it can be taken up again: at the end of a
 * card, never inside one. `missing` are part ids.
 */
export function nowOf(problem: Problem, order: Order, asked: { missing?: readonly string[]; minutes?: number }): Now {
  const missing = new Set(asked.missing ?? []);
  const before = new Map<string, string[]>();
  for (const p of problem.precedences) {
    if (p.kind === "school") continue;
    const has = before.get(p.after);
    if (has) has.push(p.before);
    else before.set(p.after, [p.before]);
  }
  const waits = new Map<string, string>();
  const can: string[] = [];
  for (const s of order.steps) {
    if (s.done) continue;
    const held = heldBy(
      s,
      missing,
      (before.get(s.id) ?? []).map((b) => waits.get(b)),
    );
    if (held === undefined) can.push(s.id);
    else waits.set(s.id, held);
  }
  const ready = new Set(can);
  const cards = cardsOf(
    order.steps.filter((s) => ready.has(s.id)),
    order.blocks,
  );
  const stop = asked.minutes === undefined ? undefined : stopIn(cards, asked.minutes);
  return {
    can,
    waits: [...waits].map(([step, part]) => ({ step, for: part })),
    ...(stop ? { stop } : {}),
    words: wordsOf(cards, waits.size, asked.minutes, stop),
  };
}

const ownerOf = (address: string): string => address.slice(0, address.indexOf(":")).split("/")[0] ?? "";

/** The missing part that a step waits for. A bundle is led and dressed without the leads that are not there. */
function heldBy(s: Step, missing: ReadonlySet<string>, before: readonly (string | undefined)[]): string | undefined {
  const owners = s.leads.map(ownerOf);
  if (s.kind === "route" || s.kind === "dress") return owners.length > 0 && owners.every((o) => missing.has(o)) ? owners[0] : undefined;
  if (s.port) owners.push(ownerOf(s.port));
  return [...s.parts, ...owners].find((p) => missing.has(p)) ?? before.find((x) => x !== undefined);
}

function stopIn(cards: readonly Card[], minutes: number): Now["stop"] {
  let sum = 0;
  let last: Card | undefined;
  for (const c of cards) {
    const takes = c.minutes.handsOn + c.minutes.unattended;
    if (sum + takes > minutes) return last ? { after: last.id, minutes: Math.round(sum), next: c.title } : undefined;
    sum += takes;
    last = c;
  }
  return last ? { after: last.id, minutes: Math.round(sum) } : undefined;
}

function wordsOf(cards: readonly Card[], waits: number, minutes: number | undefined, stop: Now["stop"]): string {
  if (cards.length === 0) return "Nothing can be done now.";
  const sum = Math.round(cards.reduce((n, c) => n + c.minutes.handsOn, 0));
  if (minutes === undefined) return `${cards.length} cards can be done now, ${sum} minutes of hands${waits > 0 ? `; ${waits} steps wait` : ""}.`;
  if (!stop) return `Nothing fits into ${minutes} minutes: ${cards[0]?.title} takes ${cards[0]?.minutes.handsOn}.`;
  const after = cards.find((c) => c.id === stop.after);
  return `Stop after “${after?.title}”: ${stop.minutes} minutes.${stop.next ? ` Next would be “${stop.next}”.` : " Then nothing is left that can be done."}`;
}

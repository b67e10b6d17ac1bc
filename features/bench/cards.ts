import type { Card, Step } from "../../core/order";

/** What hands left out for now, by step. */
export type Skipped = Readonly<Record<string, { reason: string }>>;

/** Steps that wait for one that is skipped: nothing that needs it is done before it. */
export function blockedBy(steps: readonly Step[], skipped: Skipped): ReadonlySet<string> {
  const by = new Map(steps.map((s) => [s.id, s]));
  const known = new Map<string, boolean>();
  const blocked = (s: Step): boolean => {
    const was = known.get(s.id);
    if (was !== undefined) return was;
    known.set(s.id, false);
    const is = s.after.some((a) => {
      const b = a.kind === "school" ? undefined : by.get(a.step);
      return b !== undefined && !b.done && (skipped[b.id] !== undefined || blocked(b));
    });
    known.set(s.id, is);
    return is;
  };
  return new Set(steps.filter((s) => !s.done && blocked(s)).map((s) => s.id));
}

/** Parts of a step that are on their way back: it is held until their replacements are here. What is only looked at or tried goes on with a spare. */
export function awayOn(step: Step, away: ReadonlySet<string>): string[] {
  if (step.done || away.size === 0 || !["fit", "assemble", "plug"].includes(step.kind)) return [];
  const owner = (address: string) => address.slice(0, address.indexOf(":")).split("/")[0] ?? "";
  const mine = [...step.parts, ...step.leads.map(owner), ...(step.port ? [owner(step.port)] : [])];
  return [...new Set(mine)].filter((p) => away.has(p));
}

/** What Done means on a card: what is open and not skipped; where only skipped things are left, those. */
export function openOn(card: Card, skipped: Skipped, blocked: ReadonlySet<string>): Step[] {
  const open = card.steps.filter((s) => !s.done);
  const now = open.filter((s) => !skipped[s.id] && !blocked.has(s.id));
  return now.length > 0 ? now : open.filter((s) => !blocked.has(s.id));
}

/** Can it be done now: everything that must come before it is done, or is on the same card. */
export function canNow(step: Step, card: Card, steps: readonly Step[]): boolean {
  const done = new Set(steps.filter((s) => s.done).map((s) => s.id));
  const here = new Set(card.steps.map((s) => s.id));
  return step.after.every((a) => a.kind === "school" || done.has(a.step) || here.has(a.step));
}

/** What lies underneath once a gate is passed. */
export function underGate(gate: Step, steps: readonly Step[]): Step[] {
  const ids = new Set(gate.after.filter((a) => a.kind === "needs").map((a) => a.step));
  return steps.filter((s) => ids.has(s.id));
}

/** The ports that a card is about, the one that hands are at first. Where leads are led there are none: their ways are what matters. */
export function portsOf(card: Card, now: Step, steps: readonly Step[]): string[] {
  if (card.steps.some((s) => s.kind === "route" || s.kind === "dress")) return [];
  const of = (s: Step): readonly string[] => s.rig?.ports ?? (s.port ? [s.port] : []);
  if (now.kind === "gate") return underGate(now, steps).flatMap(of);
  return [now, ...card.steps].flatMap(of);
}

/** What is done already though it hides this step or stands on it; looking and testing hide nothing. */
export const coverersOf = (step: Step, steps: readonly Step[]): Step[] =>
  step.done || step.kind === "gate" || step.kind === "check" || step.kind === "test"
    ? []
    : steps.filter(
        (t) =>
          t.done &&
          !["gate", "check", "test"].includes(t.kind) &&
          t.after.some((a) => a.step === step.id && (a.kind === "covers" || (a.kind === "needs" && step.kind !== "route"))),
      );

/**
 * Where hands are: the first card with something that can be done now. What was skipped, and what needs it, is passed over; when nothing
 * else is left the skipped cards come again, before what needs them.
 */
export function cardNow(cards: readonly Card[], skipped: Skipped, blocked: ReadonlySet<string>): number {
  const fresh = cards.findIndex((c) => c.steps.some((s) => !s.done && !skipped[s.id] && !blocked.has(s.id)));
  return fresh >= 0 ? fresh : cards.findIndex((c) => c.steps.some((s) => !s.done && !blocked.has(s.id)));
}

/** So much of a step's detail stands under its title, two lines of it; the rest beside the drawing. */
const UNDER_TITLE = 120;

/** A detail in two, between sentences: what stands under the title, and the rest. */
export function inTwo(detail: string): [string, string] {
  if (detail.length <= UNDER_TITLE) return [detail, ""];
  const sentences = detail.split(/(?<=[.!?])\s+/);
  let n = 1;
  while (n < sentences.length && sentences.slice(0, n + 1).join(" ").length <= UNDER_TITLE) n++;
  return [sentences.slice(0, n).join(" "), sentences.slice(n).join(" ")];
}

/** Where and how, in a line: of the one step, or how far the card is. */
export function underTitle(card: Card, step: Step, tag: string | undefined): string {
  if (card.steps.length === 1 && !step.port && step.kind !== "gate") return inTwo(step.detail)[0];
  if (card.steps.length === 1) return tag ? `${tag} ${step.detail.replace(/^[A-Z]{2}-\d+ ?\.?/, "").trim()}` : step.detail;
  const done = card.steps.filter((s) => s.done).length;
  if (done === card.steps.length) return `All ${done} are done.`;
  return done > 0 ? `${done} of ${card.steps.length} are done. Now: ${step.title}` : `First: ${step.title}`;
}

interface Stopping {
  severity: "stop" | "warn" | "note";
  ends: readonly string[];
  holds?: readonly string[];
}

/**
 * What stops the card in front: a stop at a lead of it, or what has to be settled before a part goes in that is still open on it. A look, a
 * test or another part goes on.
 */
export const stopOn = <F extends Stopping>(
  findings: readonly F[],
  card: Card | undefined,
  open: readonly Step[],
  isSeat: (s: Step) => boolean,
): F | undefined => {
  const goesIn = open.filter((s) => s.kind === "fit" || s.kind === "assemble" || isSeat(s)).flatMap((s) => s.parts);
  return findings.find((f) =>
    f.severity === "stop"
      ? f.ends.some((e) => card?.steps.some((s) => s.lead === e))
      : f.severity === "warn" && f.holds?.some((p) => goesIn.includes(p)),
  );
};

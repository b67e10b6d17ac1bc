"use client";
import { useCallback, useEffect, useMemo, useRef } from "react";
import { type Card, cardsOf, type Step } from "../../core/order";
import type { BenchSlice } from "../../server/views/slices";
import { useOutbox } from "../device/outbox";
import { type OnCard, onesOf, type Said } from "../device/said";
import { awayOn, blockedBy, cardNow, openOn, type Skipped } from "./cards";

type Plugged = Extract<Said, { kind: "plug" }>;
type LeadRow = BenchSlice["leads"][number];

/** What a screen shows of a lead. */
const sawOfRow = (l: LeadRow): Plugged["saw"] => ({ port: l.port ?? null, state: l.state === "wrong" ? "plugged" : l.state });

const HELD = "held until its replacement is here";
/** Longer than this without a press is a pause, not work, s. */
const PAUSE_S = 1800;

/** One entry says so much at most, in things and in letters: the server takes no body of more than 60,000 bytes. */
const MOST_AT_ONCE = 40;
const MOST_LETTERS = 12_000;

/** What one press says in as many entries as it takes: none of more things or letters than the server takes. */
export function inEntries<T>(items: readonly T[]): T[][] {
  const out: T[][] = [];
  let letters = 0;
  for (const item of items) {
    const long = JSON.stringify(item).length;
    const last = out.at(-1);
    if (last && last.length < MOST_AT_ONCE && letters + long <= MOST_LETTERS) {
      last.push(item);
      letters += long;
    } else {
      out.push([item]);
      letters = long;
    }
  }
  return out;
}

export interface AtBench {
  /** False until it has been read what this device knows beyond the page. */
  known: boolean;
  /** This device can keep nothing, and the screen says so. */
  cannotKeep: boolean;
  steps: Step[];
  cards: Card[];
  /** Which card hands are at; -1: all is done. */
  current: number;
  skipped: Skipped;
  leadOf: (step: Step | undefined) => LeadRow | undefined;
  /** What Done means on a card. */
  openOn: (card: Card) => Step[];
  /** Pressed, and not in the tablet's store yet: the screen shows it as it was, and it is not to be said again. */
  onTheWay: (step: Step) => boolean;
  /** These steps are done, or undone, with one press. */
  say: (steps: readonly Step[], done: boolean) => void;
  /** These are left out for now. */
  skip: (steps: readonly Step[], reason: string) => void;
  sawOf: (lead: LeadRow | undefined) => Plugged["saw"];
}

/**
 * The job as hands see it on this device: what was pressed here counts already, also what waits to be sent, and what the server has of
 * which this page knows nothing yet. `known`: what this device kept beyond the page has been looked at.
 */
export function useBench(view: BenchSlice, known: boolean, push: (entry: Said, words: string) => void, paused: boolean): AtBench {
  const outbox = useOutbox();
  const { number, revision } = view.head;
  const local = useMemo(() => {
    const unseen = outbox.sent.filter((e) => (e.sent?.revision ?? 0) > revision);
    const said = [...unseen, ...outbox.waiting].flatMap((e) => onesOf(e.said)).filter((e) => e.number === number);
    const plugs = new Map<string, Plugged>();
    const done = new Map<string, boolean>();
    const skipped = new Map<string, string>();
    for (const e of said) {
      if (e.kind === "plug") {
        plugs.set(e.lead, e);
        done.set(`plug:${e.lead}`, e.state !== "planned");
      }
      if (e.kind === "step") done.set(e.step, e.done);
      if (e.kind === "note" && e.as === "skip") skipped.set(e.step, e.text);
    }
    return { plugs, done, skipped };
  }, [outbox.sent, outbox.waiting, number, revision]);
  const onTheWay = useMemo(
    () => new Set(outbox.onTheWay.flatMap(onesOf).flatMap((e) => (e.kind === "plug" ? `plug:${e.lead}` : "step" in e ? e.step : []))),
    [outbox.onTheWay],
  );
  const steps = useMemo(() => view.steps.map((s) => ({ ...s, done: local.done.get(s.id) ?? s.done })), [view.steps, local]);
  const cards = useMemo(() => cardsOf(steps, view.order.blocks), [steps, view.order.blocks]);
  const skipped = useMemo((): Skipped => {
    const open = new Set(steps.filter((s) => !s.done).map((s) => s.id));
    const all = [...Object.entries(view.skipped), ...[...local.skipped].map(([id, reason]) => [id, { reason }] as const)];
    return Object.fromEntries(all.filter(([id]) => open.has(id)));
  }, [view.skipped, local.skipped, steps]);
  // What waits for a part that went back is passed over like what was skipped: hands go on with what they can.
  const away = useMemo(() => new Set(view.away.map((r) => r.part)), [view.away]);
  const passed = useMemo(
    (): Skipped => ({ ...skipped, ...Object.fromEntries(steps.flatMap((s) => (awayOn(s, away).length > 0 ? [[s.id, { reason: HELD }]] : []))) }),
    [skipped, steps, away],
  );
  const blocked = useMemo(() => blockedBy(steps, passed), [steps, passed]);
  const current = cardNow(cards, passed, blocked);
  const byLead = useMemo(() => new Map(view.leads.map((l) => [l.address, l])), [view.leads]);
  const leadOf = useCallback((step: Step | undefined) => (step?.lead ? byLead.get(step.lead) : undefined), [byLead]);
  const took = useTook(cards[current]?.id, paused);

  /** What this screen shows of the lead now: the server compares it with what is recorded. */
  const sawOf = useCallback(
    (lead: LeadRow | undefined): Plugged["saw"] => {
      if (!lead) return undefined;
      const mine = local.plugs.get(lead.address);
      if (mine) return { port: mine.port, state: mine.state };
      return sawOfRow(lead);
    },
    [local.plugs],
  );
  const saidOf = useCallback(
    (step: Step, done: boolean, tookS: number | undefined): OnCard => {
      const time = tookS === undefined ? {} : { tookS };
      if (!step.lead || !step.port) return { kind: "step", number, step: step.id, done, saw: step.done, ...time };
      const lead = byLead.get(step.lead);
      const place = lead?.place ? { place: lead.place } : {};
      const saw = sawOf(lead);
      const seen = saw ? { saw } : {};
      return { kind: "plug", number, lead: step.lead, port: step.port, ...place, state: done ? "plugged" : "planned", ...seen, ...time };
    },
    [byLead, sawOf, number],
  );
  const pushAll = useCallback(
    (items: { said: OnCard; words: string }[]) => {
      for (const some of inEntries(items)) {
        const [one] = some;
        if (some.length === 1 && one) push(one.said, one.words);
        else push({ kind: "card", number, items: some }, some.map((s) => s.words).join("; "));
      }
    },
    [push, number],
  );
  const say = useCallback(
    (list: readonly Step[], done: boolean) => {
      const tookS = done ? took(list.length) : undefined;
      pushAll(list.map((s) => ({ said: saidOf(s, done, tookS), words: done ? s.title : `${s.title}: undone` })));
    },
    [pushAll, saidOf, took],
  );
  const skip = useCallback(
    (list: readonly Step[], reason: string) =>
      pushAll(list.map((s) => ({ said: { kind: "note", number, step: s.id, text: reason, as: "skip" }, words: `${s.title}: ${reason}` }))),
    [pushAll, number],
  );
  return {
    known: known && outbox.known,
    cannotKeep: outbox.cannotKeep,
    steps,
    cards,
    current,
    skipped,
    leadOf,
    onTheWay: useCallback((step: Step) => onTheWay.has(step.id), [onTheWay]),
    openOn: useCallback((card: Card) => openOn(card, passed, blocked), [passed, blocked]),
    say,
    skip,
    sawOf,
  };
}

/** Seconds that hands were at the card in front, shared among what is done with one press. A pause is none. */
function useTook(card: string | undefined, paused: boolean): (of: number) => number | undefined {
  const since = useRef(0);
  // Before the pause, ms.
  const before = useRef(0);
  useEffect(() => {
    if (card === undefined) return;
    since.current = Date.now();
    before.current = 0;
  }, [card]);
  useEffect(() => {
    if (!paused) return;
    before.current += Date.now() - since.current;
    return () => {
      since.current = Date.now();
    };
  }, [paused]);
  return useCallback((of: number) => {
    const s = (before.current + Date.now() - since.current) / 1000;
    return s >= 1 && s <= PAUSE_S ? Math.max(1, Math.round(s / of)) : undefined;
  }, []);
}

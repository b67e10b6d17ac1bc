import type { Result } from "../../server/kernel/result";
import type { Entry, OnCard, One } from "./entries";

/** What keeps entries on a device, in the order they were made. */
export interface Store {
  all: () => Promise<Entry[]>;
  /** The server has it, at a revision of its job. */
  took: (id: number, revision: number) => Promise<void>;
  setAside: (id: number, aside: Entry["aside"]) => Promise<void>;
  /** A card becomes entries of one thing each, where it stood. */
  split: (id: number) => Promise<void>;
}

export const isWaiting = (e: Entry) => !e.aside && !e.sent;

/** Why sending ended before all was sent: nobody has said who they are, the server does not take it now, or nothing answers. */
export type Stopped = "who" | "again" | "network";

export interface Sending {
  took: number;
  /** The last that was set aside, in a sentence. */
  aside?: string;
  stopped?: Stopped;
}

/**
 * Sends what waits, one after the other in its order. What the server takes goes; what it cannot take is set aside with the reason and
 * the next goes on; a card that it cannot take is sent again as its single things, so that only the one it is about is set aside; where
 * it does not answer, all stay. Nothing is removed before the server has it.
 */
export async function sendAll(store: Store, send: (entry: Entry) => Promise<Result>): Promise<Sending> {
  const out: Sending = { took: 0 };
  for (;;) {
    const first = (await store.all()).find(isWaiting);
    if (!first) return out;
    let r: Result;
    try {
      r = await send(first);
    } catch {
      return { ...out, stopped: "network" };
    }
    if (!r.ok && r.later) return { ...out, stopped: r.later };
    if (r.ok) {
      out.took += 1;
      await store.took(first.id, r.revision ?? 0);
    } else if (first.said.kind === "card") {
      await store.split(first.id);
    } else {
      out.aside = r.sentence;
      await store.setAside(first.id, { sentence: [r.sentence, ...(r.more ?? [])].join(" "), ...(r.facts ? { facts: r.facts } : {}) });
    }
  }
}

const ACTION = {
  plug: "bench.plug",
  step: "bench.step",
  receive: "receipt.receive",
  place: "parts.place",
  gone: "parts.remove",
  swap: "parts.change",
  measure: "parts.measure",
} as const;

/** An entry as the server takes it: the action, its input, and what dates and signs it. */
export function asSent({ key, said, madeAtMs, by }: Entry, nowMs: number): { action: string; input: unknown; entry: unknown } {
  const entry = { key, madeAtMs, sentAtMs: nowMs, ...(by ? { by: by.id } : {}) };
  if (said.kind === "card") return { action: "bench.card", input: { number: said.number, items: said.items.map((i) => inCard(i.said)) }, entry };
  if (said.kind === "note") return { action: "bench.note", input: noteOf(said), entry };
  const { kind, ...input } = said;
  return { action: ACTION[kind], input, entry };
}

function noteOf({ kind: _, as, ...note }: Extract<One, { kind: "note" }>) {
  return { ...note, kind: as };
}

function inCard(said: OnCard): unknown {
  const { number: _, ...one } = said.kind === "note" ? noteOf(said) : said;
  return one;
}

import type { Result } from "../../server/kernel/result";
import type { Entry } from "./entries";
import { asAction } from "./said";

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
    // Nobody has said yet that it is theirs.
    if (!first.seal && !first.by) return { ...out, stopped: "who" };
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

/** An entry as the server takes it: the action, its input, and what dates it and proves whose it is. */
export function asSent({ key, said, madeAtMs, by, turn, seal }: Entry, nowMs: number): { action: string; input: unknown; entry: unknown } {
  const whose = turn && seal ? { turn, seal } : by ? { by: by.id } : {};
  return { ...asAction(said), entry: { key, madeAtMs, sentAtMs: nowMs, ...whose } };
}

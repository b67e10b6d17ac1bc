import Dexie, { type EntityTable, liveQuery } from "dexie";
import type { TwoFacts } from "../../server/kernel/result";

/** One thing that the bench has to say. */
export type One =
  | {
      kind: "plug";
      number: string;
      lead: string;
      port: string;
      place?: number[];
      state: "planned" | "plugged" | "checked";
      /** What the screen showed. Left out where a person has looked and decided. */
      saw?: { port: string | null; state: "free" | "planned" | "plugged" | "checked" };
      /** How long hands were at it, s. */
      tookS?: number;
    }
  | { kind: "step"; number: string; step: string; done: boolean; saw?: boolean; tookS?: number }
  | { kind: "note"; number: string; step: string; text: string; as: "note" | "skip" | "problem" }
  /** A part is here, though no receipt says so; it sits elsewhere or another way round; it is given up. */
  | { kind: "receive"; number: string; part: string }
  | { kind: "place"; number: string; part: string; mount?: string; blows?: "in" | "out"; frame?: "inside" | "outside" }
  | { kind: "gone"; number: string; part: string }
  /** It is another part, or of another length. */
  | { kind: "swap"; number: string; part: string; type: string }
  | { kind: "measure"; number: string; part: string; what: string; mm: number };

/** What stands on a card is said with one press. */
export type OnCard = Extract<One, { kind: "plug" | "step" | "note" }>;
export type Said = One | { kind: "card"; number: string; items: { said: OnCard; words: string }[] };

/** Everything that was said, one by one. */
export const onesOf = (said: Said): One[] => (said.kind === "card" ? said.items.map((i) => i.said) : [said]);

/** An entry as this device keeps it until the server has it. */
export interface Entry {
  /** In the order they were made. */
  id: number;
  /** Made here: the server keeps an entry sent twice once. */
  key: string;
  said: Said;
  /** Who worked here when it was made; left out where nobody had said who they are. */
  by?: { id: string; name: string };
  /** The entry of this device that it takes back. */
  takesBack?: number;
  /** By this device's clock, ms since 1970. */
  madeAtMs: number;
  /** What it says, for a person. */
  words: string;
  /** The server has it: at which revision of the job, and when it said so. Kept, so that a page opened from before knows it too. */
  sent?: { revision: number; atMs: number };
  /** Set aside: the server cannot take it as it is, and why. */
  aside?: { sentence: string; facts?: TwoFacts };
}

const db = new Dexie("imbra-bench") as Dexie & { entries: EntityTable<Entry, "id"> };
db.version(1).stores({ entries: "++id, &key" });

/** What the server has is kept so long: no page is opened that is older. */
const KEPT_MS = 3 * 86_400_000;

export const newKey = () => `${Date.now().toString(36)}-${crypto.getRandomValues(new Uint32Array(2)).join("-")}`;

/** A card's things as entries of their own, between the entry before and the one behind. */
export function splitOf({ said, key, words: _, ...entry }: Entry): Entry[] {
  if (said.kind !== "card") return [];
  return said.items.map((i, n) => ({ ...entry, id: entry.id + n / 1000, key: `${key}-${n}`, said: i.said, words: i.words }));
}

/** The entries of this device, in the order they were made; every tab of it sees the same. */
export const entries = {
  /** What failed to open is opened again when it is asked the next time. */
  reopen: (): void => db.close({ disableAutoOpen: false }),
  all: (): Promise<Entry[]> => db.entries.orderBy("id").toArray(),
  add: async (key: string, said: Said, words: string, by?: Entry["by"], takesBack?: number): Promise<void> => {
    const more = { ...(by ? { by } : {}), ...(takesBack === undefined ? {} : { takesBack }) };
    await db.entries.add({ key, said, words, madeAtMs: Date.now(), ...more });
  },
  remove: (id: number): Promise<void> => db.entries.delete(id),
  took: async (id: number, revision: number): Promise<void> => {
    await db.entries.update(id, { sent: { revision, atMs: Date.now() } });
  },
  forgetOld: async (): Promise<void> => {
    await db.entries.filter((e) => e.sent !== undefined && Date.now() - e.sent.atMs > KEPT_MS).delete();
  },
  /** A card becomes entries of one thing each, in its place of the line. */
  split: async (id: number): Promise<void> => {
    await db.transaction("rw", db.entries, async () => {
      const entry = await db.entries.get(id);
      if (!entry) return;
      await db.entries.delete(id);
      await db.entries.bulkAdd(splitOf(entry));
    });
  },
  setAside: async (id: number, aside: Entry["aside"]): Promise<void> => {
    await db.entries.update(id, { aside });
  },
  /** Sent again with a key of its own: as it was, or decided by a person who looked, whatever is recorded; then it is theirs. */
  again: async (entry: Entry, decided: boolean, by?: Entry["by"]): Promise<void> => {
    const said = { ...entry.said };
    if (decided && (said.kind === "plug" || said.kind === "step")) delete said.saw;
    await db.transaction("rw", db.entries, async () => {
      await db.entries.delete(entry.id);
      const whose = decided ? by : entry.by;
      await db.entries.add({ key: newKey(), said, words: entry.words, madeAtMs: entry.madeAtMs, ...(whose ? { by: whose } : {}) });
    });
  },
  /** Calls back with all of them now and after each change, in whatever tab. Ends with the function it gives. */
  watch: (now: (list: Entry[]) => void, failed: (e: unknown) => void): (() => void) => {
    const subscription = liveQuery(() => db.entries.orderBy("id").toArray()).subscribe({ next: now, error: failed });
    return () => subscription.unsubscribe();
  },
};

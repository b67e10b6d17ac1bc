import Dexie, { type EntityTable, liveQuery } from "dexie";
import type { TwoFacts } from "../../server/kernel/result";
import { sealOf } from "../../server/kernel/seal";
import type { AtTurn } from "../frame/worker";
import { asAction, type Said } from "./said";

/** An entry as this device keeps it until the server has it. */
export interface Entry {
  /** In the order they were made. */
  id: number;
  /** Made here: the server keeps an entry sent twice once. */
  key: string;
  said: Said;
  /** Who worked here when it was made; left out where nobody had said who they are: then it waits for whoever says so next. */
  by?: { id: string; name: string };
  /** Their turn, and what proves that it was theirs: of the whole and, of a card, of each thing on it. */
  turn?: string;
  seal?: string;
  seals?: string[];
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

/** Whose it is and what proves it, made the moment it is pressed. */
const signed = (at: AtTurn, key: string, said: Said, madeAtMs: number): Pick<Entry, "by" | "turn" | "seal" | "seals"> => {
  const seal = (key: string, said: Said) => sealOf(at.turn.secret, { turn: at.turn.id, key, madeAtMs, ...asAction(said) });
  const seals = said.kind === "card" ? { seals: said.items.map((i, n) => seal(`${key}-${n}`, i.said)) } : {};
  return { by: { id: at.id, name: at.name }, turn: at.turn.id, seal: seal(key, said), ...seals };
};

/** Whose it is, as somebody says now; without a turn nobody's. */
const madeBy = (at: AtTurn | undefined, key: string, said: Said, madeAtMs: number) => (at ? signed(at, key, said, madeAtMs) : {});

export const newKey = () => `${Date.now().toString(36)}-${crypto.getRandomValues(new Uint32Array(2)).join("-")}`;

/** A card's things as entries of their own, between the entry before and the one behind. */
export function splitOf({ said, key, words: _, seal: _whole, seals, ...entry }: Entry): Entry[] {
  if (said.kind !== "card") return [];
  return said.items.map((i, n) => {
    const seal = seals?.[n];
    return { ...entry, id: entry.id + n / 1000, key: `${key}-${n}`, said: i.said, words: i.words, ...(seal ? { seal } : {}) };
  });
}

/** The entries of this device, in the order they were made; every tab of it sees the same. */
export const entries = {
  /** What failed to open is opened again when it is asked the next time. */
  reopen: (): void => db.close({ disableAutoOpen: false }),
  all: (): Promise<Entry[]> => db.entries.orderBy("id").toArray(),
  add: async (key: string, said: Said, words: string, at?: AtTurn, takesBack?: number): Promise<void> => {
    const madeAtMs = Date.now();
    await db.entries.add({ key, said, words, madeAtMs, ...madeBy(at, key, said, madeAtMs), ...(takesBack === undefined ? {} : { takesBack }) });
  },
  /** What nobody has signed is of whoever says now that they are here. Some of it is told by a device of an earlier version, which knew no seals. */
  adopt: async (at: AtTurn): Promise<void> => {
    await db.transaction("rw", db.entries, async () => {
      const nobodys = await db.entries.filter((e) => !e.sent && !e.aside && !e.seal && (!e.by || e.by.id === at.id)).toArray();
      for (const e of nobodys) await db.entries.put({ ...e, ...signed(at, e.key, e.said, e.madeAtMs) });
    });
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
  /**
   * Sent again behind the others: as it was, or as whoever looked has decided: theirs then, with a key of its own, and, where it is
   * `decided` against what is recorded, whatever that is.
   */
  again: async (
    { id, sent: _s, aside: _a, turn, seal, seals, by, ...entry }: Entry,
    how: "as it was" | "mine" | "decided",
    at?: AtTurn,
  ): Promise<void> => {
    const said = { ...entry.said };
    if (how === "decided" && "saw" in said) delete said.saw;
    const own = { ...(by ? { by } : {}), ...(turn ? { turn } : {}), ...(seal ? { seal } : {}), ...(seals ? { seals } : {}) };
    const key = newKey();
    const fresh = how === "as it was" ? { ...entry, ...own } : { ...entry, key, said, ...madeBy(at, key, said, entry.madeAtMs) };
    await db.transaction("rw", db.entries, async () => {
      await db.entries.delete(id);
      await db.entries.add(fresh);
    });
  },
  /** Calls back with all of them now and after each change, in whatever tab. Ends with the function it gives. */
  watch: (now: (list: Entry[]) => void, failed: (e: unknown) => void): (() => void) => {
    const subscription = liveQuery(() => db.entries.orderBy("id").toArray()).subscribe({ next: now, error: failed });
    return () => subscription.unsubscribe();
  },
};

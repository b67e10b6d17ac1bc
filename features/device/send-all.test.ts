import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Result } from "../../server/kernel/result";
import { cases } from "../../tests/cases";
import { type Entry, splitOf } from "./entries";
import { asSent, type Store, sendAll } from "./send-all";

const entry = (id: number): Entry => ({
  id,
  key: `k${id}`,
  said: { kind: "step", number: "FS-1", step: `s${id}`, done: true, saw: false },
  madeAtMs: 1000 * id,
  words: `step ${id}`,
  by: { id: "p", name: "Somebody" },
  turn: "t",
  seal: "s",
});
/** A card of so many steps, named after it. */
const cardOf = (id: number, items: number): Entry => ({
  ...entry(id),
  said: {
    kind: "card",
    number: "FS-1",
    items: Array.from({ length: items }, (_, n) => ({ said: { kind: "step", number: "FS-1", step: `s${id}.${n}`, done: true }, words: `${n}` })),
  },
});
function storeOf(n: number): Store & { list: Entry[] } {
  const store = {
    list: Array.from({ length: n }, (_, i) => entry(i + 1)),
    all: async () => store.list,
    took: async (id: number, revision: number) => {
      store.list = store.list.map((e) => (e.id === id ? { ...e, sent: { revision, atMs: 0 } } : e));
    },
    split: async (id: number) => {
      store.list = store.list.flatMap((e) => (e.id === id ? splitOf(e) : [e])).sort((a, b) => a.id - b.id);
    },
    setAside: async (id: number, aside: Entry["aside"]) => {
      store.list = store.list.map((e) => (e.id === id ? { ...e, ...(aside ? { aside } : {}) } : e));
    },
  };
  return store;
}

/** What can come of one sending; `lost`: the server had it, and the answer was lost. */
type Answer = "took" | "refused" | "again" | "who" | "network" | "lost";

describe("entries that are sent", () => {
  it("whatever happens on the way, each is taken or set aside once, in order, and nothing is lost", async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.integer({ min: 1, max: 12 }),
        fc.array(fc.constantFrom<Answer>("took", "took", "refused", "again", "who", "network", "lost"), { maxLength: 40 }),
        fc.infiniteStream(fc.boolean()),
        async (n, answers, refuses) => {
          const store = storeOf(n);
          const had: string[] = [];
          const refusing = new Map(Array.from({ length: n }, (_, i) => [`k${i + 1}`, refuses.next().value as boolean]));
          let at = 0;
          const server = async (e: Entry): Promise<Result> => {
            const a = answers[at++] ?? "took";
            if (a === "network") throw new Error("gone");
            if (a === "again" || a === "who") return { ok: false, sentence: "later", later: a };
            // The server knows the key of what it has: a second time it only says yes.
            if (refusing.get(e.key)) {
              if (a === "lost") throw new Error("the answer was lost");
              return { ok: false, sentence: "never" };
            }
            if (!had.includes(e.key)) had.push(e.key);
            if (a === "lost") throw new Error("the answer was lost");
            return { ok: true, value: undefined };
          };
          for (let tries = 0; tries < 60; tries++) await sendAll(store, server);
          const wanted = Array.from({ length: n }, (_, i) => `k${i + 1}`);
          expect(had).toEqual(wanted.filter((k) => !refusing.get(k)));
          expect(store.list.filter((e) => e.sent).map((e) => e.key)).toEqual(had);
          expect(store.list.filter((e) => !e.sent).map((e) => [e.key, e.aside?.sentence])).toEqual(
            wanted.filter((k) => refusing.get(k)).map((k) => [k, "never"]),
          );
        },
      ),
      cases(300, 137),
    );
  });
  it("a card that cannot be taken falls apart in its place: only what is refused is set aside", async () => {
    const store = storeOf(3);
    store.list = store.list.map((e) => (e.id === 2 ? cardOf(2, 3) : e));
    const had: string[] = [];
    const refuses = (e: Entry) => e.said.kind === "card" || (e.said.kind === "step" && e.said.step === "s2.1");
    const out = await sendAll(store, async (e) => {
      if (refuses(e)) return { ok: false, sentence: "never" };
      had.push(e.said.kind === "step" ? e.said.step : e.key);
      return { ok: true, value: undefined };
    });
    expect(out.took).toBe(4);
    expect(had).toEqual(["s1", "s2.0", "s2.2", "s3"]);
    expect(store.list.filter((e) => e.aside).map((e) => e.words)).toEqual(["1"]);
    expect(new Set(store.list.map((e) => e.key)).size).toBe(5);
  });
  it("a card is sent as one entry", () => {
    expect(asSent(cardOf(4, 2), 9000)).toEqual({
      action: "bench.card",
      input: {
        number: "FS-1",
        items: [
          { kind: "step", step: "s4.0", done: true },
          { kind: "step", step: "s4.1", done: true },
        ],
      },
      entry: { key: "k4", madeAtMs: 4000, sentAtMs: 9000, turn: "t", seal: "s" },
    });
  });
  it("say when they were made, by the device's clock, and when sent", () => {
    expect(asSent(entry(3), 9000)).toEqual({
      action: "bench.step",
      input: { number: "FS-1", step: "s3", done: true, saw: false },
      entry: { key: "k3", madeAtMs: 3000, sentAtMs: 9000, turn: "t", seal: "s" },
    });
  });
  it("without a seal waits for somebody to say that they are there, and everything behind it too", async () => {
    const store = storeOf(3);
    const { by: _b, turn: _t, seal: _s, ...nobodys } = entry(2);
    store.list = store.list.map((e) => (e.id === 2 ? nobodys : e));
    const sent: string[] = [];
    const took = async (e: Entry): Promise<Result> => {
      sent.push(e.key);
      return { ok: true, value: undefined, revision: 1 };
    };
    expect(await sendAll(store, took)).toEqual({ took: 1, stopped: "who" });
    expect(sent).toEqual(["k1"]);
    store.list = store.list.map((e) => (e.id === 2 ? entry(2) : e));
    expect(await sendAll(store, took)).toEqual({ took: 2 });
    expect(sent).toEqual(["k1", "k2", "k3"]);
  });
});

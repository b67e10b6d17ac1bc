import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Result } from "../../server/kernel/result";
import type { Entry } from "./entries";
import { asSent, type Store, sendAll } from "./send-all";

const entry = (id: number): Entry => ({
  id,
  key: `k${id}`,
  said: { kind: "step", number: "FS-1", step: `s${id}`, done: true, saw: false },
  madeAtMs: 1000 * id,
  words: `step ${id}`,
});
function storeOf(n: number): Store & { list: Entry[] } {
  const store = {
    list: Array.from({ length: n }, (_, i) => entry(i + 1)),
    all: async () => store.list,
    took: async (id: number, revision: number) => {
      store.list = store.list.map((e) => (e.id === id ? { ...e, sent: { revision, atMs: 0 } } : e));
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
      { numRuns: 100 },
    );
  });
  it("say when they were made, by the device's clock, and when sent", () => {
    expect(asSent(entry(3), 9000)).toEqual({
      action: "bench.step",
      input: { number: "FS-1", step: "s3", done: true, saw: false },
      entry: { key: "k3", madeAtMs: 3000, sentAtMs: 9000 },
    });
  });
});

import { QueryClient } from "@tanstack/react-query";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Had } from "../../server/views/had";
import { haveSlice, later, SLICE, type SliceKey, SliceMissed, seenUpTo } from "./slice-client";

const had = (asOfMs: number, data = "x", since = "7"): Had<string> => ({ data, asOfMs, tag: `t${asOfMs}`, since });
const key: SliceKey = [SLICE, "job", "FS-1041", "bench"];
const answers = (r: () => Response | Promise<Response>) => {
  const asked: Request[] = [];
  vi.stubGlobal("fetch", async (to: string, init: RequestInit) => {
    asked.push(new Request(`http://here${to}`, init));
    return r();
  });
  return asked;
};
const headers = { ETag: '"new"', "X-Imbra-As-Of": "500", "X-Imbra-Since": "9" };
const signal = new AbortController().signal;
afterEach(() => {
  vi.unstubAllGlobals();
});

describe("a slice", () => {
  it("is the later of two by the server's clock, whatever came first here", () => {
    expect(later(had(5), had(4)).asOfMs).toBe(5);
    expect(later(had(4), had(5)).asOfMs).toBe(5);
    expect(later(undefined, had(1)).asOfMs).toBe(1);
    const [a, b] = [had(3, "a"), had(3, "b")];
    expect(later(a, b)).toBe(a);
  });
  it("is asked for with the tag of what is there, and stays what it was where it has not moved", async () => {
    const client = new QueryClient();
    client.setQueryData(key, had(100, "as it was"));
    const asked = answers(() => new Response(null, { status: 304, headers }));
    expect(await haveSlice<string>(client, key, signal)).toEqual({ data: "as it was", tag: "t100", asOfMs: 500, since: "9" });
    expect([asked[0]?.url, asked[0]?.headers.get("if-none-match")]).toEqual(["http://here/data/job/FS-1041/bench", '"t100"']);
    answers(() => Response.json("moved", { headers }));
    expect(await haveSlice<string>(client, key, signal)).toEqual({ data: "moved", tag: "new", asOfMs: 500, since: "9" });
  });
  it("that cannot be had says why, and nothing takes its place", async () => {
    const client = new QueryClient();
    for (const [answer, status] of [
      [() => new Response("no", { status: 401 }), 401],
      [() => new Response("no", { status: 500 }), 500],
      [() => new Response(null, { status: 304 }), 304],
      [() => Promise.reject(new TypeError("away")), 0],
    ] as const) {
      answers(answer);
      const missed = await haveSlice(client, key, signal).catch((e: unknown) => e);
      expect([missed instanceof SliceMissed, (missed as SliceMissed).status]).toEqual([true, status]);
    }
  });
  it("of another build loads the page anew, once for each", async () => {
    const kept = new Map<string, string>();
    const reload = vi.fn();
    vi.stubGlobal("sessionStorage", { getItem: (k: string) => kept.get(k) ?? null, setItem: (k: string, v: string) => kept.set(k, v) });
    vi.stubGlobal("window", { location: { reload } });
    const client = new QueryClient();
    for (const build of ["", "b2", "b2", "b3"]) {
      answers(() => Response.json("x", { headers: { ...headers, "X-Imbra-Build": build } }));
      await haveSlice(client, key, signal);
    }
    expect(reload).toHaveBeenCalledTimes(2);
  });
  it("has seen as far as that which has seen least; one that cannot say is as none", () => {
    const client = new QueryClient();
    const show = (name: string, since: string) => {
      client.setQueryData([SLICE, name], had(1, "x", since));
      const query = client.getQueryCache().find({ queryKey: [SLICE, name] });
      // Looked at by a screen.
      query?.addObserver({ options: {}, destroy: () => {}, onQueryUpdate: () => {} } as never);
    };
    expect(seenUpTo(client)).toBeUndefined();
    show("a", "100");
    show("b", "9");
    client.setQueryData([SLICE, "not on screen"], had(1, "x", "3"));
    expect(seenUpTo(client)).toBe("9");
    show("c", "");
    expect(seenUpTo(client)).toBeUndefined();
  });
});

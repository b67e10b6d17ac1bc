import { describe, expect, it } from "vitest";
import { steadyFetch } from "./steady-fetch";

const HERE = "http://shop.test/job/FS-1/bench";
const RSC = { headers: { rsc: "1", "next-router-state-tree": "tree" } };
const page = (text: string, status = 200) => {
  const r = new Response(text, { status, headers: { "content-type": "text/x-component", "content-length": "9" } });
  Object.defineProperty(r, "url", { value: HERE });
  return r;
};

/** Answers in turn; what is an error is thrown. */
function told(answers: (Response | Error)[]) {
  const missed: number[] = [];
  const waited: number[] = [];
  const fetch = steadyFetch(
    async () => {
      const a = answers.shift();
      if (!a || a instanceof Error) throw a ?? new Error("asked too often");
      return a;
    },
    () => HERE,
    () => missed.push(missed.length),
    async () => {
      waited.push(waited.length);
    },
  );
  return { fetch, missed, waited };
}

const GOOD = '0:{"b":"x"}\n1:["$","p",null,{"children":"card 3"}]';
const cutOff = () => {
  const r = new Response(
    new ReadableStream({
      start(c) {
        c.enqueue(new TextEncoder().encode(GOOD));
        c.error(new Error("reset"));
      },
    }),
    { headers: { "content-type": "text/x-component" } },
  );
  return r;
};

describe("a page asked for anew", () => {
  it.each([
    ["the network is away", () => new TypeError("failed")],
    ["the server fails", () => page("0:{}", 500)],
    ["it ends in the middle", cutOff],
    ["it is another's page", () => new Response("<html>", { headers: { "content-type": "text/html" } })],
    ["it failed while it was made", () => page('0:{}\n4:E{"digest":"2227120321"}')],
    ["it leads to the sign-in", () => page('0:{}\n4:E{"digest":"NEXT_REDIRECT;replace;/sign-in?to=%2Fjob;307;"}')],
  ])("is the last good one where %s, and that is told", async (_, bad) => {
    const { fetch, missed } = told([page(GOOD), bad(), page("newer")]);
    expect(await (await fetch(HERE, RSC)).text()).toBe(GOOD);
    const again = await fetch(`${HERE}?_rsc=abc`, RSC);
    expect([await again.text(), again.url, again.headers.get("content-type"), missed.length]).toEqual([GOOD, HERE, "text/x-component", 1]);
    expect([await (await fetch(HERE, RSC)).text(), missed.length]).toEqual(["newer", 1]);
  });
  it("goes where the page leads, and says that there is none, as it always did", async () => {
    const moved = '4:E{"digest":"NEXT_REDIRECT;replace;/job/FS-1/wiring;307;"}';
    const none = '4:E{"digest":"NEXT_HTTP_ERROR_FALLBACK;404"}';
    const { fetch, missed } = told([page(GOOD), page(moved), page(none)]);
    await fetch(HERE, RSC);
    expect(await (await fetch(HERE, RSC)).text()).toBe(moved);
    expect(await (await fetch(HERE, RSC)).text()).toBe(none);
    expect(missed).toEqual([]);
  });
  it("is none of another address, state or kind of request", async () => {
    const bad = () => page("bad", 500);
    const { fetch, missed, waited } = told([page(GOOD), bad(), page("other"), bad(), bad()]);
    await fetch(HERE, RSC);
    const text = async (to: string, init: RequestInit) => (await fetch(to, init)).text();
    expect([await text("http://shop.test/jobs", RSC), waited.length]).toEqual(["bad", 0]);
    expect(await text(HERE, { headers: { rsc: "1", "next-router-state-tree": "other" } })).toBe("other");
    expect(await text(HERE, { headers: { ...RSC.headers, "next-action": "a" } })).toBe("bad");
    expect(await text(HERE, {})).toBe("bad");
    expect(missed).toEqual([]);
  });
  it("is none of whoever was signed in before", async () => {
    let here = HERE;
    const answers = [page(GOOD), page("signed in"), page("bad", 500), page("their own")];
    const fetch = steadyFetch(
      async () => answers.shift() as Response,
      () => here,
      () => undefined,
      async () => undefined,
    );
    await fetch(HERE, RSC);
    here = "http://shop.test/sign-in?to=%2Fjob";
    await fetch(here, { method: "POST", headers: { "next-action": "a" } });
    here = HERE;
    expect(await (await fetch(HERE, RSC)).text()).toBe("their own");
  });
  it("that was never had before waits until it can be had: the network away, the server failing, cut off in the middle", async () => {
    const { fetch, missed, waited } = told([new TypeError("failed"), page("down", 503), cutOff(), page("at last")]);
    expect(await (await fetch(HERE, RSC)).text()).toBe("at last");
    expect([waited.length, missed]).toEqual([3, []]);
  });
  it("waits no longer than whoever asks", async () => {
    const asking = new AbortController();
    const { fetch, waited } = told([new TypeError("failed"), page("too late")]);
    const answer = fetch(HERE, { ...RSC, signal: asking.signal });
    asking.abort();
    await expect(answer).rejects.toThrow();
    expect(waited.length).toBeLessThanOrEqual(1);
  });
});

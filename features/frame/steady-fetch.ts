/** An answer that Next's router takes for a page. */
const PAGE = "text/x-component";

/** Pages for whoever is not signed in. */
export const ENTRANCES: readonly string[] = ["/sign-in", "/first"];

interface Kept {
  asked: string;
  body: ArrayBuffer;
  headers: [string, string][];
  url: string;
}

/** Does this answer hold the page that was asked for: not the way to the sign-in, not a page that failed, and whole? */
const isGood = (r: Response, text: string): boolean =>
  r.ok &&
  (r.headers.get("content-type") ?? "").startsWith(PAGE) &&
  !/^[0-9a-f]+:E\{"digest":"(?!NEXT_HTTP_ERROR_FALLBACK|NEXT_REDIRECT;(?!\w+;\/sign-in))/m.test(text);

const headerOf = (init: RequestInit | undefined, name: string): string | null => new Headers(init?.headers).get(name);

/** A page that was never had anew yet is asked for again after so long, or when the device says that it has a network. */
const AGAIN_MS = 3000;
const pause = (): Promise<void> =>
  new Promise((resolve) => {
    const go = () => {
      clearTimeout(timer);
      window.removeEventListener("online", go);
      resolve();
    };
    const timer = setTimeout(go, AGAIN_MS);
    window.addEventListener("online", go);
  });

/**
 * `fetch` for Next's router, which makes a whole new page of whatever it gets: where a page that is on screen is asked for anew
 * and cannot be had, it gets the last good answer for the same once more, and `onMissed` is told (`onHad` where it can); where there is none yet, the answer
 * waits until it can be had. Answers are read to their end before they are handed on, so that one cut off in the middle counts as not
 * had. All other requests are as they were.
 */
export function steadyFetch(
  fetch: typeof globalThis.fetch,
  here: () => string,
  onMissed: () => void,
  wait: () => Promise<void> = pause,
  onHad: () => void = () => undefined,
): typeof globalThis.fetch {
  let kept: Kept | undefined;
  return async (to, init) => {
    // Whoever comes in sees nothing of whoever was there before.
    if (ENTRANCES.includes(new URL(here()).pathname)) kept = undefined;
    const asksPage = headerOf(init, "rsc") === "1" && headerOf(init, "next-router-prefetch") === null && headerOf(init, "next-action") === null;
    const url = new URL(to instanceof Request ? to.url : to, here());
    url.searchParams.delete("_rsc");
    const anew = url.pathname + url.search === new URL(here()).pathname + new URL(here()).search;
    if (!asksPage || !anew) return fetch(to, init);
    const asked = `${url} ${headerOf(init, "next-router-state-tree")}`;
    const again = kept?.asked === asked ? kept : undefined;
    for (;;) {
      try {
        const r = await fetch(to, init);
        const body = await r.clone().arrayBuffer();
        if (isGood(r, new TextDecoder().decode(body))) {
          kept = { asked, body, headers: [...r.headers], url: r.url };
          onHad();
          return r;
        }
        // No page, and an answer all the same: the way to the sign-in, or nothing there.
        if (!again && r.status < 500) return r;
      } catch (e) {
        if (init?.signal?.aborted) throw e;
      }
      if (again) break;
      await wait();
      init?.signal?.throwIfAborted();
    }
    onMissed();
    const answer = new Response(again.body.slice(0), { headers: again.headers });
    Object.defineProperty(answer, "url", { value: again.url });
    return answer;
  };
}

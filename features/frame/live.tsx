"use client";
import { usePathname, useRouter } from "next/navigation";
import { createContext, type ReactNode, useCallback, useContext, useEffect, useMemo, useRef, useState, useTransition } from "react";
import { renewSlices, SliceMissed, seenUpTo, sliceClient } from "./slice-client";
import { showsSlices } from "./slices";
import { ENTRANCES, steadyFetch } from "./steady-fetch";

interface LiveNow {
  /** Since when this screen is alone, ms since 1970; undefined while it hears of changes. */
  aloneSince: number | undefined;
  /** The sign-in of this device was ended: what is on screen stays, and nothing more is heard until somebody signs in. */
  signedOut: boolean;
  /** Somebody has signed in again. */
  signedIn: () => void;
  /** Asks for the page anew, if it can be had; what is on screen stays until then. */
  refresh: () => void;
  /** This device's own change, of which its page knows already, made the job this revision: the page has time, others' pages come first. */
  ownChange: (revision: number) => void;
  /** How often the page was had anew since it was opened. */
  renewed: number;
}
const Live = createContext<LiveNow>({
  aloneSince: undefined,
  signedOut: false,
  signedIn: () => {},
  refresh: () => {},
  ownChange: () => {},
  renewed: 0,
});
export const useLive = () => useContext(Live);

/** Several changes at once are one refresh. */
const TOGETHER_MS = 25;
/** A page that shows its own change already is had anew so long after it. */
const OWN_MS = 700;
/** The server beats every 5 s: without one for so long, nothing comes through, whatever the browser believes. */
const SILENT_MS = 12_000;
/** Alone for less than this is nobody's business. */
const QUIET_MS = 2500;
const PING_MS = 4000;
/** A page that cannot be had is asked for again after so long. */
const AGAIN_MS = 3000;

/** Can a page be had: yes, not now, or not by whoever sits here, who is not signed in any more? */
async function canBeHad(): Promise<"yes" | "no" | "who"> {
  try {
    const r = await fetch("/live/ping", { cache: "no-store", signal: AbortSignal.timeout(PING_MS) });
    return r.status === 204 ? "yes" : r.status === 401 ? "who" : "no";
  } catch {
    return "no";
  }
}

/**
 * Hears what others change and takes it over: of one job, or of all; `since` says how far the page has seen it. Slices that are on screen are
 * had anew (./slices.tsx); a page that shows none is, as a whole. What cannot be had never replaces what is there: the screen stays as it is,
 * says since when it is alone, and catches up by itself.
 */
export function LiveProvider({ since, children }: { since: string; children: ReactNode }) {
  const router = useRouter();
  // A job's screens hear of their job, all others of everything.
  const job = /^\/job\/([^/]+)/.exec(usePathname())?.[1];
  const [aloneSince, setAlone] = useState<number | undefined>();
  const [signedOut, setSignedOut] = useState(false);
  const entrance = ENTRANCES.includes(usePathname());
  const waiting = useRef<{ timer: ReturnType<typeof setTimeout>; atMs: number } | undefined>(undefined);
  /** Revisions of the job that came since the page was last asked for, and those that this device itself made. */
  const heard = useRef({ all: new Set<number>(), own: new Set<number>() });
  const missed = useRef(false);
  const [renewing, startRenewing] = useTransition();
  const [renewed, setRenewed] = useState(0);
  const busy = useRef(false);
  const again = useRef(() => {});
  /** How far the page has seen everything: whatever came between it and the stream is told with the stream's first line. */
  const mark = useRef(since);
  useEffect(() => {
    mark.current = since;
  }, [since]);
  /** The page that would stay as it is if it could not be had. */
  const surelyOf = useRef("");
  /** A page that was missed is asked for no sooner than this, ms since 1970, however often it is wanted. */
  const notBefore = useRef(0);
  const ask = useCallback(async () => {
    waiting.current = undefined;
    // One at a time: what comes meanwhile is asked for when this one is there.
    if (busy.current || document.visibilityState !== "visible") return;
    busy.current = true;
    heard.current = { all: new Set(), own: new Set() };
    if (showsSlices()) {
      missed.current = false;
      await renewSlices();
      busy.current = false;
      if (missed.current) again.current();
      setRenewed((n) => n + 1);
      return;
    }
    // A page that was had anew can be had or stays as it is; before it is asked for the first time, and after it was missed, the server is.
    const had = surelyOf.current === window.location.href ? "yes" : await canBeHad();
    if (had === "who") setSignedOut(true);
    if (had !== "yes") {
      busy.current = false;
      const timer = setTimeout(() => {
        waiting.current = undefined;
        again.current();
      }, AGAIN_MS);
      waiting.current = { timer, atMs: Date.now() + AGAIN_MS };
      return;
    }
    missed.current = false;
    startRenewing(() => {
      router.refresh();
      setRenewed((n) => n + 1);
    });
  }, [router]);
  /** Asks for the page so much later, or when it is asked for anyway if that is earlier; `afresh`: no earlier. */
  const askIn = useCallback(
    (ms: number, afresh = false) => {
      missed.current = true;
      const wait = Math.max(ms, notBefore.current - Date.now());
      const atMs = Date.now() + wait;
      if (waiting.current && !afresh && waiting.current.atMs <= atMs) return;
      clearTimeout(waiting.current?.timer);
      waiting.current = { timer: setTimeout(() => void ask(), wait), atMs };
    },
    [ask],
  );
  const refresh = useCallback(() => askIn(TOGETHER_MS), [askIn]);
  const ownChange = useCallback(
    (revision: number) => {
      const { all, own } = heard.current;
      own.add(revision);
      // News of it may have come before the answer to it.
      askIn(OWN_MS, [...all].every((r) => own.has(r)) && all.size > 0);
    },
    [askIn],
  );
  useEffect(() => {
    again.current = refresh;
  }, [refresh]);
  useEffect(() => {
    // A slice that could not be had stays as it is, and is asked for again.
    return sliceClient()
      .getQueryCache()
      .subscribe(({ type, query, ...event }) => {
        if (type !== "updated" || !("action" in event) || event.action.type !== "error" || !(query.state.error instanceof SliceMissed)) return;
        if (query.state.error.status === 401) setSignedOut(true);
        notBefore.current = Date.now() + AGAIN_MS;
        again.current();
      });
  }, []);
  useEffect(() => {
    // A page that is lost between that question and its answer is asked for again, and what is on screen stays.
    const plain = window.fetch;
    window.fetch = steadyFetch(
      plain.bind(window),
      () => window.location.href,
      () => {
        surelyOf.current = "";
        notBefore.current = Date.now() + AGAIN_MS;
        again.current();
      },
      undefined,
      () => {
        surelyOf.current = window.location.href;
      },
    );
    return () => {
      window.fetch = plain;
    };
  }, []);
  useEffect(() => {
    if (renewing) return;
    busy.current = false;
    if (missed.current) refresh();
  }, [renewing, refresh]);
  useEffect(() => {
    let source: EventSource | undefined;
    let lostAt: number | undefined;
    let lastBeat = Date.now();
    const heardNow = () => {
      lastBeat = Date.now();
      lostAt = undefined;
      setAlone(undefined);
    };
    const lost = () => {
      lostAt ??= Date.now();
    };
    const offline = () => {
      source?.close();
      lost();
    };
    const open = () => {
      source?.close();
      lastBeat = Date.now();
      // As far as what is on screen has seen everything; a page that was left for another may have seen less than that one.
      const seen = showsSlices() ? (seenUpTo(sliceClient()) ?? "") : mark.current;
      source = new EventSource(`/live?since=${seen}${job ? `&job=${job}` : ""}`);
      source.onopen = () => {
        if (lostAt !== undefined || missed.current) refresh();
        heardNow();
      };
      source.addEventListener("beat", heardNow);
      source.onmessage = (e: MessageEvent<string>) => {
        heardNow();
        const news = JSON.parse(e.data) as { revision?: number };
        heard.current.all.add(news.revision ?? -1);
        if (news.revision === undefined || !heard.current.own.has(news.revision)) refresh();
      };
      source.onerror = lost;
    };
    const timer = setInterval(async () => {
      if (!source) return;
      if (Date.now() - lastBeat > SILENT_MS) lost();
      if (lostAt === undefined) return;
      if (Date.now() - lostAt > QUIET_MS) setAlone(lostAt);
      // Answered with a fault, a stream is closed for good; silent, it is dead: a new one is wanted.
      const dead = source.readyState === EventSource.CLOSED || Date.now() - lastBeat > SILENT_MS;
      if (!dead) return;
      const had = await canBeHad();
      setSignedOut(had === "who");
      if (had === "yes") open();
    }, 1000);
    // Browsers allow few connections to one server: only what is looked at listens, and catches up when it is looked at again.
    const look = () => {
      if (entrance) return;
      if (document.visibilityState === "visible") {
        missed.current = true;
        open();
      } else {
        source?.close();
        source = undefined;
        heardNow();
      }
    };
    window.addEventListener("offline", offline);
    // Whoever comes in hears nothing yet.
    if (document.visibilityState === "visible" && !entrance) open();
    document.addEventListener("visibilitychange", look);
    return () => {
      source?.close();
      clearInterval(timer);
      document.removeEventListener("visibilitychange", look);
      window.removeEventListener("offline", offline);
    };
  }, [job, entrance, refresh]);
  const signedIn = useCallback(() => {
    setSignedOut(false);
    notBefore.current = 0;
    refresh();
  }, [refresh]);
  const value = useMemo(
    () => ({ aloneSince, signedOut, signedIn, refresh, ownChange, renewed }),
    [aloneSince, signedOut, signedIn, refresh, ownChange, renewed],
  );
  return <Live.Provider value={value}>{children}</Live.Provider>;
}

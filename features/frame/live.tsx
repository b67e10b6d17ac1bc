"use client";
import { usePathname, useRouter } from "next/navigation";
import { createContext, type ReactNode, useCallback, useContext, useEffect, useMemo, useRef, useState, useTransition } from "react";
import { Button } from "../../ui/button";
import { Dialog } from "../../ui/dialog";
import { SignInForm } from "../people/sign-in-form";
import { useDates } from "./dates";
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
  /** How often the page was had anew since it was opened. */
  renewed: number;
}
const Live = createContext<LiveNow>({ aloneSince: undefined, signedOut: false, signedIn: () => {}, refresh: () => {}, renewed: 0 });
export const useLive = () => useContext(Live);

/** Several changes at once are one refresh. */
const TOGETHER_MS = 60;
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
 * Hears what others change and takes it over: of one job, or of all; `since` says how far the page has seen it. A refresh that cannot be had never replaces the page: the
 * screen stays as it is, says since when it is alone, and catches up by itself.
 */
export function LiveProvider({ since, children }: { since: string; children: ReactNode }) {
  const router = useRouter();
  // A job's screens hear of their job, all others of everything.
  const job = /^\/job\/([^/]+)/.exec(usePathname())?.[1];
  const [aloneSince, setAlone] = useState<number | undefined>();
  const [signedOut, setSignedOut] = useState(false);
  const entrance = ENTRANCES.includes(usePathname());
  const waiting = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
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
  const refresh = useCallback(() => {
    missed.current = true;
    clearTimeout(waiting.current);
    waiting.current = setTimeout(async () => {
      // One at a time: what comes meanwhile is asked for when this one is there.
      if (busy.current || document.visibilityState !== "visible") return;
      busy.current = true;
      const had = await canBeHad();
      if (had === "who") setSignedOut(true);
      if (had !== "yes") {
        busy.current = false;
        waiting.current = setTimeout(() => again.current(), AGAIN_MS);
        return;
      }
      missed.current = false;
      startRenewing(() => {
        router.refresh();
        setRenewed((n) => n + 1);
      });
    }, TOGETHER_MS);
  }, [router]);
  useEffect(() => {
    again.current = refresh;
  }, [refresh]);
  useEffect(() => {
    // A page that is lost between that question and its answer is asked for again, and what is on screen stays.
    const plain = window.fetch;
    window.fetch = steadyFetch(
      plain.bind(window),
      () => window.location.href,
      () => again.current(),
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
    const heard = () => {
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
      source = new EventSource(`/live?since=${mark.current}${job ? `&job=${job}` : ""}`);
      source.onopen = () => {
        if (lostAt !== undefined || missed.current) refresh();
        heard();
      };
      source.addEventListener("beat", heard);
      source.onmessage = () => {
        heard();
        refresh();
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
        heard();
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
    refresh();
  }, [refresh]);
  const value = useMemo(() => ({ aloneSince, signedOut, signedIn, refresh, renewed }), [aloneSince, signedOut, signedIn, refresh, renewed]);
  return <Live.Provider value={value}>{children}</Live.Provider>;
}

/** One line while the screen hears nothing from the server. */
export function AloneLine() {
  const { aloneSince, signedOut } = useLive();
  const dates = useDates();
  return (
    <div role="status" aria-live="polite">
      {signedOut ? <SignedOut /> : null}
      {aloneSince === undefined || signedOut ? null : (
        <p className="flex min-h-10 items-center border-b-2 border-ink bg-sheet px-4 py-1">
          No answer from the server since {dates.clock(aloneSince)}. What you see is as it was then. It catches up by itself.
        </p>
      )}
    </div>
  );
}

/** The sign-in was ended elsewhere: the page stays, and whatever is half typed on it. */
function SignedOut() {
  const { signedIn } = useLive();
  const [open, setOpen] = useState(false);
  return (
    <div className="flex min-h-10 flex-wrap items-center gap-4 border-b-2 border-ink bg-sheet px-4 py-1">
      <p className="flex-1">You are not signed in any more. What you see and have typed stays; sign in to go on.</p>
      <Dialog open={open} onOpenChange={setOpen} title="Sign in" className="w-[420px]" trigger={<Button>Sign in</Button>}>
        <SignInForm
          onIn={() => {
            setOpen(false);
            signedIn();
          }}
        />
      </Dialog>
    </div>
  );
}

"use client";
import { createContext, type ReactNode, useCallback, useContext, useEffect, useMemo, useRef, useState } from "react";
import type { Result } from "../../server/kernel/result";
import { useLive } from "../frame/live";
import { type AtTurn, turnNow, useTurnBegins } from "../frame/worker";
import { resultOf } from "./answer";
import { type Entry, entries, newKey } from "./entries";
import type { Said } from "./said";
import { asSent, isWaiting, type Stopped, sendAll } from "./send-all";
import { usePhotoSending } from "./use-photos";

/** Between two tries while the server does not answer. */
const AGAIN_MS = 4000;

/** Longer than this a tablet does not wait for one answer. */
const PATIENCE_MS = 15_000;

async function send(entry: Entry): Promise<Result> {
  const answer = await fetch("/entries", {
    method: "POST",
    headers: { "Content-Type": "application/json" },
    body: JSON.stringify(asSent(entry, Date.now())),
    signal: AbortSignal.timeout(PATIENCE_MS),
  });
  return resultOf(answer);
}

/** One sender a device, whatever tabs are open, where the browser knows locks (on localhost and behind TLS). */
const alone = (work: () => Promise<void>): Promise<unknown> =>
  navigator.locks ? navigator.locks.request("imbra-outbox", { ifAvailable: true }, (lock) => (lock ? work() : undefined)) : work();

export interface Outbox {
  /** False until the device's store has been read. */
  known: boolean;
  /** The device's store takes nothing: what is pressed is not recorded, and `sentence` says so. */
  cannotKeep: boolean;
  /** What was pressed and is not in the device's store yet. */
  onTheWay: Said[];
  waiting: Entry[];
  /** The server cannot take these as they are: a person looks at them. */
  aside: Entry[];
  /** Taken by the server: they count on a page that is of an earlier revision of the job. */
  sent: Entry[];
  /** Why entries wait, or what came of the last. */
  sentence: string;
  /** Entries wait for somebody to say who they are. */
  nobody: boolean;
  /** Of whoever works here now, or of nobody where that is not known: then it waits for whoever says so next. */
  push: (said: Said, words: string, takesBack?: number) => void;
  /** Sends one that was set aside again: as it was, or as whoever works here now has decided. */
  again: (entry: Entry, how: "as it was" | "mine" | "decided") => void;
  /** Tries to send what waits, now. */
  flush: () => void;
  drop: (entry: Entry) => void;
}

const WHY: Record<Stopped, (n: number) => string> = {
  who: (n) => `${some(n)} kept on this tablet. Say who you are, and they are sent.`,
  again: (n) => `The server does not take entries now. ${some(n)} kept on this tablet and will be sent in order. Go on working.`,
  network: (n) => `No network. ${some(n)} kept on this tablet and will be sent in order. Go on working.`,
};

const CANNOT_KEEP = "This tablet cannot keep entries: its storage is full or switched off. Nothing was recorded. Make room, then press again.";

const some = (n: number) => (n === 1 ? "1 entry is" : `${n} entries are`);

/**
 * Entries are written to the device first and sent in order. While nothing answers they wait; without a person they wait for one;
 * what the server cannot take is set aside with its reason, and those behind it go on.
 */
function useSending(): Outbox {
  const { refresh, ownChange } = useLive();
  const [read, setList] = useState<Entry[] | undefined>();
  const list = read ?? NONE;
  const [stopped, setStopped] = useState<Stopped | undefined>();
  /** What came of the last, until the next press. */
  const [came, setCame] = useState("");
  const [unreadable, setUnreadable] = useState(false);
  const [pressed, setPressed] = useState<{ key: string; said: Said }[]>([]);
  const busy = useRef(false);
  const flush = useCallback(async () => {
    if (busy.current) return;
    busy.current = true;
    try {
      // Asked before the lock is: a tab that cannot read its store must not keep the others from sending.
      const waits = (await entries.all()).some(isWaiting);
      setUnreadable(false);
      if (!waits) {
        setStopped(undefined);
        return;
      }
      await alone(async () => {
        const { aside, stopped } = await sendAll(entries, async (entry) => {
          const r = await send(entry);
          if (r.ok) ownChange(r.revision ?? 0);
          return r;
        });
        // Without a person the page asks, too, whether anybody is signed in here at all.
        if (stopped === "who") refresh();
        setStopped(stopped);
        if (aside) setCame(`${aside} Somebody has to look at it: it waits under what is to be looked at.`);
      });
    } catch {
      // Of what it does, only the store can fail: it is opened anew the next time.
      entries.reopen();
      setUnreadable(true);
    } finally {
      busy.current = false;
    }
  }, [refresh, ownChange]);
  const notKept = useCallback(() => setCame(CANNOT_KEEP), []);
  // What nobody has signed is of whoever works here from now on.
  useTurnBegins(
    useCallback(
      (at: AtTurn) =>
        void entries
          .adopt(at)
          .then(flush)
          .catch(() => undefined),
      [flush],
    ),
  );
  useEffect(() => {
    if (unreadable) return;
    entries.forgetOld().catch(() => undefined);
    return entries.watch(setList, () => setUnreadable(true));
  }, [unreadable]);
  useEffect(() => {
    void flush();
    const again = () => void flush();
    const timer = setInterval(again, AGAIN_MS);
    window.addEventListener("online", again);
    return () => {
      clearInterval(timer);
      window.removeEventListener("online", again);
    };
  }, [flush]);
  const push = useCallback(
    (said: Said, words: string, takesBack?: number) => {
      const key = newKey();
      setCame("");
      setPressed((p) => [...p, { key, said }]);
      entries
        .add(key, said, words, turnNow(), takesBack)
        // The list is read at once: until it is, "all sent" would be said of what has not even begun.
        .then(async () => setList(await entries.all()))
        .finally(() => setPressed((p) => p.filter((one) => one.key !== key)))
        .then(flush, notKept);
    },
    [flush, notKept],
  );
  const again = useCallback(
    (entry: Entry, how: "as it was" | "mine" | "decided") => void entries.again(entry, how, turnNow()).then(flush, notKept),
    [flush, notKept],
  );
  const drop = useCallback((entry: Entry) => void entries.remove(entry.id), []);
  const waiting = useMemo(() => list.filter(isWaiting), [list]);
  const cannotKeep = unreadable || came === CANNOT_KEEP;
  const why = stopped && waiting.length > 0 ? WHY[stopped](waiting.length) : "";
  return {
    known: read !== undefined,
    cannotKeep,
    // Once the store tells of it, it is not on the way, whatever is heard first.
    onTheWay: useMemo(() => pressed.filter((p) => !list.some((e) => e.key === p.key)).map((p) => p.said), [pressed, list]),
    waiting,
    aside: useMemo(() => list.filter((e) => e.aside), [list]),
    sent: useMemo(() => list.filter((e) => e.sent), [list]),
    sentence: cannotKeep ? CANNOT_KEEP : why || came,
    nobody: stopped === "who" && waiting.length > 0,
    push,
    again,
    drop,
    flush: useCallback(() => void flush(), [flush]),
  };
}

const NONE: Entry[] = [];
const OutboxHere = createContext<Outbox | undefined>(undefined);

/** Sends what waits on this device whatever page is open. */
export function OutboxProvider({ children }: { children: ReactNode }) {
  usePhotoSending();
  return <OutboxHere.Provider value={useSending()}>{children}</OutboxHere.Provider>;
}

export function useOutbox(): Outbox {
  const outbox = useContext(OutboxHere);
  if (!outbox) throw new Error("useOutbox outside of OutboxProvider");
  return outbox;
}

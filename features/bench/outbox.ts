"use client";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import type { Result } from "../../server/result";
import { noteAction, stepAction, tickAction } from "../job/actions";

/** What the bench has to say, in order. Kept on the device until the server has it. */
export type Entry =
  | {
      kind: "tick";
      entryKey: string;
      payload: { number: string; lead: string; port: string; place?: number[]; state: "planned" | "plugged" | "checked"; sawPort?: string };
    }
  | { kind: "step"; entryKey: string; payload: { number: string; step: string; title: string; done: boolean } }
  | { kind: "note"; entryKey: string; payload: { number: string; text: string; kind: "note" | "skip" | "problem" } };

const KEY = "imbra-outbox";
/** By then the page has asked for news. */
const SHOWN_MS = 20_000;

function kept(): Entry[] {
  try {
    return JSON.parse(localStorage.getItem(KEY) ?? "[]") as Entry[];
  } catch {
    return [];
  }
}

const send = (e: Entry): Promise<Result> => {
  switch (e.kind) {
    case "tick":
      return tickAction({ ...e.payload, entryKey: e.entryKey });
    case "step":
      return stepAction({ ...e.payload, entryKey: e.entryKey });
    case "note":
      return noteAction({ ...e.payload, entryKey: e.entryKey });
  }
};

export interface Outbox {
  waiting: Entry[];
  /** Taken by the server, perhaps not yet on the page: they count until the page shows them. */
  sent: Entry[];
  sentence: string;
  push: (e: Entry) => void;
  clear: () => void;
}

/**
 * Entries are written to the device first and sent in order; a lost network keeps them, a refusal says why and lets go.
 * An entry sent twice is kept once by the server, which knows its key.
 */
export function useOutbox(onSent: () => void): Outbox {
  const [waiting, setWaiting] = useState<Entry[]>([]);
  const [recent, setRecent] = useState<{ entry: Entry; at: number }[]>([]);
  const [sentence, setSentence] = useState("");
  const busy = useRef(false);
  const write = useCallback((list: Entry[]) => {
    localStorage.setItem(KEY, JSON.stringify(list));
    setWaiting(list);
  }, []);
  const flush = useCallback(async () => {
    if (busy.current) return;
    busy.current = true;
    try {
      for (let first = kept()[0]; first; first = kept()[0]) {
        const r = await send(first);
        if (!r.ok && r.later) {
          setSentence(
            `${kept().length === 1 ? "1 entry is" : `${kept().length} entries are`} kept on this tablet and will be sent in order. Go on working.`,
          );
          return;
        }
        const entry = first;
        if (r.ok) setRecent((list) => [...list.filter((x) => Date.now() - x.at < SHOWN_MS), { entry, at: Date.now() }]);
        const sent = first.entryKey;
        write(kept().filter((e) => e.entryKey !== sent));
        setSentence(r.ok ? "" : r.sentence);
      }
      onSent();
    } catch {
      const n = kept().length;
      setSentence(`No network. ${n === 1 ? "1 entry is" : `${n} entries are`} kept on this tablet and will be sent in order. Go on working.`);
    } finally {
      busy.current = false;
    }
  }, [onSent, write]);
  useEffect(() => {
    setWaiting(kept());
    void flush();
    const again = () => void flush();
    const timer = setInterval(() => {
      if (kept().length > 0) again();
    }, 4000);
    window.addEventListener("online", again);
    return () => {
      clearInterval(timer);
      window.removeEventListener("online", again);
    };
  }, [flush]);
  const push = useCallback(
    (e: Entry) => {
      write([...kept(), e]);
      setSentence("");
      void flush();
    },
    [flush, write],
  );
  const sent = useMemo(() => recent.map((x) => x.entry), [recent]);
  useEffect(() => {
    if (recent.length === 0) return;
    const timer = setTimeout(() => setRecent((list) => list.filter((x) => Date.now() - x.at < SHOWN_MS)), SHOWN_MS);
    return () => clearTimeout(timer);
  }, [recent]);
  return { waiting, sent, sentence, push, clear: useCallback(() => setSentence(""), []) };
}

/** A key of its own for every entry. */
export const entryKey = () => `${Date.now().toString(36)}-${crypto.getRandomValues(new Uint32Array(2)).join("-")}`;

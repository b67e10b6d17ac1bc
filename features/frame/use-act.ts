"use client";
import { useCallback, useState, useTransition } from "react";
import type { Result } from "../../server/kernel/result";
import { useDates, withDates } from "./dates";
import { useLive } from "./live";

export interface Acting {
  pending: boolean;
  sentence: string;
  more: string[];
  /** `failed` is told when it was refused, or when no server answered (`away`). */
  run: <T>(work: () => Promise<Result<T>>, said?: (value: T) => string, failed?: (away: boolean) => void) => void;
  clear: () => void;
}

/** Runs an action and keeps its sentence on screen until the next one: nothing that matters vanishes by itself. */
export function useAct(): Acting {
  const [pending, start] = useTransition();
  const [sentence, setSentence] = useState("");
  const [more, setMore] = useState<string[]>([]);
  const { refresh } = useLive();
  const dates = useDates();
  const run = useCallback(
    <T>(work: () => Promise<Result<T>>, said?: (value: T) => string, failed?: (away: boolean) => void) => {
      start(async () => {
        try {
          const r = await work();
          setSentence(r.ok ? (said?.(r.value) ?? "") : r.sentence);
          setMore(r.ok ? [] : (r.more ?? []));
          if (!r.ok) failed?.(false);
          refresh();
        } catch {
          setSentence("No answer from the server. Nothing was changed. Check the network and try again.");
          setMore([]);
          failed?.(true);
        }
      });
    },
    [refresh],
  );
  const clear = useCallback(() => {
    setSentence("");
    setMore([]);
  }, []);
  return { pending, sentence: withDates(sentence, dates), more, run, clear };
}

"use client";
import { useEffect, useRef, useState } from "react";
import type { Result } from "../../server/kernel/result";

const WAIT_MS = 120;

/**
 * What the server finds for some words, asked once the hand rests. An answer to words typed before is dropped,
 * and what was found stays until the next answer. `ask` is undefined while nothing is to be found.
 */
export function useFound<T>(ask: ((words: string) => Promise<Result<T>>) | undefined, words: string): { found: T | undefined; sentence: string } {
  const [found, setFound] = useState<T>();
  const [sentence, setSentence] = useState("");
  const asking = useRef(ask);
  asking.current = ask;
  const asks = ask !== undefined;
  useEffect(() => {
    if (!asks) {
      setFound(undefined);
      setSentence("");
      return;
    }
    let live = true;
    const wait = setTimeout(async () => {
      const r = await asking.current?.(words).catch(() => undefined);
      if (!live) return;
      if (r?.ok) setFound(r.value);
      setSentence(r?.ok ? "" : (r?.sentence ?? "No answer from the server. Look again when it is back."));
    }, WAIT_MS);
    return () => {
      live = false;
      clearTimeout(wait);
    };
  }, [asks, words]);
  return { found, sentence };
}

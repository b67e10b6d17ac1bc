"use client";
import { useCallback } from "react";
import { useLive } from "../frame/live";
import { useOutbox } from "../outbox/outbox";
import { takeBackAction } from "./actions";

/** Takes back the last entry that somebody made here: one that still waits on the device is dropped, one that the server has is undone by a new entry. */
export function useTakeBack(number: string, say: (sentence: string) => void): () => void {
  const { waiting, drop } = useOutbox();
  const { refresh } = useLive();
  return useCallback(() => {
    const last = waiting.filter((e) => e.said.number === number).at(-1);
    if (last) {
      drop(last);
      say(`Taken back before it was sent: ${last.words}.`);
      return;
    }
    void takeBackAction({ number })
      .then((r) => {
        say(r.ok ? r.value : r.sentence);
        refresh();
      })
      .catch(() => say("No answer from the server. Nothing was taken back."));
  }, [waiting, drop, refresh, number, say]);
}

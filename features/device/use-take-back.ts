"use client";
import { useCallback } from "react";
import { takeBackAction } from "../actions/bench";
import { useLive } from "../frame/live";
import type { Worker } from "../frame/worker";
import { type Entry, entries } from "./entries";
import { useOutbox } from "./outbox";
import type { OnCard, One, Said } from "./said";
import { isWaiting } from "./send-all";

/** The opposite of what was said, as it would be said now; undefined where there is none. */
function opposite(said: Said): Said | undefined {
  if (said.kind !== "card") return oppositeOfOne(said);
  const items = [...said.items].reverse().flatMap((i) => {
    const back = oppositeOfOne(i.said) as OnCard | undefined;
    return back ? [{ said: back, words: `Taken back: ${i.words}` }] : [];
  });
  return items.length > 0 ? { ...said, items } : undefined;
}

function oppositeOfOne({ ...said }: One): One | undefined {
  if (said.kind === "plug" || said.kind === "step") delete said.tookS;
  if (said.kind === "step") return { ...said, done: !said.done, saw: said.done };
  if (said.kind !== "plug") return undefined;
  const { port, state } = said;
  // Moved from one port to another, the whole move is taken back.
  const from =
    said.saw && (said.saw.state === "plugged" || said.saw.state === "checked") && said.saw.port !== null && said.saw.port !== port
      ? said.saw
      : undefined;
  if (from?.port && state !== "planned") {
    const { place: _, ...rest } = said;
    return { ...rest, port: from.port, state: "plugged", saw: { port, state } };
  }
  return { ...said, state: state === "planned" ? "plugged" : "planned", saw: { port, state } };
}

/** The last entry of somebody's that still waits here and is not taken back yet. */
function lastOf(waiting: readonly Entry[], number: string, who: string): Entry | undefined {
  const back = new Set(waiting.flatMap((e) => e.takesBack ?? []));
  return waiting.filter((e) => e.said.number === number && e.by?.id === who && e.takesBack === undefined && !back.has(e.id)).at(-1);
}

/**
 * Takes back the last entry that `who` made, by a new one: behind it on the device while it still waits there (whether the server has it
 * already or not, the end is the same), else at the server. Nothing is ever dropped.
 */
export function useTakeBack(number: string, say: (sentence: string) => void, who?: Worker): () => Promise<void> {
  const { push } = useOutbox();
  const { refresh } = useLive();
  return useCallback(async () => {
    // Asked of the store itself: it answers behind what was pressed a moment ago and is still being written.
    const waiting = await entries.all().then(
      (list) => list.filter(isWaiting),
      () => [],
    );
    const last = who && lastOf(waiting, number, who.id);
    if (last) {
      const said = opposite(last.said);
      if (said) push(said, `Taken back: ${last.words}`, last.id);
      say(said ? `Taken back: ${last.words}.` : `The last thing you did here is taken back on its own screen, not by a key: ${last.words}.`);
      return;
    }
    await takeBackAction({ number })
      .then((r) => {
        say(r.ok ? r.value : r.sentence);
        refresh();
      })
      .catch(() => say("No answer from the server. Nothing was taken back."));
  }, [push, refresh, number, say, who]);
}

"use client";
import { useCallback, useEffect, useState } from "react";
import type { Step } from "../../core/order";
import type { Sheet } from "./bench-sheet";
import type { AtBench } from "./use-bench";

/** Parts of some steps that the receipt does not know to be here. */
export function notHereOn(steps: readonly Step[], notHere: readonly string[]): string[] {
  const owner = (address: string) => address.slice(0, address.indexOf(":")).split("/")[0] ?? "";
  const held = new Set(steps.filter((s) => !s.done && s.kind !== "check").flatMap((s) => [...s.parts, ...s.leads.map(owner)]));
  return notHere.filter((p) => held.has(p));
}

/**
 * What is done, by Done, a tap or a scan, unless something speaks against it: then that is asked or said first, and `say` is false.
 * What is pressed before it is known what this device keeps is heard, and taken as soon as it is: where it is done by then, it is not
 * said again.
 */
export function useSaying({
  bench,
  stop,
  covered,
  notHere,
  held,
  setSaid,
  setSheet,
}: {
  bench: AtBench;
  /** What stops this card, and what it is about. */
  stop: { message: string; ends: readonly string[] } | undefined;
  /** Forgotten until what hides it was in. */
  covered: Step | undefined;
  notHere: readonly string[];
  /** Why nothing is done with these yet: a part of them is on its way back. */
  held: (steps: readonly Step[]) => string | undefined;
  setSaid: (sentence: string) => void;
  setSheet: (sheet: Sheet) => void;
}): {
  /** What somebody says is done, where that is asked about first. */
  asked: readonly Step[];
  say: (wanted: readonly Step[], done: boolean) => boolean;
} {
  const [asked, setAsked] = useState<readonly Step[]>([]);
  const [early, setEarly] = useState<readonly { id: string; done: boolean }[]>([]);
  const { known, steps } = bench;
  const say = useCallback(
    (wanted: readonly Step[], done: boolean): boolean => {
      if (!known) {
        if (bench.cannotKeep) return false;
        const more = wanted.map((s) => ({ id: s.id, done }));
        setEarly((had) => [...had.filter((e) => !more.some((m) => m.id === e.id)), ...more]);
        setSaid("Heard. It counts as soon as this tablet has read what it keeps.");
        return false;
      }
      const list = wanted.filter((s) => !bench.onTheWay(s));
      if (list.length === 0) return false;
      setSaid("");
      if (!done) {
        bench.say(list, false);
        return true;
      }
      setAsked(list);
      if (stop && list.some((s) => s.lead && stop.ends.includes(s.lead))) setSaid(`Stop. ${stop.message}`);
      else if (covered && list.includes(covered)) setSheet("undo");
      else if (held(list) !== undefined) setSaid(held(list) ?? "");
      else if (notHereOn(list, notHere).length > 0) setSheet("missing");
      else {
        bench.say(list, true);
        return true;
      }
      return false;
    },
    [known, bench, stop, covered, notHere, held, setSaid, setSheet],
  );
  useEffect(() => {
    // It was said that nothing is recorded: then nothing is, later either.
    if (bench.cannotKeep) setEarly([]);
  }, [bench.cannotKeep]);
  useEffect(() => {
    if (!known || early.length === 0) return;
    setEarly([]);
    setSaid("");
    for (const done of [true, false]) {
      const ids = new Set(early.filter((e) => e.done === done).map((e) => e.id));
      say(
        steps.filter((s) => ids.has(s.id) && s.done !== done),
        done,
      );
    }
  }, [known, early, steps, say, setSaid]);
  return { asked, say };
}

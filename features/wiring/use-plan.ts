"use client";
import { startTransition, useCallback, useEffect, useRef, useState } from "react";
import type { Planned } from "../../server/plan/plan-job";
import type { PlanLine } from "../../server/plan/plan-lines";
import { stopPlanAction } from "../actions/wiring";
import { renewSlices } from "../frame/slice-client";

export interface Planning {
  busy: boolean;
  /** What it is doing now, in words. */
  now: string;
  /** 0 to 1. */
  share: number;
  /** How the last plan ended. */
  sentence: string;
  start: () => void;
  stop: () => void;
}

const NO_ANSWER = "No answer from the server. What was stored stays. Check the network and plan again.";

const ended = (v: Planned): string => `${endOf(v)} ${v.proof}`.trim();

function endOf(v: Planned): string {
  const ends = `${v.placed} connections, ${v.moved} moved, ${v.free} wanted ${v.free === 1 ? "end" : "ends"} free`;
  const took = v.tookMs < 100 ? "under 0.1 s" : `${(v.tookMs / 1000).toFixed(1)} s`;
  if (v.after === "proved") return `Plan ${v.revision} is proved as it stands, in ${took}: ${ends}.`;
  if (v.after === "replaced") return `Plan ${v.revision}, ${v.status} in ${took}, replaces the first one: ${ends}.`;
  if (v.after === "stopped") return `Stopped. Plan ${v.revision} stays, not yet proved: ${ends}.`;
  if (v.after === "left") return `Plan ${v.revision} stays, not yet proved: nothing better was found in ${took}. ${ends}.`;
  return `Plan ${v.revision}, ${v.status} in ${took}: ${ends}.`;
}

/** Plans a job and follows it: a first plan soon, then its proof; it can be stopped at any time. */
export function usePlan(number: string, isRunning: boolean): Planning {
  const [busy, setBusy] = useState(false);
  const [now, setNow] = useState("");
  const [share, setShare] = useState(0);
  const [sentence, setSentence] = useState("");
  const running = useRef<AbortController | null>(null);

  // The sentence and what it tells of appear together, once the page has caught up.
  const say = useCallback((words: string) => void renewSlices().finally(() => setSentence(words)), []);
  const take = useCallback(
    (line: PlanLine) => {
      if (line.kind === "progress") {
        setNow(line.words);
        setShare(line.share);
      } else if (line.kind === "first") {
        const { revision, placed, proof } = line.planned;
        say(`Plan ${revision}, not yet proved: ${placed} connections. ${proof} Looking for a better one.`);
      } else say(line.result.ok ? ended(line.result.value) : line.result.sentence);
    },
    [say],
  );

  const follow = useCallback(
    async (method: "POST" | "GET") => {
      const mine = new AbortController();
      running.current?.abort();
      running.current = mine;
      const begin = () => {
        setBusy(true);
        setNow("Beginning");
        setShare(0);
        setSentence("");
      };
      if (method === "POST") begin();
      let over = false;
      try {
        const answer = await fetch(`/files/job/${encodeURIComponent(number)}/plan`, { method, signal: mine.signal });
        // Nothing is being made any more: the page tells what came of it.
        if (answer.status === 204) return;
        if (method === "GET") begin();
        const reader = answer.body?.pipeThrough(new TextDecoderStream()).getReader();
        if (!answer.ok || !reader) throw new Error("no answer");
        let rest = "";
        for (;;) {
          const { value, done } = await reader.read();
          rest += value ?? "";
          const lines = rest.split("\n");
          rest = lines.pop() ?? "";
          for (const l of lines) {
            const line = JSON.parse(l) as PlanLine;
            over ||= line.kind === "end";
            take(line);
          }
          if (done) break;
        }
        if (!over) throw new Error("cut short");
      } catch {
        if (running.current === mine && !mine.signal.aborted) setSentence(NO_ANSWER);
      } finally {
        if (running.current === mine) {
          running.current = null;
          startTransition(() => {
            setBusy(false);
            setNow("");
          });
        }
      }
    },
    [number, say, take],
  );
  const start = useCallback(() => follow("POST"), [follow]);

  // What somebody asked for already is followed here too.
  useEffect(() => {
    if (isRunning && !running.current) void follow("GET");
  }, [isRunning, follow]);
  useEffect(() => () => running.current?.abort(), []);

  return {
    busy,
    now,
    share,
    sentence,
    start: () => void start(),
    stop: () => {
      void stopPlanAction({ number }).catch(() => setSentence(NO_ANSWER));
    },
  };
}

"use client";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import type { Step } from "../../core/order";
import type { JobData } from "../../server/views/data";
import type { Had } from "../../server/views/had";
import { useOutbox } from "../device/outbox";
import type { Said } from "../device/said";
import { usePhotos } from "../device/use-photos";
import { useTakeBack } from "../device/use-take-back";
import { useLive } from "../frame/live";
import { useSlice } from "../frame/slices";
import { useUntouched, useWorker, type Worker } from "../frame/worker";
import { graphOf } from "../shared/candidates";
import type { Sheet } from "./bench-sheet";
import { awayOn, coverersOf, stopOn } from "./cards";
import { useBench } from "./use-bench";
import { notHereOn, useSaying } from "./use-saying";

const REST_MS = 500;
const NAMELESS = "Kept on this tablet without a name. Go on; say who you are once there is a network.";
/** How long an answer stands before what is said of waiting entries comes back, ms. */
const ANSWER_MS = 10_000;
/** Which hand works is the tablet's business, not the job's. */
const HAND = "imbra-hand";

/** Who the server knows to work here, when it said so, and after how many minutes untouched it asks again. */
export interface BenchSeat {
  worker: Worker | null;
  asOfMs: number;
  lockMinutes: number;
}

/** What a bench shows and has open: the card in front, who works, what was said last; and what its keys do. */
export function useBenchState(first: Had<JobData<"bench">>, seat: BenchSeat) {
  const { data: view, known } = useSlice(["job", first.data.head.number, "bench"], first, { keep: true });
  const { aloneSince, signedOut, signedIn } = useLive();
  const who = useWorker(seat.worker, seat.asOfMs);
  const { locked, touch } = useUntouched(seat.lockMinutes);
  const [personOpen, setPersonOpen] = useState(false);
  const outbox = useOutbox();
  const number = view.head.number;
  const graph = useMemo(() => graphOf(view.build), [view.build]);
  const [looking, setLooking] = useState<string | null>(null);
  const [sheet, setSheet] = useState<Sheet>(null);
  const [entriesOpen, setEntriesOpen] = useState(false);
  const [said, setSaid] = useState("");
  // What hands did last is answered first, then that entries wait.
  const waitsBehind = said !== "" && outbox.sentence !== "";
  useEffect(() => {
    if (!waitsBehind) return;
    const timer = setTimeout(() => setSaid(""), ANSWER_MS);
    return () => clearTimeout(timer);
  }, [waitsBehind]);
  const [left, setLeft] = useState(false);
  useEffect(() => setLeft(localStorage.getItem(HAND) === "left"), []);
  const turnHand = () => {
    localStorage.setItem(HAND, left ? "right" : "left");
    setLeft(!left);
  };
  const [camera, setCamera] = useState(0);
  const kept = usePhotos();
  const rested = useRef(0);
  // What is pressed at a locked bench is kept, without a name, and asks for one.
  const by = locked ? undefined : (who ?? undefined);
  const outboxPush = outbox.push;
  const push = useCallback(
    (entry: Said, words: string) => {
      outboxPush(entry, words);
      if (by) return;
      // A change of person needs the server: without one the work goes on, and what is pressed waits for a name.
      if (navigator.onLine) setPersonOpen(true);
      else setSaid(NAMELESS);
    },
    [outboxPush, by],
  );
  const bench = useBench(view, known, push, sheet === "pause");
  const { cards, steps } = bench;
  // When all is done hands are at the last card.
  const current = bench.current < 0 ? cards.length - 1 : bench.current;
  const finished = bench.current < 0;
  const lookedAt = looking === null ? -1 : cards.findIndex((c) => c.steps.some((s) => s.id === looking));
  const at = lookedAt >= 0 ? lookedAt : current;
  const card = cards[at];
  const elsewhere = lookedAt >= 0 && (lookedAt !== current || finished);
  const open = card ? bench.openOn(card) : [];
  /** The one that hands are at: a plug of the card that is still open, else its first. */
  const step = open[0] ?? card?.steps[0];
  const lead = bench.leadOf(step);
  const stop = stopOn(view.findings, card, open, (s) => bench.leadOf(s)?.loom === "seat");
  /** Forgotten until what hides it was in. */
  const covered = open.find((s) => coverersOf(s, steps).length > 0);
  const missing = card ? notHereOn(card.steps, view.notHere) : [];
  const nameOf = useCallback((id: string) => graph.parts.get(id)?.part.label ?? graph.parts.get(id)?.type.name ?? id, [graph]);
  const held = useCallback(
    (list: readonly Step[]) => {
      const parts = new Set(list.flatMap((s) => awayOn(s, new Set(view.away.map((r) => r.part)))));
      const [one] = view.away.filter((r) => parts.has(r.part));
      return (
        one &&
        `Held: ${nameOf(one.part)} is on its way back (${one.why})${one.toWhom ? ` to ${one.toWhom}` : ""}. On Receipt somebody says when its replacement is here.`
      );
    },
    [view.away, nameOf],
  );
  const { asked, say } = useSaying({ bench, stop, covered, notHere: view.notHere, held, setSaid, setSheet });
  const press = useCallback(() => {
    const now = Date.now();
    if (elsewhere) {
      // Going back ticks nothing, so it need not rest; but a second tap must not land on Done.
      rested.current = now;
      setLooking(null);
      return;
    }
    if (now - rested.current < REST_MS) return;
    rested.current = now;
    if (!finished && !stop && open.length > 0) say(open, true);
  }, [elsewhere, finished, open, stop, say]);
  const tick = (s: Step) => {
    const now = Date.now();
    if (now - rested.current < REST_MS / 2) return;
    rested.current = now;
    say([s], !s.done);
  };
  const takeBack = useTakeBack(number, setSaid, by);
  const look = useCallback(
    (by: number) => {
      const to = Math.min(cards.length - 1, Math.max(0, at + by));
      setLooking(to === current && !finished ? null : (cards[to]?.steps[0]?.id ?? null));
    },
    [cards, at, current, finished],
  );
  return {
    ...{ view, number, graph, bench, cards, steps, who, locked, touch, outbox, signedOut, signedIn, aloneSince, push },
    ...{ at, card, step, lead, current, finished, elsewhere, open, stop, covered, missing, asked, kept, held },
    ...{ said, setSaid, sheet, setSheet, entriesOpen, setEntriesOpen, personOpen, setPersonOpen, setLooking, left, turnHand, camera, setCamera },
    ...{ nameOf, say, press, tick, look, takeBack },
  };
}
export type AtBenchScreen = ReturnType<typeof useBenchState>;

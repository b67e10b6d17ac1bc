"use client";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { type Step, turnWords } from "../../core/order";
import type { Had } from "../../server/views/had";
import type { BenchSlice } from "../../server/views/slices";
import { cx } from "../../ui/cx";
import Link from "../../ui/link";
import { EntriesSheet } from "../device/entries-sheet";
import { useOutbox } from "../device/outbox";
import type { Said } from "../device/said";
import { usePhotos } from "../device/use-photos";
import { useTakeBack } from "../device/use-take-back";
import { type AtBench as Colleague, WhoWorks } from "../device/who-works";
import { useKeys } from "../frame/keys";
import { useLive } from "../frame/live";
import { useSlice } from "../frame/slices";
import { useUntouched, useWorker, type Worker } from "../frame/worker";
import { graphOf } from "../shared/candidates";
import { Band } from "./band";
import { BenchFoot, KEY } from "./bench-foot";
import { BenchHead } from "./bench-head";
import { BenchSheet, type Sheet } from "./bench-sheet";
import { CardPanel } from "./card-panel";
import { CardPhotos } from "./card-photos";
import { canNow, coverersOf, portsOf, underTitle } from "./cards";
import { PhotoKey } from "./photo-key";
import { RegionView } from "./region-view";
import { withShowed } from "./showed-here";
import { useBench } from "./use-bench";
import { notHereOn, useSaying } from "./use-saying";

const REST_MS = 500;
const NAMELESS = "Kept on this tablet without a name. Go on; say who you are once there is a network.";
/** How long an answer stands before what is said of waiting entries comes back, ms. */
const ANSWER_MS = 10_000;
/** Which hand works is the tablet's business, not the job's. */
const HAND = "imbra-hand";

/** One card at a time, large, worked with one hand. */
export function BenchScreen({
  first,
  seat,
  people,
}: {
  first: Had<BenchSlice>;
  /** Who the server knows to work here, when it said so, and after how many minutes untouched it asks again. */
  seat: { worker: Worker | null; asOfMs: number; lockMinutes: number };
  people: Colleague[];
}) {
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
  const stop = view.findings.find((f) => f.severity === "stop" && f.ends.some((e) => card?.steps.some((s) => s.lead === e)));
  /** Forgotten until what hides it was in. */
  const covered = open.find((s) => coverersOf(s, steps).length > 0);
  const missing = card ? notHereOn(card.steps, view.notHere) : [];
  const nameOf = useCallback((id: string) => graph.parts.get(id)?.part.label ?? graph.parts.get(id)?.type.name ?? id, [graph]);
  const { asked, say } = useSaying({ bench, stop, covered, notHere: view.notHere, setSaid, setSheet });
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

  useKeys(
    "screen",
    [
      { keys: [" ", "Enter"], word: "Done", only: "keys", run: press },
      { keys: ["ArrowLeft"], word: "Look back", run: () => look(-1) },
      { keys: ["ArrowRight"], word: "Look ahead", run: () => look(1) },
      { keys: ["d"], word: "Differs: it is somewhere else", run: () => setSheet("differs") },
      { keys: ["p"], word: "Problem", run: () => setSheet("problem") },
      { keys: ["c"], word: "Photo", run: () => setCamera((n) => n + 1) },
      { keys: ["s"], word: "Skip this card", run: () => setSheet("skip") },
      { keys: ["l"], word: "All steps", run: () => setSheet("list") },
      { keys: ["v"], word: "If I press the button now", run: () => setSheet("press") },
      { keys: ["ctrl+z"], word: "Take back the last entry of mine", run: takeBack },
    ],
    (code) => {
      const hit = view.leads.find((l) => l.tag.toLowerCase() === code.toLowerCase());
      if (!hit) return false;
      const on = card?.steps.find((s) => s.lead === hit.address);
      const many = (card?.steps.length ?? 0) > 1;
      // Where a card has many plugs the scan of a tag says which of them is in; a card of one waits for Done.
      if (card && on && many && !on.done && !elsewhere && canNow(on, card, steps)) {
        if (say([on], true)) setSaid(`${hit.tag} is ticked: into ${hit.portName ?? "its port"}. Tap it to take that back.`);
        return true;
      }
      setSaid(
        !on
          ? `Wrong lead: that is ${hit.tag}, ${hit.name}. This card wants ${lead?.tag ?? "another"}.`
          : on.done
            ? `${hit.tag} is in already.`
            : `Right lead: ${hit.tag}. ${many ? `It goes into ${hit.portName ?? "its port"}, but not yet.` : "Plug it, then press Done."}`,
      );
      return true;
    },
  );

  if (!card || !step || steps.length === 0)
    return (
      <main className="p-8 text-bench">
        There is nothing to do here yet.{" "}
        <Link className="underline" href={`/job/${number}/wiring`}>
          Plan the wiring first.
        </Link>
      </main>
    );
  const own = new Set(card.steps.map((s) => s.id));
  const photos = view.photos.filter((p) => p.step !== null && own.has(p.step));
  const waiting = kept.filter((p) => p.number === number && p.step !== undefined && own.has(p.step));
  const wanted = card.steps.find((s) => s.photo)?.photo;
  const pictured = photos.length + waiting.length > 0;
  const over = finished && !elsewhere;
  const following = cards.slice(at + 1).find((c) => !c.done);
  const skippedHere = card.steps.find((s) => bench.skipped[s.id]);
  const covers = card.steps.find((s) => s.coversWords)?.coversWords;
  const caution = open.find((s) => s.caution)?.caution ?? step.caution;
  const title = over
    ? steps.every((s) => s.done)
      ? steps.some((s) => s.presses)
        ? "Every step is done."
        : "Every step is done. On to the first boot."
      : "Nothing else can be done now."
    : card.title;
  return (
    <main className="mx-auto flex h-dvh min-h-[680px] w-full max-w-[1280px] flex-col overflow-hidden max-[760px]:h-auto max-[760px]:min-h-dvh max-[760px]:overflow-visible">
      <BenchHead
        {...{ number, outbox }}
        at={at + 1}
        of={cards.length}
        who={signedOut ? "Sign in" : locked || outbox.nobody || !who ? "Who are you?" : who.name}
        onLook={look}
        onList={() => setSheet("list")}
        onPerson={() => setPersonOpen(true)}
        onEntries={() => setEntriesOpen(true)}
      />
      <section aria-live="polite" className="flex h-38 shrink-0 flex-col justify-center px-6 max-[760px]:h-auto max-[760px]:px-4 max-[760px]:py-4">
        {card.turn && !over && !card.done ? <p className="text-bench font-bold text-mark">{turnWords(card.turn)}</p> : null}
        <h1 className="line-clamp-2 text-bench-action font-bold max-[760px]:line-clamp-none max-[760px]:text-verdict">{title}</h1>
        <p
          className={cx(
            "text-bench max-[760px]:text-action",
            card.steps.length > 1 ? "truncate max-[760px]:whitespace-normal" : "line-clamp-2 max-[760px]:line-clamp-none",
          )}
        >
          {over ? view.power.verdict : underTitle(card, step, lead?.tag)}
        </p>
      </section>
      <div className="flex min-h-0 flex-1 basis-[312px] border-y border-rule max-[760px]:flex-none max-[760px]:basis-auto max-[760px]:flex-col">
        <div className="min-w-0 flex-[640] overflow-hidden max-[760px]:h-70 max-[760px]:flex-none">
          <RegionView
            graph={graph}
            ports={portsOf(card, step, steps)}
            parts={card.steps.flatMap((s) => s.parts)}
            leads={card.steps.filter((s) => s.kind === "route" || s.kind === "dress").flatMap((s) => s.leads)}
            from={card.posture === "behind-up" ? "behind" : "front"}
            label={card.title}
          />
        </div>
        <div
          // Each card begins at its top.
          key={card.id}
          tabIndex={0}
          role="group"
          aria-label="What is on this card"
          className="flex-[384] overflow-auto border-l border-rule p-5 text-bench max-[760px]:flex-none max-[760px]:border-l-0 max-[760px]:border-t max-[760px]:text-action"
        >
          <CardPhotos {...{ photos, waiting }} />
          <CardPanel
            card={card}
            graph={graph}
            bench={bench}
            onTick={tick}
            press={step.presses && !step.done ? (view.starts[step.id] ?? view.power.verdict) : undefined}
          />
        </div>
      </div>
      <div className="flex h-20 shrink-0 items-center overflow-hidden px-6 text-bench max-[760px]:h-auto max-[760px]:px-4 max-[760px]:py-3 max-[760px]:text-action">
        <div className="line-clamp-2 max-[760px]:line-clamp-none">
          <Band
            {...{ stop, card, over, steps, caution, covers, aloneSince }}
            coveredBy={covered && !elsewhere ? coverersOf(covered, steps)[0]?.title : undefined}
            said={outbox.cannotKeep ? outbox.sentence : said || outbox.sentence}
            head={view.head}
            unplanned={view.unplanned}
            missing={open.length > 0 ? missing.map(nameOf) : []}
            photo={wanted && !pictured && !card.done ? wanted : undefined}
            skipped={skippedHere ? bench.skipped[skippedHere.id]?.reason : undefined}
            of={cards.length}
            following={following?.title}
          />
        </div>
      </div>
      <BenchFoot
        {...{ left, number, over, onSheet: setSheet, onPress: press }}
        photo={<PhotoKey className={KEY} about={{ number, step: step.id }} open={camera} onSaid={setSaid} />}
        undoes={elsewhere && card.done}
        warned={(stop !== undefined || covered !== undefined) && !elsewhere}
        done={
          elsewhere
            ? finished
              ? "Return"
              : `Return to card ${current + 1}`
            : stop
              ? "Stopped: see above"
              : covered
                ? "What comes out"
                : open.length > 1
                  ? `Done: all ${open.length}`
                  : "Done"
        }
      />
      <EntriesSheet open={entriesOpen} close={() => setEntriesOpen(false)} {...{ outbox, who }} />
      <WhoWorks
        open={personOpen}
        close={() => setPersonOpen(false)}
        {...{ people, who }}
        signedIn={!signedOut && seat.worker !== null}
        because={locked ? `Nobody touched this bench for ${seat.lockMinutes} minutes. What was pressed is kept.` : outbox.sentence}
        onIn={() => {
          touch();
          setPersonOpen(false);
          signedIn();
          outbox.flush();
        }}
      />
      <BenchSheet
        sheet={sheet}
        close={() => setSheet(null)}
        {...{ view, bench, card, open, graph, number, left, turnHand }}
        onPress={() => setSheet("press")}
        onPause={() => setSheet("pause")}
        onHandOver={() => {
          setSheet(null);
          setPersonOpen(true);
        }}
        missing={notHereOn(asked, view.notHere).map(nameOf)}
        onGo={(id) => {
          setLooking(card.steps.some((s) => s.id === id) && !elsewhere ? null : id);
          setSheet(null);
        }}
        onNote={(kind, text) => {
          if (kind === "skip") {
            bench.skip(open, text);
            setLooking(null);
          } else push({ kind: "note", number, step: step.id, text, as: kind }, `${step.title}: ${text}`);
          setSheet(null);
        }}
        onHere={() => {
          for (const id of notHereOn(asked, view.notHere)) push({ kind: "receive", number, part: id }, `${nameOf(id)} is here`);
          setSheet(null);
          bench.say(asked, true);
        }}
        covered={covered?.id}
        onUndo={(ids) => {
          const out = new Set(ids);
          bench.say(
            [...steps].reverse().filter((s) => s.done && out.has(s.id)),
            false,
          );
          setSheet(null);
          setLooking(null);
        }}
        onBuilt={(built, words) => {
          push(withShowed(built, graph, [...outbox.sent.filter((e) => (e.sent?.revision ?? 0) > view.head.revision), ...outbox.waiting]), words);
          setSheet(null);
          setSaid(
            built.kind === "measure"
              ? `${words}. Checks, lengths and order go by it. The part type's page on the shelf offers it as a correction.`
              : `${words}. Plan the wiring again when hands are free: what is plugged stays.`,
          );
        }}
        onDiffers={(s, p, place) => {
          const saw = bench.sawOf(bench.leadOf(s));
          if (s.lead)
            push(
              { kind: "plug", number, lead: s.lead, port: p, ...(place ? { place } : {}), state: "plugged", ...(saw ? { saw } : {}) },
              `${bench.leadOf(s)?.tag ?? s.title} in ${graph.ports.get(p)?.name ?? p}`,
            );
          setSheet(null);
          setLooking(null);
        }}
      />
    </main>
  );
}

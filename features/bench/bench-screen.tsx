"use client";
import { useMemo } from "react";
import { notInYet, turnWords } from "../../core/order";
import type { JobData } from "../../server/views/data";
import type { Had } from "../../server/views/had";
import { cx } from "../../ui/cx";
import Link from "../../ui/link";
import { Caution } from "../../ui/marks";
import type { AtBench as Colleague } from "../device/who-works";
import { unplannedCards } from "../shared/unplanned-cards";
import { Band } from "./band";
import { BenchFoot, KEY } from "./bench-foot";
import { BenchHead } from "./bench-head";
import { BenchSheets } from "./bench-sheets";
import { CardNotes } from "./card-notes";
import { CardPanel } from "./card-panel";
import { CardPhotos } from "./card-photos";
import { coverersOf, portsOf, underTitle } from "./cards";
import { PhotoKey } from "./photo-key";
import { RegionView } from "./region-view";
import { useBenchKeys } from "./use-bench-keys";
import { type BenchSeat, useBenchState } from "./use-bench-state";

/** One card at a time, large, worked with one hand. */
export function BenchScreen({ first, seat, people }: { first: Had<JobData<"bench">>; seat: BenchSeat; people: Colleague[] }) {
  const state = useBenchState(first, seat);
  useBenchKeys(state);
  const {
    view,
    number,
    graph,
    bench,
    cards,
    steps,
    who,
    locked,
    outbox,
    signedOut,
    aloneSince,
    at,
    card,
    step,
    lead,
    current,
    finished,
    elsewhere,
    open,
    stop,
    covered,
    missing,
    held,
    kept,
    said,
    setSaid,
    setSheet,
    setEntriesOpen,
    setPersonOpen,
    left,
    camera,
    nameOf,
    press,
    tick,
    look,
  } = state;
  const later = useMemo(() => notInYet(steps, card, unplannedCards(graph)), [graph, steps, card]);

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
      {caution && !over ? (
        <div className="shrink-0 px-6 pb-2 text-bench max-[760px]:px-4 max-[760px]:text-action">
          <Caution text={caution} large />
        </div>
      ) : null}
      <div className="flex min-h-0 flex-1 basis-[312px] border-y border-rule max-[760px]:flex-none max-[760px]:basis-auto max-[760px]:flex-col">
        <div className="min-w-0 flex-[640] overflow-hidden max-[760px]:h-70 max-[760px]:flex-none">
          <RegionView
            graph={graph}
            ports={portsOf(card, step, steps)}
            parts={card.steps.flatMap((s) => s.parts)}
            leads={card.steps.filter((s) => s.kind === "route" || s.kind === "dress").flatMap((s) => s.leads)}
            later={later}
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
          <CardNotes key={`notes ${card.id}`} {...{ card, step, graph, number }} notes={view.notes} />
        </div>
      </div>
      <div className="flex h-20 shrink-0 items-center overflow-hidden px-6 text-bench max-[760px]:h-auto max-[760px]:px-4 max-[760px]:py-3 max-[760px]:text-action">
        <div className="line-clamp-2 max-[760px]:line-clamp-none">
          <Band
            {...{ stop, card, over, steps, covers, aloneSince }}
            coveredBy={covered && !elsewhere ? coverersOf(covered, steps)[0]?.title : undefined}
            said={outbox.cannotKeep ? outbox.sentence : said || outbox.sentence}
            head={view.head}
            unplanned={view.unplanned}
            held={open.length > 0 ? held(open) : undefined}
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
      <BenchSheets state={state} {...{ seat, people, card, step }} />
    </main>
  );
}

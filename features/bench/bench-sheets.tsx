"use client";
import type { Card, Step } from "../../core/order";
import { anotherCableAction } from "../actions/bench";
import { EntriesSheet } from "../device/entries-sheet";
import { type AtBench as Colleague, WhoWorks } from "../device/who-works";
import { useLive } from "../frame/live";
import { BenchSheet } from "./bench-sheet";
import { withShowed } from "./showed-here";
import type { AtBenchScreen, BenchSeat } from "./use-bench-state";
import { notHereOn } from "./use-saying";

/** What opens over a bench: entries that wait, who works here, and what is asked about the card in front. */
export function BenchSheets({
  state,
  seat,
  people,
  card,
  step,
}: {
  state: AtBenchScreen;
  seat: BenchSeat;
  people: Colleague[];
  card: Card;
  step: Step;
}) {
  const {
    view,
    number,
    graph,
    bench,
    steps,
    who,
    locked,
    touch,
    outbox,
    signedOut,
    signedIn,
    push,
    open,
    covered,
    asked,
    sheet,
    setSheet,
    setSaid,
    entriesOpen,
    setEntriesOpen,
    personOpen,
    setPersonOpen,
    setLooking,
    left,
    turnHand,
    nameOf,
    elsewhere,
  } = state;
  const { refresh } = useLive();
  return (
    <>
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
        onNote={(kind, text, about = step) => {
          if (kind === "skip") {
            bench.skip(open, text);
            setLooking(null);
          } else {
            push({ kind: "note", number, step: about.id, text, as: kind }, `${about.title}: ${text}`);
            setSaid(`A fault is open: ${about.title}, ${text.charAt(0).toLowerCase()}${text.slice(1)}. It stands under Faults.`);
          }
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
        onAnotherCable={(lead) => {
          anotherCableAction({ number, lead })
            .then((r) => {
              setSaid(r.ok ? r.value : r.sentence);
              refresh();
            })
            .catch(() => setSaid("No answer from the server. Nothing was changed. Check the network and try again."));
          setSheet(null);
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
    </>
  );
}

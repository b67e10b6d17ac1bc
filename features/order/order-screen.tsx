"use client";
import { useMemo, useState } from "react";
import { type Card, cardsOf } from "../../core/order";
import type { Had } from "../../server/views/had";
import type { OrderSlice } from "../../server/views/slices";
import { Button } from "../../ui/button";
import { Fold } from "../../ui/fold";
import Link from "../../ui/link";
import { letGoAction, pullAction } from "../actions/order";
import { useTakeBack } from "../device/use-take-back";
import { ask } from "../frame/ask";
import { useKeys } from "../frame/keys";
import { useSlice } from "../frame/slices";
import { useAct } from "../frame/use-act";
import { useAddress } from "../frame/use-address";
import { graphOf } from "../shared/candidates";
import { CardDetails } from "../shared/card-details";
import { CardStrip } from "./card-strip";
import { OrderDrawing } from "./order-drawing";
import { SchoolTable } from "./school-table";
import { WhatNow } from "./what-now";

const hours = (minutes: number) => (minutes >= 90 ? `${Math.round(minutes / 30) / 2} hours` : `${Math.round(minutes)} minutes`);

/** The work in order: cards under the turns of the case, the chosen one in the machine, why it stands there and what undoing it costs. */
export function OrderScreen({ first }: { first: Had<OrderSlice> }) {
  const { data: view } = useSlice(["job", first.data.head.number, "order"], first);
  const { steps, order, head } = view;
  const graph = useMemo(() => graphOf(view.build), [view.build]);
  const cards = useMemo(() => cardsOf(steps, order.blocks), [steps, order.blocks]);
  const next = cards.find((c) => !c.done && !c.steps.every((s) => s.done || view.skipped[s.id]));
  const [picked, setPicked] = useState<string>();
  const chosen = cards.find((c) => c.id === picked || c.steps.some((s) => s.id === picked)) ?? next ?? cards[0];
  useAddress(picked ? `card=${encodeURIComponent(picked)}` : "", (hash) => {
    const id = new URLSearchParams(hash).get("card");
    setPicked(id ?? undefined);
  });
  const pulling = usePulling(head.number);
  const [said, setSaid] = useState("");
  const takeBack = useTakeBack(head.number, setSaid);
  useKeys("screen", [{ keys: ["ctrl+z"], word: "Take back the last entry of mine", run: takeBack }]);
  const left = cards.filter((c) => !c.done);
  const doneCards = cards.filter((c) => c.done);
  const open = steps.filter((s) => !s.done).length;
  const choose = (id: string) => setPicked(id);
  return (
    <div className="cols cols-2">
      <section aria-label="Order of work" className="flex w-[34rem] min-w-0 shrink-0 flex-col border-r border-rule">
        <div className="border-b border-rule px-4 py-3">
          <h1 className="text-verdict font-semibold">
            {open === 0
              ? "Every step is done."
              : `${left.length} ${left.length === 1 ? "card" : "cards"} left with ${open} steps, ${order.turns} ${order.turns === 1 ? "turn" : "turns"} of the case, about ${hours(order.left.handsOn)} of hands.`}
          </h1>
          {view.plan || graph.connections.length > 0 ? null : (
            <p className="mt-1">
              The wiring is not planned yet, so plugs are missing here.{" "}
              <Link className="underline" href={`/job/${head.number}/wiring`}>
                Plan the wiring.
              </Link>
            </p>
          )}
          {order.conflicts.map((c) => (
            <p key={c.steps.join(" ")} className="mt-1 font-semibold text-stop">
              {c.why} {c.ways.map((w) => w.words).join(" Or: ")}
            </p>
          ))}
          {said ? (
            <p role="status" className="mt-1">
              {said}
            </p>
          ) : null}
          <div className="mt-2 flex flex-wrap gap-2">
            <Link className="key key-mark" href={`/job/${head.number}/bench`}>
              Go to the bench
            </Link>
            <a className="key" href={`/files/job/${head.number}/run-sheet.pdf`}>
              Run sheet
            </a>
            {view.build.pulled ? (
              <Button disabled={pulling.pending} onClick={pulling.letGo}>
                Put back what was pulled ({new Set(view.build.pulled.map((p) => p.step)).size})
              </Button>
            ) : null}
          </div>
        </div>
        <div className="min-h-0 flex-1 overflow-y-auto max-[760px]:overflow-visible">
          {doneCards.length > 0 ? (
            <Fold word={`Done: ${doneCards.length} ${doneCards.length === 1 ? "card" : "cards"}`} className="border-b border-rule px-4 py-1">
              <CardStrip cards={doneCards} chosen={chosen?.id} next={undefined} skipped={{}} onChoose={choose} onPull={() => undefined} />
            </Fold>
          ) : null}
          <CardStrip
            cards={left}
            from={doneCards.length}
            chosen={chosen?.id}
            next={next?.id}
            skipped={view.skipped}
            onChoose={choose}
            onPull={pulling.pull}
          />
        </div>
      </section>
      <section data-first tabIndex={0} aria-label="The chosen card" className="region flex min-w-0 flex-1 flex-col px-5 py-3">
        <div className="flex h-[clamp(340px,46vh,620px)] shrink-0 flex-col">
          <OrderDrawing graph={graph} card={chosen} steps={steps} />
        </div>
        <Pulls card={chosen} left={left} {...{ pulling }} />
        {chosen ? <CardDetails key={chosen.id} number={head.number} card={chosen} steps={steps} photos={view.photos} /> : null}
        <Fold word="With a part missing or some minutes left" className="mt-3">
          <WhatNow view={view} />
        </Fold>
        <Fold word="Ways to work, side by side" className="mt-1">
          <SchoolTable number={head.number} revision={head.revision} />
        </Fold>
        {order.gaveWay.length > 0 ? (
          <Fold word={`${order.gaveWay.length} of the shop's ways cannot be followed here`} className="mt-1">
            <ul className="ml-4 list-disc">
              {order.gaveWay.slice(0, 20).map((g) => (
                <li key={g}>{g}</li>
              ))}
            </ul>
          </Fold>
        ) : null}
      </section>
    </div>
  );
}

interface Pulling {
  pending: boolean;
  sentence: string;
  /** Allowed with a warning: it waits for a word. */
  asked: { card: Card; before: Card } | undefined;
  pull: (card: Card, before: Card) => void;
  /** All the same. */
  go: () => void;
  letGo: () => void;
}

/** Pulls a card before another: at once where nothing stands against it, after a word where something does, never where it cannot be. */
function usePulling(number: string): Pulling {
  const act = useAct();
  const [asked, setAsked] = useState<Pulling["asked"]>();
  const openOf = (card: Card) => {
    const open = card.steps.filter((s) => !s.done).map((s) => s.id);
    return open.length > 0 ? open : [card.id];
  };
  const of = (card: Card, before: Card) => ({ number, steps: openOf(card), before: openOf(before) });
  const doIt = (card: Card, before: Card) =>
    act.run(
      async () => pullAction(of(card, before)),
      () => {
        setAsked(undefined);
        return `“${card.title}” comes before “${before.title}” now.`;
      },
    );
  return {
    pending: act.pending,
    sentence: act.sentence,
    asked,
    pull: (card, before) => {
      setAsked(undefined);
      act.run(
        async () => ask("order.try-pull", of(card, before)),
        (r) => {
          if (r.verdict === "allowed") doIt(card, before);
          if (r.verdict === "warned") setAsked({ card, before });
          return r.verdict === "refused" ? `Not possible. ${r.words}` : r.words;
        },
      );
    },
    go: () => asked && doIt(asked.card, asked.before),
    letGo: () =>
      act.run(
        async () => letGoAction({ number }),
        () => "The order is Imbra's again.",
      ),
  };
}

/** Earlier and later, for whoever does not drag. */
function Pulls({ card, left, pulling }: { card: Card | undefined; left: readonly Card[]; pulling: Pulling }) {
  const at = left.findIndex((c) => c.id === card?.id);
  const here = left[at];
  const [before, after] = [left[at - 1], left[at + 1]];
  if (!here) return null;
  return (
    <div className="flex flex-wrap items-center gap-2 pb-2">
      <Button className="min-h-8 px-3 text-second" disabled={!before || pulling.pending} onClick={() => before && pulling.pull(here, before)}>
        Earlier
      </Button>
      <Button className="min-h-8 px-3 text-second" disabled={!after || pulling.pending} onClick={() => after && pulling.pull(after, here)}>
        Later
      </Button>
      <p role="status" className="min-w-0 flex-1 text-second">
        {pulling.sentence}
      </p>
      {pulling.asked ? (
        <Button className="min-h-8 px-3 text-second" disabled={pulling.pending} onClick={pulling.go}>
          All the same
        </Button>
      ) : null}
    </div>
  );
}

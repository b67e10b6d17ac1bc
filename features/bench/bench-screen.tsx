"use client";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { panelPinout } from "../../core/brings";
import { family } from "../../core/catalogue";
import type { JobView } from "../../server/read/job-view";
import { Button } from "../../ui/button";
import { cx } from "../../ui/cx";
import { PinPicture } from "../../ui/drawing/pin-picture";
import Link from "../../ui/link";
import { Caution, SeverityShape, StateShape } from "../../ui/marks";
import { useDates, WithDates } from "../frame/dates";
import { useKeys } from "../frame/keys";
import { useLive } from "../frame/live";
import type { Said } from "../outbox/entries";
import { EntriesSheet } from "../outbox/entries-sheet";
import { useOutbox } from "../outbox/outbox";
import { type AtBench, WhoWorks } from "../people/who-works";
import { useUntouched, useWorker, type Worker } from "../people/worker";
import { graphOf } from "../wiring/candidates";
import { BenchSheet, type Sheet } from "./bench-sheet";
import { RegionView } from "./region-view";
import { useTakeBack } from "./use-take-back";

const REST_MS = 500;
const KEY = "min-h-24 w-34 px-2 max-[760px]:min-h-20 max-[760px]:w-auto max-[760px]:px-1 max-[760px]:text-key";
/** Which hand works is the tablet's business, not the job's. */
const HAND = "imbra-hand";

/** One thing at a time, large, worked with one hand. */
export function BenchScreen({
  view,
  seat,
  people,
}: {
  view: Pick<JobView, "build" | "steps" | "head" | "leads" | "power" | "findings">;
  /** Who the server knows to work here, when it said so, and after how many minutes untouched it asks again. */
  seat: { worker: Worker | null; asOfMs: number; lockMinutes: number };
  people: AtBench[];
}) {
  const { aloneSince, signedOut, signedIn } = useLive();
  const dates = useDates();
  const who = useWorker(seat.worker, seat.asOfMs);
  const { locked, touch } = useUntouched(seat.lockMinutes);
  const [personOpen, setPersonOpen] = useState(false);
  const outbox = useOutbox();
  const number = view.head.number;
  const graph = useMemo(() => graphOf(view.build), [view.build]);
  // What was pressed here counts here already: what waits, and what the server has of which this page knows nothing yet.
  const revision = view.head.revision;
  const local = useMemo(() => {
    const unseen = outbox.sent.filter((e) => (e.sent?.revision ?? 0) > revision);
    const said = [...unseen, ...outbox.waiting].map((e) => e.said).filter((e) => e.number === number);
    const plugs = new Map<string, Extract<Said, { kind: "plug" }>>();
    const done = new Map<string, boolean>();
    for (const e of said) {
      if (e.kind === "plug") {
        plugs.set(e.lead, e);
        done.set(`plug:${e.lead}`, e.state !== "planned");
      }
      if (e.kind === "step") done.set(e.step, e.done);
    }
    return { plugs, done };
  }, [outbox.sent, outbox.waiting, number, revision]);
  const steps = useMemo(() => view.steps.map((s) => ({ ...s, done: local.done.get(s.id) ?? s.done })), [view.steps, local]);
  const [skipped, setSkipped] = useState<ReadonlySet<string>>(new Set());
  const current = Math.max(
    0,
    steps.findIndex((s) => !s.done && !skipped.has(s.id)),
  );
  const allDone = steps.every((s) => s.done || skipped.has(s.id));
  const [looking, setLooking] = useState<number | null>(null);
  const [sheet, setSheet] = useState<Sheet>(null);
  const [entriesOpen, setEntriesOpen] = useState(false);
  const [said, setSaid] = useState("");
  const [left, setLeft] = useState(false);
  useEffect(() => setLeft(localStorage.getItem(HAND) === "left"), []);
  const turnHand = () => {
    localStorage.setItem(HAND, left ? "right" : "left");
    setLeft(!left);
  };
  const rested = useRef(0);
  const at = looking ?? current;
  const step = steps[at];
  const elsewhere = looking !== null && looking !== current;
  const lead = view.leads.find((l) => l.address === step?.lead);
  const port = step?.port ? graph.ports.get(step.port) : undefined;
  const stop = view.findings.find((f) => f.severity === "stop" && step?.lead !== undefined && f.ends.includes(step.lead));

  /** What this screen shows of the lead now: the server compares it with what is recorded. */
  const saw = useMemo((): Extract<Said, { kind: "plug" }>["saw"] => {
    if (!lead) return undefined;
    const mine = local.plugs.get(lead.address);
    if (mine) return { port: mine.port, state: mine.state };
    return { port: lead.port ?? null, state: lead.state === "wrong" ? "plugged" : lead.state };
  }, [lead, local]);
  // What is pressed at a locked bench is kept, without a name, and asks for one.
  const by = locked ? undefined : (who ?? undefined);
  const outboxPush = outbox.push;
  const push = useCallback(
    (entry: Said, words: string) => {
      outboxPush(entry, words, by);
      if (!by) setPersonOpen(true);
    },
    [outboxPush, by],
  );
  const setDone = useCallback(
    (done: boolean) => {
      if (!step) return;
      setSaid("");
      const words = done ? step.title : `${step.title}: undone`;
      if (step.lead && step.port) {
        const place = lead?.place ? { place: lead.place } : {};
        const seen = saw ? { saw } : {};
        push({ kind: "plug", number, lead: step.lead, port: step.port, ...place, state: done ? "plugged" : "planned", ...seen }, words);
      } else push({ kind: "step", number, step: step.id, done, saw: step.done }, words);
    },
    [step, lead, saw, number, push],
  );
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
    if (!step || step.done || stop) return;
    setDone(true);
  }, [elsewhere, step, stop, setDone]);
  const takeBack = useTakeBack(number, setSaid, by);
  const undo = () => {
    setDone(false);
    setLooking(null);
  };
  const look = useCallback(
    (by: number) => {
      setLooking((was) => {
        const to = Math.min(steps.length - 1, Math.max(0, (was ?? current) + by));
        return to === current ? null : to;
      });
    },
    [steps.length, current],
  );

  useKeys(
    "screen",
    [
      { keys: [" ", "Enter"], word: "Done", only: "keys", run: press },
      { keys: ["ArrowLeft"], word: "Look back", run: () => look(-1) },
      { keys: ["ArrowRight"], word: "Look ahead", run: () => look(1) },
      { keys: ["d"], word: "Differs: it is somewhere else", run: () => (step?.lead ? setSheet("differs") : false) },
      { keys: ["p"], word: "Problem", run: () => setSheet("problem") },
      { keys: ["s"], word: "Skip this step", run: () => setSheet("skip") },
      { keys: ["l"], word: "All steps", run: () => setSheet("list") },
      { keys: ["v"], word: "If I press the button now", run: () => setSheet("press") },
      { keys: ["ctrl+z"], word: "Take back the last entry of mine", run: takeBack },
    ],
    (code) => {
      const hit = view.leads.find((l) => l.tag.toLowerCase() === code.toLowerCase());
      if (!hit) return false;
      setSaid(
        hit.address === lead?.address
          ? `Right lead: ${hit.tag}. Plug it, then press Done.`
          : `Wrong lead: that is ${hit.tag}, ${hit.name}. This step wants ${lead?.tag ?? "another"}.`,
      );
      return true;
    },
  );

  if (!step || steps.length === 0)
    return (
      <main className="p-8 text-bench">
        There is nothing to do here yet.{" "}
        <Link className="underline" href={`/job/${number}/wiring`}>
          Plan the wiring first.
        </Link>
      </main>
    );
  const finished = allDone && !elsewhere;
  const following = steps.slice(at + 1).find((s) => !s.done);
  const band = stop ? (
    <span className="text-stop">Stop. {stop.message}</span>
  ) : outbox.sentence || said ? (
    <span role="status">
      <WithDates text={outbox.sentence || said} />
    </span>
  ) : aloneSince !== undefined ? (
    <span role="status">
      No answer from the server since {dates.clock(aloneSince)}. What you press is kept on this tablet and sent in order. Go on working.
    </span>
  ) : view.head.stage === "waiting" ? (
    <span className="flex items-center gap-3">
      <StateShape state="waiting" size={28} />
      This job waits for {view.head.waitingFor ?? "a delivery"}
      {view.head.waitingUntil ? `, until ${dates.day(view.head.waitingUntil)}` : ""}. What hands can do meanwhile is recorded.
    </span>
  ) : step.caution ? (
    <Caution text={step.caution} large />
  ) : step.covers ? (
    <span>{step.covers}</span>
  ) : (
    <span className="text-soft">
      About {step.minutes} {step.minutes === 1 ? "minute" : "minutes"}.{following ? ` Then: ${following.title}.` : ""}
    </span>
  );
  return (
    <main className="mx-auto flex h-dvh min-h-[680px] w-full max-w-[1280px] flex-col overflow-hidden max-[760px]:h-auto max-[760px]:min-h-dvh max-[760px]:overflow-visible">
      <header className="flex min-h-20 shrink-0 items-stretch border-b border-rule max-[760px]:flex-wrap">
        <Button
          bench
          className="min-h-20 w-40 rounded-none border-0 border-r px-2 max-[760px]:w-auto max-[760px]:flex-1 max-[760px]:px-1 max-[760px]:text-key"
          onClick={() => look(-1)}
        >
          Look back
        </Button>
        <button
          type="button"
          className="flex min-h-20 min-w-0 flex-1 items-center gap-4 px-5 text-left text-bench hover:bg-sheet max-[760px]:order-first max-[760px]:w-full max-[760px]:flex-none max-[760px]:border-b max-[760px]:border-rule"
          onClick={() => setSheet("list")}
        >
          <span className="min-w-0 truncate">
            <span className="mono font-semibold">{number}</span> step {at + 1} of {steps.length}
          </span>
        </button>
        <button
          type="button"
          className="flex min-h-20 w-48 min-w-0 items-center justify-center border-l border-rule px-3 text-center text-bench hover:bg-sheet max-[760px]:w-auto max-[760px]:flex-1 max-[760px]:px-1 max-[760px]:text-key"
          onClick={() => setPersonOpen(true)}
        >
          <span className="sr-only">Who works here: </span>
          <span className="line-clamp-2">{signedOut ? "Sign in" : locked || outbox.nobody || !who ? "Who are you?" : who.name}</span>
        </button>
        <button
          type="button"
          className="flex min-h-20 w-36 items-center justify-center gap-2 border-l border-rule px-3 text-center text-bench hover:bg-sheet max-[760px]:w-auto max-[760px]:flex-1 max-[760px]:px-1 max-[760px]:text-key"
          aria-label="Entries of this tablet"
          onClick={() => setEntriesOpen(true)}
        >
          {outbox.aside.length > 0 ? <SeverityShape severity="stop" size={28} /> : null}
          {outbox.aside.length > 0
            ? `${outbox.aside.length} set aside`
            : outbox.waiting.length > 0
              ? `${outbox.waiting.length} to send`
              : outbox.known
                ? "all sent"
                : ""}
        </button>
        <Button
          bench
          className="min-h-20 w-44 rounded-none border-0 border-l px-2 max-[760px]:w-auto max-[760px]:flex-1 max-[760px]:px-1 max-[760px]:text-key"
          onClick={() => look(1)}
        >
          Look ahead
        </Button>
      </header>
      <section aria-live="polite" className="flex h-38 shrink-0 flex-col justify-center px-6 max-[760px]:h-auto max-[760px]:px-4 max-[760px]:py-4">
        <h1 className="line-clamp-2 text-bench-action font-bold max-[760px]:line-clamp-none max-[760px]:text-verdict">
          {finished ? "Every step is done. On to the first boot." : step.title}
        </h1>
        <p className="truncate text-bench max-[760px]:whitespace-normal max-[760px]:text-action">
          {finished ? (
            view.power.verdict
          ) : (
            <>
              {lead ? <span className="mono">{lead.tag}</span> : null}
              {lead ? " " : ""}
              {step.detail.replace(/^[A-Z]{2}-\d+ ?\.?/, "").trim()}
            </>
          )}
        </p>
      </section>
      <div className="flex min-h-0 flex-1 basis-[312px] border-y border-rule max-[760px]:flex-none max-[760px]:basis-auto max-[760px]:flex-col">
        <div className="min-w-0 flex-[640] overflow-hidden max-[760px]:h-70 max-[760px]:flex-none">
          <RegionView graph={graph} port={step.port} label={port?.port.label ?? ""} />
        </div>
        <div className="flex-[384] overflow-auto border-l border-rule p-5 text-bench max-[760px]:flex-none max-[760px]:border-l-0 max-[760px]:border-t max-[760px]:text-action">
          {port && family(port.port.family).order.length > 0 ? (
            <PinPicture
              bench
              onBoard={port.part.type.kind === "board"}
              family={family(port.port.family)}
              pins={port.port.family === "panel-block" ? (lead?.place ?? []) : []}
              {...(port.port.family === "panel-block" ? { signals: panelPinout(port.port) } : {})}
            />
          ) : (
            <p>{step.covers ?? step.detail}</p>
          )}
        </div>
      </div>
      <div className="flex h-20 shrink-0 items-center overflow-hidden px-6 text-bench max-[760px]:h-auto max-[760px]:px-4 max-[760px]:py-3 max-[760px]:text-action">
        <div className="line-clamp-2 max-[760px]:line-clamp-none">{band}</div>
      </div>
      <footer
        className={cx(
          "flex h-36 shrink-0 items-center gap-3 border-t border-rule px-6",
          // On a phone: Done as wide as the hand reaches, the others below, always in sight.
          "max-[760px]:sticky max-[760px]:bottom-0 max-[760px]:grid max-[760px]:h-auto max-[760px]:grid-cols-4 max-[760px]:gap-2 max-[760px]:bg-ground max-[760px]:p-3",
          left && "flex-row-reverse",
        )}
      >
        <Button bench className={KEY} onClick={() => setSheet("differs")} disabled={!step.lead}>
          Differs
        </Button>
        <Button bench className={KEY} onClick={() => setSheet("problem")}>
          Problem
        </Button>
        {elsewhere && step.done ? (
          <Button bench className={KEY} onClick={undo}>
            Undo
          </Button>
        ) : (
          <Button bench className={KEY} onClick={() => setSheet("skip")}>
            Skip
          </Button>
        )}
        <Button bench className={KEY} onClick={() => setSheet("press")}>
          If I press
        </Button>
        <div className="flex-1 max-[760px]:hidden" />
        {finished ? (
          <Link
            className="key-bench min-h-28 w-84 no-underline max-[760px]:order-first max-[760px]:col-span-4 max-[760px]:w-full"
            data-done="mark"
            href={`/job/${number}/first-boot`}
          >
            First boot
          </Link>
        ) : (
          <Button
            bench
            className="min-h-28 w-84 px-2 max-[760px]:order-first max-[760px]:col-span-4 max-[760px]:min-h-20 max-[760px]:w-full"
            tone={stop && !elsewhere ? "plain" : "mark"}
            disabled={outbox.waiting.length > 400}
            onClick={press}
          >
            {elsewhere ? `Return to step ${current + 1}` : stop ? "Stopped: see above" : step.done ? "Done already" : "Done"}
          </Button>
        )}
      </footer>
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
        {...{ view, steps, at, lead, graph, number, left, turnHand }}
        onGo={(i) => {
          setLooking(i === current ? null : i);
          setSheet(null);
        }}
        onNote={(kind, text) => {
          push({ kind: "note", number, step: step.id, text, as: kind }, `${step.title}: ${text}`);
          if (kind === "skip") {
            setSkipped(new Set([...skipped, step.id]));
            setLooking(null);
          }
          setSheet(null);
        }}
        onDiffers={(p, place) => {
          if (step.lead)
            push(
              { kind: "plug", number, lead: step.lead, port: p, ...(place ? { place } : {}), state: "plugged", ...(saw ? { saw } : {}) },
              `${lead?.tag ?? step.title} in ${graph.ports.get(p)?.name ?? p}`,
            );
          setSheet(null);
          setLooking(null);
        }}
      />
    </main>
  );
}

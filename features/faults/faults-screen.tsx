"use client";
import { useEffect, useRef, useState } from "react";
import type { Answer } from "../../core/diagnose";
import type { FaultsSlice } from "../../server/views/slices";
import { Button } from "../../ui/button";
import { cx } from "../../ui/cx";
import Link from "../../ui/link";
import { Caution, StateMark } from "../../ui/marks";
import { moveRightAction } from "../actions/faults";
import { type Acting, useAct } from "../frame/use-act";
import { Incident } from "./incident";
import { NextAction } from "./next-action";
import { Suspects } from "./suspects";
import { Symptom } from "./symptom";
import { Where } from "./where";

/** One action, large; who is suspected and why; what was seen, done and cleared. Several faults side by side, each with its own. */
export function FaultsScreen({ view, diagnoses, simulated }: { view: FaultsSlice; diagnoses: Record<number, Answer>; simulated: boolean }) {
  const act = useAct();
  const { head } = view;
  const open = view.faults.filter((f) => f.state === "open");
  const closed = view.faults.filter((f) => f.state !== "open");
  const [chosen, setChosen] = useState<number>();
  const fault = open.find((f) => f.number === chosen) ?? open[0];
  const answer = fault && diagnoses[fault.number];
  // What the record explains goes before every guess.
  const move = view.misplaced.find((m) => fault?.lines.some((l) => m.lines.includes(l)));
  // What was pressed is gone with its action: the focus goes to what is up now.
  const up = useRef<HTMLDivElement>(null);
  const shown = `${fault?.number ?? ""} ${answer?.next?.id ?? ""}`;
  const before = useRef(shown);
  useEffect(() => {
    if (before.current === shown) return;
    before.current = shown;
    if (document.activeElement === document.body) up.current?.focus();
  }, [shown]);
  return (
    <div className="cols cols-3">
      <section tabIndex={0} aria-label="Suspects" className="region w-80 shrink-0 border-r border-rule p-4">
        <h1 className="sr-only">Faults of {head.number}</h1>
        {fault && answer ? (
          <Suspects answer={answer} />
        ) : (
          <>
            <h2 className="text-key font-[650]">Suspects</h2>
            <p className="mt-2">
              {open.length === 0
                ? "No fault is open. What is not as expected at first boot opens one, and so does Problem at the bench."
                : "Not worked out just now: too much waits. What is recorded is kept; load the page again."}
            </p>
          </>
        )}
        <Symptom number={head.number} lines={view.lines} simulated={simulated} />
      </section>
      <section data-first aria-label="Next action" className="region flex min-w-0 flex-1 flex-col border-r border-rule p-6">
        {open.length > 1 ? (
          <nav aria-label="Open faults" className="mb-4 flex flex-wrap gap-2">
            {open.map((f) => (
              <Button
                key={f.number}
                aria-current={f === fault ? "true" : undefined}
                className={cx(f === fault && "border-2 font-semibold")}
                onClick={() => setChosen(f.number)}
              >
                Fault {f.number}
              </Button>
            ))}
          </nav>
        ) : null}
        {fault ? (
          <div className="mb-4 flex items-start gap-3">
            <StateMark state="wrong" word={`Fault ${fault.number}`} />
            <span className="flex-1">{fault.title}</span>
          </div>
        ) : null}
        <div ref={up} tabIndex={-1} className="outline-none">
          {fault && move ? (
            <Moved number={head.number} move={move} act={act} />
          ) : fault && answer?.next ? (
            <NextAction
              key={`${fault.number} ${answer.next.id}`}
              number={head.number}
              fault={fault}
              answer={answer}
              lines={view.lines}
              act={act}
              ask={simulated && fault.simulated}
            />
          ) : (
            <p className="text-verdict font-semibold">
              {open.length === 0
                ? "No fault is open."
                : !answer
                  ? "The next action could not be worked out just now."
                  : answer.suspects.length > 0
                    ? "Nothing is left to do that is known here. Say what else is wrong, or close it with what it was."
                    : "No line of the sheet shows it. Say what was seen, or close it with what it was."}
            </p>
          )}
        </div>
        {answer?.notes.map((n) => (
          <p key={n} className="mt-3 font-semibold text-warn">
            {n}
          </p>
        ))}
        <p role="status" className="mt-3">
          {act.sentence}
        </p>
        {open.length === 0 ? (
          <p className="mt-2">
            <Link className="underline" href={`/job/${head.number}/first-boot`}>
              Back to the first-boot sheet.
            </Link>
          </p>
        ) : null}
      </section>
      <section tabIndex={0} aria-label="Seen, done and cleared" className="region w-80 shrink-0 p-4">
        {fault && answer ? <Where build={view.build} answer={answer} /> : null}
        {fault ? <Incident number={head.number} fault={fault} answer={answer} /> : null}
        <h2 className="mt-4 text-key font-[650]">Closed</h2>
        {closed.length === 0 ? (
          <p className="text-soft">None.</p>
        ) : (
          <ul>
            {[...closed].reverse().map((f) => (
              <li key={f.number} className="border-t border-rule py-1.5">
                Fault {f.number}: {f.title}. <span className="text-second text-soft">{closedWords(f)}</span>
              </li>
            ))}
          </ul>
        )}
      </section>
    </div>
  );
}

/** What it was in the end, and what it cost. */
const closedWords = (f: FaultsSlice["faults"][number]): string =>
  `${f.finding ?? ""}${f.causes[0] ? `: ${f.causes[0].words}` : ""}.${f.minutes ? ` ${Math.max(1, Math.round(f.minutes))} min lost.` : ""}`.replace(
    /\.\./g,
    ".",
  );

/** A plug on record in a wrong place: the move is certain. */
function Moved({ number, move, act }: { number: string; move: FaultsSlice["misplaced"][number]; act: Acting }) {
  return (
    <>
      <h2 className="text-second text-soft">Certain, by the record: about 3 minutes</h2>
      <p className="mt-1 text-verdict font-semibold">{move.action}</p>
      <div className="mt-4">
        <Caution text="Supply switch off, mains lead out, press the button once to drain it. Then plug." />
      </div>
      <div className="mt-6 flex flex-wrap gap-3">
        <Button
          tone="mark"
          disabled={act.pending}
          onClick={() =>
            act.run(
              () => moveRightAction({ number, lead: move.lead }),
              () => "Moved on record, and what was wrong because of it is closed. Look at those lines of the first-boot sheet again.",
            )
          }
        >
          It is moved
        </Button>
      </div>
    </>
  );
}

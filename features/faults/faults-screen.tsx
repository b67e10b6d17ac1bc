"use client";
import { useCallback, useMemo, useState } from "react";
import { buildGraph, typeLookup } from "../../core/assembly";
import { partsOfElement } from "../../core/machine";
import { type SceneBox, sceneOf } from "../../core/scene";
import type { JobView } from "../../server/views/job-view";
import { Button } from "../../ui/button";
import { Fold } from "../../ui/fold";
import Link from "../../ui/link";
import { Caution, StateMark } from "../../ui/marks";
import { closeFaultAction, moveRightAction, tryActionAction } from "../actions/faults";
import { MachineView } from "../drawing/machine-view";
import { useAct } from "../frame/use-act";

/** Suspects ranked, one next action, what each outcome means, what is cleared. */
export function FaultsScreen({ view }: { view: Pick<JobView, "faults" | "diagnosis" | "misplaced" | "head" | "seen" | "build"> }) {
  const act = useAct();
  const { diagnosis: d, head } = view;
  const open = view.faults.filter((f) => f.state === "open");
  const closed = view.faults.filter((f) => f.state !== "open");
  const tried = open.flatMap((f) => f.tried);
  const triedOnce = [...new Map(tried.map((t) => [t.name, t])).values()];
  const next = d.next;
  // What the record explains goes before every guess.
  const move = view.misplaced.find((m) => open.some((f) => m.lines.includes(f.line)));
  const shown = d.suspects.filter((s, i) => i < 3 || s.sharePercent >= 5).slice(0, 8);
  const report = (result: "no change" | "that was it") =>
    next &&
    act.run(
      () => tryActionAction({ number: head.number, element: next.element.id, result }),
      () => (result === "that was it" ? "Closed. Look at those lines of the first-boot sheet again." : "Recorded. The next suspect is up."),
    );
  return (
    <div className="cols cols-3">
      <h1 className="sr-only">Faults of {head.number}</h1>
      <section tabIndex={0} aria-label="Suspects" className="region w-96 shrink-0 border-r border-rule p-4">
        <h2 className="text-key font-[650]">Suspects</h2>
        {d.suspects.length === 0 ? (
          <p className="mt-2">
            {open.length === 0
              ? "No fault is open. What is not as expected at first boot opens one, and so does Problem at the bench."
              : "Nothing seen at first boot points anywhere yet. Record what is seen there."}
          </p>
        ) : (
          <ol className="mt-2 flex flex-col">
            {shown.map((s) => (
              <li key={s.element.id} className="border-t border-rule py-2">
                <div className="flex items-baseline gap-3">
                  <span className="mono w-14 shrink-0 text-right font-semibold">{s.sharePercent < 5 ? "< 5" : s.sharePercent} %</span>
                  <span className="font-semibold">{s.element.name}</span>
                </div>
                <div className="mt-0.5 h-1.5 border border-edge" aria-hidden>
                  <div className="h-full bg-ink" style={{ width: `${s.sharePercent}%` }} />
                </div>
                <p className="mt-1 text-second text-soft">{s.why}</p>
              </li>
            ))}
          </ol>
        )}
      </section>
      <section data-first aria-label="Next action" className="region flex min-w-0 flex-1 flex-col border-r border-rule p-6">
        {move ? (
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
                    () => moveRightAction({ number: head.number, lead: move.lead }),
                    () => "Moved on record, and what was wrong because of it is closed. Look at those lines of the first-boot sheet again.",
                  )
                }
              >
                It is moved
              </Button>
            </div>
          </>
        ) : next ? (
          <>
            <h2 className="text-second text-soft">
              Next action, about {next.minutes} {next.minutes === 1 ? "minute" : "minutes"}
            </h2>
            <p className="mt-1 text-verdict font-semibold">{next.action}</p>
            {next.element.kind === "mains" || next.element.kind === "monitor" ? null : (
              <div className="mt-4">
                <Caution text="Supply switch off, mains lead out, press the button once to drain it. Then plug." />
              </div>
            )}
            <dl className="mt-6 grid grid-cols-[auto_1fr] gap-x-4 gap-y-2">
              <dt className="font-semibold">If it works now</dt>
              <dd>{next.ifGood}</dd>
              <dt className="font-semibold">If nothing changed</dt>
              <dd>{next.ifBad}</dd>
            </dl>
            <div className="mt-6 flex flex-wrap gap-3">
              <Button tone="mark" disabled={act.pending} onClick={() => report("that was it")}>
                That was it
              </Button>
              <Button disabled={act.pending} onClick={() => report("no change")}>
                Nothing changed
              </Button>
            </div>
          </>
        ) : (
          <p className="text-verdict font-semibold">{open.length === 0 ? "No fault is open." : "No action to propose yet."}</p>
        )}
        <p role="status" className="mt-3">
          {act.sentence}
        </p>
        <h2 className="mt-8 text-key font-[650]">Open</h2>
        {open.length === 0 ? (
          <p>
            None.{" "}
            <Link className="underline" href={`/job/${head.number}/first-boot`}>
              Back to the first-boot sheet.
            </Link>
          </p>
        ) : null}
        <ul>
          {open.map((f) => (
            <OpenFault key={f.number} number={head.number} fault={f} />
          ))}
        </ul>
      </section>
      <section tabIndex={0} aria-label="Tried and cleared" className="region w-80 shrink-0 p-4">
        {shown.length > 0 ? <Where build={view.build} suspects={shown} next={next?.port} /> : null}
        <h2 className="mt-4 text-key font-[650]">Tried</h2>
        {triedOnce.length === 0 ? (
          <p className="text-soft">Nothing yet. One thing at a time.</p>
        ) : (
          <ul className="mb-4">
            {triedOnce.map((t) => (
              <li key={t.name} className="border-t border-rule py-1.5">
                {t.name}: {t.result}
              </li>
            ))}
          </ul>
        )}
        <h2 className="mt-4 text-key font-[650]">Cleared</h2>
        {d.cleared.length === 0 ? (
          <p className="text-soft">Nothing yet. Whatever is seen to work clears all that it depends on.</p>
        ) : (
          <ul className="mb-4">
            {d.cleared.slice(0, 14).map((c) => (
              <li key={c.name} className="border-t border-rule py-1.5">
                <span className="font-semibold">{c.name}</span> <span className="text-second text-soft">by {c.by}</span>
              </li>
            ))}
          </ul>
        )}
        <h2 className="mt-4 text-key font-[650]">Closed</h2>
        {closed.length === 0 ? (
          <p className="text-soft">None.</p>
        ) : (
          <ul>
            {closed.map((f) => (
              <li key={f.number} className="border-t border-rule py-1.5">
                Fault {f.number}: {f.title}. <span className="text-second text-soft">{f.finding}</span>
              </li>
            ))}
          </ul>
        )}
      </section>
    </div>
  );
}

/** Where the suspects are: those on the side of the tray on which the first of them is. */
function Where({ build, suspects, next }: { build: JobView["build"]; suspects: JobView["diagnosis"]["suspects"]; next: string | undefined }) {
  const graph = useMemo(() => buildGraph(build, typeLookup(build, [])), [build]);
  const on = useMemo(() => new Set(suspects.flatMap((s) => partsOfElement(s.element))), [suspects]);
  const first = suspects[0] && partsOfElement(suspects[0].element)[0];
  const boxes = sceneOf(graph).boxes.filter((b) => b.part && on.has(b.part));
  const sheet = boxes.find((b) => b.part === first)?.sheets[0] ?? "front";
  const names = useCallback((b: SceneBox) => b.part !== undefined && on.has(b.part), [on]);
  if (boxes.length === 0) return null;
  return (
    <figure className="flex flex-col">
      <figcaption className="text-second text-soft">
        Where the suspects are{sheet === "behind" ? ", from behind" : ""}: outlined thick; the port of the next action is filled.
      </figcaption>
      <MachineView
        graph={graph}
        most={WHERE}
        sheet={sheet}
        on={on}
        names={names}
        {...(next ? { marked: next } : {})}
        label={`Suspects: ${boxes.map((b) => b.name).join(", ")}`}
      />
    </figure>
  );
}

const WHERE = { w: 250, h: 240 };

function OpenFault({ number, fault }: { number: string; fault: JobView["faults"][number] }) {
  const act = useAct();
  const [finding, setFinding] = useState("");
  return (
    <li className="border-t border-rule py-2">
      <div className="flex items-center gap-3">
        <StateMark state="wrong" word={`Fault ${fault.number}`} />
        <span className="flex-1">{fault.title}</span>
      </div>
      <Fold word={<>Close it with a finding</>} className="mt-1 text-second">
        <form
          className="mt-1 flex gap-2"
          onSubmit={(e) => {
            e.preventDefault();
            act.run(
              () => closeFaultAction({ number, fault: fault.number, finding }),
              () => "Closed.",
            );
          }}
        >
          <input
            className="field flex-1"
            aria-label={`What fault ${fault.number} was`}
            placeholder="Part, connection or setting; replaced, reseated or set"
            value={finding}
            onChange={(e) => setFinding(e.target.value)}
            maxLength={500}
          />
          <Button type="submit" disabled={act.pending}>
            Close
          </Button>
        </form>
        <p role="status">{act.sentence}</p>
      </Fold>
    </li>
  );
}

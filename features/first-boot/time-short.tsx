"use client";
import { useMemo, useState } from "react";
import { type Check, whatFits } from "../../core/setup";
import { Button } from "../../ui/button";
import { Dialog } from "../../ui/dialog";
import { notDoneAction } from "../actions/first-boot";
import { useAct } from "../frame/use-act";
import { ActSaid } from "../shared/act-said";

const SHOWN = 12;

/** The client comes before everything is done: what still fits, in which order, and what is then said as not done. */
export function TimeShort({
  number,
  checks,
  promises,
}: {
  number: string;
  checks: readonly Check[];
  promises: readonly { about: string; words: string }[];
}) {
  const act = useAct();
  const [minutes, setMinutes] = useState("30");
  const { fits, not, usedMin } = useMemo(() => whatFits(checks, Number(minutes) || 0), [checks, minutes]);
  const said = not.filter((c) => c.kind === "item" || c.kind === "promise");
  if (checks.length === 0) return null;
  return (
    <Dialog title="Time is short" className="w-[720px]" trigger={<Button className="mt-4">Time is short</Button>}>
      <label className="flex items-center gap-3">
        Minutes until the client is here
        <input className="field mono w-24" inputMode="numeric" value={minutes} onChange={(e) => setMinutes(e.target.value)} />
      </label>
      <div className="mt-4 grid grid-cols-2 gap-6 max-[760px]:grid-cols-1">
        <List title={`Still fits, in this order: ${Math.round(usedMin)} min`} checks={fits} />
        <List title="Said as not done" checks={not} />
      </div>
      <p className="mt-3 text-second text-soft">Minutes are common practice. What is said as not done stands in the paper for the client.</p>
      {said.length > 0 ? (
        <Button
          className="mt-3 self-start"
          disabled={act.pending}
          onClick={() =>
            act.run(
              () =>
                notDoneAction({
                  number,
                  items: said.filter((c) => c.kind === "item").map((c) => c.id),
                  promises: promises.filter((p) => said.some((c) => c.kind === "promise" && c.id === `${p.about} ${p.words}`)),
                  why: `time was short: ${minutes} minutes before the client came`,
                }),
              (n) => `${n} written down as not done. Each can still be done and written over.`,
            )
          }
        >
          Write {said.length} down as not done
        </Button>
      ) : null}
      <ActSaid act={act} />
    </Dialog>
  );
}

function List({ title, checks }: { title: string; checks: readonly Check[] }) {
  return (
    <section aria-label={title}>
      <h3 className="font-semibold">{title}</h3>
      <ol>
        {checks.slice(0, SHOWN).map((c) => (
          <li key={`${c.kind} ${c.id}`} className="flex justify-between gap-3 border-t border-rule py-1 text-second">
            <span>{c.what}</span>
            <span className="mono shrink-0">{c.minutes < 1 ? "at a glance" : `${c.minutes} min`}</span>
          </li>
        ))}
        {checks.length > SHOWN ? <li className="border-t border-rule py-1 text-second text-soft">and {checks.length - SHOWN} more</li> : null}
        {checks.length === 0 ? <li className="border-t border-rule py-1 text-second text-soft">nothing</li> : null}
      </ol>
    </section>
  );
}

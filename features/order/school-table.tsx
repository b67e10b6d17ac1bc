"use client";
import { useEffect, useState } from "react";
import type { Compared } from "../../core/order";
import { WORK_SCHOOLS } from "../../core/schools";
import { schoolsAction } from "../actions/schools";
import { ask } from "../frame/ask";
import { useAct } from "../frame/use-act";

const signed = (n: number, word: string) => (n === 0 ? "" : `${n > 0 ? "+" : "−"}${Math.abs(Math.round(n))} ${word}`);

/** Schools of the work side by side: turns, minutes, what each risks. Another answer is followed at once. */
export function SchoolTable({ number, revision }: { number: string; revision: number }) {
  const act = useAct();
  const { run } = act;
  const [rows, setRows] = useState<Compared[]>();
  const [at, setAt] = useState(-1);
  useEffect(() => {
    if (at === revision) return;
    setAt(revision);
    run(
      async () => ask("order.compare", { number }),
      (r) => {
        setRows(r);
        return "";
      },
    );
  }, [number, revision, at, run]);
  if (!rows) return <p role="status">{act.sentence || "Working out what each way takes …"}</p>;
  return (
    <div className="mt-2">
      <p role="status">{act.sentence}</p>
      {WORK_SCHOOLS.map((s) => (
        <fieldset key={s.id} className="border-t border-rule py-2">
          <legend className="float-left w-44 font-semibold">{s.word}</legend>
          <div className="ml-44">
            {rows
              .filter((r) => r.school === s.id)
              .map((r) => (
                <label key={r.answer} className="flex min-h-8 items-baseline gap-2">
                  <input
                    type="radio"
                    name={`school-${s.id}`}
                    checked={r.chosen}
                    disabled={act.pending}
                    onChange={() =>
                      act.run(
                        async () =>
                          schoolsAction({
                            number,
                            schools: { [s.id]: r.answer },
                            saw: { [s.id]: rows.find((x) => x.school === s.id && x.chosen)?.answer ?? null },
                          }),
                        () => `${s.word}: ${r.words}.`,
                      )
                    }
                  />
                  <span className="flex-1">
                    {r.words} <span className="text-second text-soft">{r.risk}</span>
                  </span>
                  <span className="mono w-40 shrink-0 text-right text-second">
                    {r.chosen
                      ? `${r.turns} turns`
                      : [signed(r.turnsMore, Math.abs(r.turnsMore) === 1 ? "turn" : "turns"), signed(r.minutesMore, "min")]
                          .filter(Boolean)
                          .join(", ") || "the same"}
                  </span>
                </label>
              ))}
          </div>
        </fieldset>
      ))}
    </div>
  );
}

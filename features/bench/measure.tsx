"use client";
import { useState } from "react";
import type { PartNode } from "../../core/assembly";
import { type Measurable, measurable } from "../../core/catalogue";
import { Button } from "../../ui/button";
import { DigitKeys } from "../../ui/digit-keys";
import { Field } from "../../ui/field";

/** A hand-measured length beside what is predicted: which one, then its millimetres. */
export function Measure({ part, name, onSay }: { part: PartNode; name: string; onSay: (what: string, mm: number, words: string) => void }) {
  const [chosen, setChosen] = useState<Measurable>();
  const [mm, setMm] = useState("");
  const list = measurable(part.type);
  if (!chosen)
    return (
      <ul className="flex flex-col gap-3">
        {list.map((m) => (
          <li key={m.what}>
            <Button bench className="min-h-20 w-full flex-row justify-between gap-4 px-4 text-left" onClick={() => setChosen(m)}>
              <span>{m.word}</span>
              <span className="mono text-soft">{m.mm === undefined ? "not known" : `${m.mm} mm`}</span>
            </Button>
          </li>
        ))}
      </ul>
    );
  const value = Number(mm);
  // What was measured before counts already: it is no prediction any more.
  const known = part.part.measured?.some((m) => m.what === chosen.what) ? "Measured before" : "Predicted";
  const sound = mm !== "" && value >= 1 && value <= 5000;
  return (
    <form
      className="flex flex-wrap gap-x-8 gap-y-4"
      onSubmit={(e) => {
        e.preventDefault();
        if (sound) onSay(chosen.what, value, `${chosen.word}: ${value} mm`);
      }}
    >
      <div className="flex w-full max-w-[420px] flex-col gap-4">
        <Field
          bench
          word={`${chosen.word}, mm`}
          inputMode="none"
          autoComplete="off"
          value={mm}
          onChange={(e) => setMm(e.target.value.replace(/\D/g, "").slice(0, 4))}
          autoFocus
        />
        <DigitKeys value={mm} most={4} onChange={setMm} />
      </div>
      <div className="flex min-w-64 flex-1 flex-col gap-3 pt-10">
        <p>
          {name}. {chosen.mm === undefined ? "No length was known." : `${known}: ${chosen.mm} mm.`}{" "}
          {sound && chosen.mm !== undefined && value !== chosen.mm ? (
            <strong>
              {Math.abs(value - chosen.mm)} mm {value > chosen.mm ? "more" : "less"}.
            </strong>
          ) : null}
        </p>
        <Button bench type="submit" tone="mark" disabled={!sound} className="min-h-28">
          Measured
        </Button>
        <Button bench onClick={() => setChosen(undefined)}>
          Another length
        </Button>
      </div>
    </form>
  );
}

"use client";
import { useState } from "react";
import type { Line } from "../../server/views/slices";
import { Button } from "../../ui/button";
import { Fold } from "../../ui/fold";
import { observeAction } from "../actions/first-boot";
import { huntSimulatedAction } from "../actions/machine";
import { useAct } from "../frame/use-act";

/** Something else that was seen, heard or read: it belongs to a fault that it may share a cause with, else it opens one. */
export function Symptom({ number, lines, simulated }: { number: string; lines: readonly Line[]; simulated: boolean }) {
  const act = useAct();
  const [id, setId] = useState("");
  const [value, setValue] = useState("");
  const line = lines.find((l) => l.id === id);
  const say = (v: string) =>
    act.run(
      () => observeAction({ number, lines: [{ line: id, value: v }] }),
      () => {
        setId("");
        setValue("");
        return `${line?.what}: ${v}. It counts.`;
      },
    );
  return (
    <div className="mt-4 border-t border-rule pt-2">
      <Fold word={<span className="font-semibold">Something else was seen</span>}>
        <div className="mt-2 flex flex-col gap-2">
          <select className="field w-full" aria-label="What was looked at" value={id} onChange={(e) => setId(e.target.value)}>
            <option value="">What was looked at …</option>
            {lines.map((l) => (
              <option key={l.id} value={l.id}>
                {l.what}
              </option>
            ))}
          </select>
          {line && simulated ? (
            <Button
              disabled={act.pending}
              onClick={() =>
                act.run(
                  () => huntSimulatedAction({ number, line: id }),
                  (said) => `The simulated machine, ${line.what}: ${said}. It counts in the exercise.`,
                )
              }
            >
              Look at the simulated machine
            </Button>
          ) : null}
          {line && simulated ? <p className="text-second text-soft">Or seen of the machine itself:</p> : null}
          {line && line.values.length > 0 ? (
            <div className="flex flex-wrap gap-2">
              {line.values.map((v) => (
                <Button key={v} disabled={act.pending} onClick={() => say(v)}>
                  {v}
                </Button>
              ))}
            </div>
          ) : line ? (
            <form
              className="flex gap-2"
              onSubmit={(e) => {
                e.preventDefault();
                if (value.trim()) say(value.trim());
              }}
            >
              <input
                className="field mono w-24"
                aria-label={`${line.what} read${line.unit ? `, ${line.unit}` : ""}`}
                placeholder={line.expected}
                value={value}
                maxLength={60}
                onChange={(e) => setValue(e.target.value)}
              />
              <Button type="submit" disabled={act.pending || !value.trim()}>
                Record
              </Button>
            </form>
          ) : null}
        </div>
      </Fold>
      <p role="status" className="text-second">
        {act.sentence}
      </p>
    </div>
  );
}

"use client";
import { useState } from "react";
import type { DeedShown } from "../../core/diagnose";
import type { FaultsSlice, Line } from "../../server/views/slices";
import { Button } from "../../ui/button";
import { actOnFaultAction } from "../actions/faults";
import { observeAction } from "../actions/first-boot";
import { useKeys } from "../frame/keys";
import type { Acting } from "../frame/use-act";
import { AnotherModel } from "./another-model";

/** A look is a value of its line. */
export const isLook = (d: DeedShown): boolean => d.results.length === 0;

interface Come {
  word: string;
  say: () => void;
  mark?: boolean;
}

/** A key for each of what may come of it: large, for an arm's length, and by its digit. */
function Keys({ label, come, busy }: { label: string; come: readonly Come[]; busy: boolean }) {
  useKeys(
    "screen",
    come.slice(0, 9).map((c, i) => ({ keys: [String(i + 1)], word: `${label}: ${c.word}`, run: () => (busy ? undefined : c.say()) })),
  );
  return (
    <div role="group" aria-label={label} className="mt-6 flex flex-wrap gap-3">
      {come.map((c, i) => (
        <Button
          key={c.word}
          {...(c.mark ? { tone: "mark" as const } : {})}
          className="min-h-14 px-4 text-key"
          disabled={busy}
          onClick={c.say}
          {...(i < 9 ? { "aria-keyshortcuts": String(i + 1) } : {})}
        >
          {i < 9 ? (
            <span aria-hidden className="mono mr-2 text-second">
              {i + 1}
            </span>
          ) : null}
          {c.word}
        </Button>
      ))}
    </div>
  );
}

/** What came of it: a key for each. */
export function Outcomes({
  number,
  fault,
  shown,
  lines,
  act,
}: {
  number: string;
  fault: FaultsSlice["faults"][number];
  shown: DeedShown;
  lines: readonly Line[];
  act: Acting;
}) {
  const [typed, setTyped] = useState("");
  const [serial, setSerial] = useState("");
  const [until, setUntil] = useState("");
  const line = isLook(shown) ? lines.find((l) => l.id === shown.target) : undefined;
  const see = (value: string) =>
    act.run(
      () => observeAction({ number, lines: [{ line: shown.target, value }] }),
      () => `${line?.what}: ${value}. The next action is up.`,
    );
  const report = (result: string, more: object = {}) =>
    act.run(
      () => actOnFaultAction({ number, fault: fault.number, deed: shown.id, result, ...more }),
      () =>
        result === "that was it" || (result === "now it works" && shown.kind === "swap leads")
          ? "Closed. Look at those lines of the first-boot sheet again."
          : result === "changed"
            ? "Recorded. Say what is wrong now: look at those lines of the first-boot sheet again."
            : "Recorded. The next action is up.",
    );
  if (line && line.values.length > 0)
    return <Keys label={`${line.what}: seen`} come={line.values.map((v) => ({ word: v, say: () => see(v) }))} busy={act.pending} />;
  if (line)
    return (
      <form
        className="mt-6 flex gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          if (typed.trim()) see(typed.trim());
        }}
      >
        <input
          className="field mono min-h-14 w-32"
          aria-label={`${line.what} read${line.unit ? `, ${line.unit}` : ""}`}
          value={typed}
          maxLength={60}
          onChange={(e) => setTyped(e.target.value)}
        />
        <Button type="submit" tone="mark" className="min-h-14 px-4" disabled={act.pending || !typed.trim()}>
          Record
        </Button>
        <Button className="min-h-14 px-4" disabled={act.pending} onClick={() => see(line.expected)}>
          As expected: {line.expected}
          {line.unit ? ` ${line.unit}` : ""}
        </Button>
      </form>
    );
  const part = shown.kind === "swap" && !shown.target.includes(":");
  return (
    <>
      <Keys
        label="What came of it"
        come={shown.results.map((r, i) => ({
          word: RESULT_WORDS[r] ?? r,
          say: () => report(r, part && i === 0 && serial.trim() ? { serial: serial.trim() } : {}),
          mark: i === 0,
        }))}
        busy={act.pending}
      />
      {part ? (
        <div className="mt-3 flex flex-wrap items-end gap-4 text-second">
          <label className="flex flex-col gap-1">
            Serial of the one that goes in
            <input className="field mono w-48" value={serial} maxLength={80} onChange={(e) => setSerial(e.target.value)} />
          </label>
          <label className="flex flex-col gap-1">
            None lies here: due on
            <input className="field" type="date" value={until} onChange={(e) => setUntil(e.target.value)} />
          </label>
          <Button disabled={act.pending || !until} onClick={() => report("waits", { waitUntil: until })}>
            Send it back and wait
          </Button>
        </div>
      ) : null}
      {part ? <AnotherModel {...{ number, fault: fault.number, deed: shown.id, part: shown.target, act }} /> : null}
    </>
  );
}

const RESULT_WORDS: Record<string, string> = {
  "that was it": "That was it",
  "now it works": "Now it works",
  "no change": "Nothing changed",
  changed: "Something else is wrong now",
  "it follows the lead": "It follows the lead",
  "it stays at the position": "It stays at the position",
  impossible: "It cannot be done",
};

"use client";
import { useState } from "react";
import { PART_KINDS, TYPICAL_KINDS } from "../../core/catalogue";
import type { Fix } from "../../core/intake";
import type { MailAnswer, MailAnswerLine } from "../../server/job/read-mail";
import { Button } from "../../ui/button";
import { Dialog } from "../../ui/dialog";
import { SeverityShape } from "../../ui/marks";
import { ask } from "../frame/ask";
import { useFound } from "../frame/use-found";
import { KIND_WORD } from "../shared/kinds";
import { money } from "../shared/money";

const EXTRA_WORD: Record<string, string> = {
  licence: "licence",
  stick: "stick",
  monitor: "monitor",
  keyboard: "keyboard",
  mouse: "mouse",
  headset: "headset",
  speakers: "speakers",
  gift: "gift",
  service: "service",
  cable: "cable",
  paste: "paste",
  other: "beside the machine",
};
const ORIGIN = { own: "the client has it", used: "used" } as const;

/** What was understood, in one line. */
export function summary(a: MailAnswer, budget: number | undefined): string {
  const fresh = a.parts - a.known;
  const parts = `${a.parts} ${a.parts === 1 ? "part" : "parts"}`;
  const known = a.parts === 0 ? "" : fresh === 0 ? ", all of them known" : `: ${a.known} known, ${fresh} new`;
  const sum = a.total === undefined ? "" : `; total ${money(a.total)}${budget ? ` of ${money(budget)}` : ""}`;
  const machines = a.machines > 1 ? `; ${a.machines} such machines` : "";
  return `${parts}${known}${sum}${machines}.`;
}

/** The mail as it came, and beside each line what was understood of it; everything is corrected in place. */
export function MailLines({ answer, onFix }: { answer: MailAnswer; onFix: (f: Fix) => void }) {
  return (
    <ol aria-label="Line by line" className="border-t border-rule">
      {answer.lines.map((l, i) => {
        const same = answer.lines[i - 1]?.line === l.line;
        return l.as === "talk" ? (
          <li key={l.key} className="flex items-center gap-4 border-b border-b-rule text-soft">
            <Said l={l} same={same} />
            <button
              type="button"
              className="min-h-7 shrink-0 px-2 text-second underline"
              aria-label={`Line ${l.line} is a part: ${l.text}`}
              onClick={() => onFix({ key: l.key, as: "part" })}
            >
              a part?
            </button>
          </li>
        ) : (
          <li key={l.key} className="grid grid-cols-[minmax(0,2fr)_minmax(0,3fr)] gap-4 border-b border-b-rule py-1.5">
            <Said l={l} same={same} />
            <Line l={l} onFix={onFix} />
          </li>
        );
      })}
    </ol>
  );
}

function Said({ l, same }: { l: MailAnswerLine; same: boolean }) {
  return (
    <p className="min-w-0 flex-1 break-words text-second">
      <span className="mono mr-2 inline-block w-7 text-right text-soft">{same ? "" : l.line}</span>
      {same ? <span className="text-soft">the same line</span> : l.text}
    </p>
  );
}

function Line({ l, onFix }: { l: MailAnswerLine; onFix: (f: Fix) => void }) {
  // One choice says whether it is a part, and of which kind.
  const as = (
    <select
      className="field w-36 text-second"
      aria-label={`Line ${l.line}, ${l.words}: what it is`}
      value={l.as === "part" ? (l.kind ?? "part") : l.as}
      onChange={(e) => {
        const to = e.target.value;
        if (to === "extra" || to === "talk") onFix({ key: l.key, as: to });
        else onFix({ key: l.key, as: "part", kind: to as never, ...(l.known && to !== l.kind ? { type: "new" } : {}) });
      }}
    >
      {l.as === "part" && !l.kind ? <option value="part">which kind?</option> : null}
      <optgroup label="A part">
        {PART_KINDS.filter((k) => TYPICAL_KINDS.includes(k) || k === l.kind).map((k) => (
          <option key={k} value={k}>
            {KIND_WORD[k]}
          </option>
        ))}
      </optgroup>
      <optgroup label="No part">
        <option value="extra">beside the machine</option>
        <option value="talk">only words</option>
      </optgroup>
    </select>
  );
  if (l.as === "extra")
    return (
      <div className="flex min-w-0 items-center gap-2">
        <span className="min-w-0 flex-1">
          {l.count} × {EXTRA_WORD[l.extra ?? "other"]}
          {l.price === undefined ? "" : `, ${money(l.price)}`}
          {l.origin ? <span className="text-second text-soft"> {ORIGIN[l.origin]}</span> : null}
        </span>
        {as}
      </div>
    );
  return (
    <div className="flex min-w-0 flex-col gap-1">
      <div className="flex min-w-0 flex-wrap items-center gap-2">
        <input
          className="field mono w-14"
          type="number"
          min={0}
          max={20}
          aria-label={`Line ${l.line}, ${l.words}: how many`}
          value={l.count}
          onChange={(e) => onFix({ key: l.key, count: Math.max(0, Math.min(20, Math.round(Number(e.target.value)))) })}
        />
        <span className="min-w-0 flex-1 font-semibold">
          {l.known ? l.known.name : (l.made?.name ?? l.words)}
          {l.price === undefined ? "" : <span className="font-normal text-soft">, {money(l.price)}</span>}
        </span>
        {as}
      </div>
      <div className="flex min-w-0 flex-wrap items-center gap-2 text-second">
        <Mark l={l} />
        {l.alternatives.length > 0 || l.known ? (
          <select
            className="field max-w-48 text-second"
            aria-label={`Line ${l.line}, ${l.words}: which part type`}
            value={l.known?.id ?? "new"}
            onChange={(e) => onFix({ key: l.key, type: e.target.value })}
          >
            {l.known ? <option value={l.known.id}>{l.known.name}</option> : null}
            {l.alternatives.map((a) => (
              <option key={a.id} value={a.id}>
                {a.name}
                {a.differs ? ` (${a.differs})` : ""}
              </option>
            ))}
            <option value="new">new: made from its words</option>
          </select>
        ) : null}
        <FindType l={l} onPick={(id) => onFix({ key: l.key, type: id })} />
      </div>
      {l.ask ? <p className="text-second font-semibold">{l.ask}</p> : null}
    </div>
  );
}

/** Known by name, guessed by its figures, or made from its words: by shape and word, never by colour alone. */
function Mark({ l }: { l: MailAnswerLine }) {
  const word = l.known
    ? l.guessed
      ? "the first that fits"
      : "on the shelf"
    : l.made
      ? `new, ${l.made.assumed} values assumed`
      : l.kind
        ? "kept in its words"
        : "which kind?";
  const shape = l.known ? (l.guessed ? "M2 2h9v9h-9zM6.500 2v9" : "M2 2h9v9h-9z") : "M2 2h9v9h-9z";
  return (
    <span className="flex items-center gap-1.5">
      <svg width="13" height="13" aria-hidden>
        <path
          d={shape}
          fill={l.known && !l.guessed ? "var(--ink)" : "none"}
          stroke="var(--ink)"
          strokeWidth="1.5"
          strokeDasharray={l.known ? undefined : "2.500 2"}
        />
      </svg>
      {word}
      {l.origin ? `, ${ORIGIN[l.origin]}${l.from ? ` from ${l.from}` : ""}` : ""}
    </span>
  );
}

function FindType({ l, onPick }: { l: MailAnswerLine; onPick: (id: string) => void }) {
  const [open, setOpen] = useState(false);
  const [words, setWords] = useState("");
  const { found, sentence } = useFound(open ? (w) => ask("shelf.search", { text: w }) : undefined, words);
  return (
    <Dialog
      open={open}
      onOpenChange={setOpen}
      title="Which part type is it?"
      className="h-[70vh] w-[560px]"
      trigger={
        <Button aria-label={`Line ${l.line}, ${l.words}: find another part type`} className="text-second">
          Find
        </Button>
      }
    >
      <p className="text-second text-soft">{l.text}</p>
      <label>
        <span className="sr-only">Find a part type</span>
        <input className="field w-full" placeholder="Name, maker or kind" value={words} maxLength={80} onChange={(e) => setWords(e.target.value)} />
      </label>
      <p role="status" className="text-second">
        {sentence || `${(found?.rows ?? []).length} found.`}
      </p>
      <ul className="region min-h-0 flex-1">
        {(found?.rows ?? []).map((r) => (
          <li key={r.id} className="flex min-h-11 items-center gap-3 border-b border-rule px-1">
            <span className="w-24 shrink-0 text-second text-soft">{KIND_WORD[r.kind] ?? r.kind}</span>
            <span className="min-w-0 flex-1 truncate">{r.name}</span>
            <Button
              aria-label={`It is ${r.name}`}
              onClick={() => {
                onPick(r.id);
                setOpen(false);
              }}
            >
              It is this
            </Button>
          </li>
        ))}
      </ul>
    </Dialog>
  );
}

/** What the machine comes to as it is understood, before it is a job. */
export function Verdict({ answer }: { answer: MailAnswer }) {
  if (answer.parts === 0) return null;
  return (
    <div className="text-second">
      {answer.findings.length === 0 ? <p>Nothing speaks against it so far.</p> : null}
      <ul>
        {answer.findings.slice(0, 4).map((f) => (
          <li key={f.message} className="flex gap-2 py-0.5">
            <SeverityShape severity={f.severity} size={13} />
            {f.message}
          </li>
        ))}
      </ul>
      {answer.findings.length > 4 ? <p>{answer.findings.length - 4} more are told once it is a job.</p> : null}
      {answer.assumed > 0 ? (
        <p className="text-soft">{answer.assumed} values of the new parts are assumed. What of them matters is asked once it is a job.</p>
      ) : null}
    </div>
  );
}

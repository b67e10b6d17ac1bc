"use client";
import { useState } from "react";
import type { PromiseKind } from "../../core/intake";
import { MOST_FRAME_CHARS, type Proof, ratesOf, readFrames } from "../../core/proof";
import type { JobView } from "../../server/views/job-view";
import { Button } from "../../ui/button";
import { ChooseFile } from "../../ui/choose-file";
import { Dialog } from "../../ui/dialog";
import { StateMark } from "../../ui/marks";
import { proveAction } from "../actions/first-boot";
import { useAct } from "../frame/use-act";
import { PROMISE_UNIT } from "../shared/promise-unit";
import { ROW, What } from "./sheet-line";

type Promised = JobView["after"]["promises"][number];
const STATE = { open: "free", kept: "checked", "not kept": "wrong", "not tested": "planned" } as const;
const num = (t: string) => (t.trim() === "" ? undefined : Number(t.replace(",", ".")));

/** One thing that was promised, and what came of it. */
export function ProofRow({ number, p }: { number: string; p: Promised }) {
  const unit = PROMISE_UNIT[p.about as PromiseKind] ?? "";
  return (
    <li className={ROW}>
      <What what={p.words} because={p.because} wrong={p.verdict === "not kept" ? "Not kept" : undefined} />
      <span className="text-second">{p.value === undefined ? "" : `${p.about === "quiet" ? "at most" : "at least"} ${p.value} ${unit}`}</span>
      <div className="flex flex-wrap items-center gap-2">
        <StateMark state={STATE[p.verdict]} size={13} word={p.verdict === "open" ? (p.proof ? "kept or not?" : "not looked at") : p.verdict} />
        <ProofSheet number={number} p={p} unit={unit} />
        {p.proof ? <span className="text-second text-soft">{p.proof.by}</span> : null}
      </div>
    </li>
  );
}

function ProofSheet({ number, p, unit }: { number: string; p: Promised; unit: string }) {
  const act = useAct();
  const [open, setOpen] = useState(false);
  const [note, setNote] = useState("");
  const was = {
    value: p.proof?.value === undefined ? "" : String(p.proof.value),
    worst1: p.proof?.worst1 === undefined ? "" : String(p.proof.worst1),
    wide: "",
    high: "",
    conditions: p.proof?.conditions ?? "",
    why: p.proof?.why ?? "",
  };
  const [form, setForm] = useState(was);
  const set = (id: keyof typeof form, to: string) => setForm((f) => ({ ...f, [id]: to }));
  const keep = (result: Proof["result"]) => {
    const [value, worst1, wide, high] = [num(form.value), num(form.worst1), num(form.wide), num(form.high)];
    act.run(
      () =>
        proveAction({
          number,
          about: p.about,
          words: p.words,
          proof: {
            result,
            conditions: form.conditions,
            why: form.why,
            ...(value === undefined ? {} : { value }),
            ...(worst1 === undefined ? {} : { worst1 }),
            ...(wide && high ? { pixels: Math.round(wide * high) } : p.proof?.pixels ? { pixels: p.proof.pixels } : {}),
          },
        }),
      () => {
        setOpen(false);
        return "";
      },
    );
  };
  const take = async (file: File) => {
    if (file.size > 2 * MOST_FRAME_CHARS) return setNote(`${file.name} is too large. Measure fewer minutes.`);
    const read = readFrames(await file.text());
    if (!read.ok) return setNote(`${file.name}: ${read.sentence}`);
    const r = ratesOf(read.frames);
    setNote(`${r.frames} frames in ${r.minutes} minutes out of “${read.frames.column}”. ${read.faults.join(" ")}`);
    setForm((f) => ({ ...f, value: String(r.average), worst1: String(r.worst1) }));
  };
  const field = (id: keyof typeof form, word: string, more: object = {}) => (
    <label>
      <span className="block text-second text-soft">{word}</span>
      <input className="field w-full" value={form[id]} onChange={(e) => set(id, e.target.value)} {...more} />
    </label>
  );
  const measures = unit !== "";
  return (
    <Dialog
      open={open}
      onOpenChange={(to) => {
        if (to) setForm(was);
        setOpen(to);
      }}
      title={p.words}
      className="w-[640px]"
      trigger={
        <Button className="min-h-9 px-3" aria-label={`What came of: ${p.words}`}>
          {p.proof ? "Change" : "What came of it"}
        </Button>
      }
    >
      <form
        className="grid grid-cols-2 gap-3 max-[760px]:grid-cols-1"
        onSubmit={(e) => {
          e.preventDefault();
          keep(measures && form.value !== "" ? "measured" : "seen");
        }}
      >
        {measures
          ? field("value", p.about === "program" ? "Average, frames a second" : `Measured, ${unit}`, { inputMode: "decimal", maxLength: 12 })
          : null}
        {p.about === "program" ? field("worst1", "Of the worst 1 %, frames a second", { inputMode: "decimal", maxLength: 12 }) : null}
        {p.about === "program" ? field("wide", "Picture, px wide", { inputMode: "numeric", maxLength: 6 }) : null}
        {p.about === "program" ? field("high", "px high", { inputMode: "numeric", maxLength: 6 }) : null}
        {p.about === "program" ? (
          <div className="col-span-full">
            <ChooseFile word="A table of frame times" accept=".csv,.txt,text/csv,text/plain" onFile={(f) => void take(f)} />
            <p role="status" className="text-second">
              {note}
            </p>
          </div>
        ) : null}
        <div className="col-span-full">
          {field("conditions", p.about === "program" ? "Scene, settings, sync, minutes, room, panels on" : "How it was looked at", {
            maxLength: 500,
          })}
        </div>
        <div className="col-span-full">{field("why", "Why, where it was not kept or not tested", { maxLength: 300 })}</div>
        <p role="alert" className="col-span-full text-second">
          {act.sentence}
        </p>
        <div className="col-span-full flex flex-wrap gap-3">
          <Button type="submit" tone="mark" disabled={act.pending}>
            {measures ? "That was measured" : "It is so"}
          </Button>
          {measures ? (
            <Button disabled={act.pending} onClick={() => keep("seen")}>
              {p.value === undefined ? "It is kept" : "Seen, not measured"}
            </Button>
          ) : null}
          <Button disabled={act.pending} onClick={() => keep("not kept")}>
            Not kept
          </Button>
          <Button disabled={act.pending} onClick={() => keep("not tested")}>
            Not tested
          </Button>
        </div>
      </form>
    </Dialog>
  );
}

"use client";
import { useState } from "react";
import type { PromiseKind } from "../../core/intake";
import type { Brief } from "../../server/job/brief";
import { Button } from "../../ui/button";
import { Fold } from "../../ui/fold";
import { briefAction } from "../actions/job";
import { useDates } from "../frame/dates";
import { useAct } from "../frame/use-act";

const ABOUT: Record<PromiseKind, string> = {
  program: "Programs",
  quiet: "How loud",
  "memory-speed": "Memory speed",
  overclock: "Overclock",
  installed: "Installed",
  "data-moved": "Data moved",
  lights: "Lights",
  wireless: "Wireless",
  date: "Date",
};

/** What the client wrote and what was agreed: lines that can be proved, what is asked for beside the machine, how they are reached. */
export function ClientView({ brief, number, aside }: { brief: Brief; number: string; aside: readonly string[] }) {
  const act = useAct();
  const dates = useDates();
  const [about, setAbout] = useState<PromiseKind>("program");
  const [words, setWords] = useState("");
  const [phone, setPhone] = useState(brief.phone);
  const [hour, setHour] = useState(brief.dueHour ?? "");
  const [promised, setPromised] = useState(brief.duePromised);
  return (
    <section aria-label="What the client wants" className="region min-w-0 flex-1 p-5">
      <h2 className="text-action font-[650]">What was agreed</h2>
      <p role="status" className="text-second text-soft">
        {act.sentence || "Lines that can be proved at the end. Those without a name were read from the mail."}
      </p>
      <ul className="mt-2 max-w-[860px]">
        {brief.promises.map((p) => (
          <li key={`${p.about} ${p.words}`} className="flex min-h-11 items-center gap-4 border-t border-rule py-1">
            <span className="w-28 shrink-0 text-second text-soft">{ABOUT[p.about]}</span>
            <span className="min-w-0 flex-1">
              {p.words}
              <span className="block text-second text-soft">
                {p.value === undefined ? "" : `${p.value}${p.about === "quiet" ? " dB(A)" : p.about === "program" ? " frames a second" : ""}, `}
                {p.by && p.at ? `${p.by}, ${dates.day(p.at)}` : "from the mail"}
              </span>
            </span>
            <Button
              disabled={act.pending}
              aria-label={`No longer promised: ${p.words}`}
              onClick={() => act.run(() => briefAction({ number, drop: { about: p.about, words: p.words } }))}
            >
              No longer
            </Button>
          </li>
        ))}
        {brief.promises.length === 0 ? <li className="border-t border-rule py-2 text-soft">Nothing is promised of this machine yet.</li> : null}
      </ul>
      <form
        className="mt-2 flex max-w-[860px] flex-wrap items-end gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          if (words.trim() === "") return;
          act.run(
            () => briefAction({ number, promise: { about, words: words.trim() } }),
            () => {
              setWords("");
              return "Kept, with your name.";
            },
          );
        }}
      >
        <label>
          <span className="block text-second text-soft">About</span>
          <select className="field" value={about} onChange={(e) => setAbout(e.target.value as PromiseKind)}>
            {Object.entries(ABOUT).map(([id, word]) => (
              <option key={id} value={id}>
                {word}
              </option>
            ))}
          </select>
        </label>
        <label className="min-w-0 flex-1">
          <span className="block text-second text-soft">What is promised</span>
          <input className="field w-full" value={words} maxLength={300} onChange={(e) => setWords(e.target.value)} />
        </label>
        <Button type="submit" disabled={act.pending || words.trim() === ""}>
          Promise it
        </Button>
      </form>
      <h3 className="mt-6 text-key font-[650]">When, and how they are reached</h3>
      <form
        className="flex flex-wrap items-end gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          act.run(
            () => briefAction({ number, phone, due: { hour: hour || null, promised } }),
            () => "Kept.",
          );
        }}
      >
        <label>
          <span className="block text-second text-soft">Telephone</span>
          <input className="field mono" value={phone} maxLength={60} onChange={(e) => setPhone(e.target.value)} />
        </label>
        <label>
          <span className="block text-second text-soft">Hour on the day it is due</span>
          <input className="field mono" type="time" value={hour} onChange={(e) => setHour(e.target.value)} />
        </label>
        <label className="flex min-h-9 items-center gap-2">
          <input type="checkbox" checked={promised} onChange={() => setPromised((p) => !p)} />
          promised by us, not only wished
        </label>
        <Button type="submit" disabled={act.pending}>
          Keep it
        </Button>
        {brief.address ? <span className="pb-2 text-second text-soft">{brief.address}</span> : null}
      </form>
      {brief.extras.length > 0 ? (
        <>
          <h3 className="mt-6 text-key font-[650]">Beside the machine</h3>
          <ul className="max-w-[860px]">
            {brief.extras.map((x, i) => (
              <li key={`${String(i)}${x.words}`} className="flex min-h-9 items-center gap-4 border-t border-rule">
                <span className="mono w-10 shrink-0 text-right">{x.count} ×</span>
                <span className="min-w-0 flex-1">
                  {x.words}
                  {x.own ? <span className="text-second text-soft"> the client has it</span> : null}
                </span>
                {x.price === undefined ? null : <span className="mono">{x.price.toFixed(2)}</span>}
              </li>
            ))}
          </ul>
        </>
      ) : null}
      {brief.machines > 1 ? <p className="mt-4">{brief.machines} such machines are ordered; this job is one of them.</p> : null}
      {aside.length > 0 ? (
        <>
          <h3 className="mt-6 text-key font-[650]">Kept in its words</h3>
          <ul>
            {aside.map((line, i) => (
              <li key={`${String(i)}${line}`} className="border-t border-rule py-1.5">
                {line}
              </li>
            ))}
          </ul>
        </>
      ) : null}
      {brief.mail ? (
        <div className="mt-6">
          <Fold word="What the client wrote">
            <pre className="mono max-w-[860px] whitespace-pre-wrap pt-2 text-second">{brief.mail}</pre>
          </Fold>
        </div>
      ) : null}
    </section>
  );
}

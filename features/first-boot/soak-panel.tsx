"use client";
import { useState } from "react";
import type { Heat } from "../../core/machine";
import { MOST_READING_CHARS, readReadings, thinned } from "../../core/soak";
import type { SoakView } from "../../server/first-boot/soak-log";
import { Button } from "../../ui/button";
import { ChooseFile } from "../../ui/choose-file";
import { Dialog } from "../../ui/dialog";
import Link from "../../ui/link";
import { soakLogAction } from "../actions/first-boot";
import { useDates } from "../frame/dates";
import { useAct } from "../frame/use-act";
import { ActSaid } from "../shared/act-said";
import { Curves } from "./curves";
import { LetIn, Streams } from "./streams";
import { TypedSoak } from "./typed-soak";

const WORD: Record<SoakView["soak"]["verdict"], string> = {
  held: "It held",
  "too hot": "Too hot",
  "slowed down": "It slowed down",
  "still rising": "Still rising",
  interrupted: "Interrupted",
  "cut short": "Cut short",
  "no load": "Not at work",
  "not judged": "Not judged",
};

/** The soak by its readings: a log is chosen, judged, and stays with the job as a curve and a table. */
export function SoakPanel({ number, soaks, heat }: { number: string; soaks: readonly SoakView[]; heat: Heat | null }) {
  const act = useAct();
  const dates = useDates();
  const [notes, setNotes] = useState<string[]>([]);
  const [conditions, setConditions] = useState("");
  const take = (file: File) =>
    act.run(
      async () => {
        setNotes([]);
        if (file.size > 2 * MOST_READING_CHARS)
          return { ok: false as const, sentence: `${file.name} is too large for a log. Log for a shorter time, or less often. Nothing was kept.` };
        const read = readReadings(await file.text());
        if (typeof read === "string") return { ok: false as const, sentence: `${file.name}: ${read}` };
        setNotes([...read.faults, ...(read.unknown.length > 0 ? [`Not understood: ${read.unknown.slice(0, 8).join(", ")}.`] : [])]);
        return soakLogAction({
          number,
          name: file.name.slice(0, 200),
          conditions,
          readings: { columns: read.columns.slice(0, 60), ...cut(thinned(read)) },
        });
      },
      (s) => `${WORD[s.verdict]}. ${s.because[0] ?? ""}`,
    );
  return (
    <div className="flex flex-col gap-2 border-t border-rule px-4 py-3">
      <p className="text-second text-soft">
        Two hours under load, panels on. Before you leave, look that it is logging.
        {heat
          ? ` Worked out: the CPU at about ${Math.round(heat.loadC)} °C with fans at full, nearly there after ${Math.max(1, Math.round((3 * heat.tauS) / 60))} minutes.`
          : ""}
      </p>
      <label className="flex flex-wrap items-center gap-3">
        <span className="text-second text-soft">Conditions</span>
        <input
          className="field min-w-0 flex-1"
          maxLength={300}
          placeholder="room 22 °C, panels on, fans by their curves, supply quiet"
          value={conditions}
          onChange={(e) => setConditions(e.target.value)}
        />
      </label>
      <div className="flex flex-wrap items-center gap-3">
        <ChooseFile word="A log of readings" accept=".csv,.txt,text/csv,text/plain" onFile={take} />
        <TypedSoak number={number} />
        <LetIn number={number} />
        <Link className="key" href={`/job/${number}/simulated`}>
          Simulated machine
        </Link>
      </div>
      <Streams number={number} heat={heat} conditions={conditions} />
      <ActSaid act={act} />
      {notes.map((n) => (
        <p key={n} className="text-second text-soft">
          {n}
        </p>
      ))}
      <ul>
        {soaks.map((s) => (
          <li key={s.id} className="border-t border-rule py-2">
            {s.simulated ? <span className="mr-2 border-2 border-ink px-1 font-semibold">Simulated</span> : null}
            <span className="font-semibold">{WORD[s.soak.verdict]}</span>, {s.soak.minutes} min
            {s.soak.because.map((b) => (
              <span key={b} className="block text-second">
                {b}
              </span>
            ))}
            <span className="block text-second text-soft">
              {s.name}, {s.by}, {dates.both(s.at)}
              {s.conditions ? `; ${s.conditions}` : ""}
            </span>
            <Dialog
              title={`${s.name}: ${WORD[s.soak.verdict].toLowerCase()}`}
              className="w-[860px]"
              trigger={<Button className="mt-1">Curve and table</Button>}
            >
              <Curves readings={s.readings} soak={s.soak} heat={heat} simulated={s.simulated} />
            </Dialog>
          </li>
        ))}
      </ul>
    </div>
  );
}
const cut = (t: ReturnType<typeof thinned>) => ({ atS: t.atS, values: t.values.slice(0, 60) });

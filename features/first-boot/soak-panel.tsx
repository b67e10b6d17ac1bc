"use client";
import { useMemo, useState } from "react";
import type { Heat } from "../../core/machine";
import { MOST_READING_CHARS, readReadings, thinned } from "../../core/soak";
import type { SoakView } from "../../server/first-boot/soak-log";
import { Button } from "../../ui/button";
import { ChooseFile } from "../../ui/choose-file";
import { Dialog } from "../../ui/dialog";
import { LineChart } from "../../ui/line-chart";
import { soakLogAction } from "../actions/first-boot";
import { useDates } from "../frame/dates";
import { useAct } from "../frame/use-act";
import { ActSaid } from "../shared/act-said";
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
const UNIT = { temperature: "°C", clock: "MHz", power: "W", speed: "rpm", load: "%" } as const;

/** The soak by its readings: a log is chosen, judged, and stays with the job as a curve and a table. */
export function SoakPanel({ number, soaks, heat }: { number: string; soaks: readonly SoakView[]; heat: Heat | null }) {
  const act = useAct();
  const dates = useDates();
  const [notes, setNotes] = useState<string[]>([]);
  const take = (file: File) =>
    act.run(
      async () => {
        setNotes([]);
        if (file.size > 2 * MOST_READING_CHARS)
          return { ok: false as const, sentence: `${file.name} is too large for a log. Log for a shorter time, or less often. Nothing was kept.` };
        const read = readReadings(await file.text());
        if (typeof read === "string") return { ok: false as const, sentence: `${file.name}: ${read}` };
        setNotes([...read.faults, ...(read.unknown.length > 0 ? [`Not understood: ${read.unknown.slice(0, 8).join(", ")}.`] : [])]);
        return soakLogAction({ number, name: file.name.slice(0, 200), readings: { columns: read.columns.slice(0, 60), ...cut(thinned(read)) } });
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
      <div className="flex flex-wrap items-center gap-3">
        <ChooseFile word="A log of readings" accept=".csv,.txt,text/csv,text/plain" onFile={take} />
        <TypedSoak number={number} />
      </div>
      <ActSaid act={act} />
      {notes.map((n) => (
        <p key={n} className="text-second text-soft">
          {n}
        </p>
      ))}
      <ul>
        {soaks.map((s) => (
          <li key={s.id} className="border-t border-rule py-2">
            <span className="font-semibold">{WORD[s.soak.verdict]}</span>, {s.soak.minutes} min
            {s.soak.because.map((b) => (
              <span key={b} className="block text-second">
                {b}
              </span>
            ))}
            <span className="block text-second text-soft">
              {s.name}, {s.by}, {dates.both(s.at)}
            </span>
            <Dialog
              title={`${s.name}: ${WORD[s.soak.verdict].toLowerCase()}`}
              className="w-[860px]"
              trigger={<Button className="mt-1">Curve and table</Button>}
            >
              <Curves s={s} />
            </Dialog>
          </li>
        ))}
      </ul>
    </div>
  );
}
const cut = (t: ReturnType<typeof thinned>) => ({ atS: t.atS, values: t.values.slice(0, 60) });

/** One curve of what is looked at, and a table of all. */
function Curves({ s }: { s: SoakView }) {
  const [at, setAt] = useState(0);
  const { columns, atS, values } = s.readings;
  const column = columns[at];
  const line = useMemo(
    () => atS.flatMap((t, i) => (typeof values[at]?.[i] === "number" ? [{ x: t / 60, y: values[at][i] as number }] : [])),
    [atS, values, at],
  );
  if (!column) return null;
  const top = s.soak.maxima.find((m) => m.name === column.name);
  const ys = line.map((p) => p.y);
  const most = Math.max(...ys, top?.limit ?? 0);
  return (
    <div className="flex flex-col gap-3">
      <label className="flex items-center gap-3">
        <span className="text-second text-soft">Shown</span>
        <select className="field" value={at} onChange={(e) => setAt(Number(e.target.value))}>
          {columns.map((c, i) => (
            <option key={c.name} value={i}>
              {c.name}
            </option>
          ))}
        </select>
        {top?.limit === undefined ? null : <span className="text-second text-soft">limit {top.limit} °C, common practice</span>}
      </label>
      <LineChart
        label={`${column.name} over ${s.soak.minutes} minutes; the table has the highest`}
        x={{ title: "minutes", min: 0, max: Math.max(1, Math.ceil((atS.at(-1) ?? 60) / 60)) }}
        y={{ title: UNIT[column.quantity], min: Math.floor(Math.min(...ys, most)), max: Math.ceil(most * 1.05) }}
        line={line}
        marks={[]}
      />
      <table className="w-full">
        <thead>
          <tr className="text-left text-second text-soft">
            <th className="font-normal">Reading</th>
            <th className="text-right font-normal">Highest that held</th>
            <th className="text-right font-normal">Limit</th>
          </tr>
        </thead>
        <tbody>
          {s.soak.maxima.map((m) => (
            <tr key={m.name} className="border-t border-rule">
              <th scope="row" className="text-left font-normal">
                {m.name}
              </th>
              <td className="mono text-right">
                {m.value} {UNIT[m.quantity]}
              </td>
              <td className="mono text-right">{m.limit === undefined ? "" : `${m.limit} °C`}</td>
            </tr>
          ))}
          {s.soak.lowestClock ? (
            <tr className="border-t border-rule">
              <th scope="row" className="text-left font-normal">
                {s.soak.lowestClock.name}, lowest under load
              </th>
              <td className="mono text-right">{s.soak.lowestClock.mhz} MHz</td>
              <td className="mono text-right">of {s.soak.lowestClock.ofMhz} MHz</td>
            </tr>
          ) : null}
        </tbody>
      </table>
    </div>
  );
}

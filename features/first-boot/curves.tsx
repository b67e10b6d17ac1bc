"use client";
import { useMemo, useState } from "react";
import { HEAT_OFF_K, type Heat, heatBand } from "../../core/machine";
import type { Soak } from "../../core/soak";
import type { GivenReadings } from "../../server/first-boot/soak-log";
import { Button } from "../../ui/button";
import { LineChart } from "../../ui/line-chart";
import { nameColumnAction } from "../actions/machine";
import { useAct } from "../frame/use-act";
import { ActSaid } from "../shared/act-said";

const UNIT = { temperature: "°C", clock: "MHz", power: "W", speed: "rpm", load: "%" } as const;
/** At work from this load on, percent. */
const BUSY = 50;
const NAMED = [
  ["cpu", "the CPU"],
  ["card", "the card"],
  ["drive", "a drive"],
  ["board", "the board"],
  ["memory", "the memory"],
] as const;

/** One curve of what is looked at, with the limit and what was worked out, and a table of all. */
export function Curves({ readings, soak, heat, simulated }: { readings: GivenReadings; soak: Soak; heat: Heat | null; simulated: boolean }) {
  const [at, setAt] = useState(0);
  const act = useAct();
  const { columns, atS, values } = readings;
  const column = columns[at];
  const line = useMemo(
    () => atS.flatMap((t, i) => (typeof values[at]?.[i] === "number" ? [{ x: t / 60, y: values[at][i] as number }] : [])),
    [atS, values, at],
  );
  if (!column) return null;
  const top = soak.maxima.find((m) => m.name === column.name);
  const ys = line.map((p) => p.y);
  const minutes = Math.max(1, Math.ceil((atS.at(-1) ?? 60) / 60));
  // It warms from when it has work; where nobody logged the load, from the beginning.
  const load = columns.findIndex((c) => c.quantity === "load" && c.part !== "card");
  const begun = load < 0 ? 0 : Math.max(0, values[load]?.findIndex((v) => (v ?? 0) >= BUSY) ?? 0);
  const from = (atS[begun] ?? 0) / 60;
  const band =
    heat && column.part === "cpu" && column.quantity === "temperature"
      ? heatBand(heat, Math.max(1, minutes - from)).map((b) => ({ x: from + b.minute, low: b.lowC, high: b.highC }))
      : undefined;
  const most = Math.max(...ys, top?.limit ?? 0, ...(band ?? []).map((b) => b.high));
  return (
    <div className="flex flex-col gap-3">
      {simulated ? <p className="self-start border-2 border-ink px-1 font-semibold">Simulated: no machine read this</p> : null}
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
        {band ? <span className="text-second text-soft">between the dashes: worked out, ±{HEAT_OFF_K} K</span> : null}
      </label>
      {column.part === "other" ? (
        <div className="flex flex-wrap items-center gap-2">
          <span>Of which part is “{column.name}”?</span>
          {NAMED.map(([part, word]) => (
            <Button
              key={part}
              disabled={act.pending}
              onClick={() =>
                act.run(
                  () => nameColumnAction({ column: column.name, part }),
                  () => `Remembered for all logs of the shop: “${column.name}” is of ${word}. Logs that are judged already stay as they are.`,
                )
              }
            >
              {word}
            </Button>
          ))}
          <ActSaid act={act} />
        </div>
      ) : null}
      <LineChart
        label={`${column.name} over ${soak.minutes} minutes; the table has the highest`}
        x={{ title: "minutes", min: 0, max: minutes }}
        y={{ title: UNIT[column.quantity], min: Math.floor(Math.min(...ys, most)), max: Math.ceil(most * 1.05) }}
        line={line}
        marks={[]}
        band={band}
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
          {soak.maxima.map((m) => (
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
          {soak.lowestClock ? (
            <tr className="border-t border-rule">
              <th scope="row" className="text-left font-normal">
                {soak.lowestClock.name}, lowest under load
              </th>
              <td className="mono text-right">{soak.lowestClock.mhz} MHz</td>
              <td className="mono text-right">of {soak.lowestClock.ofMhz} MHz</td>
            </tr>
          ) : null}
        </tbody>
      </table>
    </div>
  );
}

"use client";
import { useState } from "react";
import type { Filled } from "../../server/first-boot/report";
import { ChooseFile } from "../../ui/choose-file";
import { reportAction } from "../actions/first-boot";
import { useAct } from "../frame/use-act";
import { ActSaid } from "../shared/act-said";

const MOST_FILE_BYTES = 8_000_000;

/** Report files that the machine wrote of itself fill in the lines they speak of. */
export function Reports({ number }: { number: string }) {
  const act = useAct();
  const [filled, setFilled] = useState<Filled>();
  const take = (file: File) => {
    setFilled(undefined);
    act.run(
      async () => {
        if (file.size > MOST_FILE_BYTES)
          return { ok: false as const, sentence: `${file.name} is too large for a report of one machine. Nothing was read.` };
        return reportAction({ number, name: file.name.slice(0, 200), text: await file.text() });
      },
      (f) => {
        setFilled(f);
        return `${f.lines} ${f.lines === 1 ? "line" : "lines"} of the sheet filled in, ${f.read.length} things read.`;
      },
    );
  };
  return (
    <section aria-label="Reports of the machine" className="mt-6 flex flex-col gap-2">
      <h3 className="font-semibold">Reports of the machine</h3>
      <p className="text-second text-soft">What lshw -json, sensors -j, smartctl --json or dmidecode wrote.</p>
      <ChooseFile word="A report file" accept=".json,.txt,application/json,text/plain" onFile={take} className="self-start" />
      <ActSaid act={act} />
      {filled ? (
        <ul className="text-second">
          {filled.otherwise.map((o) => (
            <li key={o} className="text-stop">
              {o}
            </li>
          ))}
          {filled.read.map((r) => (
            <li key={`${r.id} ${r.value}`} className="flex justify-between gap-3 border-t border-rule py-0.5">
              <span className="min-w-0 truncate">{r.id.replace(/[-:]/g, " ")}</span>
              <span className="mono shrink-0">{r.value}</span>
            </li>
          ))}
          {filled.unknown.length > 0 ? <li className="border-t border-rule py-0.5 text-soft">Not understood: {filled.unknown.join(", ")}</li> : null}
        </ul>
      ) : null}
    </section>
  );
}

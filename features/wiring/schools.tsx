"use client";
import { useState } from "react";
import type { WiringRows } from "../../server/parts/what-if";
import type { JobView } from "../../server/views/job-view";
import { Button } from "../../ui/button";
import { Dialog } from "../../ui/dialog";
import { schoolsAction } from "../actions/schools";
import { ask } from "../frame/ask";
import { useAct } from "../frame/use-act";
import { pickedSchools, SCHOOLS, type SchoolId } from "../shared/schools";
import { WiringDifference } from "../shared/wiring-difference";

/** School against school: the same parts planned both ways, side by side; then the job follows the other, or not. */
export function Schools({ number, policy }: { number: string; policy: JobView["build"]["policy"] }) {
  const act = useAct();
  const { clear } = act;
  const now = (id: SchoolId) => String(policy[id]);
  const [picked, setPicked] = useState<Partial<Record<SchoolId, string>>>({});
  const [rows, setRows] = useState<WiringRows | null>(null);
  const differs = SCHOOLS.some((s) => picked[s.id] !== undefined && picked[s.id] !== now(s.id));
  const schools = pickedSchools(picked);
  return (
    <Dialog
      onOpenChange={() => {
        setPicked({});
        setRows(null);
        clear();
      }}
      title={`How ${number} is wired`}
      className="h-[86vh] w-[1000px]"
      trigger={<Button className="shrink-0 px-1.5 text-second">How we wire</Button>}
    >
      <div className="flex min-h-0 flex-1 gap-6">
        <div className="region flex w-[380px] shrink-0 flex-col gap-3">
          {SCHOOLS.map((s) => (
            <label key={s.id}>
              <span className="block text-second text-soft">{s.word}</span>
              <select
                className="field w-full"
                value={picked[s.id] ?? now(s.id)}
                onChange={(e) => {
                  setPicked((p) => ({ ...p, [s.id]: e.target.value }));
                  setRows(null);
                  clear();
                }}
              >
                {s.options.map(([id, word]) => (
                  <option key={id} value={id}>
                    {word}
                    {id === now(s.id) ? " (now)" : ""}
                  </option>
                ))}
              </select>
            </label>
          ))}
        </div>
        <div className="region min-w-0 flex-1" tabIndex={0} role="group" aria-label="What differs">
          {rows ? (
            <WiringDifference rows={rows} before="as now" after="as picked" under={2} />
          ) : (
            <p className="text-soft">Pick another answer on the left, then compare: the same parts are planned both ways. Nothing is stored.</p>
          )}
        </div>
      </div>
      <div className="flex items-center gap-3">
        <Button
          disabled={act.pending || !differs}
          onClick={() =>
            act.run(
              async () => {
                const r = await ask("parts.try-wiring", { number, schools });
                if (r.ok) setRows(r.value);
                return r;
              },
              () => "Both are planned. Nothing is stored.",
            )
          }
        >
          Compare
        </Button>
        <Button
          tone="mark"
          disabled={act.pending || !differs}
          onClick={() =>
            act.run(
              () => schoolsAction({ number, schools, saw: { ...policy } }),
              () => "Recorded.",
            )
          }
        >
          Follow what is picked
        </Button>
        <p role="status" className="min-w-0 flex-1 text-second">
          {act.pending ? "Planning both ways …" : act.sentence}
        </p>
      </div>
    </Dialog>
  );
}

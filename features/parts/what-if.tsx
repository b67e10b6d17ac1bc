"use client";
import { useEffect, useState } from "react";
import type { AlternativeRow, WiringRows } from "../../server/parts/what-if";
import { Button } from "../../ui/button";
import { cx } from "../../ui/cx";
import { Dialog } from "../../ui/dialog";
import { keepTrialAction } from "../actions/parts";
import { ask } from "../frame/ask";
import { useAct } from "../frame/use-act";
import { WiringDifference } from "../shared/wiring-difference";

interface Tried {
  part: string;
  name: string;
  type: string;
  typeName: string;
  adds?: boolean | undefined;
}

/**
 * Other parts in place of some of this job's, in a copy beside what is now: better, worse, both wirings planned; keep it
 * or drop it.
 */
export function WhatIf({
  number,
  part: first,
  parts,
  opened,
}: {
  number: string;
  part: string;
  parts: { id: string; name: string; type: string }[];
  opened: boolean;
}) {
  const [open, setOpen] = useState(opened);
  const [part, setPart] = useState(first);
  const [trial, setTrial] = useState<Tried[]>([]);
  const [list, setList] = useState<AlternativeRow[] | null>(null);
  const [said, setSaid] = useState("");
  const [chosen, setChosen] = useState<string | null>(null);
  const [wiring, setWiring] = useState<WiringRows | null>(null);
  const act = useAct();
  const { clear } = act;
  const at = parts.find((p) => p.id === part);
  const others = trial.filter((t) => t.part !== part);
  const asked = JSON.stringify(others.map(({ part: p, type, adds }) => ({ part: p, type, ...(adds ? { adds } : {}) })));
  useEffect(() => {
    if (!open) return;
    let gone = false;
    setList(null);
    setSaid("");
    setWiring(null);
    clear();
    ask("parts.alternatives", { number, part, trial: JSON.parse(asked) })
      .then((r) => {
        if (gone) return;
        if (r.ok) {
          setList(r.value);
          setChosen(r.value[0]?.id ?? null);
        } else setSaid(r.sentence);
      })
      .catch(() => {
        if (!gone) setSaid("No answer from the server. Nothing was changed. Check the network and try again.");
      });
    return () => {
      gone = true;
    };
  }, [open, number, part, asked, clear]);
  const shown = list?.find((a) => a.id === chosen);
  const own = (shown?.changes ?? []).map(
    (c): Tried => ({ ...c, name: parts.find((p) => p.id === c.part)?.name ?? "One more", typeName: shown?.name ?? "" }),
  );
  const all: Tried[] = shown && at ? [...others.filter((o) => !own.some((c) => c.part === o.part)), ...own] : others;
  const wanted = all.map(({ part: p, type, adds }) => ({ part: p, type, ...(adds ? { adds } : {}) }));
  const close = () => {
    setOpen(false);
    setTrial([]);
    setPart(first);
  };
  return (
    <Dialog
      open={open}
      onOpenChange={(o) => (o ? setOpen(true) : close())}
      title={`What if: a copy of ${number}`}
      close="Drop the copy"
      className="h-[90vh] w-[1120px]"
      trigger={<Button>Try another in its place</Button>}
    >
      <div className="flex flex-wrap items-center gap-2">
        <label className="flex items-center gap-2">
          In place of
          <select className="field" value={part} onChange={(e) => setPart(e.target.value)}>
            {parts.map((p) => (
              <option key={p.id} value={p.id}>
                {p.name}
              </option>
            ))}
          </select>
        </label>
        {others.map((t) => (
          <Button
            key={t.part}
            aria-label={`${t.name} becomes ${t.typeName} in the copy: take it out again`}
            onClick={() => setTrial((x) => x.filter((y) => y.part !== t.part))}
          >
            {t.name}: {t.typeName} ×
          </Button>
        ))}
      </div>
      <p role="status" className="text-second">
        {act.sentence ||
          said ||
          (list
            ? list.length > 0 && !list.some((a) => a.helps)
              ? `None of the ${list.length} on the shelf makes it better than what is in it${others.length > 0 ? ", with what else is changed in the copy" : ""}. Nothing is changed until you keep it.`
              : `${list.filter((a) => a.helps).length} of ${list.length} on the shelf make it better${others.length > 0 ? ", with what else is changed in the copy" : ""}. Nothing is changed until you keep it.`
            : "Judging every one on the shelf …")}
      </p>
      <div className="flex min-h-0 flex-1 gap-5">
        <ul className="region w-[340px] shrink-0">
          {(list ?? []).map((a) => (
            <li key={a.id}>
              <button
                type="button"
                aria-pressed={a.id === chosen}
                data-chosen={a.id === chosen}
                className={cx(
                  "bar-left flex min-h-12 w-full items-center gap-3 border-b border-b-rule px-3 py-1 text-left hover:bg-sheet",
                  a.id === chosen && "bg-sheet",
                )}
                onClick={() => {
                  setChosen(a.id);
                  setWiring(null);
                  clear();
                }}
              >
                <span className="min-w-0 flex-1 truncate">{a.name}</span>
                <span className="shrink-0 text-second text-soft">
                  {a.helps
                    ? "helps"
                    : a.stops > 0
                      ? `${a.stops} ${a.stops === 1 ? "stop" : "stops"}`
                      : `${a.better.length} better, ${a.worse.length} worse`}
                </span>
              </button>
            </li>
          ))}
        </ul>
        {shown && at ? (
          <section aria-label={`${at.type} beside ${shown.name}`} className="flex min-w-0 flex-1 flex-col gap-3">
            <h3 className="text-key font-[650]">
              {own[0]?.adds ? `${at.type}, and ${shown.name}` : `${at.type}, then ${shown.name}`}
              {others.length > 0 ? `, with ${others.map((t) => t.typeName).join(", ")}` : ""}
            </h3>
            <div className="region flex min-h-0 flex-1 flex-col gap-4" tabIndex={0} role="group" aria-label="What would change">
              <Side title="Better" list={shown.better} none="Nothing becomes better." />
              <Side title="Worse" list={shown.worse} none="Nothing becomes worse." />
              {wiring ? <WiringDifference rows={wiring} before="as it is" after="in the copy" under={3} /> : null}
            </div>
            <div className="flex flex-wrap gap-2">
              <Button
                tone="mark"
                disabled={act.pending}
                onClick={() =>
                  act.run(async () => {
                    const r = await keepTrialAction({ number, trial: wanted });
                    if (r.ok) close();
                    return r;
                  })
                }
              >
                {all.length === own.length ? `Keep ${shown.name}` : `Keep all ${all.length} changes`}
              </Button>
              <Button
                disabled={act.pending}
                onClick={() =>
                  act.run(
                    async () => {
                      const r = await ask("parts.try-wiring", { number, trial: wanted });
                      if (r.ok) setWiring(r.value);
                      return r;
                    },
                    () => "Both wirings are planned. Nothing is stored.",
                  )
                }
              >
                Plan both wirings
              </Button>
              <Button
                disabled={act.pending || all.length >= 12}
                onClick={() => {
                  setTrial(all);
                  setPart(parts.find((p) => !all.some((t) => t.part === p.id))?.id ?? part);
                }}
              >
                Change another part too
              </Button>
            </div>
          </section>
        ) : null}
      </div>
    </Dialog>
  );
}

function Side({ title, list, none }: { title: string; list: string[]; none: string }) {
  return (
    <div>
      <h4 className="font-semibold">{title}</h4>
      {list.length === 0 ? (
        <p className="text-soft">{none}</p>
      ) : (
        <ul>
          {list.map((t) => (
            <li key={t} className="border-t border-rule py-1.5">
              {t}
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}

"use client";
import { Dialog } from "radix-ui";
import { useEffect, useState } from "react";
import type { AlternativeRow } from "../../server/parts";
import { cx } from "../../ui/cx";
import { useAct } from "../frame/use-act";
import { changePartAction } from "../job/actions";
import { alternativesAction } from "./actions";

/** Another part in place of this one, side by side with what is now: better, worse, keep it or drop it. */
export function WhatIf({ number, part, name, now, opened }: { number: string; part: string; name: string; now: string; opened: boolean }) {
  const [open, setOpen] = useState(opened);
  const [list, setList] = useState<AlternativeRow[] | null>(null);
  const [said, setSaid] = useState("");
  const [chosen, setChosen] = useState<string | null>(null);
  const act = useAct();
  useEffect(() => {
    if (!open) return;
    let gone = false;
    setList(null);
    setSaid("");
    alternativesAction({ number, part })
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
  }, [open, number, part]);
  const shown = list?.find((a) => a.id === chosen);
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger className="key">Try another in its place</Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 bg-ground/80" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed left-1/2 top-1/2 flex h-[86vh] w-[1040px] max-w-[96vw] -translate-x-1/2 -translate-y-1/2 flex-col gap-3 rounded border-2 border-ink bg-raised p-5"
        >
          <div className="flex items-center gap-3">
            <Dialog.Title className="flex-1 text-action font-[650]">In place of {name}</Dialog.Title>
            <Dialog.Close className="key">Drop it, keep {now}</Dialog.Close>
          </div>
          <p role="status" className="text-second">
            {act.sentence ||
              said ||
              (list
                ? `${list.filter((a) => a.helps).length} of ${list.length} on the shelf help. Nothing is changed until you keep one.`
                : "Judging every one on the shelf …")}
          </p>
          <div className="flex min-h-0 flex-1 gap-5">
            <ul className="region w-[360px] shrink-0">
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
                    onClick={() => setChosen(a.id)}
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
            {shown ? (
              <section aria-label={`${now} beside ${shown.name}`} className="region flex min-w-0 flex-1 flex-col gap-4">
                <h3 className="text-key font-[650]">
                  {now}, then {shown.name}
                </h3>
                <Side title="Better" list={shown.better} none="Nothing becomes better." />
                <Side title="Worse" list={shown.worse} none="Nothing becomes worse." />
                <button
                  type="button"
                  className="key key-mark mt-auto self-start"
                  disabled={act.pending}
                  onClick={() =>
                    act.run(async () => {
                      const r = await changePartAction({ number, part, type: shown.id });
                      if (r.ok) setOpen(false);
                      return r;
                    })
                  }
                >
                  Keep {shown.name}
                </button>
              </section>
            ) : null}
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
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

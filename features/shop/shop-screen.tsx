"use client";
import { useState } from "react";
import { PART_KINDS, type PartKind } from "../../core/catalogue";
import { MEASURE_WORDS, MEASURES_SET, minutesOf } from "../../core/order";
import { SCHOOLS } from "../../core/schools";
import type { Result } from "../../server/kernel/result";
import type { ShopDefaults } from "../../server/shop/defaults";
import { Button } from "../../ui/button";
import { ChooseFile } from "../../ui/choose-file";
import Link from "../../ui/link";
import { defaultsAction } from "../actions/job";
import { useAct } from "../frame/use-act";
import { ActSaid } from "../shared/act-said";
import { KIND_WORD } from "../shared/kinds";

const upper = (w: string) => w.charAt(0).toUpperCase() + w.slice(1);

/** What the shop sets once, for every job that is made from now on: money, words on papers, how it is done, what to remember at the bench. */
export function ShopScreen({ is, mayChange }: { is: ShopDefaults; mayChange: boolean }) {
  const act = useAct();
  const [was, setWas] = useState(is);
  const [form, setForm] = useState(is);
  const [rate, setRate] = useState(is.rate === 0 ? "" : String(is.rate));
  const [kind, setKind] = useState<PartKind>("board");
  const [words, setWords] = useState("");
  const [programs, setPrograms] = useState(is.testPrograms.join("\n"));
  const set = <K extends keyof ShopDefaults>(k: K, to: ShopDefaults[K]) => setForm((f) => ({ ...f, [k]: to }));
  const text = (id: "name" | "currency" | "dueHour" | "reachAt", word: string, more: object = {}) => (
    <label>
      <span className="block text-second text-soft">{word}</span>
      <input className="field w-full" value={form[id]} readOnly={!mayChange} onChange={(e) => set(id, e.target.value)} {...more} />
    </label>
  );
  const paragraph = (id: "address" | "labelWords" | "letterWords" | "offerWords", word: string, rows: number, most: number) => (
    <label>
      <span className="block text-second text-soft">{word}</span>
      <textarea className="field w-full" rows={rows} maxLength={most} value={form[id]} onChange={(e) => set(id, e.target.value)} />
    </label>
  );
  const isChanged = JSON.stringify({ ...form, rate: Number(rate) || 0 }) !== JSON.stringify(was);
  return (
    <main className="stage region min-h-0 flex-1 p-5">
      <form
        className="mx-auto max-w-[1120px]"
        onSubmit={(e) => {
          e.preventDefault();
          const next = { ...form, rate: Number(rate) || 0 };
          act.run(
            () => defaultsAction({ defaults: next, saw: was }),
            () => {
              setWas(next);
              return "Kept. Jobs that are made from now on begin with it.";
            },
          );
        }}
      >
        <div className="flex flex-wrap items-center gap-4">
          <h1 className="text-action font-[650]">The shop</h1>
          <ActSaid act={act} className="min-w-0 flex-1">
            {mayChange ? "What every new job begins with. Jobs that are made keep what they have." : "A lead changes this."}
          </ActSaid>
          {mayChange ? (
            <Button type="submit" tone="mark" disabled={act.pending || !isChanged}>
              Keep it
            </Button>
          ) : null}
        </div>
        <div className="mt-4 grid gap-x-12 gap-y-8 min-[900px]:grid-cols-2">
          <fieldset className="flex min-w-0 flex-col gap-3" disabled={!mayChange}>
            <legend className="mb-2 text-key font-[650]">On papers</legend>
            {text("name", "Name of the shop", { maxLength: 120 })}
            {paragraph("address", "Address, as it stands on papers", 3, 400)}
            <div className="grid grid-cols-3 gap-3">
              <label>
                <span className="block text-second text-soft">An hour of work costs</span>
                <input
                  className="field mono w-full"
                  type="number"
                  min={0}
                  max={10000}
                  step="any"
                  value={rate}
                  onChange={(e) => setRate(e.target.value)}
                />
              </label>
              {text("currency", "Currency, as written", { maxLength: 8 })}
              {text("dueHour", "Usual hour when due", { type: "time" })}
            </div>
            {text("reachAt", "Address that phones reach, for codes on labels; empty: codes say the number alone", { maxLength: 200, type: "url" })}
            {paragraph("labelWords", "On the label of every machine: whom to call, how long it is covered", 2, 200)}
            {paragraph("letterWords", "What a letter to a client begins with: above the list of every offer", 3, 2000)}
            {paragraph("offerWords", "Under every offer", 4, 2000)}
            <label>
              <span className="block text-second text-soft">
                Test programs and accounts of the shop, one a line: they come off before a machine leaves
              </span>
              <textarea
                className="field w-full"
                rows={3}
                maxLength={1600}
                value={programs}
                onChange={(e) => {
                  setPrograms(e.target.value);
                  set("testPrograms", [...new Set(e.target.value.split("\n").map((l) => l.trim().slice(0, 80)))].filter(Boolean).slice(0, 20));
                }}
              />
            </label>
            <label className="mt-4 block">
              <span className="block text-second text-soft">A first start ends at</span>
              <select
                className="field"
                value={form.firstStartEnds}
                disabled={!mayChange}
                onChange={(e) => set("firstStartEnds", e.target.value as ShopDefaults["firstStartEnds"])}
              >
                <option value="lights and fans">lights and fans</option>
                <option value="firmware screen">the firmware's screen</option>
                <option value="system">the system: nothing is put off</option>
              </select>
            </label>
            <label className="flex items-center gap-3">
              <input type="checkbox" checked={form.safetyTest} disabled={!mayChange} onChange={(e) => set("safetyTest", e.target.checked)} />
              An electrical safety test before a machine leaves, as the local code asks
            </label>
            <h2 className="mt-4 text-key font-[650]">To remember at the bench</h2>
            <p className="text-second text-soft">Stands at each card that has a part of the kind, at every job.</p>
            <ul>
              {form.prompts.map((p, i) => (
                <li key={`${p.kind} ${p.words}`} className="flex min-h-11 items-center gap-4 border-t border-rule">
                  <span className="w-28 shrink-0 text-second text-soft">{KIND_WORD[p.kind]}</span>
                  <span className="min-w-0 flex-1">{p.words}</span>
                  {mayChange ? (
                    <Button
                      aria-label={`No longer remember: ${p.words}`}
                      onClick={() =>
                        set(
                          "prompts",
                          form.prompts.filter((_, n) => n !== i),
                        )
                      }
                    >
                      No longer
                    </Button>
                  ) : null}
                </li>
              ))}
            </ul>
            {mayChange ? (
              <div className="flex items-end gap-3">
                <label>
                  <span className="block text-second text-soft">At each</span>
                  <select className="field" value={kind} onChange={(e) => setKind(e.target.value as PartKind)}>
                    {PART_KINDS.map((k) => (
                      <option key={k} value={k}>
                        {KIND_WORD[k] ?? k}
                      </option>
                    ))}
                  </select>
                </label>
                <label className="min-w-0 flex-1">
                  <span className="block text-second text-soft">What to remember</span>
                  <input className="field w-full" maxLength={200} value={words} onChange={(e) => setWords(e.target.value)} />
                </label>
                <Button
                  disabled={words.trim() === "" || form.prompts.length >= 40}
                  onClick={() => {
                    set("prompts", [...form.prompts, { kind, words: words.trim() }]);
                    setWords("");
                  }}
                >
                  Add
                </Button>
              </div>
            ) : null}
          </fieldset>
          <fieldset className="flex min-w-0 flex-col gap-3" disabled={!mayChange}>
            <legend className="mb-2 text-key font-[650]">How it is done here</legend>
            {SCHOOLS.map((s) => (
              <label key={s.id}>
                <span className="block text-second text-soft">{s.word}</span>
                <select
                  className="field w-full"
                  value={String(form.schools[s.id] ?? "")}
                  onChange={(e) => {
                    const { [s.id]: _, ...others } = form.schools;
                    const to = e.target.value;
                    set("schools", (to === "" ? others : { ...others, [s.id]: s.id === "mainsV" ? Number(to) : to }) as ShopDefaults["schools"]);
                  }}
                >
                  <option value="">as Imbra does it</option>
                  {Object.entries(s.options).map(([id, o]) => (
                    <option key={id} value={id}>
                      {o.words}
                    </option>
                  ))}
                </select>
              </label>
            ))}
          </fieldset>
        </div>
        <fieldset className="mt-8 min-w-0" disabled={!mayChange}>
          <legend className="mb-2 text-key font-[650]">How long it takes here</legend>
          <p className="text-second text-soft">
            Minutes of hands. Left empty: the practice value beside it. From five times on, what was recorded counts.
          </p>
          <div className="grid gap-x-6 gap-y-2 min-[700px]:grid-cols-2 min-[1100px]:grid-cols-3">
            {MEASURES_SET.map((m) => (
              <label key={m} className="flex items-center gap-3">
                <span className="min-w-0 flex-1 text-second">{upper(MEASURE_WORDS[m])}</span>
                <input
                  className="field mono w-24"
                  type="number"
                  min={0.5}
                  max={600}
                  step="any"
                  placeholder={String(minutesOf(m).handsOn)}
                  value={form.minutes[m] ?? ""}
                  onChange={(e) => {
                    const { [m]: _, ...others } = form.minutes;
                    set("minutes", e.target.value === "" ? others : { ...others, [m]: Number(e.target.value) });
                  }}
                />
              </label>
            ))}
          </div>
        </fieldset>
      </form>
      {mayChange ? <TakeIn /> : null}
    </main>
  );
}

/** A job comes in again from the file that was made of it at its handover. */
function TakeIn() {
  const act = useAct();
  const [number, setNumber] = useState("");
  return (
    <section aria-labelledby="archives" className="mx-auto mt-8 max-w-[1120px]">
      <h2 id="archives" className="mb-2 text-key font-[650]">
        Archives
      </h2>
      <p className="text-second text-soft">
        A job is taken in again from its archive, whole: parts, plugs, log, faults, photos. What is here already is not doubled.
      </p>
      <div className="mt-2 flex flex-wrap items-center gap-4">
        <ChooseFile
          word="Take in an archive"
          accept=".zip,application/zip"
          onFile={(file) =>
            act.run(
              async () =>
                (await (
                  await fetch("/files/archive", { method: "POST", body: file, headers: { "Content-Type": "application/zip" } })
                ).json()) as Result<string>,
              (taken) => {
                setNumber(taken);
                return `${taken} is here again.`;
              },
              () => setNumber(""),
            )
          }
        />
        <p role="status">{act.sentence}</p>
        {number ? (
          <Link className="underline underline-offset-4" href={`/job/${encodeURIComponent(number)}`}>
            Open {number}
          </Link>
        ) : null}
      </div>
    </section>
  );
}

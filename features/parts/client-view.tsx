"use client";
import { useState } from "react";
import type { Wishes } from "../../core/assembly";
import { DISPLAY_SOCKETS } from "../../core/catalogue";
import { EXTRA_KINDS, type PromiseKind } from "../../core/intake";
import type { Brief } from "../../server/job/brief";
import { Button } from "../../ui/button";
import { Fold } from "../../ui/fold";
import { briefAction } from "../actions/job";
import { wishesAction } from "../actions/parts";
import { useDates } from "../frame/dates";
import { useAct } from "../frame/use-act";
import { PROMISE_UNIT } from "../shared/promise-unit";

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

const NO_EXTRA = { what: EXTRA_KINDS[0] as (typeof EXTRA_KINDS)[number], words: "", count: "1", price: "" };

/** What the client wrote and what was agreed: lines that can be proved, what is asked for beside the machine, how they are reached. */
export function ClientView({ brief, number, aside, wishes }: { brief: Brief; number: string; aside: readonly string[]; wishes: Wishes }) {
  const act = useAct();
  const dates = useDates();
  const [about, setAbout] = useState<PromiseKind>("program");
  const [words, setWords] = useState("");
  const [value, setValue] = useState("");
  const unit = PROMISE_UNIT[about];
  const [phone, setPhone] = useState(brief.phone);
  const [hour, setHour] = useState(brief.dueHour ?? "");
  const [promised, setPromised] = useState(brief.duePromised);
  const [extra, setExtra] = useState(NO_EXTRA);
  const [mail, setMail] = useState(brief.mail);
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
                {p.value === undefined ? "" : `${p.about === "quiet" ? "at most" : "at least"} ${p.value} ${PROMISE_UNIT[p.about] ?? ""}, `}
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
            () => briefAction({ number, promise: { about, words: words.trim(), ...(unit && value !== "" ? { value: Number(value) } : {}) } }),
            () => {
              setWords("");
              setValue("");
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
        {unit ? (
          <label>
            <span className="block text-second text-soft">
              {about === "quiet" ? "At most" : "At least"}, {unit}
            </span>
            <input
              className="field mono w-32"
              type="number"
              min={0}
              max={100000}
              step="any"
              value={value}
              onChange={(e) => setValue(e.target.value)}
            />
          </label>
        ) : null}
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
      <Wanted wishes={wishes} number={number} />
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
            <Button
              disabled={act.pending}
              aria-label={`Not asked for any more: ${x.words}`}
              onClick={() => act.run(() => briefAction({ number, dropExtra: x.words }))}
            >
              No longer
            </Button>
          </li>
        ))}
      </ul>
      <form
        className="mt-2 flex max-w-[860px] flex-wrap items-end gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          if (extra.words.trim() === "") return;
          act.run(
            () =>
              briefAction({
                number,
                extra: {
                  what: extra.what,
                  words: extra.words.trim(),
                  count: Math.max(1, Math.round(Number(extra.count)) || 1),
                  ...(extra.price === "" ? {} : { price: Number(extra.price) }),
                },
              }),
            () => {
              setExtra(NO_EXTRA);
              return "Kept.";
            },
          );
        }}
      >
        <label>
          <span className="block text-second text-soft">Count</span>
          <input
            className="field mono w-16"
            type="number"
            min={1}
            max={99}
            value={extra.count}
            onChange={(e) => setExtra((x) => ({ ...x, count: e.target.value }))}
          />
        </label>
        <label>
          <span className="block text-second text-soft">What it is</span>
          <select className="field" value={extra.what} onChange={(e) => setExtra((x) => ({ ...x, what: e.target.value as typeof extra.what }))}>
            {EXTRA_KINDS.map((k) => (
              <option key={k} value={k}>
                {k}
              </option>
            ))}
          </select>
        </label>
        <label className="min-w-0 flex-1">
          <span className="block text-second text-soft">In words</span>
          <input className="field w-full" maxLength={300} value={extra.words} onChange={(e) => setExtra((x) => ({ ...x, words: e.target.value }))} />
        </label>
        <label>
          <span className="block text-second text-soft">Price of one</span>
          <input
            className="field mono w-28"
            type="number"
            min={0}
            step="any"
            value={extra.price}
            onChange={(e) => setExtra((x) => ({ ...x, price: e.target.value }))}
          />
        </label>
        <Button type="submit" disabled={act.pending || extra.words.trim() === ""}>
          Put it beside
        </Button>
      </form>
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
      <div className="mt-6 max-w-[860px]">
        <Fold word="What the client wrote">
          <label>
            <span className="sr-only">What the client wrote, as it is kept</span>
            <textarea className="field mono w-full text-second" rows={14} value={mail} onChange={(e) => setMail(e.target.value)} />
          </label>
          <Button
            className="mt-2"
            disabled={act.pending || mail === brief.mail}
            onClick={() =>
              act.run(
                () => briefAction({ number, mail }),
                () => "Kept. The parts list stays as it is.",
              )
            }
          >
            Keep it
          </Button>
        </Fold>
      </div>
    </section>
  );
}

const SIZES = ["1920x1080", "2560x1440", "3440x1440", "3840x2160", "5120x1440"] as const;

/** What the client wants of the machine as a whole, changed when they change their mind; monitors may differ. */
function Wanted({ wishes, number }: { wishes: Wishes; number: string }) {
  const act = useAct();
  const [budget, setBudget] = useState(wishes.budget === undefined ? "" : String(wishes.budget));
  const [noiseDb, setNoiseDb] = useState(wishes.noiseDb === undefined ? "" : String(wishes.noiseDb));
  const [lighting, setLighting] = useState(wishes.lighting);
  const [wireless, setWireless] = useState(wishes.wireless);
  const [monitors, setMonitors] = useState(wishes.monitors);
  const one = (i: number, change: Partial<Wishes["monitors"][number]>) =>
    setMonitors((list) => list.map((m, n) => (n === i ? { ...m, ...change } : m)));
  return (
    <form
      className="mt-6 max-w-[860px]"
      onSubmit={(e) => {
        e.preventDefault();
        act.run(
          () =>
            wishesAction({
              number,
              budget: budget === "" ? null : Number(budget),
              noiseDb: noiseDb === "" ? null : Number(noiseDb),
              lighting,
              wireless,
              monitors,
              saw: { budget: wishes.budget ?? null, noiseDb: wishes.noiseDb ?? null, lighting: wishes.lighting, wireless: wishes.wireless },
            }),
          () => "Kept.",
        );
      }}
    >
      <h3 className="text-key font-[650]">Wanted of the machine</h3>
      <div className="flex flex-wrap items-end gap-3">
        <label>
          <span className="block text-second text-soft">Budget</span>
          <input className="field mono w-32" type="number" min={0} value={budget} onChange={(e) => setBudget(e.target.value)} />
        </label>
        <label>
          <span className="block text-second text-soft">Loudest, dB(A)</span>
          <input className="field mono w-28" type="number" min={10} max={80} value={noiseDb} onChange={(e) => setNoiseDb(e.target.value)} />
        </label>
        <label>
          <span className="block text-second text-soft">Lighting</span>
          <select className="field" value={lighting} onChange={(e) => setLighting(e.target.value as Wishes["lighting"])}>
            <option value="indifferent">no matter</option>
            <option value="wanted">wanted</option>
            <option value="none">none</option>
          </select>
        </label>
        <label className="flex min-h-9 items-center gap-2">
          <input type="checkbox" checked={wireless} onChange={() => setWireless((w) => !w)} />
          wireless network
        </label>
      </div>
      <ul aria-label="Monitors">
        {monitors.map((m, i) => (
          <li key={String(i)} className="mt-2 flex flex-wrap items-center gap-2">
            <input
              className="field mono w-16"
              type="number"
              min={1}
              max={8}
              aria-label={`Monitor ${i + 1}: how many`}
              value={m.count}
              onChange={(e) => one(i, { count: Math.max(1, Math.min(8, Math.round(Number(e.target.value)) || 1)) })}
            />
            <select
              className="field"
              aria-label={`Monitor ${i + 1}: resolution`}
              value={`${m.widthPx}x${m.heightPx}`}
              onChange={(e) => {
                const [widthPx = 0, heightPx = 0] = e.target.value.split("x").map(Number);
                one(i, { widthPx, heightPx });
              }}
            >
              {[...new Set([`${m.widthPx}x${m.heightPx}`, ...SIZES])].map((s) => (
                <option key={s} value={s}>
                  {s.replace("x", " × ")}
                </option>
              ))}
            </select>
            <input
              className="field mono w-24"
              type="number"
              min={20}
              max={1000}
              aria-label={`Monitor ${i + 1}: Hz`}
              value={m.hz}
              onChange={(e) => one(i, { hz: Number(e.target.value) || 60 })}
            />
            <select
              className="field"
              aria-label={`Monitor ${i + 1}: socket`}
              value={m.socket}
              onChange={(e) => one(i, { socket: e.target.value as (typeof DISPLAY_SOCKETS)[number] })}
            >
              {DISPLAY_SOCKETS.map((s) => (
                <option key={s} value={s}>
                  {s}
                </option>
              ))}
            </select>
            <Button aria-label={`Without monitor ${i + 1}`} onClick={() => setMonitors((list) => list.filter((_, n) => n !== i))}>
              Remove
            </Button>
          </li>
        ))}
      </ul>
      <div className="mt-2 flex items-center gap-3">
        {monitors.length < 8 ? (
          <Button onClick={() => setMonitors((list) => [...list, { count: 1, widthPx: 2560, heightPx: 1440, hz: 60, socket: "DisplayPort" }])}>
            One more monitor
          </Button>
        ) : null}
        <Button type="submit" disabled={act.pending}>
          Keep what is wanted
        </Button>
        <p role="status" className="text-second text-soft">
          {act.sentence}
        </p>
      </div>
    </form>
  );
}

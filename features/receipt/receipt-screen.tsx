"use client";
import { useEffect, useMemo, useRef, useState } from "react";
import { comesAlong, type PartKind } from "../../core/catalogue";
import type { ReceiptRow, ReceiptView } from "../../server/receipt/receipt-view";
import { Button } from "../../ui/button";
import { cx } from "../../ui/cx";
import Link from "../../ui/link";
import { StateShape } from "../../ui/marks";
import { benchTestAction, receiveAction, refuseAction, replacementAction } from "../actions/receipt";
import { type AtBench, WhoWorks } from "../device/who-works";
import { useKeys } from "../frame/keys";
import { useAct } from "../frame/use-act";
import { useSteady } from "../frame/use-steady";
import type { Worker } from "../frame/worker";
import { KIND_WORD } from "../shared/kinds";
import { Piece } from "../shared/piece";
import { CameAlong, InHand, LeftOver } from "./in-hand";
import { type Arrival, answer, NO_SCANS, nextLine, type Scans, scan } from "./scans";

const TESTED = new Set(["board", "cpu", "memory", "card", "supply", "drive", "cooler"]);
const PLAN_DAYS = 3;
/** Without a network what was scanned is tried again after so long, ms. */
const AGAIN_MS = 3000;

/** Parts tick in as they arrive: a scan is the serial of the part in front. Then the test before assembly. */
export function ReceiptScreen({ view, who, people }: { view: ReceiptView; who: Worker; people: AtBench[] }) {
  const [personOpen, setPersonOpen] = useState(false);
  const { number } = view;
  // What was recorded here counts at once; the page hears of it a moment later.
  const [recorded, setRecorded] = useState<readonly string[]>([]);
  const rows = useMemo(
    () => view.rows.map((r) => (r.arrivedAt || r.back || !recorded.includes(r.part) ? r : { ...r, arrivedAt: new Date().toISOString() })),
    [view.rows, recorded],
  );
  const [chosen, setChosen] = useState<string | null>(null);
  const [scans, setScans] = useState<Scans>(NO_SCANS);
  // What was typed for the part in front; all else is as it is recorded, supplier and cover as for the part before.
  const [edit, setEdit] = useState<Partial<Record<"serial" | "supplier" | "until" | "price", string>>>({});
  const [last, setLast] = useState({ supplier: "", until: "" });
  const at = rows.find((r) => r.part === chosen) ?? rows.find((r) => r.part === nextLine(rows, scans)?.part) ?? rows[0];
  const typed = edit.serial ?? at?.serial ?? "";
  const supplier = edit.supplier ?? at?.supplier ?? last.supplier;
  const until = edit.until ?? at?.warrantyUntil ?? last.until;
  const price = edit.price ?? (at?.price === null || at?.price === undefined ? "" : String(at.price));
  const set = (what: keyof typeof edit) => (v: string) => setEdit((e) => ({ ...e, [what]: v }));
  const act = useAct();
  const [again, setAgain] = useState(0);
  const lastPart = useRef<string | undefined>(undefined);
  const arrived = rows.filter((r) => r.arrivedAt).length;
  const { waiting, asking } = scans;
  const next = act.pending ? undefined : waiting[0];
  // One after the other, each whole: what is scanned meanwhile waits.
  const record = useSteady((one: Arrival) => {
    const row = rows.find((r) => r.part === one.part);
    const done = () => setScans((s) => ({ ...s, waiting: s.waiting.filter((w) => w !== one) }));

    if (!row) return done();
    const typed = one.part === at?.part;
    const values = typed
      ? { supplier, until, price }
      : { supplier: row.supplier ?? last.supplier, until: row.warrantyUntil ?? last.until, price: row.price === null ? "" : String(row.price) };
    lastPart.current = one.part;
    act.run(
      () =>
        receiveAction({
          number,
          part: row.part,
          serial: one.serial,
          supplier: values.supplier,
          warrantyUntil: values.until || null,
          price: values.price === "" ? null : Number(values.price),
          saw: { serial: row.serial, supplier: row.supplier, warrantyUntil: row.warrantyUntil, price: row.price },
        }),
      () => {
        if (typed) setEdit({});
        setLast({ supplier: values.supplier, until: values.until });
        setChosen(null);
        setRecorded((r) => [...r, one.part]);
        done();
        return `${row.name} arrived${one.serial ? `, serial ${one.serial}` : ""}.`;
      },
      (away) => {
        if (!away) return done();
        setTimeout(() => setAgain((n) => n + 1), AGAIN_MS);
      },
    );
  });
  useEffect(() => {
    if (next) record(next);
  }, [next, record, again]);
  const arrive = (serial: string) => {
    if (!at) return;
    setEdit((e) => ({ ...e, serial: undefined }) as typeof e);
    setScans((s) => ({ ...s, waiting: [...s.waiting, { part: at.part, serial }] }));
  };
  // A scan is the serial of the part in front; this screen has no keys of its own.
  useKeys("screen", [], (code) => {
    setScans((s) => scan(rows, s, code, s.waiting.length === 0 ? (chosen ?? at?.part) : undefined, lastPart.current));
    return true;
  });
  const couldBe = asking.length === 0 ? [] : firstOfEach(rows, scans);
  return (
    <main className="stage mx-auto flex h-dvh min-h-[680px] w-full max-w-[1280px] flex-col overflow-hidden text-bench">
      <header className="flex h-20 shrink-0 items-stretch border-b border-rule max-[760px]:h-auto">
        <Link className="key-bench min-h-0 w-40 rounded-none border-0 border-r no-underline max-[760px]:w-24" href={`/job/${number}/parts`}>
          Parts
        </Link>
        <div className="flex min-w-0 flex-1 items-center gap-4 pl-5 max-[760px]:flex-col max-[760px]:items-stretch max-[760px]:gap-0 max-[760px]:pl-0">
          <h1 className="min-w-0 flex-1 truncate max-[760px]:order-last max-[760px]:whitespace-normal max-[760px]:px-3 max-[760px]:py-2">
            <span className="mono font-semibold">{number}</span> {view.title}: {arrived} of {rows.length} arrived
          </h1>
          <Button bench className="shrink-0 max-[760px]:rounded-none max-[760px]:border-0 max-[760px]:border-b" onClick={() => setPersonOpen(true)}>
            <span className="sr-only">Who works here: </span>
            {who.name}
          </Button>
          <WhoWorks open={personOpen} close={() => setPersonOpen(false)} people={people} who={who} signedIn onIn={() => setPersonOpen(false)} />
        </div>
      </header>
      <div className="cols">
        <ol data-tall aria-label="Parts" className="region w-[440px] shrink-0 border-r border-rule">
          {rows.map((r) => (
            <li key={r.part}>
              <button
                type="button"
                aria-current={r.part === at?.part ? "true" : undefined}
                data-chosen={r.part === at?.part}
                className={cx(
                  "bar-left flex min-h-22 w-full items-center gap-4 border-b border-b-rule px-4 text-left",
                  r.part === at?.part && "bg-sheet",
                )}
                onClick={() => {
                  setChosen(r.part);
                  setEdit({});
                }}
              >
                <StateShape
                  state={r.testResult === "dead" ? "wrong" : r.testResult === "passed" ? "checked" : r.arrivedAt ? "plugged" : "free"}
                  size={28}
                />
                <span className="min-w-0 flex-1">
                  <span className="line-clamp-1">{r.name}</span>
                  <span className="line-clamp-1 text-soft">{stateWord(r)}</span>
                </span>
              </button>
            </li>
          ))}
        </ol>
        {asking.length > 0 ? (
          <section aria-label="What is in the hand" className="region flex min-w-0 flex-1 flex-col gap-5 p-6">
            <h2 className="text-bench-action font-bold">
              <span className="mono">{asking[0]}</span> was scanned. What is in your hand?
            </h2>
            {asking.length > 1 ? <p className="text-soft">{asking.length - 1} more wait behind it.</p> : null}
            <div className="flex flex-wrap gap-3">
              {couldBe.map((r) => (
                <Button bench key={r.part} className="min-h-24 px-6" onClick={() => setScans((s) => answer(rows, s, r.part))}>
                  {r.name}
                </Button>
              ))}
              <Button bench className="min-h-24 px-6" onClick={() => setScans((s) => ({ ...s, asking: s.asking.slice(1) }))}>
                Nothing of this job
              </Button>
            </div>
          </section>
        ) : at ? (
          <section aria-label="The part in front" className="region flex min-w-0 flex-1 flex-col gap-5 p-6">
            <div aria-live="polite">
              <p className="text-soft">{KIND_WORD[at.kind] ?? at.kind}</p>
              <h2 className="text-bench-action font-bold">{at.name}</h2>
            </div>
            {at.back && at.testResult !== "dead" ? (
              <Button
                bench
                className="min-h-28 self-start px-6"
                disabled={act.pending}
                onClick={() =>
                  act.run(
                    () => replacementAction({ number, part: at.part }),
                    () => "The replacement is here. Scan its serial, then test it.",
                  )
                }
              >
                Its replacement is here
              </Button>
            ) : null}
            {at.arrivedAt && TESTED.has(at.kind) && at.testResult !== "passed" ? (
              <Test number={number} row={at} act={act} spares={view.spares.filter((s) => s.kind === at.kind).map((s) => s.name)} />
            ) : null}
            <form
              className="flex flex-col gap-4"
              onSubmit={(e) => {
                e.preventDefault();
                arrive(typed.trim());
              }}
            >
              <div className="grid grid-cols-2 gap-3 max-[760px]:grid-cols-1">
                <Field word="Serial: scan, or type" mono value={typed} most={80} onChange={set("serial")} />
                <Field word="Supplier" value={supplier} most={120} onChange={set("supplier")} />
                <Field word="Covered until" mono type="date" value={until} onChange={set("until")} />
                <Field word="Price" mono type="number" value={price} onChange={set("price")} />
              </div>
              <Button bench type="submit" className="px-2 min-h-28 w-84 max-w-full self-end" tone={at.arrivedAt ? "plain" : "mark"}>
                {at.arrivedAt ? "Correct it" : "Arrived"}
              </Button>
            </form>
            {at.assumed.length > 0 ? <InHand key={at.part} number={number} row={at} /> : null}
            <CameAlong key={`came ${at.part}`} number={number} row={at} items={view.toOrder} />
            <LeftOver key={`left ${at.part}`} number={number} row={at} usual={comesAlong(at.kind as PartKind)} />
            <Piece key={`piece ${at.part}`} number={number} part={at.part} name={at.name} facts={at.facts} before={at.before} bench />
            {at.back === null && at.testResult !== "dead" ? (
              <NotAsItShould number={number} row={at} act={act} serial={typed} onSaid={() => setRecorded((r) => r.filter((x) => x !== at.part))} />
            ) : null}
          </section>
        ) : (
          <p className="p-8">No part is in the list yet. Add some on the Parts screen.</p>
        )}
      </div>
      <p role="status" className="flex min-h-20 shrink-0 items-center border-t border-rule px-6">
        {act.sentence || "Supply switch off and mains lead out before any plug goes in or out of the test rig."}
      </p>
    </main>
  );
}

function Field({
  word,
  value,
  onChange,
  type = "text",
  most,
  mono,
}: {
  word: string;
  value: string;
  onChange: (v: string) => void;
  type?: "text" | "date" | "number";
  most?: number;
  mono?: boolean;
}) {
  return (
    <label className="flex min-w-0 flex-col gap-1">
      {word}
      <input
        type={type}
        className={cx("min-h-20 w-full rounded border-2 border-edge bg-sheet px-4 text-bench", mono && "mono")}
        value={value}
        maxLength={most}
        {...(type === "number" ? { min: 0, step: "0.01" } : {})}
        onChange={(e) => onChange(e.target.value)}
      />
    </label>
  );
}

const WENT: Readonly<Record<string, string>> = { dead: "dead", damaged: "damaged", wrong: "another than ordered" };

/** What came is not taken: damaged, another, or not in its box. */
function NotAsItShould({
  number,
  row,
  act,
  serial,
  onSaid,
}: {
  number: string;
  row: ReceiptRow;
  act: ReturnType<typeof useAct>;
  serial: string;
  onSaid: () => void;
}) {
  const [words, setWords] = useState("");
  const say = (why: "damaged" | "wrong" | "missing", said: string) =>
    act.run(
      () => refuseAction({ number, part: row.part, why, words: words.trim(), ...(serial.trim() ? { serial: serial.trim() } : {}) }),
      () => {
        setWords("");
        onSaid();
        return said;
      },
    );
  return (
    <details className="border-t border-rule pt-4">
      <summary className="flex min-h-20 cursor-pointer items-center">Not as it should be</summary>
      <div className="flex flex-col gap-4 pt-2">
        <label className="flex flex-col gap-1">
          What is wrong, or what came instead
          <input
            className="min-h-20 rounded border-2 border-edge bg-sheet px-4 text-bench"
            value={words}
            maxLength={300}
            onChange={(e) => setWords(e.target.value)}
          />
        </label>
        <div className="flex flex-wrap gap-3">
          <Button bench className="min-h-24 px-6" disabled={act.pending} onClick={() => say("damaged", `${row.name} is damaged and goes back.`)}>
            Damaged
          </Button>
          <Button bench className="min-h-24 px-6" disabled={act.pending} onClick={() => say("wrong", `${row.name}: another came, it goes back.`)}>
            Another came
          </Button>
          <Button bench className="min-h-24 px-6" disabled={act.pending} onClick={() => say("missing", `${row.name} was not in its box.`)}>
            Too few in the box
          </Button>
        </div>
      </div>
    </details>
  );
}

/** Of each kind of part that is not here, the first line; of several, any will do. */
function firstOfEach(rows: readonly ReceiptRow[], scans: Scans): ReceiptRow[] {
  const taken = new Set(scans.waiting.map((w) => w.part));
  const out = new Map<string, ReceiptRow>();
  for (const r of rows) if (!r.arrivedAt && !taken.has(r.part) && !out.has(r.type)) out.set(r.type, r);
  return [...out.values()].slice(0, MOST_ASKED);
}
const MOST_ASKED = 12;

function stateWord(r: ReceiptRow): string {
  if (r.testResult === "dead") return "dead, on its way back";
  if (r.back) return `${WENT[r.back.why] ?? r.back.why}, on its way back`;
  if (r.testResult === "passed") return `passed${r.testedWith ? `, with ${r.testedWith}` : ""}`;
  if (!r.arrivedAt) return "not here yet";
  if (r.reused) return `the client's own${r.serial ? `, ${r.serial}` : ""}`;
  return r.serial ? `here, ${r.serial}` : "here, no serial";
}

function Test({ number, row, act, spares }: { number: string; row: ReceiptRow; act: ReturnType<typeof useAct>; spares: string[] }) {
  const [spare, setSpare] = useState("");
  const soon = new Date();
  soon.setDate(soon.getDate() + PLAN_DAYS);
  const [until, setUntil] = useState(soon.toISOString().slice(0, 10));
  if (row.testResult === "dead")
    return (
      <Button
        bench
        className="min-h-28 self-start"
        disabled={act.pending}
        onClick={() =>
          act.run(
            () => replacementAction({ number, part: row.part }),
            () => "The replacement is here. Scan its serial, then test it.",
          )
        }
      >
        Its replacement is here
      </Button>
    );
  const say = (result: "passed" | "dead") =>
    act.run(
      () => benchTestAction({ number, part: row.part, result, with: spare, ...(result === "dead" ? { waitUntil: until } : {}) }),
      () => (result === "passed" ? `${row.name} passed.` : `${row.name} goes back. The job waits until ${until}.`),
    );
  return (
    <div className="flex flex-col gap-4 border-b border-rule pb-5">
      <h3 className="font-semibold">Test before assembly</h3>
      <label className="flex flex-col gap-1">
        Tested with which known-good spare
        <input
          className="min-h-20 rounded border-2 border-edge bg-sheet px-4 text-bench"
          value={spare}
          maxLength={200}
          list="known-good"
          onChange={(e) => setSpare(e.target.value)}
        />
        <datalist id="known-good">
          {spares.map((s) => (
            <option key={s} value={s} />
          ))}
        </datalist>
        <span className="text-soft">
          {spares.length > 0 ? `On the shelf: ${spares.join(", ")}.` : "The shelf has no known-good spare of this kind."}
        </span>
      </label>
      <label className="flex flex-col gap-1">
        If dead: replacement due
        <input
          type="date"
          className="mono min-h-20 rounded border-2 border-edge bg-sheet px-4 text-bench"
          value={until}
          onChange={(e) => setUntil(e.target.value)}
        />
      </label>
      <div className="flex gap-3">
        <Button bench className="min-h-24 flex-1" disabled={act.pending} onClick={() => say("dead")}>
          Dead: send it back
        </Button>
        <Button bench className="min-h-24 flex-1" disabled={act.pending} onClick={() => say("passed")}>
          Passed
        </Button>
      </div>
    </div>
  );
}

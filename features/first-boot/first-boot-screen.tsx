"use client";
import { useEffect, useMemo, useRef, useState } from "react";
import { asExpected, type Expectation, HEADINGS, type Heading, headingOf, NEEDS_LOAD } from "../../core/machine";
import { checkOfItem, checkOfLine, checkOfPromise, SOAK_CHECK } from "../../core/setup";
import type { SoakView } from "../../server/first-boot/soak-log";
import type { BootSlice } from "../../server/views/slices";
import { Button } from "../../ui/button";
import { cx } from "../../ui/cx";
import { Fold } from "../../ui/fold";
import Link from "../../ui/link";
import { Caution, SeverityShape } from "../../ui/marks";
import { observeAction, settingAction, setUpAction, soakAction } from "../actions/first-boot";
import { type Acting, useAct } from "../frame/use-act";
import { useAddress } from "../frame/use-address";
import { Beside } from "./beside";
import { LinePhoto } from "./line-photo";
import { ProofRow } from "./proof-row";
import { Reports } from "./reports";
import { SetupRow } from "./setup-row";
import { SheetLine } from "./sheet-line";
import { SoakPanel } from "./soak-panel";
import { TenSeconds } from "./ten-seconds";
import { TimeShort } from "./time-short";

const DONE = new Set(["as wanted", "not done"]);
/** The last heading of a first start, by the shop's choice. */
const LAST: Record<BootSlice["after"]["endsAt"], Heading> = {
  "lights and fans": "First ten seconds",
  "firmware screen": "Settings",
  system: "Proof",
};

/** One sheet in the order in which a person looks: what will be seen beside what was, then settings, system, soak and proof. */
export function FirstBootScreen({ view, soaks }: { view: BootSlice; soaks: readonly SoakView[] }) {
  const { power, headers, seen, head, after } = view;
  const act = useAct();
  const sheet = useRef<HTMLDivElement>(null);
  const lines = useMemo(() => {
    const by = new Map<Heading, Expectation[]>();
    for (const l of [...power.lines, ...headers]) by.set(headingOf(l.id), [...(by.get(headingOf(l.id)) ?? []), l]);
    return by;
  }, [power, headers]);
  // What a header reads may be written down; that it was not holds up nothing.
  const must = (h: Heading) => (lines.get(h) ?? []).filter((l) => !l.id.startsWith("reads:"));
  // What a stand-in showed nobody has seen of the machine.
  const isSeen = (id: string) => seen[id] !== undefined && !seen[id].simulated;
  const items = (h: Heading) => after.items.filter((i) => i.group === h);
  const left = (h: Heading) =>
    h === "Proof"
      ? after.promises.filter((p) => p.verdict === "open").length
      : must(h).filter((l) => !isSeen(l.id)).length +
        (h === "Soak" && !after.soaked && must(h).every((l) => isSeen(l.id)) ? 1 : 0) +
        items(h).filter((i) => !DONE.has(i.stands)).length;
  const wrong = (h: Heading) =>
    (lines.get(h) ?? []).filter((l) => seen[l.id] && !seen[l.id]?.asExpected).length +
    items(h).filter((i) => i.stands === "otherwise").length +
    (h === "Proof" ? after.promises.filter((p) => p.verdict === "not kept").length : 0);
  const headings = HEADINGS.filter(
    (h) => h === "Soak" || (lines.get(h) ?? []).length + items(h).length + (h === "Proof" ? after.promises.length : 0) > 0,
  );
  const firstWrong = power.lines.find((l) => seen[l.id] && !seen[l.id]?.asExpected);
  const firstUnseen = headings.flatMap(must).find((l) => !isSeen(l.id));
  const first = firstWrong ?? firstUnseen;
  const [at, setAt] = useState<Heading>(first ? headingOf(first.id) : (headings.find((h) => left(h) > 0) ?? headings[0] ?? "First ten seconds"));
  // The sheet alone moves, never the page around it.
  const show = (what: string, above = 0) => {
    const [box, to] = [sheet.current, sheet.current?.querySelector(what)];
    if (box && to) box.scrollTop += to.getBoundingClientRect().top - box.getBoundingClientRect().top - above;
  };
  const goTo = (h: Heading) => {
    setAt(h);
    show(`[data-heading="${h}"]`);
  };
  useAddress(new URLSearchParams({ group: at }).toString(), (hash) => {
    const h = headings.find((x) => x === new URLSearchParams(hash).get("group"));
    if (h) goTo(h);
  });
  const began = useRef(false);
  useEffect(() => {
    if (began.current) return;
    began.current = true;
    if (!window.location.hash) show("[data-first]", 150);
  });
  const record = (l: Expectation, value: string) =>
    act.run(
      () => observeAction({ number: head.number, lines: [{ line: l.id, value }] }),
      () => (asExpected(l, value) ? "" : "Not as expected: a fault is open with this observation."),
    );
  const ticks = (h: Heading) => must(h).filter((l) => !isSeen(l.id) && !NEEDS_LOAD.has(l.id));
  // A number is written down, and what is lent is out when it is out: neither is said over many at once.
  const settable = (h: Heading) => items(h).filter((i) => i.stands === "open" && i.value === undefined && !i.mustBeOut);
  const allWanted = (h: Heading) => {
    const open = settable(h);
    act.run(
      async () => {
        let said: Awaited<ReturnType<typeof setUpAction>> = { ok: true, value: undefined };
        for (const i of open) {
          const saw = i.done ? { state: i.done.state, after: i.done.after } : null;
          said = await setUpAction({ number: head.number, item: i.id, state: "set", saw });
          if (!said.ok) break;
        }
        return said;
      },
      () => `${open.length} of ${h} recorded as wanted.`,
    );
  };
  const allAs = (h: Heading) => {
    const open = ticks(h);
    act.run(
      () => observeAction({ number: head.number, lines: open.map((l) => ({ line: l.id, value: l.expected })), unseenOnly: true }),
      () => `${open.length} ${open.length === 1 ? "line" : "lines"} of ${h} recorded as expected.`,
    );
  };
  const checks = [
    ...headings.flatMap((h) => ticks(h)).map(checkOfLine),
    ...after.items.filter((i) => i.stands === "open" || i.stands === "later").map(checkOfItem),
    ...after.promises.filter((p) => p.verdict === "open").map(checkOfPromise),
    ...(after.soaked ? [] : [SOAK_CHECK]),
  ];
  // Where the shop ends a first start, what comes after is put off until hands have nothing left to do on the machine.
  const last = LAST[after.endsAt];
  const stepsLeft = view.stepsLeft;
  const putOff = (h: Heading) => stepsLeft > 0 && HEADINGS.indexOf(h) > HEADINGS.indexOf(last);
  const next = headings.find((h) => left(h) > 0 && !putOff(h));
  const off = headings.filter((h) => left(h) > 0 && putOff(h));
  // Nothing is put under load that does not start.
  const runs = power.stopsAt === undefined && power.damage.length === 0;
  const allSeen = power.lines.every((l) => isSeen(l.id) || NEEDS_LOAD.has(l.id));
  return (
    <div className="cols cols-3 cols-sheet">
      <nav aria-label="Headings" className="region w-48 shrink-0 border-r border-rule py-2">
        <h1 className="sr-only">First boot of {head.number}</h1>
        {headings.map((h) => (
          <button
            key={h}
            type="button"
            data-chosen={h === at}
            aria-current={h === at ? "true" : undefined}
            onClick={() => goTo(h)}
            className={cx("bar-left flex min-h-11 w-full items-center gap-2 py-1 pl-4 pr-3 text-left hover:bg-sheet", h === at && "bg-sheet")}
          >
            <span className="flex-1 font-semibold leading-tight">{h}</span>
            {wrong(h) > 0 ? (
              <span className="flex items-center gap-1 text-second text-stop">
                <SeverityShape severity="stop" size={14} />
                {wrong(h)}
              </span>
            ) : null}
            <span className="text-second text-soft">{left(h) === 0 ? "done" : putOff(h) ? `${left(h)} put off` : `${left(h)} to see`}</span>
          </button>
        ))}
      </nav>
      <section aria-label="The sheet" className="flex min-w-0 flex-1 flex-col border-r border-rule">
        <div ref={sheet} className="region min-h-0 flex-1" tabIndex={0} role="group" aria-label="Lines of the sheet">
          {headings.map((h) => (
            <section key={h} aria-label={h} data-heading={h}>
              <div className="sticky top-0 z-10 flex min-h-11 items-center gap-3 border-b border-rule bg-ground px-4">
                <h2 className="flex-1 text-key font-[650]">{h}</h2>
                {ticks(h).length > 0 ? (
                  <Button className="min-h-9" disabled={act.pending} onClick={() => allAs(h)}>
                    {ticks(h).length === must(h).length ? `All of ${h} as expected` : `The other ${ticks(h).length} of ${h} as expected`}
                  </Button>
                ) : null}
                {settable(h).length > 1 ? (
                  <Button className="min-h-9" disabled={act.pending} onClick={() => allWanted(h)}>
                    {settable(h).length === items(h).length ? `All of ${h} as wanted` : `The other ${settable(h).length} of ${h} as wanted`}
                  </Button>
                ) : null}
              </div>
              <ul>
                {(lines.get(h) ?? []).map((l) => (
                  <SheetLine
                    key={l.id}
                    line={l}
                    seen={seen[l.id]}
                    busy={act.pending}
                    first={first?.id === l.id}
                    fault={view.faultOf[l.id]}
                    move={view.misplaced.find((m) => m.lines.includes(l.id))?.words}
                    staysFree={view.free.includes(l.id.slice(l.id.indexOf(":") + 1))}
                    near={view.near[l.id]}
                    photo={<LinePhoto number={head.number} line={l.id} what={l.what} photos={view.photos} act={act} />}
                    onSee={(v) => record(l, v)}
                  />
                ))}
                {items(h).map((i) => (
                  <SetupRow
                    key={i.id}
                    number={head.number}
                    item={i}
                    act={act}
                    photo={<LinePhoto number={head.number} line={i.id} what={i.what} photos={view.photos} act={act} />}
                    next={i.id.startsWith("curve:") ? view.nextCurves.find((c) => `curve:${c.header}` === i.id) : undefined}
                    curve={i.id.startsWith("curve:") ? view.curves.find((c) => `curve:${c.header}` === i.id) : undefined}
                  />
                ))}
                {h === "Proof" ? after.promises.map((p) => <ProofRow key={`${p.about} ${p.words}`} number={head.number} p={p} />) : null}
              </ul>
              {h === "Proof"
                ? after.absurd.map((w) => (
                    <p key={w} className="flex gap-2 px-4 py-2 text-stop">
                      <SeverityShape severity="stop" />
                      {w}
                    </p>
                  ))
                : null}
              {h === "System" ? <Beside number={head.number} after={after} /> : null}
              {h === "Soak" ? <SoakPanel number={head.number} soaks={soaks} heat={view.heat} /> : null}
            </section>
          ))}
        </div>
        <div className="flex min-h-16 shrink-0 items-center gap-4 border-t border-rule px-4 py-2">
          <p role="status" className="flex-1">
            {act.sentence}
          </p>
          {view.progress.faults > 0 ? (
            <Link className="key key-mark" href={`/job/${head.number}/faults`}>
              Find the fault
            </Link>
          ) : head.stage === "first-boot" && allSeen && !putOff("Soak") && runs ? (
            <Button
              tone="mark"
              disabled={act.pending}
              onClick={() =>
                act.run(
                  () => soakAction({ number: head.number }),
                  () => "The soak has begun. Choose its log when it has run.",
                )
              }
            >
              Start the soak
            </Button>
          ) : !next && off.length > 0 ? (
            <>
              <span className="font-semibold">
                The first start ends here in this shop. Put off, and back once {stepsLeft} {stepsLeft === 1 ? "step is" : "steps are"} done:{" "}
                {off.join(", ")}.
              </span>
              <Link className="key key-mark" href={`/job/${head.number}/bench`}>
                To the bench
              </Link>
            </>
          ) : next ? (
            <Button tone={next === at ? "plain" : "mark"} onClick={() => goTo(next)}>
              Go on: {next}
            </Button>
          ) : (
            <>
              <span className="font-semibold">Everything is seen, set and proved.</span>
              <Link className="key key-mark" href={`/job/${head.number}/handover`}>
                To handover
              </Link>
            </>
          )}
        </div>
      </section>
      <section tabIndex={0} aria-label="If you press now" className="region w-80 shrink-0 p-4">
        <h2 className="text-key font-[650]">From what is plugged</h2>
        <p className={cx("mt-2 text-action", power.damage.length > 0 && "text-stop")}>{power.verdict}</p>
        {power.damage.map((d) => (
          <p key={d} className="mt-2 flex gap-2 text-stop">
            <SeverityShape severity="stop" />
            {d}
          </p>
        ))}
        <div className="mt-4">
          <Caution text="Hands, leads and loose screws out of the fans before mains. Mains off again before any plug moves." />
        </div>
        <TimeShort number={head.number} checks={checks} promises={after.promises} />
        <TenSeconds sequence={view.sequence} />
        <p className="mt-4 text-second text-soft">
          Normal at the very first start: full fan noise, still fans on a card or supply with a quiet mode, memory at its default speed. None of these
          is a fault.
        </p>
        <Reports number={head.number} />
        <FanWarning view={view} act={act} />
      </section>
    </div>
  );
}

function FanWarning({ view, act }: { view: Pick<BootSlice, "settings" | "head">; act: Acting }) {
  const s = view.settings;
  const saw = { memoryProfile: s.memoryProfile, cpuFanWarning: s.cpuFanWarning };
  const [why, setWhy] = useState("");
  return (
    <div className="mt-6 flex flex-col gap-2">
      <h3 className="font-semibold">CPU fan warning</h3>
      <p className="text-second">{s.cpuFanWarning === "halt" ? "Halts start-up" : "Ignored, with a reason in the log"}.</p>
      {s.cpuFanWarning === "halt" ? (
        <Fold word={<>Ignore the warning instead</>} className="text-second">
          <label className="mt-1 block">
            Why
            <input className="field mt-1 w-full" value={why} maxLength={500} onChange={(e) => setWhy(e.target.value)} />
          </label>
          <Button
            className="mt-1"
            disabled={act.pending}
            onClick={() =>
              act.run(
                () => settingAction({ number: view.head.number, cpuFanWarning: "ignore", because: why, saw }),
                () => "Recorded with its reason.",
              )
            }
          >
            Ignore it
          </Button>
        </Fold>
      ) : (
        <Button
          onClick={() =>
            act.run(
              () => settingAction({ number: view.head.number, cpuFanWarning: "halt", saw }),
              () => "Recorded.",
            )
          }
        >
          Let it halt again
        </Button>
      )}
    </div>
  );
}

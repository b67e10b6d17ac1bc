"use client";
import { useEffect, useMemo, useRef, useState } from "react";
import { asExpected, type Expectation, GROUPS, type Group } from "../../core/machine";
import type { SoakView } from "../../server/first-boot/soak-log";
import type { JobView } from "../../server/views/job-view";
import type { BootSlice } from "../../server/views/slices";
import { Button } from "../../ui/button";
import { cx } from "../../ui/cx";
import { Fold } from "../../ui/fold";
import Link from "../../ui/link";
import { Caution, SeverityShape, StateShape } from "../../ui/marks";
import { observeAction, settingAction, soakAction } from "../actions/first-boot";
import { type Acting, useAct } from "../frame/use-act";
import { useAddress } from "../frame/use-address";
import { SoakPanel } from "./soak-panel";

type Seen = JobView["seen"];

/** Expected beside seen: the expected is computed from what is plugged, never from the plan. */
export function FirstBootScreen({ view, soaks }: { view: BootSlice; soaks: readonly SoakView[] }) {
  const { power, seen, head } = view;
  const groups = useMemo(() => GROUPS.filter((g) => power.lines.some((l) => l.group === g)), [power]);
  const firstWrong = power.lines.find((l) => seen[l.id] && !seen[l.id]?.asExpected);
  const firstUnseen = power.lines.find((l) => !seen[l.id]);
  const [group, setGroup] = useState<Group>((firstWrong ?? firstUnseen)?.group ?? groups[0] ?? "Power");
  useAddress(new URLSearchParams({ group }).toString(), (hash) => {
    const g = groups.find((x) => x === new URLSearchParams(hash).get("group"));
    if (g) setGroup(g);
  });
  const act = useAct();
  const shown = power.lines.filter((l) => l.group === group);
  const left = (g: Group) => power.lines.filter((l) => l.group === g && !seen[l.id]).length;
  const wrong = (g: Group) => power.lines.filter((l) => l.group === g && seen[l.id] && !seen[l.id]?.asExpected).length;
  const unseen = shown.filter((l) => !seen[l.id]);
  const nextGroup = groups.find((g) => g !== group && left(g) > 0);
  const record = (l: Expectation, value: string) =>
    act.run(
      () => observeAction({ number: head.number, lines: [{ line: l.id, value }] }),
      () => (asExpected(l, value) ? "" : "Not as expected: a fault is open with this observation."),
    );
  const allAs = () =>
    act.run(
      () => observeAction({ number: head.number, lines: unseen.map((l) => ({ line: l.id, value: l.expected })), unseenOnly: true }),
      () => `${unseen.length} ${unseen.length === 1 ? "line" : "lines"} of ${group} recorded as expected.`,
    );
  return (
    <div className="cols cols-3">
      <nav aria-label="Groups" className="region w-52 shrink-0 border-r border-rule py-2">
        <h1 className="sr-only">First boot of {head.number}</h1>
        {groups.map((g) => (
          <button
            key={g}
            type="button"
            data-chosen={g === group}
            aria-current={g === group ? "true" : undefined}
            onClick={() => setGroup(g)}
            className={cx("bar-left flex min-h-12 w-full items-center gap-2 py-1 pl-4 pr-3 text-left hover:bg-sheet", g === group && "bg-sheet")}
          >
            <span className="flex-1 font-semibold">{g}</span>
            {wrong(g) > 0 ? (
              <span className="flex items-center gap-1 text-second text-stop">
                <SeverityShape severity="stop" size={14} />
                {wrong(g)}
              </span>
            ) : null}
            <span className="text-second text-soft">{left(g) === 0 ? "seen" : `${left(g)} to see`}</span>
          </button>
        ))}
      </nav>
      <section aria-label={group} className="flex min-w-0 flex-1 flex-col border-r border-rule">
        <div className="region min-h-0 flex-1">
          <table className="w-full border-collapse max-[760px]:block max-[760px]:[&_tbody]:block max-[760px]:[&_td]:block max-[760px]:[&_td]:px-4 max-[760px]:[&_tr]:block">
            <thead className="sticky top-0 bg-ground max-[760px]:sr-only">
              <tr className="h-10 text-left text-second text-soft">
                <th className="px-4 font-normal">Look at</th>
                <th className="w-40 font-normal">Expected</th>
                <th className="w-72 font-normal">Seen</th>
              </tr>
            </thead>
            <tbody>
              {shown.map((l) => (
                <Line
                  key={l.id}
                  line={l}
                  seen={seen[l.id]}
                  busy={act.pending}
                  first={(firstWrong ?? firstUnseen)?.id === l.id}
                  onSee={(v) => record(l, v)}
                />
              ))}
            </tbody>
          </table>
        </div>
        <div className="flex min-h-18 shrink-0 items-center gap-4 border-t border-rule px-4 py-2">
          <p role="status" className="flex-1">
            {act.sentence}
          </p>
          {unseen.length > 0 ? (
            <Button tone="mark" disabled={act.pending} onClick={allAs}>
              {unseen.length === shown.length ? `All of ${group} as expected` : `The other ${unseen.length} as expected`}
            </Button>
          ) : nextGroup ? (
            <Button tone="mark" onClick={() => setGroup(nextGroup)}>
              Go on: {nextGroup}
            </Button>
          ) : view.progress.faults > 0 ? (
            <Link className="key key-mark" href={`/job/${head.number}/faults`}>
              Find the fault
            </Link>
          ) : (
            <>
              <span className="font-semibold">Everything has been seen.</span>
              {head.stage === "first-boot" ? (
                <Button
                  tone="mark"
                  disabled={act.pending}
                  onClick={() =>
                    act.run(
                      () => soakAction({ number: head.number }),
                      () => "The soak has begun. Hand over when it has run.",
                    )
                  }
                >
                  Start the soak
                </Button>
              ) : (
                <Link className="key" href={`/job/${head.number}/handover`}>
                  To handover
                </Link>
              )}
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
        <Settings view={view} act={act} />
        <SoakPanel number={head.number} soaks={soaks} />
        <p className="mt-6 text-second text-soft">
          Normal at the very first start: full fan noise, still fans on a card or supply with a quiet mode, memory at its default speed. None of these
          is a fault.
        </p>
      </section>
    </div>
  );
}

function Line({
  line,
  seen,
  busy,
  first,
  onSee,
}: {
  line: Expectation;
  seen: Seen[string] | undefined;
  busy: boolean;
  first: boolean;
  onSee: (value: string) => void;
}) {
  const row = useRef<HTMLTableRowElement>(null);
  const [typed, setTyped] = useState("");
  useEffect(() => {
    if (first) row.current?.scrollIntoView({ block: "nearest" });
  }, [first]);
  const unit = line.unit ? ` ${line.unit}` : "";
  const words = [line.expected, ...line.otherwise];
  return (
    <tr ref={row} className={cx("border-t border-rule align-top", first && "bg-sheet")}>
      <td className="px-4 py-3 max-[760px]:pb-1">
        <div className="font-semibold">{line.what}</div>
        <div className="text-second text-soft">{line.because}</div>
      </td>
      <td className="py-3 pr-2 max-[760px]:py-0">
        <span className="hidden text-soft max-[760px]:inline">Expected: </span>
        <span className={cx(line.unit && "mono")}>
          {line.expected}
          {line.expected === "not seen" ? "" : unit}
        </span>
      </td>
      <td className="py-2 pr-4">
        {line.otherwise.length > 0 ? (
          <div role="group" aria-label={`${line.what}: seen`} className="flex flex-wrap gap-2">
            {words.map((w) => (
              <Button key={w} aria-pressed={seen?.value === w} disabled={busy} onClick={() => onSee(w)}>
                {seen?.value === w ? <StateShape state={w === line.expected ? "checked" : "wrong"} /> : null}
                {w}
              </Button>
            ))}
          </div>
        ) : (
          <form
            className="flex gap-2"
            onSubmit={(e) => {
              e.preventDefault();
              if (typed.trim()) {
                onSee(typed.trim());
                setTyped("");
              }
            }}
          >
            <input
              className="field mono w-24"
              aria-label={`${line.what} seen${unit}`}
              inputMode="decimal"
              value={typed}
              placeholder={seen?.value ?? ""}
              onChange={(e) => setTyped(e.target.value)}
            />
            <Button type="submit" disabled={busy || !typed.trim()}>
              Record
            </Button>
            <Button aria-pressed={seen?.value === line.expected} disabled={busy} onClick={() => onSee(line.expected)}>
              {seen?.value === line.expected ? <StateShape state="checked" /> : null}As expected
            </Button>
          </form>
        )}
        {seen ? (
          <div className="mt-1 text-second text-soft">
            {seen.asExpected ? (
              "as expected"
            ) : (
              <span className="text-stop">
                seen {seen.value}
                {unit}: a fault is open
              </span>
            )}
            , {seen.by}
          </div>
        ) : null}
      </td>
    </tr>
  );
}

function Settings({ view, act }: { view: Pick<BootSlice, "settings" | "head">; act: Acting }) {
  const s = view.settings;
  const saw = { memoryProfile: s.memoryProfile, cpuFanWarning: s.cpuFanWarning };
  const [why, setWhy] = useState("");
  return (
    <div className="mt-6 flex flex-col gap-2">
      <h3 className="font-semibold">Firmware settings</h3>
      <Button
        className="justify-start"
        aria-pressed={s.memoryProfile}
        disabled={act.pending}
        onClick={() =>
          act.run(
            () => settingAction({ number: view.head.number, memoryProfile: !s.memoryProfile, saw }),
            () => "Recorded; the expected memory speed follows.",
          )
        }
      >
        Memory profile: {s.memoryProfile ? "on" : "off"}
      </Button>
      <p className="text-second">CPU fan warning: {s.cpuFanWarning === "halt" ? "halts start-up" : "ignored, with a reason in the log"}.</p>
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

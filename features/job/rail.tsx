"use client";
import { ScrollText } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import type { Finding } from "../../core/checks";
import type { JobFinding, SetAside } from "../../server/build/findings";
import type { JobView } from "../../server/views/job-view";
import { Button } from "../../ui/button";
import { cx } from "../../ui/cx";
import Link from "../../ui/link";
import { SEVERITY_WORD, type Severity, SeverityShape } from "../../ui/marks";
import { plugAction } from "../actions/bench";
import { setAsideAction } from "../actions/job";
import { fixAction, planAction } from "../actions/wiring";
import { useDates, WithDates } from "../frame/dates";
import { useKeys } from "../frame/keys";
import { useAct } from "../frame/use-act";

type Panel = Severity | "log";

/** Counts that are always visible; they open the findings and the log beside the stage, and cover nothing of it. */
export function Rail({
  number,
  findings,
  setAside,
  log,
  leads,
}: {
  number: string;
  findings: JobFinding[];
  setAside: SetAside[];
  log: JobView["log"];
  leads: { address: string; state: string; port?: string }[];
}) {
  const [open, setOpen] = useState<Panel | null>(null);
  const count = (s: Severity) => findings.filter((f) => f.severity === s).length;
  const panel = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (open) panel.current?.focus();
  }, [open]);
  useKeys("job", [
    {
      keys: ["n"],
      word: "Next finding",
      run: () => {
        const first = findings[0];
        if (first) setOpen(first.severity);
      },
    },
    { keys: [], word: "Log of this job", run: () => setOpen("log") },
    { keys: ["Escape"], word: "Let go", only: "keys", run: () => (open ? setOpen(null) : false) },
  ]);
  return (
    <aside aria-label="Findings and log" className="flex shrink-0 flex-row-reverse max-[700px]:flex-col">
      <div className="flex w-12 shrink-0 flex-col border-l border-rule max-[700px]:w-full max-[700px]:flex-row max-[700px]:border-b max-[700px]:border-l-0">
        {(["stop", "warn", "note"] as const).map((s) => (
          <button
            key={s}
            type="button"
            aria-expanded={open === s}
            onClick={() => setOpen(open === s ? null : s)}
            className={cx(RAIL_KEY, open === s && "bg-sheet")}
          >
            <SeverityShape severity={s} />
            <span className="mono font-semibold">{count(s)}</span>
            <span className="text-label">{SEVERITY_WORD[s]}</span>
          </button>
        ))}
        <button
          type="button"
          aria-expanded={open === "log"}
          onClick={() => setOpen(open === "log" ? null : "log")}
          className={cx(RAIL_KEY, open === "log" && "bg-sheet")}
        >
          <ScrollText size={16} aria-hidden />
          <span className="text-label">Log</span>
        </button>
      </div>
      {open ? (
        <div
          ref={panel}
          tabIndex={0}
          className="arrive region w-90 border-l-2 border-ink bg-raised p-4 max-[700px]:w-full max-[700px]:border-b-2 max-[700px]:border-l-0"
        >
          {open === "log" ? <LogList log={log} /> : <FindingList number={number} list={findings} setAside={setAside} leads={leads} first={open} />}
        </div>
      ) : null}
    </aside>
  );
}

const RAIL_KEY =
  "flex h-16 flex-col items-center justify-center gap-0.5 hover:bg-sheet max-[700px]:h-12 max-[700px]:flex-1 max-[700px]:flex-row max-[700px]:gap-2";

export function FindingList({
  number,
  list,
  setAside,
  leads,
  first,
}: {
  number: string;
  list: JobFinding[];
  setAside: SetAside[];
  leads: { address: string; state: string; port?: string }[];
  first?: Severity;
}) {
  const act = useAct();
  const gone = setAside.filter((s) => !s.still);
  const shown = first ? [...list.filter((f) => f.severity === first), ...list.filter((f) => f.severity !== first)] : list;
  return (
    <section aria-label="Findings">
      <h2 className="mb-2 text-key font-[650]">Findings</h2>
      <p role="status" className="text-second">
        {act.sentence}
      </p>
      {shown.length === 0 ? <p>Nothing to report. Findings appear here as soon as a plan or a plug is not right.</p> : null}
      <ul className="flex flex-col gap-4">
        {shown.map((f) => (
          <li key={f.id} className="flex gap-2">
            <span className="pt-0.5">
              <SeverityShape severity={f.severity} />
            </span>
            <div>
              <strong className="font-semibold">{SEVERITY_WORD[f.severity]}.</strong> {f.message}
              {f.setAside ? <SetAsideWords s={f.setAside} /> : null}
              {f.ifIgnored ? <div className="text-second">If ignored: {f.ifIgnored}</div> : null}
              {(f.ways ?? []).map((w) => (
                <div key={w} className="text-second">
                  Way out: {w}
                </div>
              ))}
              {f.remedy?.kind === "swap" ? (
                <div className="mt-1">
                  <Link className="key no-underline" href={`/job/${number}/parts?part=${encodeURIComponent(f.remedy.part)}&try=1`}>
                    {f.remedy.label}
                  </Link>
                </div>
              ) : f.remedy ? (
                <div className="mt-1">
                  <Button disabled={act.pending} onClick={() => remedy(f, number, leads, act)}>
                    {f.remedy.label}
                  </Button>
                </div>
              ) : null}
              {f.mayBeSetAside ? <SetAsideForm number={number} finding={f} act={act} /> : null}
            </div>
          </li>
        ))}
      </ul>
      {gone.length > 0 ? (
        <>
          <h3 className="mb-1 mt-4 font-semibold">Accepted, and found no more</h3>
          <ul className="flex flex-col gap-2">
            {gone.map((s) => (
              <li key={`${s.at}${s.message}`}>
                {s.message}
                <SetAsideWords s={s} />
              </li>
            ))}
          </ul>
        </>
      ) : null}
    </section>
  );
}

function SetAsideWords({ s }: { s: SetAside }) {
  const dates = useDates();
  return (
    <div className="text-second">
      Accepted by {s.by}, {dates.day(s.at)}, was {s.severity === "stop" ? "a stop" : "a warning"}: {s.reason}
    </div>
  );
}

/** A finding is set aside with a reason and the name of whoever sits here; that shows for ever after. */
function SetAsideForm({ number, finding, act }: { number: string; finding: JobFinding; act: ReturnType<typeof useAct> }) {
  const [open, setOpen] = useState(false);
  const [reason, setReason] = useState("");
  if (!open)
    return (
      <Button className="mt-1 flex" aria-label={`Accept: ${finding.message}`} onClick={() => setOpen(true)}>
        Accept it, because
      </Button>
    );
  return (
    <form
      className="mt-1 flex flex-col gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        act.run(
          () => setAsideAction({ number, finding: finding.id, reason }),
          () => "Accepted. The reason and your name stay on record.",
        );
      }}
    >
      <label className="text-second">
        Why it may stay as it is (stays on record)
        <textarea
          className="field mt-1 w-full"
          rows={3}
          maxLength={500}
          required
          minLength={5}
          value={reason}
          onChange={(e) => setReason(e.target.value)}
        />
      </label>
      <div className="flex gap-2">
        <Button type="submit" disabled={act.pending || reason.trim().length < 5}>
          Accept it
        </Button>
        <Button onClick={() => setOpen(false)}>Leave it</Button>
      </div>
    </form>
  );
}

function remedy(f: Finding, number: string, leads: { address: string; state: string; port?: string }[], act: ReturnType<typeof useAct>): void {
  const r = f.remedy;
  if (!r) return;
  if (r.kind === "plan") {
    act.run(
      () => planAction({ number }),
      (v) => `Plan ${v.revision}: ${v.moved} moved.`,
    );
    return;
  }
  // Another part is chosen on the Parts screen, where what fits is listed.
  if (r.kind === "swap") return;
  const at = leads.find((l) => l.address === r.lead);
  const place = r.kind === "move" && r.place ? { place: r.place } : {};
  const plugged = at?.state === "plugged" || at?.state === "checked" || at?.state === "wrong";
  if (r.kind === "unplug") {
    act.run(
      () => plugAction({ number, lead: r.lead, port: at?.port ?? r.lead, state: "planned" }),
      () => "Recorded: taken out.",
    );
  } else if (plugged) {
    act.run(
      () => plugAction({ number, lead: r.lead, port: r.port, ...place, state: "plugged" }),
      () => "Recorded: moved.",
    );
  } else {
    act.run(
      () => fixAction({ number, lead: r.lead, port: r.port, ...place, fixed: true }),
      () => "Moved and fixed there.",
    );
  }
}

export function LogList({ log }: { log: JobView["log"] }) {
  const dates = useDates();
  return (
    <section aria-label="Log">
      <h2 className="mb-2 text-key font-[650]">Log</h2>
      <p className="mb-3 text-second text-soft">Newest first. Nothing is ever changed here; a correction is a new entry.</p>
      {log.length === 0 ? <p>No entry yet.</p> : null}
      <ol className="flex flex-col gap-2">
        {log.map((e) => (
          <li key={e.id} className="border-t border-rule pt-2">
            <div className="text-second text-soft">
              <span className="mono">{dates.both(e.at)}</span> {e.by}
              {e.planRevision ? `, plan ${e.planRevision}` : ""}
            </div>
            <WithDates text={e.text} />
          </li>
        ))}
      </ol>
    </section>
  );
}

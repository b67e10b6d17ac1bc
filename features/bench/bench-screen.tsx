"use client";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { panelPinout } from "../../core/brings";
import { family } from "../../core/catalogue";
import type { JobView } from "../../server/views";
import { cx } from "../../ui/cx";
import { PinPicture } from "../../ui/drawing/pin-picture";
import { Caution } from "../../ui/marks";
import { SCAN_MS } from "../frame/use-keys";
import { sceneOf } from "../wiring/scene";
import { BenchSheet, type Sheet } from "./bench-sheet";
import { entryKey, useOutbox } from "./outbox";
import { RegionView } from "./region-view";

const REST_MS = 500;
/** Which hand works is the tablet's business, not the job's. */
const HAND = "imbra-hand";

/** One thing at a time, large, worked with one hand. */
export function BenchScreen({ view, who }: { view: Pick<JobView, "build" | "steps" | "head" | "leads" | "power" | "findings">; who: string | null }) {
  const router = useRouter();
  const refresh = useCallback(() => router.refresh(), [router]);
  const outbox = useOutbox(refresh);
  const number = view.head.number;
  const scene = useMemo(() => sceneOf(view.build), [view.build]);
  // Ticks that the server has not answered yet count here already.
  const local = useMemo(() => {
    const m = new Map<string, boolean>();
    for (const e of [...outbox.sent, ...outbox.waiting]) {
      if (e.kind === "tick" && e.payload.number === number) m.set(`plug:${e.payload.lead}`, e.payload.state !== "planned");
      if (e.kind === "step" && e.payload.number === number) m.set(e.payload.step, e.payload.done);
    }
    return m;
  }, [outbox.sent, outbox.waiting, number]);
  const steps = useMemo(() => view.steps.map((s) => ({ ...s, done: local.get(s.id) ?? s.done })), [view.steps, local]);
  const [skipped, setSkipped] = useState<ReadonlySet<string>>(new Set());
  const current = Math.max(
    0,
    steps.findIndex((s) => !s.done && !skipped.has(s.id)),
  );
  const allDone = steps.every((s) => s.done || skipped.has(s.id));
  const [looking, setLooking] = useState<number | null>(null);
  const [sheet, setSheet] = useState<Sheet>(null);
  const [said, setSaid] = useState("");
  const [left, setLeft] = useState(false);
  useEffect(() => setLeft(localStorage.getItem(HAND) === "left"), []);
  const turnHand = () => {
    localStorage.setItem(HAND, left ? "right" : "left");
    setLeft(!left);
  };
  const rested = useRef(0);
  const at = looking ?? current;
  const step = steps[at];
  const elsewhere = looking !== null && looking !== current;
  const lead = view.leads.find((l) => l.address === step?.lead);
  const port = step?.port ? scene.graph.ports.get(step.port) : undefined;
  const stop = view.findings.find((f) => f.severity === "stop" && step?.lead !== undefined && f.ends.includes(step.lead));

  const setDone = useCallback(
    (done: boolean) => {
      if (!step) return;
      setSaid("");
      if (step.lead && step.port)
        outbox.push({
          kind: "tick",
          entryKey: entryKey(),
          payload: {
            number,
            lead: step.lead,
            port: step.port,
            ...(lead?.place ? { place: lead.place } : {}),
            state: done ? "plugged" : "planned",
            ...(lead?.port ? { sawPort: lead.port } : {}),
          },
        });
      else outbox.push({ kind: "step", entryKey: entryKey(), payload: { number, step: step.id, title: step.title, done } });
    },
    [step, lead, number, outbox],
  );
  const press = useCallback(() => {
    const now = Date.now();
    if (elsewhere) {
      // Going back ticks nothing, so it need not rest; but a second tap must not land on Done.
      rested.current = now;
      setLooking(null);
      return;
    }
    if (now - rested.current < REST_MS) return;
    rested.current = now;
    if (!step || step.done || stop) return;
    setDone(true);
  }, [elsewhere, step, stop, setDone]);
  const undo = () => {
    setDone(false);
    setLooking(null);
  };
  const look = useCallback(
    (by: number) => {
      setLooking((was) => {
        const to = Math.min(steps.length - 1, Math.max(0, (was ?? current) + by));
        return to === current ? null : to;
      });
    },
    [steps.length, current],
  );

  // The listener stays for good and looks up what is current: a page that renders meanwhile must not lose a key.
  const now = useRef({ press, look, leads: view.leads, lead });
  useEffect(() => {
    now.current = { press, look, leads: view.leads, lead };
  });
  // A bare key waits a moment: more keys in that time are a scan, whose Enter is swallowed and never ticks.
  useEffect(() => {
    let burst = "";
    let timer: ReturnType<typeof setTimeout> | undefined;
    const act = (k: string) => {
      if (k === " " || k === "Enter") now.current.press();
      else if (k === "ArrowLeft") now.current.look(-1);
      else if (k === "ArrowRight") now.current.look(1);
      else {
        const open = ({ d: "differs", p: "problem", s: "skip", l: "list", v: "press" } as const)[k.toLowerCase()];
        if (open) setSheet(open);
      }
    };
    const key = (e: KeyboardEvent) => {
      const t = e.target as HTMLElement | null;
      if ((t && ["INPUT", "TEXTAREA", "SELECT"].includes(t.tagName)) || e.ctrlKey || e.metaKey || e.altKey) return;
      if (document.querySelector('[role="dialog"]')) return;
      // A focused key obeys its own Space and Enter first.
      if ((e.key === " " || e.key === "Enter") && burst === "" && t && ["BUTTON", "A", "SUMMARY"].includes(t.tagName)) return;
      if (e.repeat) {
        e.preventDefault();
        return;
      }
      if (e.key.length > 1 && !["Enter", "ArrowLeft", "ArrowRight"].includes(e.key)) return;
      e.preventDefault();
      if (e.key === "Enter" && burst.length > 1) {
        const scan = burst;
        burst = "";
        clearTimeout(timer);
        const hit = now.current.leads.find((l) => l.tag.toLowerCase() === scan.toLowerCase());
        setSaid(
          hit && hit.address === now.current.lead?.address
            ? `Right lead: ${hit.tag}. Plug it, then press Done.`
            : hit
              ? `Wrong lead: that is ${hit.tag}, ${hit.name}. This step wants ${now.current.lead?.tag ?? "another"}.`
              : `${scan} is no lead of this job.`,
        );
        return;
      }
      burst += e.key.length === 1 ? e.key : "";
      const k = e.key;
      clearTimeout(timer);
      timer = setTimeout(() => {
        const n = burst.length;
        burst = "";
        if (n <= 1) act(k);
      }, SCAN_MS);
    };
    window.addEventListener("keydown", key);
    return () => {
      window.removeEventListener("keydown", key);
      clearTimeout(timer);
    };
  }, []);

  useEffect(() => {
    const timer = setInterval(() => {
      if (document.visibilityState === "visible") refresh();
    }, 15000);
    return () => clearInterval(timer);
  }, [refresh]);

  if (!step || steps.length === 0)
    return (
      <main className="p-8 text-bench">
        There is nothing to do here yet.{" "}
        <Link className="underline" href={`/job/${number}/wiring`}>
          Plan the wiring first.
        </Link>
      </main>
    );
  const finished = allDone && !elsewhere;
  const following = steps.slice(at + 1).find((s) => !s.done);
  const band = stop ? (
    <span className="text-stop">Stop. {stop.message}</span>
  ) : outbox.sentence || said ? (
    <span role="status">{outbox.sentence || said}</span>
  ) : step.caution ? (
    <Caution text={step.caution} large />
  ) : step.covers ? (
    <span>{step.covers}</span>
  ) : (
    <span className="text-soft">
      About {step.minutes} {step.minutes === 1 ? "minute" : "minutes"}.{following ? ` Then: ${following.title}.` : ""}
    </span>
  );
  return (
    <main className="mx-auto flex h-dvh min-h-[680px] w-full max-w-[1280px] flex-col overflow-hidden">
      <header className="flex h-20 shrink-0 items-stretch border-b border-rule">
        <button type="button" className="key-bench !min-h-0 w-40 !rounded-none !border-0 !border-r" onClick={() => look(-1)}>
          Look back
        </button>
        <button
          type="button"
          className="flex min-w-0 flex-1 items-center gap-4 px-5 text-left text-bench hover:bg-sheet"
          onClick={() => setSheet("list")}
        >
          <span className="min-w-0 truncate">
            <span className="mono font-semibold">{number}</span> step {at + 1} of {steps.length}
          </span>
          <span className="min-w-0 flex-1 truncate text-right text-soft">
            {outbox.waiting.length > 0 ? `${outbox.waiting.length} to send` : "all sent"}, {who ?? "nobody chosen"}
          </span>
        </button>
        <button type="button" className="key-bench !min-h-0 w-44 !rounded-none !border-0 !border-l" onClick={() => look(1)}>
          Look ahead
        </button>
      </header>
      <section aria-live="polite" className="flex h-38 shrink-0 flex-col justify-center px-6">
        <h1 className="line-clamp-2 text-bench-action font-bold">{finished ? "Every step is done. On to the first boot." : step.title}</h1>
        <p className="truncate text-bench">
          {finished ? (
            view.power.verdict
          ) : (
            <>
              {lead ? <span className="mono">{lead.tag}</span> : null}
              {lead ? " " : ""}
              {step.detail.replace(/^[A-Z]{2}-\d+ ?\.?/, "").trim()}
            </>
          )}
        </p>
      </section>
      <div className="flex min-h-0 flex-1 basis-[312px] border-y border-rule">
        <div className="min-w-0 flex-[640] overflow-hidden">
          <RegionView build={view.build} port={step.port} label={port?.port.label ?? ""} />
        </div>
        <div className="flex-[384] overflow-auto border-l border-rule p-5 text-bench">
          {port && family(port.port.family).order.length > 0 ? (
            <PinPicture
              bench
              onBoard={port.part.type.kind === "board"}
              family={family(port.port.family)}
              pins={port.port.family === "panel-block" ? (lead?.place ?? []) : []}
              {...(port.port.family === "panel-block" ? { signals: panelPinout(port.port) } : {})}
            />
          ) : (
            <p>{step.covers ?? step.detail}</p>
          )}
        </div>
      </div>
      <div className="flex h-20 shrink-0 items-center overflow-hidden px-6 text-bench">
        <div className="line-clamp-2">{band}</div>
      </div>
      <footer className={cx("flex h-36 shrink-0 items-center gap-3 border-t border-rule px-6", left && "flex-row-reverse")}>
        <button type="button" className="key-bench w-34" onClick={() => setSheet("differs")} disabled={!step.lead}>
          Differs
        </button>
        <button type="button" className="key-bench w-34" onClick={() => setSheet("problem")}>
          Problem
        </button>
        {elsewhere && step.done ? (
          <button type="button" className="key-bench w-34" onClick={undo}>
            Undo
          </button>
        ) : (
          <button type="button" className="key-bench w-34" onClick={() => setSheet("skip")}>
            Skip
          </button>
        )}
        <button type="button" className="key-bench w-34" onClick={() => setSheet("press")}>
          If I press
        </button>
        <div className="flex-1" />
        {finished ? (
          <Link className="key-bench !min-h-28 w-84 no-underline" data-done="mark" href={`/job/${number}/first-boot`}>
            First boot
          </Link>
        ) : (
          <button
            type="button"
            className={cx("key-bench !min-h-28 w-84")}
            data-done={stop && !elsewhere ? undefined : "mark"}
            disabled={outbox.waiting.length > 400}
            onClick={press}
          >
            {elsewhere ? `Return to step ${current + 1}` : stop ? "Stopped: see above" : step.done ? "Done already" : "Done"}
          </button>
        )}
      </footer>
      <BenchSheet
        sheet={sheet}
        close={() => setSheet(null)}
        {...{ view, steps, at, lead, scene, number, left, turnHand }}
        onGo={(i) => {
          setLooking(i === current ? null : i);
          setSheet(null);
        }}
        onNote={(kind, text) => {
          outbox.push({ kind: "note", entryKey: entryKey(), payload: { number, text: `${step.title}: ${text}`, kind } });
          if (kind === "skip") {
            setSkipped(new Set([...skipped, step.id]));
            setLooking(null);
          }
          setSheet(null);
        }}
        onDiffers={(p, place) => {
          if (step.lead)
            outbox.push({
              kind: "tick",
              entryKey: entryKey(),
              payload: {
                number,
                lead: step.lead,
                port: p,
                ...(place ? { place } : {}),
                state: "plugged",
                ...(lead?.port ? { sawPort: lead.port } : {}),
              },
            });
          setSheet(null);
          setLooking(null);
        }}
      />
    </main>
  );
}

"use client";
import { useMemo, useState } from "react";
import { buildGraph, typeLookup } from "../../core/assembly";
import { fullName, LOOM_NAME, LOOMS } from "../../core/catalogue";
import type { LeftOver } from "../../server/parts/left-over";
import type { HandoverSlice } from "../../server/views/slices";
import { Button } from "../../ui/button";
import { StateMark } from "../../ui/marks";
import { Photo } from "../../ui/photo";
import { handOverAction, reopenAction } from "../actions/handover";
import { MachineView } from "../drawing/machine-view";
import { useAct } from "../frame/use-act";

/** The record so far: what is in it, what is connected where, what stays free and why, what was seen. */
export function HandoverScreen({ view, leftOver }: { view: HandoverSlice; leftOver: readonly LeftOver[] }) {
  return (
    <section aria-label="Record of the job" tabIndex={0} className="region min-w-0 flex-1 px-6 py-4">
      <h1 className="text-verdict font-semibold">
        {view.unseen === 0 ? "Everything on the first-boot sheet has been seen." : `${view.unseen} of ${view.lines} checks have not been made.`}
      </h1>
      <Closing number={view.head.number} stage={view.head.stage} open={view.open} />
      <a className="key mt-3 inline-flex no-underline" href={`/files/job/${encodeURIComponent(view.head.number)}/label.pdf`} download>
        Label for the machine
      </a>
      <div className="mt-4 grid grid-cols-2 gap-8 max-[760px]:grid-cols-1">
        <section>
          <h2 className="text-key font-[650]">What is in it</h2>
          <ul>
            {view.parts.map((p) => (
              <li key={p.id} className="flex gap-3 border-t border-rule py-1.5">
                <span className="flex-1">
                  {fullName(p)}
                  {p.label ? `, ${p.label}` : ""}
                </span>
                <span className="mono text-second">{p.serial ?? "no serial"}</span>
              </li>
            ))}
          </ul>
          <h2 className="mt-6 text-key font-[650]">What stays unconnected, and why</h2>
          <ul>
            {view.free.length === 0 ? (
              <li>Nothing.</li>
            ) : (
              view.free.map((f) => (
                <li key={f.end} className="border-t border-rule py-1.5">
                  <span className="font-semibold">{f.what}</span>. {f.reason}
                </li>
              ))
            )}
          </ul>
          {view.tied.length > 0 ? (
            <>
              <h2 className="mt-6 text-key font-[650]">Tied back</h2>
              <ul>
                {view.tied.map((t) => (
                  <li key={t.end} className="border-t border-rule py-1.5">
                    <span className="font-semibold">{t.what}</span>. {t.reason}
                  </li>
                ))}
              </ul>
            </>
          ) : null}
          {view.setAside.length > 0 ? (
            <>
              <h2 className="mt-6 text-key font-[650]">What was accepted all the same, by whom and why</h2>
              <ul>
                {view.setAside.map((s) => (
                  <li key={`${s.at}${s.message}`} className="border-t border-rule py-1.5">
                    {s.message} <span className="font-semibold">{s.by}</span>: {s.reason}
                    {s.still ? "" : " (Found no more.)"}
                  </li>
                ))}
              </ul>
            </>
          ) : null}
          <AsBuilt view={view} />
          <h2 className="mt-6 text-key font-[650]">In the bag</h2>
          <p>{view.inBag.length > 0 ? `Cables: ${view.inBag.join(", ")}.` : leftOver.length > 0 ? "" : "Nothing yet."}</p>
          {leftOver.length > 0 ? (
            <ul>
              {leftOver.map((l) => (
                <li key={`${l.with} ${l.what}`} className="border-t border-rule py-1.5">
                  {l.what.charAt(0).toUpperCase() + l.what.slice(1)} <span className="text-soft">with {l.with}</span>
                </li>
              ))}
            </ul>
          ) : null}
          <h2 className="mt-6 text-key font-[650]">Photos</h2>
          {view.photos.length === 0 ? (
            <p>None was taken.</p>
          ) : (
            <ul className="mt-1 flex flex-wrap gap-2">
              {view.photos.map((p) => (
                <li key={p.id}>
                  <Photo id={p.id} alt={`${p.of}, by ${p.by}`} high="h-28" />
                </li>
              ))}
            </ul>
          )}
        </section>
        <section>
          <h2 className="text-key font-[650]">What is connected where</h2>
          {LOOMS.map((loom) => {
            const mine = view.leads.filter((l) => l.loom === loom);
            return mine.length === 0 ? null : (
              <div key={loom} className="mt-2">
                <h3 className="font-semibold">{LOOM_NAME[loom]}</h3>
                <ul>
                  {mine.map((l) => (
                    <li key={l.address} className="flex items-center gap-3 border-t border-rule py-1">
                      <span className="mono w-12 text-second">{l.tag}</span>
                      <span className="flex-1 truncate">{l.name}</span>
                      <span className="mono text-second">
                        {l.portName}
                        {l.place ? ` ${l.place.join(" ")}` : ""}
                      </span>
                      <span className="w-20 shrink-0 text-second">
                        <StateMark state={l.state} size={13} />
                      </span>
                    </li>
                  ))}
                </ul>
              </div>
            );
          })}
        </section>
      </div>
    </section>
  );
}

/** The machine with what hands have plugged, from both sides of the tray. */
function AsBuilt({ view }: { view: HandoverSlice }) {
  const graph = useMemo(() => buildGraph(view.build, typeLookup(view.build, [])), [view.build]);
  const { number } = view.head;
  const plugged = view.build.connections.length;
  if (plugged === 0) return null;
  return (
    <section aria-label="As built" className="mt-6">
      <h2 className="text-key font-[650]">As built</h2>
      <p className="text-second text-soft">
        {plugged} plugs are in, each lead on its way.{" "}
        {(["as-built.pdf", "as-built.svg", "as-built-behind.svg"] as const).map((f) => (
          <a key={f} className="mr-3 underline underline-offset-4" href={`/files/job/${encodeURIComponent(number)}/${f}`} download>
            {f === "as-built.pdf" ? "PDF" : f === "as-built.svg" ? "SVG, front" : "SVG, behind"}
          </a>
        ))}
      </p>
      <div className="flex flex-col gap-3">
        {(["front", "behind"] as const).map((sheet) => (
          <MachineView
            key={sheet}
            built
            graph={graph}
            most={BUILT_PX}
            sheet={sheet}
            label={sheet === "front" ? "As built, front of the tray" : "As built, from behind"}
          />
        ))}
      </div>
    </section>
  );
}

const BUILT_PX = { w: 520, h: 420 };

/** Hands the machine over and closes the job, or opens it again. With something open it takes a reason. */
function Closing({ number, stage, open }: { number: string; stage: string; open: string[] }) {
  const act = useAct();
  const [reason, setReason] = useState("");
  const closed = stage === "handed-over" || stage === "cancelled";
  const asks = closed || open.length > 0;
  return (
    <form
      className="mt-3 flex max-w-[900px] flex-wrap items-end gap-3 border-y border-rule py-3"
      onSubmit={(e) => {
        e.preventDefault();
        act.run(
          () => (closed ? reopenAction({ number, reason }) : handOverAction({ number, reason })),
          () => {
            setReason("");
            return closed
              ? stage === "cancelled"
                ? "Open again: it goes on at its plan."
                : "Open again: it goes on at first boot."
              : "Handed over, and the job is closed.";
          },
        );
      }}
    >
      <p className="w-full">
        {closed
          ? `This job was ${stage === "cancelled" ? "cancelled" : "handed over"} and is closed: nothing more is recorded on it.`
          : open.length > 0
            ? `Open: ${open.join("; ")}.`
            : "Nothing is open."}
      </p>
      {asks ? (
        <label className="min-w-80 flex-1">
          {closed ? "Why it is opened again" : "Why it goes like this"}
          <input className="field mt-1 w-full" value={reason} maxLength={500} onChange={(e) => setReason(e.target.value)} />
        </label>
      ) : null}
      <Button type="submit" tone={closed || open.length > 0 ? "plain" : "mark"} disabled={act.pending}>
        {closed ? "Open it again" : open.length > 0 ? "Hand over as it is" : "Hand over"}
      </Button>
      <p role="status" className="w-full">
        {act.sentence}
      </p>
    </form>
  );
}

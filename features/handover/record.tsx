"use client";
import { useMemo } from "react";
import { buildGraph, typeLookup } from "../../core/assembly";
import { fullName, LOOM_NAME, LOOMS } from "../../core/catalogue";
import type { HandoverSlice } from "../../server/views/slices";
import { StateMark } from "../../ui/marks";
import { Photo } from "../../ui/photo";
import { MachineView } from "../drawing/machine-view";

/** The record itself: what is in it, what is connected where, what stays free and why, what was accepted all the same. */
export function RecordOfJob({ view }: { view: HandoverSlice }) {
  return (
    <section aria-label="Record" className="mt-8">
      <div className="grid grid-cols-2 gap-8 max-[760px]:grid-cols-1">
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

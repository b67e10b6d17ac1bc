"use client";
import Link from "next/link";
import { usePathname, useRouter, useSearchParams } from "next/navigation";
import { useEffect, useMemo, useState } from "react";
import { buildGraph, typeLookup } from "../../core/build";
import type { PartType } from "../../core/catalogue";
import { type Tubes, tubes } from "../../core/fit";
import type { JobView } from "../../server/views";
import { cx } from "../../ui/cx";
import { SEVERITY_WORD, SeverityShape, StateMark } from "../../ui/marks";
import { useAct } from "../frame/use-act";
import { changePartAction } from "../job/actions";
import { placePartAction, removePartAction } from "./actions";
import { AddParts } from "./add-parts";
import { AirView } from "./air-view";
import { FitView } from "./fit-view";
import { fullName } from "./full-name";
import { KIND_ORDER, KIND_WORD } from "./kinds";
import { OrderView } from "./order-view";
import { PowerView } from "./power-view";
import { WhatIf } from "./what-if";

const SHOWS = [
  ["fit", "Fit"],
  ["power", "Power"],
  ["air", "Air"],
  ["order", "Order list"],
] as const;

export function PartsScreen({
  view,
  aside,
  corrected,
}: {
  view: Pick<JobView, "build" | "head" | "plan" | "leads" | "findings">;
  aside: string[];
  corrected: { part: string; name: string; had: number; now: number }[];
}) {
  const graph = useMemo(() => buildGraph(view.build, typeLookup(view.build, [])), [view.build]);
  const router = useRouter();
  const path = usePathname();
  const asked = useSearchParams();
  const show = asked.get("show") ?? "fit";
  const types = useMemo(() => new Map(view.build.partTypes.map((t) => [t.id, t])), [view.build]);
  const parts = useMemo(
    () => [...view.build.parts].sort((a, b) => KIND_ORDER.indexOf(types.get(a.type)?.kind ?? "") - KIND_ORDER.indexOf(types.get(b.type)?.kind ?? "")),
    [view.build, types],
  );
  const wanted = asked.get("part");
  const [chosen, setChosen] = useState<string>(parts.find((p) => p.id === wanted)?.id ?? parts[0]?.id ?? "");
  // A remedy leads here: the part is chosen and its alternatives are open.
  useEffect(() => {
    if (wanted && parts.some((p) => p.id === wanted)) setChosen(wanted);
  }, [wanted, parts]);
  const part = parts.find((p) => p.id === chosen);
  const type = part && types.get(part.type);
  const number = view.head.number;
  const plugged = (id: string) =>
    view.leads.filter(
      (l) =>
        (l.fromPart === id || l.fromPart.startsWith(`${id}/`) || l.port?.startsWith(`${id}:`)) && (l.state === "plugged" || l.state === "checked"),
    ).length;
  const all = (id: string) =>
    view.leads.filter((l) => l.port && (l.fromPart === id || l.fromPart.startsWith(`${id}/`) || l.port.startsWith(`${id}:`))).length;
  /** What is known of a part stands beside the case; Air shows its fans itself. */
  const look = (id: string) => {
    setChosen(id);
    const kind = types.get(parts.find((p) => p.id === id)?.type ?? "")?.kind;
    if (show === "power" || show === "order" || (show === "air" && kind !== "fan")) router.replace(path);
  };
  return (
    <div className="flex min-h-0 min-w-0 flex-1">
      <section aria-label="Parts list" className="region w-[480px] shrink-0 border-r border-rule">
        <div className="flex h-12 items-center gap-3 px-4">
          <h1 className="flex-1 text-key font-[650]">{view.build.parts.length} parts</h1>
          <AddParts number={number} />
        </div>
        <ul>
          {parts.map((p) => {
            const t = types.get(p.type);
            const n = all(p.id);
            const done = plugged(p.id);
            return (
              <li key={p.id}>
                <button
                  type="button"
                  data-chosen={p.id === chosen}
                  aria-pressed={p.id === chosen}
                  onClick={() => look(p.id)}
                  className={cx(
                    "bar-left flex min-h-12 w-full items-center gap-3 border-b border-b-rule py-1 pl-3 pr-3 text-left hover:bg-sheet",
                    p.id === chosen && "bg-sheet",
                  )}
                >
                  <span className="w-24 shrink-0 text-second text-soft">{KIND_WORD[t?.kind ?? ""]}</span>
                  <span className="min-w-0 flex-1">
                    <span className="block truncate">{t ? fullName(t) : p.type}</span>
                    <span className="block truncate text-second text-soft">
                      {[
                        p.label,
                        p.serial ? (
                          <span key="s" className="mono">
                            {p.serial}
                          </span>
                        ) : (
                          "no serial yet"
                        ),
                        p.from === "shelf" ? "from the shelf" : p.from === "order" ? "to order" : "",
                      ]
                        .filter(Boolean)
                        .map((x, i) => (
                          <span key={String(i)}>
                            {i > 0 ? ", " : ""}
                            {x}
                          </span>
                        ))}
                    </span>
                  </span>
                  <span className="w-24 shrink-0 text-second">
                    {p.from === "order" ? (
                      <StateMark state="waiting" size={13} word="to order" />
                    ) : n === 0 ? (
                      ""
                    ) : done === n ? (
                      <StateMark state="plugged" size={13} />
                    ) : (
                      <StateMark state="planned" size={13} word={`${done} of ${n}`} />
                    )}
                  </span>
                </button>
              </li>
            );
          })}
        </ul>
      </section>
      <div className="flex min-w-0 flex-1 flex-col">
        <div role="toolbar" aria-label="What to look at" className="flex h-12 shrink-0 items-center gap-2 border-b border-rule px-4">
          {SHOWS.map(([id, word]) => (
            <button key={id} type="button" className="key" aria-pressed={show === id} onClick={() => router.replace(`${path}?show=${id}`)}>
              {word}
            </button>
          ))}
          <span className="flex-1" />
          <Link className="key no-underline" href={`/job/${number}/receipt`}>
            Receipt at the bench
          </Link>
        </div>
        <div className="flex min-h-0 flex-1">
          {show === "power" ? (
            <PowerView graph={graph} number={number} />
          ) : show === "air" ? (
            <AirView graph={graph} number={number} chosen={chosen} onChoose={setChosen} />
          ) : show === "order" ? (
            <OrderView graph={graph} planned={view.plan !== null} aside={aside} />
          ) : (
            <FitView graph={graph} chosen={chosen} onChoose={setChosen}>
              {part && type ? (
                <PartDetail
                  key={part.id}
                  part={part}
                  type={type}
                  number={number}
                  tubing={tubes(graph).find((t) => t.seat.cooler.id === part.id)}
                  others={view.build.parts
                    .filter((p) => p.from === "client")
                    .map((p) => ({ id: p.id, name: p.label ?? types.get(p.type)?.name ?? p.id, type: types.get(p.type)?.name ?? p.type }))}
                  canStand={graph.parts.get("case")?.type.body.vertical !== undefined}
                  mounts={(graph.parts.get("case")?.type ?? [...types.values()].find((t) => t.kind === "case"))?.body.mounts ?? []}
                  findings={view.findings.filter((f) => f.ends.includes(part.id))}
                  corrected={corrected.find((c) => c.part === part.id)}
                  trying={asked.get("try") === "1" && wanted === part.id}
                />
              ) : null}
            </FitView>
          )}
        </div>
      </div>
    </div>
  );
}

function PartDetail({
  part,
  type,
  number,
  mounts,
  tubing,
  canStand,
  others,
  findings,
  corrected,
  trying,
}: {
  part: JobView["build"]["parts"][number];
  type: PartType;
  number: string;
  mounts: PartType["body"]["mounts"];
  tubing: Tubes | undefined;
  canStand: boolean;
  others: { id: string; name: string; type: string }[];
  findings: JobView["findings"];
  corrected: { had: number; now: number } | undefined;
  trying: boolean;
}) {
  const act = useAct();
  const [serial, setSerial] = useState(part.serial ?? "");
  const r = type.ratings;
  const b = type.body;
  const numbers: [string, string][] = [];
  const add = (word: string, value: number | string | undefined, unit: string) => {
    if (value !== undefined) numbers.push([word, `${value} ${unit}`.trim()]);
  };
  add("Price", part.price?.toFixed(2), "");
  add("Peak draw", r.peakW, "W");
  add("Rated", type.kind === "supply" ? r.powerW : undefined, "W");
  add("Class", type.kind === "supply" ? (r.efficiency ?? "none") : undefined, "");
  add("Carries", r.cooledW, "W");
  add("Size", type.kind === "drive" || type.kind === "memory" ? r.sizeGb : undefined, "GB");
  add("Profile", r.profileMts, "MT/s");
  add("Default", r.defaultMts, "MT/s");
  add("Memory limit", r.limitMts, "MT/s");
  add("Firmware", r.firmware, "");
  add("Speed", r.rpm, "rpm");
  add("Noise", r.noiseDb, "dB(A)");
  add("Flow", r.flowM3h, "m³/h");
  add(type.kind === "card" ? "Length" : "Width", b.widthMm, "mm");
  add("Height", b.heightMm, "mm");
  add("Slots", type.kind === "card" ? b.slots : undefined, "");
  add("Depth", b.depthMm, "mm");
  const hangs = type.kind === "fan" || type.kind === "drive" || type.kind === "hub" || type.kind === "lighting" ? type.kind : undefined;
  const places = mounts.filter((m) => hangs && m.takes.includes(hangs));
  const mount = mounts.find((m) => m.id === part.mount);
  const place = (change: Record<string, unknown>) =>
    act.run(
      () => placePartAction({ number, part: part.id, ...change }),
      () => "Recorded.",
    );
  return (
    <div className="flex flex-col gap-3 border-t border-rule pt-3">
      <div>
        <h2 className="text-action font-[650]">{fullName(type)}</h2>
        <p className="text-soft">{part.label ?? KIND_WORD[type.kind]}</p>
      </div>
      {corrected ? (
        <div className="flex flex-col gap-1 text-second">
          <p>
            The shelf's entry was corrected: this job keeps revision {corrected.had}, the shelf has {corrected.now}.
          </p>
          <button
            type="button"
            className="key self-start"
            disabled={act.pending}
            onClick={() =>
              act.run(
                () => changePartAction({ number, part: part.id, type: part.type }),
                () => "Taken over. The plan is stale.",
              )
            }
          >
            Take revision {corrected.now}
          </button>
        </div>
      ) : null}
      {findings.map((f) => (
        <div key={f.id} className="flex gap-2 text-second">
          <span className="pt-0.5">
            <SeverityShape severity={f.severity} size={13} />
          </span>
          <div>
            <strong className="font-semibold">{SEVERITY_WORD[f.severity]}.</strong> {f.message}
            {(f.ways ?? []).map((w) => (
              <div key={w}>Way out: {w}</div>
            ))}
          </div>
        </div>
      ))}
      <dl className="grid grid-cols-[auto_1fr] gap-x-4">
        {numbers.map(([k, v]) => (
          <div key={k} className="contents">
            <dt className="text-soft">{k}</dt>
            <dd className="mono text-right">{v}</dd>
          </div>
        ))}
      </dl>
      {part.from === "client" ? (
        <div className="flex flex-wrap gap-2">
          <WhatIf number={number} part={part.id} parts={others} opened={trying} />
          <button
            type="button"
            className="key"
            disabled={act.pending}
            onClick={() =>
              act.run(
                () => removePartAction({ number, part: part.id }),
                () => "Removed. The plan is stale.",
              )
            }
          >
            Remove
          </button>
        </div>
      ) : null}
      {places.length > 0 ? (
        <label>
          <span className="block text-second text-soft">Where it hangs</span>
          <select className="field w-full" value={part.mount ?? ""} disabled={act.pending} onChange={(e) => place({ mount: e.target.value || null })}>
            <option value="">no mount yet</option>
            {places.map((m) => (
              <option key={m.id} value={m.id}>
                {m.label}
              </option>
            ))}
          </select>
        </label>
      ) : null}
      {part.from === "client" ? (
        <label className="flex min-h-9 items-center gap-2">
          <input type="checkbox" checked={part.reused === true} disabled={act.pending} onChange={(e) => place({ reused: e.target.checked })} />
          The client's own, used again
        </label>
      ) : null}
      {type.kind === "fan" ? (
        <label className="flex min-h-9 items-center gap-2">
          <input type="checkbox" checked={part.lowNoise === true} disabled={act.pending} onChange={(e) => place({ lowNoise: e.target.checked })} />
          Through its low-noise lead: quieter, less air
        </label>
      ) : null}
      {type.kind === "drive" ? (
        <label className="flex min-h-9 items-center gap-2">
          <input type="checkbox" checked={part.boot === true} disabled={act.pending} onChange={(e) => place({ boot: e.target.checked })} />
          The system starts from it
        </label>
      ) : null}
      {tubing ? (
        <label>
          <span className="block text-second text-soft">Tubes come out at</span>
          <select className="field w-full" value={part.tubes ?? ""} disabled={act.pending} onChange={(e) => place({ tubes: e.target.value || null })}>
            <option value="">proposed: the {tubing.end} end</option>
            {(["rear", "front"].includes(tubing.end) ? ["rear", "front"] : ["top", "bottom"]).map((end) => (
              <option key={end} value={end}>
                the {end} end
              </option>
            ))}
          </select>
        </label>
      ) : null}
      {type.kind === "card" && canStand ? (
        <button type="button" className="key self-start" disabled={act.pending} onClick={() => place({ vertical: !part.vertical })}>
          {part.vertical ? "Put it level on the board" : "Put it on the vertical mount"}
        </button>
      ) : null}
      {type.kind === "fan" && mount?.frame === "either" ? (
        <button
          type="button"
          className="key self-start"
          disabled={act.pending}
          onClick={() => place({ frame: part.frame === "outside" ? null : "outside" })}
        >
          {part.frame === "outside" ? "Move it inside the frame" : "Move it outside the frame"}
        </button>
      ) : null}
      <form
        className="flex items-end gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          act.run(
            () => changePartAction({ number, part: part.id, serial }),
            () => "Serial recorded.",
          );
        }}
      >
        <label className="min-w-0 flex-1">
          <span className="block text-second text-soft">Serial (scan or type)</span>
          <input className="field mono w-full" value={serial} maxLength={80} onChange={(e) => setSerial(e.target.value)} />
        </label>
        <button type="submit" className="key" disabled={act.pending || serial === (part.serial ?? "")}>
          Record
        </button>
      </form>
      <p role="status" className="text-second">
        {act.sentence}
      </p>
    </div>
  );
}

"use client";
import { fullName, measurable, type PartType } from "../../core/catalogue";
import type { Tubes } from "../../core/fit";
import { isSeated } from "../../core/intake";
import type { Facts } from "../../server/parts/facts";
import type { TipView } from "../../server/shelf/tips";
import type { JobView } from "../../server/views/job-view";
import type { PartsSlice } from "../../server/views/slices";
import { Button } from "../../ui/button";
import { cx } from "../../ui/cx";
import Link from "../../ui/link";
import { SEVERITY_WORD, SeverityShape } from "../../ui/marks";
import { useTyped } from "../../ui/use-typed";
import { changePartAction, measurePartAction, placePartAction, removePartAction } from "../actions/parts";
import { useAct } from "../frame/use-act";
import { KIND_WORD } from "../shared/kinds";
import { Piece } from "../shared/piece";
import { showedOf } from "../shared/showed";
import { Tips } from "../shared/tips";
import { PartDecisions } from "./part-decisions";
import { PartPhotos } from "./part-photos";
import { WhatIf } from "./what-if";

/** What is known of one part: its numbers, where it sits, its findings, another in its place, its serial. */
export function PartDetail({
  part,
  type,
  number,
  mounts,
  radiatorPlaces,
  radiatorAt,
  tubing,
  canStand,
  others,
  findings,
  photos,
  corrected,
  trying,
  facts,
  tips,
}: {
  part: JobView["build"]["parts"][number];
  type: PartType;
  number: string;
  mounts: PartType["body"]["mounts"];
  radiatorPlaces: PartType["body"]["radiatorPlaces"];
  /** Where this cooler's radiator hangs, if it does. */
  radiatorAt: string | undefined;
  tubing: Tubes | undefined;
  canStand: boolean;
  others: { id: string; name: string; type: string; kind: string }[];
  findings: JobView["findings"];
  photos: PartsSlice["photos"];
  corrected: { had: number; now: number } | undefined;
  trying: boolean;
  /** Of a part that joined a moment ago nothing is known. */
  facts: Facts | undefined;
  tips: readonly TipView[];
}) {
  const act = useAct();
  const serial = useTyped(part.serial ?? "");
  const label = useTyped(part.label ?? "");
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
  const places = mounts.filter((m) => hangs && !isSeated(type) && m.takes.includes(hangs));
  const mount = mounts.find((m) => m.id === part.mount);
  const place = (change: Record<string, unknown>) =>
    act.run(
      () => placePartAction({ number, part: part.id, ...change, saw: showedOf(part, change) }),
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
          <Button
            className="self-start"
            disabled={act.pending}
            onClick={() =>
              act.run(
                () => changePartAction({ number, part: part.id, type: part.type, saw: { type: part.type } }),
                () => "Taken over. The plan is stale.",
              )
            }
          >
            Take revision {corrected.now}
          </Button>
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
      {part.measured?.length ? (
        <section aria-label="Measured by hand" className="text-second">
          <p className="text-soft">
            Measured by hand on this part; it counts.{" "}
            <Link className="underline underline-offset-4" href={`/shelf/${encodeURIComponent(part.type)}`}>
              Correct the shelf
            </Link>
          </p>
          <ul>
            {part.measured.map((m) => {
              const word = measurable(type).find((x) => x.what === m.what)?.word ?? m.what;
              return (
                <li key={m.what} className="flex items-center gap-2">
                  <span className="flex-1">
                    {word}: <span className="mono">{m.mm} mm</span>
                  </span>
                  <Button
                    aria-label={`${word}: by the entry again`}
                    disabled={act.pending}
                    onClick={() =>
                      act.run(
                        () => measurePartAction({ number, part: part.id, what: m.what, mm: null, saw: { mm: m.mm } }),
                        () => "The entry counts again.",
                      )
                    }
                  >
                    By the entry
                  </Button>
                </li>
              );
            })}
          </ul>
        </section>
      ) : null}
      {part.from === "client" ? (
        <div className="flex flex-wrap gap-2">
          <WhatIf key={trying ? "asked" : "still"} number={number} part={part.id} parts={others} opened={trying} />
          <Button
            disabled={act.pending}
            onClick={() =>
              act.run(
                () => removePartAction({ number, part: part.id }),
                () => "Removed. The plan is stale.",
              )
            }
          >
            Remove
          </Button>
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
      {type.body.radiator && radiatorPlaces.length > 0 ? (
        <label>
          <span className="block text-second text-soft">Where its radiator hangs, its fans with it</span>
          <select className="field w-full" value={radiatorAt ?? ""} disabled={act.pending} onChange={(e) => place({ mount: e.target.value || null })}>
            {radiatorAt === undefined ? <option value="">no place takes it</option> : null}
            {radiatorPlaces.map((p) => (
              <option key={p.id} value={p.id}>
                at the {p.label}
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
      <PartDecisions part={part} type={type} pending={act.pending} place={place} cards={others.filter((o) => o.kind === "card")} />
      {type.kind === "card" && canStand ? (
        <Button className="self-start" disabled={act.pending} onClick={() => place({ vertical: !part.vertical })}>
          {part.vertical ? "Put it level on the board" : "Put it on the vertical mount"}
        </Button>
      ) : null}
      {type.kind === "fan" && mount?.frame === "either" ? (
        <Button className="self-start" disabled={act.pending} onClick={() => place({ frame: part.frame === "outside" ? null : "outside" })}>
          {part.frame === "outside" ? "Move it inside the frame" : "Move it outside the frame"}
        </Button>
      ) : null}
      <form
        className="flex items-end gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          act.run(
            () => changePartAction({ number, part: part.id, label: label.value, saw: { label: label.from } }),
            () => "Named.",
          );
        }}
      >
        <label className="min-w-0 flex-1">
          <span className="block text-second text-soft">Its name (empty: by its place)</span>
          <input className="field w-full" value={label.value} maxLength={60} onChange={(e) => label.set(e.target.value)} />
        </label>
        <Button type="submit" disabled={act.pending || label.value.trim() === (part.label ?? "")}>
          Name it
        </Button>
      </form>
      <form
        className="flex items-end gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          act.run(
            () => changePartAction({ number, part: part.id, serial: serial.value, saw: { serial: serial.from } }),
            () => "Serial recorded.",
          );
        }}
      >
        <label className="min-w-0 flex-1">
          <span className="block text-second text-soft">Serial (scan or type)</span>
          <input className="field mono w-full" value={serial.value} maxLength={80} onChange={(e) => serial.set(e.target.value)} />
        </label>
        <Button type="submit" disabled={act.pending || serial.value === (part.serial ?? "")}>
          Record
        </Button>
      </form>
      {facts ? <Piece number={number} part={part.id} name={type.name} facts={facts} /> : null}
      <Tips type={part.type} name={type.name} tips={tips} />
      <PartPhotos number={number} part={part.id} photos={photos} />
      {/* Seen wherever in the panel the hand is. */}
      <p role="status" className={cx("sticky -bottom-4 -mx-4 px-4", act.sentence && "border-t border-rule bg-sheet py-3")}>
        {act.sentence}
      </p>
    </div>
  );
}

"use client";
import { useMemo, useState } from "react";
import type { PartType } from "../../core/catalogue";
import { efficiencyPercent } from "../../core/power";
import type { JobView } from "../../server/views";
import { cx } from "../../ui/cx";
import { StateMark } from "../../ui/marks";
import { Meter } from "../../ui/meter";
import { useAct } from "../frame/use-act";
import { changePartAction } from "../job/actions";
import { CaseSection } from "./case-section";
import { fullName } from "./full-name";

const KIND_ORDER = [
  "board",
  "cpu",
  "cooler",
  "memory",
  "drive",
  "card",
  "supply",
  "case",
  "fan",
  "lighting",
  "hub",
  "usb-hub",
  "splitter",
  "extension",
  "adapter",
  "cable",
];
const KIND_WORD: Record<string, string> = {
  board: "Board",
  cpu: "CPU",
  cooler: "Cooler",
  memory: "Memory",
  drive: "Drive",
  card: "Card",
  supply: "Power supply",
  case: "Case",
  fan: "Fan",
  lighting: "Lighting",
  hub: "Hub",
  "usb-hub": "USB hub",
  splitter: "Splitter",
  extension: "Extension",
  adapter: "Adapter",
  cable: "Cables",
};

export function PartsScreen({
  view,
  alternatives,
}: {
  view: Pick<JobView, "build" | "head" | "plan" | "leads" | "draw">;
  alternatives: Record<string, { id: string; name: string }[]>;
}) {
  const types = useMemo(() => new Map(view.build.partTypes.map((t) => [t.id, t])), [view.build]);
  const parts = useMemo(
    () => [...view.build.parts].sort((a, b) => KIND_ORDER.indexOf(types.get(a.type)?.kind ?? "") - KIND_ORDER.indexOf(types.get(b.type)?.kind ?? "")),
    [view.build, types],
  );
  const [chosen, setChosen] = useState<string>(parts[0]?.id ?? "");
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
  return (
    <div className="flex min-h-0 min-w-0 flex-1">
      <section aria-label="Parts list" className="region w-[480px] shrink-0 border-r border-rule">
        <h1 className="flex h-12 items-center px-4 text-key font-[650]">{view.build.parts.length} parts</h1>
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
                  onClick={() => setChosen(p.id)}
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
      <section aria-label="The case, side section" className="flex min-w-0 flex-1 flex-col overflow-hidden border-r border-rule">
        <CaseSection build={view.build} chosen={chosen} onChoose={setChosen} />
      </section>
      <section aria-label="Numbers" className="region w-80 shrink-0 p-4">
        {part && type ? <PartDetail key={part.id} part={part} type={type} number={number} options={alternatives[type.kind] ?? []} /> : null}
        <h2 className="mb-1 mt-6 text-key font-[650]">Power supply</h2>
        <Meter label="Draw at peak" value={Math.round(view.draw.peakW)} most={view.draw.supplyW} unit="W" />
        <SupplyWords build={view.build} types={types} peakW={view.draw.peakW} supplyW={view.draw.supplyW} />
      </section>
    </div>
  );
}

function SupplyWords({ build, types, peakW, supplyW }: { build: JobView["build"]; types: Map<string, PartType>; peakW: number; supplyW: number }) {
  const supply = build.parts.map((p) => types.get(p.type)).find((t) => t?.kind === "supply");
  const share = supplyW > 0 ? peakW / supplyW : 0;
  const eff = efficiencyPercent(supply?.ratings.efficiency, share, build.policy.mainsV);
  return (
    <p className="mt-2 text-second">
      {Math.round(share * 100)} % of its rating
      {eff
        ? `, ${eff.toFixed(1)} % efficient there (${supply?.ratings.efficiency}, ${build.policy.mainsV} V): ${Math.round(peakW / (eff / 100))} W from the mains`
        : ""}
      .
    </p>
  );
}

function PartDetail({
  part,
  type,
  number,
  options,
}: {
  part: JobView["build"]["parts"][number];
  type: PartType;
  number: string;
  options: { id: string; name: string }[];
}) {
  const act = useAct();
  const [serial, setSerial] = useState(part.serial ?? "");
  const [other, setOther] = useState(part.type);
  const numbers: [string, string][] = [];
  const r = type.ratings;
  const add = (word: string, value: number | undefined, unit: string) => {
    if (value !== undefined) numbers.push([word, `${value} ${unit}`]);
  };
  add("Peak draw", r.peakW, "W");
  add("Rated", type.kind === "supply" ? r.powerW : undefined, "W");
  add("Memory", type.kind === "memory" ? r.sizeGb : undefined, "GB");
  add("Size", type.kind === "drive" ? r.sizeGb : undefined, "GB");
  add("Profile", r.profileMts, "MT/s");
  add("Default", r.defaultMts, "MT/s");
  add("Memory limit", r.limitMts, "MT/s");
  add("Speed", r.rpm, "rpm");
  add("Noise", r.noiseDb, "dB");
  add("Flow", r.flowM3h, "m³/h");
  add("Width", type.body.widthMm, "mm");
  add("Height", type.body.heightMm, "mm");
  add("Behind the tray", type.body.behindTrayMm, "mm");
  return (
    <div className="flex flex-col gap-3">
      <div>
        <h2 className="text-action font-[650]">{fullName(type)}</h2>
        <p className="text-soft">{part.label ?? KIND_WORD[type.kind]}</p>
      </div>
      <dl className="grid grid-cols-[auto_1fr] gap-x-4">
        {numbers.map(([k, v]) => (
          <div key={k} className="contents">
            <dt className="text-soft">{k}</dt>
            <dd className="mono text-right">{v}</dd>
          </div>
        ))}
      </dl>
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
      {part.from === "client" && options.length > 1 ? (
        <div className="flex items-end gap-2">
          <label className="min-w-0 flex-1">
            <span className="block text-second text-soft">Another in its place</span>
            <select className="field w-full" value={other} onChange={(e) => setOther(e.target.value)}>
              {[...(options.some((o) => o.id === part.type) ? [] : [{ id: part.type, name: type.name }]), ...options].map((o) => (
                <option key={o.id} value={o.id}>
                  {o.name}
                </option>
              ))}
            </select>
          </label>
          <button
            type="button"
            className="key"
            disabled={act.pending || other === part.type}
            onClick={() =>
              act.run(
                () => changePartAction({ number, part: part.id, type: other }),
                () => "Replaced. The plan is stale: plan the wiring again.",
              )
            }
          >
            Replace
          </button>
        </div>
      ) : null}
      <p role="status" className="text-second">
        {act.sentence}
      </p>
    </div>
  );
}

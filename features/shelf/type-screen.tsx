"use client";
import { useRouter } from "next/navigation";
import { useMemo, useState } from "react";
import { FAMILY_IDS, family, isProvisional, type PartType, PORT_ROLES, TYPICAL_KINDS, withFigure, withMeasured } from "../../core/catalogue";
import { groundOf } from "../../core/photo";
import type { ShelfEntry } from "../../server/shelf/search";
import { Button } from "../../ui/button";
import Link from "../../ui/link";
import { SeverityShape } from "../../ui/marks";
import { Toolbar, ToolbarKey } from "../../ui/toolbar";
import { saveTypeAction } from "../actions/shelf";
import { useDates } from "../frame/dates";
import { useAct } from "../frame/use-act";
import { ActSaid } from "../shared/act-said";
import { KIND_WORD } from "../shared/kinds";
import { Tips } from "../shared/tips";
import { CountingForm } from "./counting-form";
import { type Draft, draftOf, FIELDS, get, type Json, judgeDraft, put } from "./draft";
import { EntryChoice, EntryField, EntryRow } from "./entry-row";
import { IsAnother } from "./is-another";
import { MountingsForm, SocketCutout } from "./mountings-form";
import { PhotoGround } from "./photo-ground";
import { PlacesForm } from "./places-form";
import { roleWord } from "./role-words";
import { TypeDrawing } from "./type-drawing";

const list = (v: Json | undefined): Json[] => (Array.isArray(v) ? v : []);
const str = (v: Json | undefined) => (typeof v === "string" ? v : typeof v === "number" ? String(v) : "");

/** A part type: its numbers and ports in a form, the part drawn beside it, and the whole as JSON. */
export function TypeScreen({ entry, mayWithdraw = false }: { entry: ShelfEntry; mayWithdraw?: boolean }) {
  const dates = useDates();
  const [draft, setDraft] = useState<Draft>(() => draftOf(entry.type));
  const [look, setLook] = useState<"form" | "ports" | "places" | "json" | "count" | "photo">(entry.type.figures ? "count" : "form");
  const [text, setText] = useState("");
  const [chosen, setChosen] = useState("");
  const [because, setBecause] = useState("");
  const act = useAct();
  const router = useRouter();
  const ground = useMemo(() => {
    const { photo } = entry;
    const is = photo ? groundOf(photo.taps) : "";
    return photo && typeof is !== "string" ? { src: `/photos/${photo.id}`, width: photo.width, height: photo.height, is } : undefined;
  }, [entry]);
  const judged = useMemo(() => judgeDraft(draft), [draft]);
  /** What the draft was begun from. Somebody else's correction never takes a draft away: saving it is then refused in a sentence. */
  const [base, setBase] = useState(entry.type);
  const [saved, setSaved] = useState(0);
  const asNew = str(draft.id) !== entry.type.id;
  const changed = JSON.stringify(draft) !== JSON.stringify(draftOf(base));
  if (entry.type.revision !== base.revision && (!changed || entry.type.revision === saved)) {
    setBase(entry.type);
    setDraft(draftOf(entry.type));
    setBecause("");
  }
  const set = (path: (string | number)[], to: Json | undefined) => setDraft((d) => put(d, path, to) as Draft);
  const show = (next: typeof look) => {
    if (next === "json") setText(JSON.stringify(draft, null, 2));
    setLook(next);
  };
  const [jsonFault, setJsonFault] = useState("");
  const save = () =>
    act.run(
      async () => {
        const r = await saveTypeAction({ text: JSON.stringify(draft), ...(asNew ? {} : { from: base.revision }), because });
        if (r.ok && !asNew) setSaved(r.value.revision);
        if (r.ok && asNew) router.push(`/shelf/${encodeURIComponent(r.value.id)}`);
        return r;
      },
      (v) =>
        `Saved as revision ${v.revision}.${v.jobs.length > 0 ? ` ${v.jobs.join(", ")} keep the entry they were planned with, and are told.` : ""}`,
    );
  return (
    <main className="stage flex min-h-0 flex-1">
      <div className="cols">
        <section aria-label="The entry" className="flex w-[560px] shrink-0 @max-[1040px]/stage:w-[440px] flex-col border-r border-rule">
          <div className="shrink-0 border-b border-rule px-5 py-3">
            <p className="text-second">
              <Link className="underline underline-offset-4" href={`/shelf?kind=${entry.type.kind}`}>
                Shelf
              </Link>
              , {KIND_WORD[entry.type.kind]}, revision {entry.type.revision}
            </p>
            <h1 className="text-action font-[650]">{str(draft.name) || "without a name"}</h1>
            <Toolbar label="Parts of the entry" className="mt-2 gap-2">
              {(
                [
                  ...(entry.type.figures ? ([["count", "Counting card"]] as const) : []),
                  ["form", "Numbers"],
                  ...(draft.kind === "case" ? ([["places", "Places"]] as const) : ([["ports", `Ports, ${list(draft.ports).length}`]] as const)),
                  ...(draft.kind === "board" || draft.kind === "case" ? ([["photo", "Photo"]] as const) : []),
                  ["json", "Whole entry"],
                ] as const
              ).map(([id, word]) => (
                <ToolbarKey key={id} pressed={look === id} onClick={() => show(id)}>
                  {word}
                </ToolbarKey>
              ))}
            </Toolbar>
          </div>
          <div className="region min-h-0 flex-1 p-5">
            {look === "count" && judged.type?.figures ? (
              <CountingForm
                type={judged.type}
                onFigures={(values) => {
                  let next = judged.type as PartType;
                  try {
                    for (const [f, v] of Object.entries(values)) next = withFigure(next, f, v, "confirmed", { at: new Date().toISOString() });
                    setDraft(draftOf(next));
                  } catch {
                    // A value that no part can have: what was there stays.
                  }
                }}
                onNames={(names) => {
                  const t = judged.type as PartType;
                  const placed = { ...t.placed, ...Object.fromEntries(Object.entries(names).map(([p, label]) => [p, { ...t.placed?.[p], label }])) };
                  setDraft(draftOf({ ...t, placed, ports: t.ports.map((p) => (names[p.id] ? { ...p, label: names[p.id] as string } : p)) }));
                }}
              />
            ) : null}
            {look === "form" ? <Numbers draft={draft} kind={entry.type.kind} set={set} /> : null}
            {look === "ports" ? <Ports draft={draft} set={set} chosen={chosen} onChoose={setChosen} /> : null}
            {look === "places" ? <PlacesForm draft={draft} set={set} chosen={chosen} onChoose={setChosen} /> : null}
            {look === "photo" ? <PhotoGround type={entry.type} photo={entry.photo} /> : null}
            {look === "json" ? (
              <label className="flex h-full flex-col gap-1">
                <span className="text-second text-soft">Leads, cables and all the rest. {jsonFault}</span>
                <textarea
                  className="field mono min-h-0 w-full flex-1 text-second"
                  spellCheck={false}
                  value={text}
                  onChange={(e) => {
                    setText(e.target.value);
                    try {
                      setDraft(JSON.parse(e.target.value) as Draft);
                      setJsonFault("");
                    } catch {
                      setJsonFault("Not JSON yet: the last readable state is kept.");
                    }
                  }}
                />
              </label>
            ) : null}
          </div>
          <div className="shrink-0 border-t border-rule px-5 py-3">
            {judged.faults.length > 0 ? (
              <ul aria-label="What is not right yet" className="region mb-2 max-h-28 text-second">
                {judged.faults.map((f) => (
                  <li key={f}>{f}</li>
                ))}
              </ul>
            ) : null}
            {judged.odd.length > 0 ? (
              <ul aria-label="What contradicts itself" className="region mb-2 max-h-28 text-second">
                {judged.odd.map((f) => (
                  <li key={f} className="flex gap-2">
                    <SeverityShape severity="warn" size={13} />
                    <span>{f}</span>
                  </li>
                ))}
              </ul>
            ) : null}
            <ActSaid act={act} className="mb-2" />
            <div className="flex items-end gap-2">
              <label className="min-w-0 flex-1">
                <span className="block text-second text-soft">Why (stays with the revision)</span>
                <input className="field w-full" value={because} maxLength={500} onChange={(e) => setBecause(e.target.value)} />
              </label>
              <Button tone="mark" disabled={act.pending || !changed || judged.faults.length > 0} onClick={save}>
                {asNew ? "Save as a new part type" : `Save revision ${base.revision + 1}`}
              </Button>
            </div>
          </div>
        </section>
        <section aria-label="To scale" className="flex min-w-0 flex-1 flex-col gap-3 overflow-hidden p-5">
          <TypeDrawing
            draft={draft}
            chosen={chosen}
            onChoose={setChosen}
            ground={ground}
            onMove={(path, xMm, yMm) => {
              // Of a counted part the place is kept over a later count.
              const moved = path[0] === "ports" ? str(get(draft, ["ports", path[1] as number, "id"])) : "";
              if (entry.type.figures && moved) {
                set(["placed", moved, "xMm"], xMm);
                set(["placed", moved, "yMm"], yMm);
              }
              set([...path, "xMm"], xMm);
              set([...path, "yMm"], yMm);
            }}
          />
        </section>
        <section aria-label="Where it is used" className="region w-64 shrink-0 border-l border-rule p-4">
          <h2 className="text-key font-[650]">Used by</h2>
          {entry.usedBy.length === 0 ? <p className="text-second text-soft">No job yet.</p> : null}
          <ul className="mb-5 text-second">
            {entry.usedBy.map((j) => (
              <li key={j.number} className="border-t border-rule py-1.5">
                <Link className="underline underline-offset-4" href={`/job/${j.number}/parts`}>
                  <span className="mono">{j.number}</span> {j.title}
                </Link>
                {j.revision < entry.type.revision ? <span className="block text-soft">with revision {j.revision}</span> : null}
              </li>
            ))}
          </ul>
          {entry.measured.length > 0 ? (
            <section aria-label="Measured by hand" className="mb-5">
              <h2 className="text-key font-[650]">Measured by hand</h2>
              <ul className="text-second">
                {entry.measured.map((m) => (
                  <li key={`${m.number} ${m.part} ${m.what}`} className="border-t border-rule py-1.5">
                    {m.word}: <span className="mono">{m.mm} mm</span> at <span className="mono">{m.number}</span> ({m.part}).{" "}
                    {m.says === null ? "The entry does not say." : `The entry says ${m.says} mm.`}
                    <Button
                      className="mt-1"
                      disabled={!judged.type}
                      onClick={() => {
                        if (!judged.type) return;
                        setDraft(draftOf(withMeasured(judged.type, [m])));
                        setBecause(`${m.word} measured at ${m.number}: ${m.mm} mm.`);
                      }}
                    >
                      Put {m.mm} mm in
                    </Button>
                  </li>
                ))}
              </ul>
            </section>
          ) : null}
          <div className="mb-5">
            <Tips type={entry.type.id} name={entry.type.name} tips={entry.tips} mayWithdraw={mayWithdraw} />
          </div>
          {judged.type && isProvisional(entry.type) ? <IsAnother type={entry.type} /> : null}
          <h2 className="text-key font-[650]">Revisions</h2>
          {entry.revisions.length === 0 ? <p className="text-second text-soft">As it came with the demo shelf.</p> : null}
          <ol className="mb-5 text-second">
            {entry.revisions.map((r) => (
              <li key={r.revision} className="border-t border-rule py-1.5">
                <span className="mono">{r.revision}</span> {r.by}, {dates.day(r.at)}
                {r.because ? <span className="block text-soft">{r.because}</span> : null}
              </li>
            ))}
          </ol>
          {TYPICAL_KINDS.includes(entry.type.kind) ? (
            <Link className="key mb-2 no-underline" href={`/shelf/new?like=${encodeURIComponent(entry.type.id)}`}>
              Count one like it
            </Link>
          ) : null}
          <a className="key no-underline" download href={`/files/shelf/${encodeURIComponent(entry.type.id)}`}>
            As a file, with tips and photo
          </a>
        </section>
      </div>
    </main>
  );
}

function Numbers({
  draft,
  kind,
  set,
}: {
  draft: Draft;
  kind: ShelfEntry["type"]["kind"];
  set: (path: (string | number)[], to: Json | undefined) => void;
}) {
  const fields = FIELDS[kind] ?? [];
  return (
    <div className="grid grid-cols-2 gap-x-5 gap-y-3">
      <label className="col-span-2">
        <span className="block text-second text-soft">Id (another id saves a new part type)</span>
        <input className="field mono w-full" value={str(draft.id)} maxLength={80} onChange={(e) => set(["id"], e.target.value)} />
      </label>
      <label>
        <span className="block text-second text-soft">Maker</span>
        <input className="field w-full" value={str(draft.maker)} maxLength={80} onChange={(e) => set(["maker"], e.target.value)} />
      </label>
      <label>
        <span className="block text-second text-soft">Name</span>
        <input className="field w-full" value={str(draft.name)} maxLength={120} onChange={(e) => set(["name"], e.target.value)} />
      </label>
      {fields.map((f) => (
        <label key={f.path.join(".")}>
          <span className="block text-second text-soft">
            {f.word}
            {f.unit ? `, ${f.unit}` : ""}
          </span>
          <input
            className="field mono w-full"
            type="number"
            step="any"
            value={str(get(draft, f.path))}
            onChange={(e) => set(f.path, e.target.value === "" ? undefined : Number(e.target.value))}
          />
        </label>
      ))}
      {kind === "case" ? <SocketCutout draft={draft} set={set} /> : null}
      {kind === "cooler" ? <MountingsForm draft={draft} set={set} /> : null}
    </div>
  );
}

function Ports({
  draft,
  set,
  chosen,
  onChoose,
}: {
  draft: Draft;
  set: (path: (string | number)[], to: Json | undefined) => void;
  chosen: string;
  onChoose: (path: string) => void;
}) {
  const ports = list(draft.ports);
  const add = () => {
    const last = ports.at(-1) ?? { id: "PORT_0", label: "PORT_0", family: "fan-4", flow: "out", role: "case-fan", at: { xMm: 10, yMm: 10 } };
    const taken = new Set(ports.map((p) => str(get(p, ["id"]))));
    let n = ports.length + 1;
    while (taken.has(`PORT_${n}`)) n++;
    const id = `PORT_${n}`;
    set(["ports", ports.length], {
      ...(last as Draft),
      id,
      label: id,
      at: { xMm: (get(last, ["at", "xMm"]) as number) + 12, yMm: get(last, ["at", "yMm"]) ?? 10 },
      displaces: [],
    });
    onChoose(`ports.${ports.length}.at`);
  };
  return (
    <div>
      <Button className="mb-3" onClick={add}>
        Add a port like the last
      </Button>
      <ul className="flex flex-col">
        {ports.map((p, i) => {
          const key = `ports.${i}.at`;
          const on = key === chosen;
          const field = (word: string, path: string[], width: string, number = false) => (
            <EntryField word={word} value={get(p, path)} width={width} number={number} onChange={(to) => set(["ports", i, ...path], to)} />
          );
          return (
            <EntryRow
              key={key}
              item={p}
              name={<span className="mono w-28 shrink-0">{str(get(p, ["label"]))}</span>}
              detail={familyWord(str(get(p, ["family"])))}
              on={on}
              onToggle={() => onChoose(on ? "" : key)}
            >
              {field("Id", ["id"], "w-28")}
              {field("As printed", ["label"], "w-28")}
              <EntryChoice
                word="Family"
                value={str(get(p, ["family"]))}
                width="w-36"
                options={FAMILY_IDS}
                wordOf={familyWord}
                onChange={(v) => set(["ports", i, "family"], v)}
              />
              <EntryChoice
                word="Role"
                value={str(get(p, ["role"]))}
                width="w-36"
                options={PORT_ROLES}
                wordOf={roleWord}
                onChange={(v) => set(["ports", i, "role"], v)}
              />
              {field("x, mm", ["at", "xMm"], "w-20", true)}
              {field("y, mm", ["at", "yMm"], "w-20", true)}
              {field("Limit, A", ["limit", "currentA"], "w-20", true)}
              {get(p, ["family"]) === "m2" ? field("PCIe generation", ["link", "generation"], "w-32", true) : null}
              {get(p, ["family"]) === "m2" ? field("Lanes", ["link", "lanes"], "w-20", true) : null}
              <Button onClick={() => set(["ports", i], undefined)}>Remove</Button>
            </EntryRow>
          );
        })}
      </ul>
    </div>
  );
}

function familyWord(id: string): string {
  return (FAMILY_IDS as readonly string[]).includes(id) ? family(id).name : id;
}

"use client";
import { useRouter } from "next/navigation";
import { useEffect, useRef, useState } from "react";
import { DISPLAY_SOCKETS } from "../../core/catalogue";
import type { ListRow } from "../../core/intake";
import { readCsv, type Table } from "../../core/table";
import type { ListAnswer } from "../../server/job/read-list";
import { Button } from "../../ui/button";
import { ChooseFile } from "../../ui/choose-file";
import { Fold } from "../../ui/fold";
import { newJobAction } from "../actions/intake";
import { ask } from "../frame/ask";
import { readTextFile } from "../frame/read-text-file";
import { useAct } from "../frame/use-act";
import { pickedSchools, SCHOOLS, type SchoolId } from "../shared/schools";
import { type Columns, guessColumns, pastedRows, rowsOf } from "./csv";
import { Pick, Text } from "./fields";
import { Understood } from "./understood";

/** So long after the last key the pasted list is read. */
const READ_AFTER_MS = 600;

const serialsOf = (row: { serial?: string }) => (row.serial ? { serials: [row.serial] } : {});

/** A new job in under a minute: who, what for, until when; parts from an earlier job, a pasted list or a CSV file. */
/** Resolutions of monitors in common use. */
const SIZES = ["1920x1080", "2560x1440", "3440x1440", "3840x2160", "5120x1440", "5120x2880"];
const monitorOf = (f: { screens: string; size: string; hz: string; socket: string }) => {
  const [widthPx, heightPx] = f.size.split("x").map(Number);
  return { count: Math.min(8, Number(f.screens)), widthPx, heightPx, hz: Number(f.hz), socket: f.socket };
};

export function IntakeScreen({ earlier }: { earlier: { number: string; title: string; client: string }[] }) {
  const router = useRouter();
  const act = useAct();
  const [form, setForm] = useState({
    client: "",
    title: "",
    purpose: "",
    dueOn: "",
    budget: "",
    noiseDb: "",
    lighting: "indifferent",
    copyOf: "",
    screens: "",
    size: "1920x1080",
    hz: "60",
    socket: "DisplayPort",
  });
  const [wireless, setWireless] = useState(false);
  const [pasted, setPasted] = useState("");
  const [table, setTable] = useState<{ name: string; table: Table; columns: Columns } | null>(null);
  const [answer, setAnswer] = useState<ListAnswer | null>(null);
  // What was chosen for a line stays with its words, and "client's own" with the part type, however often the list is read.
  const [chosen, setChosen] = useState<Record<string, string>>({});
  const [own, setOwn] = useState<ReadonlySet<string>>(new Set());
  const [readOf, setReadOf] = useState("");
  const [schools, setSchools] = useState<Partial<Record<SchoolId, string>>>({});
  const [faults, setFaults] = useState<string[]>([]);
  const set = (k: keyof typeof form, v: string) => setForm((f) => ({ ...f, [k]: v }));

  const judge = (rows: ListRow[], said: string[]) => {
    setFaults(said);
    if (rows.length === 0) {
      setAnswer(null);
      return;
    }
    act.run(
      async () => {
        const r = await ask("job.read-list", { rows });
        if (r.ok) setAnswer(r.value);
        return r;
      },
      (v) => `${v.matched.length} of ${v.matched.length + v.aside.length} lines understood.`,
    );
  };
  const readPasted = (text: string) => {
    setTable(null);
    setReadOf(text);
    judge(pastedRows(text), []);
  };
  // The list is read by itself once the hands rest, so that it is never lost whatever is pressed next.
  const latest = useRef(readPasted);
  latest.current = readPasted;
  useEffect(() => {
    if (pasted === readOf || (pasted.trim() === "" && readOf === "")) return;
    const wait = setTimeout(() => latest.current(pasted), READ_AFTER_MS);
    return () => clearTimeout(wait);
  }, [pasted, readOf]);
  const first = useRef<HTMLInputElement>(null);
  useEffect(() => first.current?.focus(), []);
  const file = async (f: File) => {
    const text = await readTextFile(f, "a parts list");
    const read = text.ok ? readCsv(text.text) : text;
    if (!read.ok) {
      setFaults([read.sentence]);
      return;
    }
    const columns = guessColumns(read.table);
    setTable({ name: f.name, table: read.table, columns });
    const r = rowsOf(read.table, columns);
    judge(r.rows, r.faults);
  };
  const columns = (c: Columns) => {
    if (!table) return;
    setTable({ ...table, columns: c });
    const r = rowsOf(table.table, c);
    judge(r.rows, r.faults);
  };
  const make = () =>
    act.run(async () => {
      let list = answer;
      if (!table && pasted.trim() !== "" && pasted !== readOf) {
        const read = await ask("job.read-list", { rows: pastedRows(pasted) });
        if (!read.ok) return read;
        list = read.value;
        setAnswer(list);
        setReadOf(pasted);
      }
      const rescued = (list?.aside ?? []).flatMap((a) =>
        chosen[a.text] ? [{ type: chosen[a.text] as string, count: Math.max(1, a.count), ...serialsOf(a) }] : [],
      );
      const r = await newJobAction({
        client: form.client,
        title: form.title,
        purpose: form.purpose,
        dueOn: form.dueOn || null,
        lighting: form.lighting,
        ...(form.budget ? { budget: Number(form.budget) } : {}),
        ...(form.noiseDb ? { noiseDb: Number(form.noiseDb) } : {}),
        wireless,
        ...(Number(form.screens) > 0 ? { monitors: [monitorOf(form)] } : {}),
        ...(form.copyOf ? { copyOf: form.copyOf } : {}),
        policy: pickedSchools(schools),
        parts: [
          ...(list?.matched ?? []).map((m) => ({
            type: m.type,
            count: Math.min(20, m.count),
            ...serialsOf(m),
            reused: own.has(m.type),
          })),
          ...rescued,
        ],
        aside: (list?.aside ?? [])
          .filter((a) => !chosen[a.text])
          .map((a) => `Line ${a.line}: ${a.count > 1 ? `${a.count} × ` : ""}${a.text}${a.serial ? `, serial ${a.serial}` : ""}`),
      });
      if (r.ok) router.push(`/job/${r.value}/parts`);
      return r;
    });
  return (
    <main className="stage flex min-h-0 flex-1">
      <div className="cols">
        <form
          className="region flex w-[420px] shrink-0 @max-[1040px]/stage:w-[340px] flex-col gap-3 overflow-y-auto border-r border-rule p-6"
          onSubmit={(e) => {
            e.preventDefault();
            make();
          }}
        >
          <h1 className="text-action font-[650]">New job</h1>
          <Text word="Client" value={form.client} most={120} onChange={(v) => set("client", v)} needed focus={first} />
          <Text word="The machine, in two or three words" value={form.title} most={120} onChange={(v) => set("title", v)} needed />
          <Text word="What it is for" value={form.purpose} most={300} onChange={(v) => set("purpose", v)} />
          <div className="grid grid-cols-2 gap-3">
            <label>
              <span className="block text-second text-soft">Due</span>
              <input className="field mono w-full" type="date" value={form.dueOn} onChange={(e) => set("dueOn", e.target.value)} />
            </label>
            <label>
              <span className="block text-second text-soft">Budget</span>
              <input className="field mono w-full" type="number" min={0} value={form.budget} onChange={(e) => set("budget", e.target.value)} />
            </label>
            <label>
              <span className="block text-second text-soft">Lighting</span>
              <select className="field w-full" value={form.lighting} onChange={(e) => set("lighting", e.target.value)}>
                <option value="indifferent">no matter</option>
                <option value="none">none, please</option>
                <option value="wanted">wanted</option>
              </select>
            </label>
            <label>
              <span className="block text-second text-soft">Loudest, dB(A)</span>
              <input
                className="field mono w-full"
                type="number"
                min={10}
                max={80}
                value={form.noiseDb}
                onChange={(e) => set("noiseDb", e.target.value)}
              />
            </label>
          </div>
          <fieldset className="grid grid-cols-2 gap-3">
            <legend className="text-second text-soft">Monitors: how many, resolution, Hz, socket</legend>
            <input
              className="field mono w-full"
              aria-label="How many monitors"
              type="number"
              min={0}
              max={8}
              value={form.screens}
              onChange={(e) => set("screens", e.target.value)}
            />
            <Pick word="Resolution" value={form.size} options={SIZES} onChange={(v) => set("size", v)} />
            <Pick word="Refresh, Hz" value={form.hz} options={["60", "75", "100", "120", "144", "165", "240"]} onChange={(v) => set("hz", v)} />
            <Pick word="Socket" value={form.socket} options={DISPLAY_SOCKETS} onChange={(v) => set("socket", v)} />
          </fieldset>
          <label className="flex items-center gap-2">
            <input type="checkbox" checked={wireless} onChange={() => setWireless((w) => !w)} />
            Wireless network wanted
          </label>
          <label>
            <span className="block text-second text-soft">Parts and ways of working of an earlier job</span>
            <select className="field w-full" value={form.copyOf} onChange={(e) => set("copyOf", e.target.value)}>
              <option value="">none: an empty list</option>
              {earlier.map((j) => (
                <option key={j.number} value={j.number}>
                  {j.number} {j.title}, {j.client}
                </option>
              ))}
            </select>
          </label>
          <Fold word={<>Done otherwise than usual{form.copyOf ? ` or than in ${form.copyOf}` : ""}</>}>
            <div className="flex flex-col gap-3 pt-2">
              {SCHOOLS.map((s) => (
                <label key={s.id}>
                  <span className="block text-second text-soft">{s.word}</span>
                  <select
                    className="field w-full"
                    value={schools[s.id] ?? ""}
                    onChange={(e) => setSchools((x) => ({ ...x, [s.id]: e.target.value }))}
                  >
                    <option value="">as usual</option>
                    {s.options.map(([id, word]) => (
                      <option key={id} value={id}>
                        {word}
                      </option>
                    ))}
                  </select>
                </label>
              ))}
            </div>
          </Fold>
          <p role="status" className="text-second">
            {act.sentence}
            {act.more.map((m) => (
              <span key={m} className="block">
                {m}
              </span>
            ))}
          </p>
          <Button tone="mark" type="submit" className="mt-auto" disabled={act.pending}>
            Make the job
          </Button>
        </form>
        <section aria-label="Parts list" className="region flex min-w-0 flex-1 flex-col gap-3 p-6">
          <div>
            <h2 className="text-key font-[650]">Parts, from a list</h2>
            <p className="text-second text-soft">
              What no part type of the shelf answers to is kept aside with the job, in its own words. More can be added later.
            </p>
          </div>
          <div className="flex items-start gap-4">
            <label className="min-w-0 flex-1">
              <span className="block text-second text-soft">Pasted: a part on each line, as 2 x Name or Name (2); sizes and kinds as they come</span>
              <textarea className="field mono w-full" rows={5} value={pasted} maxLength={200_000} onChange={(e) => setPasted(e.target.value)} />
            </label>
            <div className="flex flex-col gap-2 pt-5">
              <Button disabled={act.pending || pasted.trim() === ""} onClick={() => readPasted(pasted)}>
                Read the list
              </Button>
              <ChooseFile word="Choose a CSV file" accept=".csv,text/csv,text/plain" onFile={(f) => void file(f)} />
            </div>
          </div>
          {table ? (
            <fieldset className="flex flex-wrap items-end gap-3">
              <legend className="text-second text-soft">Columns of {table.name}</legend>
              {(["part", "count", "serial"] as const).map((what) => (
                <label key={what}>
                  <span className="block text-second text-soft">{what === "part" ? "Part" : what === "count" ? "Count" : "Serial"}</span>
                  <select
                    className="field"
                    value={table.columns[what] ?? ""}
                    onChange={(e) =>
                      columns({ ...table.columns, [what]: e.target.value === "" ? (what === "part" ? 0 : null) : Number(e.target.value) })
                    }
                  >
                    {what === "part" ? null : <option value="">none</option>}
                    {table.table.columns.map((c, i) => (
                      <option key={`${String(i)}${c}`} value={i}>
                        {c}
                      </option>
                    ))}
                  </select>
                </label>
              ))}
            </fieldset>
          ) : null}
          {faults.length > 0 ? (
            <div className="text-second" role="alert">
              <ul>
                {faults.slice(0, 20).map((f) => (
                  <li key={f}>{f}</li>
                ))}
              </ul>
            </div>
          ) : null}
          {answer ? (
            <Understood
              answer={answer}
              chosen={chosen}
              onChoose={(text, id) => setChosen((c) => ({ ...c, [text]: id }))}
              own={own}
              onOwn={(type) =>
                setOwn((o) => {
                  const next = new Set(o);
                  if (!next.delete(type)) next.add(type);
                  return next;
                })
              }
            />
          ) : null}
        </section>
      </div>
    </main>
  );
}

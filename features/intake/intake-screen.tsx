"use client";
import { useRouter } from "next/navigation";
import { useEffect, useRef, useState } from "react";
import { DISPLAY_SOCKETS } from "../../core/catalogue";
import type { Fix, ListRow } from "../../core/intake";
import { readCsv, type Table } from "../../core/table";
import type { ListAnswer } from "../../server/job/read-list";
import type { MailAnswer } from "../../server/job/read-mail";
import { Button } from "../../ui/button";
import { ChooseFile } from "../../ui/choose-file";
import { Fold } from "../../ui/fold";
import { newJobAction } from "../actions/intake";
import { ask } from "../frame/ask";
import { readTextFile } from "../frame/read-text-file";
import { useAct } from "../frame/use-act";
import { ActSaid } from "../shared/act-said";
import { pickedSchools, SCHOOLS, type SchoolId } from "../shared/schools";
import { type Columns, guessColumns, rowsOf } from "./csv";
import { dropDraft, keepDraft, keptDraft, withFix } from "./draft";
import { Pick, Text } from "./fields";
import { MailLines, summary, Verdict } from "./mail-lines";
import { Understood } from "./understood";

/** So long after the last key or correction the mail is read. */
const READ_AFTER_MS = 500;

const serialsOf = (row: { serial?: string }) => (row.serial ? { serials: [row.serial] } : {});

/** A new job in under a minute: who, what for, until when; parts from an earlier job, a pasted list or a CSV file. */
/** Resolutions of monitors in common use. */
const SIZES = ["1920x1080", "2560x1440", "3440x1440", "3840x2160", "5120x1440", "5120x2880"];
const monitorOf = (f: { screens: string; size: string; hz: string; socket: string }) => {
  const [widthPx, heightPx] = f.size.split("x").map(Number);
  return { count: Math.min(8, Number(f.screens)), widthPx, heightPx, hz: Number(f.hz), socket: f.socket };
};

const EMPTY = {
  client: "",
  title: "",
  purpose: "",
  phone: "",
  dueOn: "",
  dueHour: "",
  duePromised: "",
  budget: "",
  machines: "1",
  noiseDb: "",
  lighting: "indifferent",
  copyOf: "",
  screens: "",
  size: "1920x1080",
  hz: "60",
  socket: "DisplayPort",
};

export function IntakeScreen({ earlier }: { earlier: { number: string; title: string; client: string }[] }) {
  const router = useRouter();
  const act = useAct();
  const [form, setForm] = useState(EMPTY);
  const [wireless, setWireless] = useState(false);
  const [text, setText] = useState("");
  const [fixes, setFixes] = useState<Fix[]>([]);
  const [mail, setMail] = useState<MailAnswer | null>(null);
  const [said, setSaid] = useState("");
  /** Read line by line, or the text itself. */
  const [shown, setShown] = useState(false);
  const [touched, setTouched] = useState<ReadonlySet<string>>(new Set());
  const [table, setTable] = useState<{ name: string; table: Table; columns: Columns } | null>(null);
  const [answer, setAnswer] = useState<ListAnswer | null>(null);
  // What was chosen for a line stays with its words, and "client's own" with the part type, however often the list is read.
  const [chosen, setChosen] = useState<Record<string, string>>({});
  const [own, setOwn] = useState<ReadonlySet<string>>(new Set());
  const [schools, setSchools] = useState<Partial<Record<SchoolId, string>>>({});
  const [faults, setFaults] = useState<string[]>([]);
  const set = (k: keyof typeof form, v: string) => {
    setTouched((t) => new Set([...t, k]));
    setForm((f) => ({ ...f, [k]: v }));
  };

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
  // The mail is read by itself once the hands rest, and again with every correction.
  useEffect(() => {
    if (text.trim() === "") {
      setMail(null);
      return;
    }
    const stop = new AbortController();
    const wait = setTimeout(async () => {
      try {
        const r = await ask("job.read-mail", { text, fixes }, stop.signal);
        setSaid(r.ok ? r.value.faults.join(" ") : r.sentence);
        if (r.ok) setMail(r.value);
      } catch (e) {
        if (!stop.signal.aborted)
          setSaid(e instanceof TypeError ? "No answer from the server. What you pasted stays here; it is read once the network is back." : String(e));
      }
    }, READ_AFTER_MS);
    return () => {
      clearTimeout(wait);
      stop.abort();
    };
  }, [text, fixes]);
  // What the mail says stands in the form until somebody types there.
  useEffect(() => {
    if (!mail) return;
    const says: Partial<typeof form> = {
      client: mail.client.name ?? "",
      phone: mail.client.phone ?? "",
      dueOn: mail.due?.day ?? "",
      dueHour: mail.due?.hour ?? "",
      budget: mail.budget === undefined ? "" : String(mail.budget),
      machines: String(Math.min(20, mail.machines)),
      noiseDb: String(mail.promises.find((p) => p.about === "quiet" && p.value !== undefined)?.value ?? ""),
      ...(mail.monitors[0]
        ? {
            screens: String(mail.monitors[0].count),
            size: SIZES.find((x) => x === `${mail.monitors[0]?.widthPx}x${mail.monitors[0]?.heightPx}`) ?? "1920x1080",
            hz: String(mail.monitors[0].hz),
          }
        : {}),
    };
    setForm((f) => ({ ...f, ...Object.fromEntries(Object.entries(says).filter(([k, v]) => !touched.has(k) && v !== "")) }));
  }, [mail, touched]);
  useEffect(() => {
    const kept = keptDraft();
    if (!kept) return;
    setText(kept.text);
    setFixes(kept.fixes);
    setTouched(new Set(kept.touched));
    setForm((f) => ({ ...f, ...Object.fromEntries(Object.entries(kept.form).filter(([k]) => k in f)) }));
    setShown(kept.text !== "");
  }, []);
  useEffect(() => {
    keepDraft({ text, fixes, form, touched: [...touched] });
  }, [text, fixes, form, touched]);
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
      const list = table ? answer : null;
      const rescued = (list?.aside ?? []).flatMap((a) =>
        chosen[a.text] ? [{ type: chosen[a.text] as string, count: Math.max(1, a.count), ...serialsOf(a) }] : [],
      );
      const r = await newJobAction({
        client: form.client,
        title: form.title,
        purpose: form.purpose,
        phone: form.phone,
        dueOn: form.dueOn || null,
        ...(form.dueOn && form.dueHour ? { dueHour: form.dueHour } : {}),
        duePromised: form.duePromised === "yes",
        machines: Math.max(1, Math.min(20, Math.round(Number(form.machines)) || 1)),
        ...(text.trim() === "" ? {} : { mail: { text, fixes } }),
        lighting: form.lighting,
        ...(form.budget ? { budget: Number(form.budget) } : {}),
        ...(form.noiseDb ? { noiseDb: Number(form.noiseDb) } : {}),
        wireless,
        ...(Number(form.screens) > 0
          ? { monitors: [monitorOf(form), ...(mail?.monitors ?? []).slice(1).map((m) => ({ ...m, socket: form.socket }))] }
          : {}),
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
      if (r.ok) {
        dropDraft();
        router.push(`/job/${r.value}/parts${mail && mail.assumed > 0 ? "?show=matters" : ""}`);
      }
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
          <Text word="Telephone" value={form.phone} most={60} onChange={(v) => set("phone", v)} />
          <div className="grid grid-cols-2 gap-3">
            <label>
              <span className="block text-second text-soft">Due</span>
              <input className="field mono w-full" type="date" value={form.dueOn} onChange={(e) => set("dueOn", e.target.value)} />
            </label>
            <label>
              <span className="block text-second text-soft">At what hour</span>
              <input className="field mono w-full" type="time" value={form.dueHour} onChange={(e) => set("dueHour", e.target.value)} />
            </label>
            <label className="col-span-2">
              <span className="block text-second text-soft">The moment is</span>
              <select className="field w-full" value={form.duePromised} onChange={(e) => set("duePromised", e.target.value)}>
                <option value="">wished by the client</option>
                <option value="yes">promised by us</option>
              </select>
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
            <label>
              <span className="block text-second text-soft">Equal machines, a job each</span>
              <input
                className="field mono w-full"
                type="number"
                min={1}
                max={20}
                value={form.machines}
                onChange={(e) => set("machines", e.target.value)}
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
            <Pick
              word="Refresh, Hz"
              value={form.hz}
              options={[...new Set(["60", "75", "100", "120", "144", "165", "240", form.hz])]}
              onChange={(v) => set("hz", v)}
            />
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
          <ActSaid act={act} />
          <Button tone="mark" type="submit" className="mt-auto" disabled={act.pending}>
            Make the job
          </Button>
        </form>
        <section aria-label="Parts list" className="region flex min-w-0 flex-1 flex-col gap-3 p-6">
          <div className="flex items-center gap-3">
            <h2 className="flex-1 text-key font-[650]">
              {mail && shown ? summary(mail, form.budget ? Number(form.budget) : undefined) : "What the client wrote"}
            </h2>
            {shown ? (
              <Button onClick={() => setShown(false)}>Change the text</Button>
            ) : (
              <Button disabled={text.trim() === ""} onClick={() => setShown(true)}>
                Read the list
              </Button>
            )}
            {text === "" ? null : (
              <Button
                onClick={() => {
                  dropDraft();
                  setText("");
                  setFixes([]);
                  setTouched(new Set());
                  setForm(EMPTY);
                  setShown(false);
                }}
              >
                Begin anew
              </Button>
            )}
            <ChooseFile word="Choose a CSV file" accept=".csv,text/csv,text/plain" onFile={(f) => void file(f)} />
          </div>
          {shown ? null : (
            <label className="flex min-h-0 flex-col">
              <span className="block text-second text-soft">
                Pasted as it came: a mail, a table, a list. What is no part stays with the job in the client's own words.
              </span>
              <textarea
                className="field mono w-full"
                rows={14}
                value={text}
                maxLength={200_000}
                onChange={(e) => {
                  setTable(null);
                  setText(e.target.value);
                }}
                onPaste={() => setTimeout(() => setShown(true), 0)}
              />
            </label>
          )}
          <p role="status" className="text-second">
            {said || (mail && !shown ? summary(mail, form.budget ? Number(form.budget) : undefined) : "")}
          </p>
          {mail && shown ? (
            <>
              <Verdict answer={mail} />
              <MailLines answer={mail} onFix={(f) => setFixes((all) => withFix(all, f))} />
            </>
          ) : null}
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

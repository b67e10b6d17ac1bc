"use client";
import { useRouter } from "next/navigation";
import { useEffect, useMemo, useState } from "react";
import { contradictions, counted, type FigureValue, type PartKind, type PartType, TYPICAL_KINDS } from "../../core/catalogue";
import { Button } from "../../ui/button";
import Link from "../../ui/link";
import { SeverityShape } from "../../ui/marks";
import { saveTypeAction } from "../actions/shelf";
import { useAct } from "../frame/use-act";
import { ActSaid } from "../shared/act-said";
import { KIND_WORD } from "../shared/kinds";
import { CountingForm } from "./counting-form";
import { draftOf } from "./draft";
import { TypeDrawing } from "./type-drawing";

type Placed = NonNullable<PartType["placed"]>;
interface Kept {
  kind: PartKind;
  maker: string;
  name: string;
  given: Record<string, FigureValue>;
  placed: Placed;
}
const KEY = "imbra:new-type";

/** An id out of maker and name, as those of the shelf are. */
const idOf = (maker: string, name: string): string =>
  `${maker} ${name}`
    .normalize("NFKD")
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-+|-+$/g, "")
    .slice(0, 80);

/** A part type that the shelf lacks, counted while the part lies there; half done it stays over a reload. */
export function NewTypeScreen({ asked, alike, by }: { asked: string; alike: PartType | null; by: string }) {
  const kind: PartKind = TYPICAL_KINDS.find((k) => k === asked) ?? "board";
  const router = useRouter();
  const act = useAct();
  const [form, setForm] = useState<Kept>({ kind, maker: alike?.maker ?? "", name: "", given: {}, placed: alike?.placed ?? {} });
  const [chosen, setChosen] = useState("");
  useEffect(() => {
    try {
      const was = JSON.parse(sessionStorage.getItem(KEY) ?? "null") as Kept | null;
      if (was?.kind === kind && !alike) setForm(was);
    } catch {
      // Nothing that can be read: a new one begins.
    }
  }, [kind, alike]);
  useEffect(() => {
    if (form.name || Object.keys(form.given).length > 0) sessionStorage.setItem(KEY, JSON.stringify(form));
  }, [form]);
  const id = idOf(form.maker, form.name);
  const made = useMemo((): { type?: PartType; fault?: string } => {
    try {
      const head = { id: id || "new", maker: form.maker, name: form.name || "without a name", revision: 1, placed: form.placed };
      return { type: counted(form.kind, head, form.given, { alike: alike ?? undefined, by, at: new Date().toISOString() }) };
    } catch {
      return { fault: "One of these values cannot be. Look at what you changed last." };
    }
  }, [form, id, alike, by]);
  const [last, setLast] = useState<PartType>();
  useEffect(() => {
    if (made.type) setLast(made.type);
  }, [made.type]);
  const type = made.type ?? last;
  const draft = useMemo(() => (type ? draftOf(type) : undefined), [type]);
  const odd = useMemo(() => (type ? contradictions(type) : []), [type]);
  const at = /^(ports|body\.mounts)\.(\d+)\.at$/.exec(chosen);
  const port = type && at ? (at[1] === "ports" ? type.ports : type.body.mounts)[Number(at[2])] : undefined;
  const place = (portId: string, to: Placed[string]) => setForm((f) => ({ ...f, placed: { ...f.placed, [portId]: { ...f.placed[portId], ...to } } }));
  const save = () =>
    act.run(
      async () => {
        if (!made.type) return { ok: false as const, sentence: made.fault ?? "" };
        const r = await saveTypeAction({
          text: JSON.stringify(made.type),
          because: alike ? `Counted; the rest as ${alike.name} has it.` : "Counted.",
        });
        if (r.ok) {
          sessionStorage.removeItem(KEY);
          router.push(`/shelf/${encodeURIComponent(r.value.id)}`);
        }
        return r;
      },
      () => "On the shelf.",
    );
  return (
    <main className="stage flex min-h-0 flex-1">
      <div className="cols">
        <section aria-label="Counting card" className="flex w-[560px] shrink-0 @max-[1040px]/stage:w-[460px] flex-col border-r border-rule">
          <div className="shrink-0 border-b border-rule px-5 py-3">
            <p className="text-second">
              <Link className="underline underline-offset-4" href="/shelf">
                Shelf
              </Link>
              {alike ? `, like ${alike.name}` : ""}
            </p>
            <h1 className="text-action font-[650]">New part type</h1>
            <div className="mt-1 grid grid-cols-[9rem_1fr_1fr] gap-2">
              <label>
                <span className="block text-second text-soft">Kind</span>
                <select
                  className="field w-full"
                  value={form.kind}
                  disabled={alike !== null}
                  onChange={(e) => router.replace(`/shelf/new?kind=${e.target.value}`)}
                >
                  {TYPICAL_KINDS.map((k) => (
                    <option key={k} value={k}>
                      {KIND_WORD[k] ?? k}
                    </option>
                  ))}
                </select>
              </label>
              <label>
                <span className="block text-second text-soft">Maker</span>
                <input
                  className="field w-full"
                  value={form.maker}
                  maxLength={80}
                  onChange={(e) => setForm((f) => ({ ...f, maker: e.target.value }))}
                />
              </label>
              <label>
                <span className="block text-second text-soft">Name</span>
                <input
                  className="field w-full"
                  value={form.name}
                  maxLength={120}
                  onChange={(e) => setForm((f) => ({ ...f, name: e.target.value }))}
                />
              </label>
            </div>
          </div>
          <div className="region min-h-0 flex-1 p-5">
            {type ? (
              <CountingForm
                type={type}
                onFigures={(values) => setForm((f) => ({ ...f, given: { ...f.given, ...values } }))}
                onNames={(names) =>
                  setForm((f) => ({
                    ...f,
                    placed: { ...f.placed, ...Object.fromEntries(Object.entries(names).map(([p, label]) => [p, { ...f.placed[p], label }])) },
                  }))
                }
              />
            ) : null}
          </div>
          <div className="shrink-0 border-t border-rule px-5 py-3">
            {odd.length > 0 ? (
              <ul aria-label="What contradicts itself" className="region mb-2 max-h-28 text-second">
                {odd.map((f) => (
                  <li key={f} className="flex gap-2">
                    <SeverityShape severity="warn" size={13} />
                    <span>{f}</span>
                  </li>
                ))}
              </ul>
            ) : null}
            <div className="flex items-center gap-3">
              <ActSaid act={act} className="min-w-0 flex-1">
                {made.fault || (id ? <span className="mono text-soft">{id}</span> : "Give it a name.")}
              </ActSaid>
              <Button tone="mark" disabled={act.pending || form.name.trim() === "" || !made.type} onClick={save}>
                Put it on the shelf
              </Button>
            </div>
          </div>
        </section>
        <section aria-label="To scale" className="flex min-w-0 flex-1 flex-col gap-3 overflow-hidden p-5">
          {draft ? (
            <TypeDrawing
              draft={draft}
              chosen={chosen}
              onChoose={setChosen}
              marked={odd}
              onMove={(path, xMm, yMm) => {
                const list = path[0] === "ports" ? type?.ports : type?.body.mounts;
                const moved = list?.[Number(path[path.length - 2])];
                if (moved && xMm >= 0 && yMm >= 0) place(moved.id, { xMm, yMm });
              }}
            />
          ) : null}
          {port ? (
            <p className="flex items-center gap-3">
              <label htmlFor="printed" className="text-second text-soft">
                As printed
              </label>
              <input
                id="printed"
                className="field mono w-48"
                value={port.label}
                maxLength={60}
                onChange={(e) => place(port.id, { label: e.target.value || port.id })}
              />
              <span className="text-second text-soft">Arrow keys move it 1 mm, with Shift 10.</span>
            </p>
          ) : (
            <p className="text-second text-soft">
              {["board", "case"].includes(form.kind) ? "Where such parts usually have them. Press one to name or move it." : ""}
            </p>
          )}
        </section>
      </div>
    </main>
  );
}

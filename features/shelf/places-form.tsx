"use client";
import { Button } from "../../ui/button";
import { type Draft, get, type Json } from "./draft";
import { EntryChoice, EntryField, EntryRow } from "./entry-row";

const text = (v: Json | undefined) => (typeof v === "string" ? v : typeof v === "number" ? String(v) : "");
const list = (v: Json | undefined): Json[] => (Array.isArray(v) ? v : []);

interface Kind {
  key: "mounts" | "cutouts" | "tiePoints";
  title: string;
  one: string;
  fresh: Draft;
  /** A field with few answers beside the place itself. */
  choice?: { path: string; word: string; options: readonly string[] };
}

const KINDS: readonly Kind[] = [
  {
    key: "mounts",
    title: "Mounts",
    one: "mount",
    fresh: { region: "front", takes: ["fan"], sizeMm: 120 },
    choice: { path: "region", word: "Region", options: ["front", "top", "rear", "bottom", "side", "behind-tray"] },
  },
  { key: "cutouts", title: "Cut-outs of the tray", one: "cut-out", fresh: {} },
  {
    key: "tiePoints",
    title: "Tie points",
    one: "tie point",
    fresh: { side: "rear" },
    choice: { path: "side", word: "Side of the tray", options: ["front", "rear"] },
  },
];

/** The places of a case: mounts, cut-outs and tie points, each by its numbers; the drawing beside moves them too. */
export function PlacesForm({
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
  return (
    <div className="flex flex-col gap-5">
      {KINDS.map((k) => {
        const items = list(get(draft, ["body", k.key]));
        const add = () => {
          const taken = new Set(items.map((p) => text(get(p, ["id"]))));
          let n = items.length + 1;
          while (taken.has(`${k.one.replace(/\W/g, "-")}-${n}`)) n++;
          const last = (items.at(-1) ?? k.fresh) as Draft;
          const at = { xMm: Number(get(last, ["at", "xMm"]) ?? 40) + 15, yMm: Number(get(last, ["at", "yMm"]) ?? 40) };
          set(["body", k.key, items.length], { ...last, id: `${k.one.replace(/\W/g, "-")}-${n}`, label: `${k.one} ${n}`, at });
          onChoose(`body.${k.key}.${items.length}.at`);
        };
        return (
          <section key={k.key} aria-label={k.title}>
            <div className="flex items-center gap-3 pb-1">
              <h2 className="flex-1 font-semibold">
                {k.title}, {items.length}
              </h2>
              <Button onClick={add}>Add a {k.one}</Button>
            </div>
            <ul>
              {items.map((p, i) => {
                const path = `body.${k.key}.${i}.at`;
                const on = path === chosen;
                const field = (word: string, at: string[], width: string, number = false) => (
                  <EntryField word={word} value={get(p, at)} width={width} number={number} onChange={(to) => set(["body", k.key, i, ...at], to)} />
                );
                const choice = k.choice;
                return (
                  <EntryRow
                    key={path}
                    item={p}
                    name={<span className="min-w-0 truncate">{text(get(p, ["label"]))}</span>}
                    detail={choice ? text(get(p, [choice.path])).replace("-", " ") : ""}
                    on={on}
                    onToggle={() => onChoose(on ? "" : path)}
                  >
                    {field("Id", ["id"], "w-28")}
                    {field("Name", ["label"], "w-36")}
                    {field("x, mm", ["at", "xMm"], "w-20", true)}
                    {field("y, mm", ["at", "yMm"], "w-20", true)}
                    {k.key === "mounts" ? field("Size, mm", ["sizeMm"], "w-20", true) : null}
                    {choice ? (
                      <EntryChoice
                        word={choice.word}
                        value={text(get(p, [choice.path]))}
                        width="w-32"
                        options={choice.options}
                        onChange={(to) => set(["body", k.key, i, choice.path], to)}
                      />
                    ) : null}
                    <Button onClick={() => set(["body", k.key, i], undefined)}>Remove</Button>
                  </EntryRow>
                );
              })}
            </ul>
          </section>
        );
      })}
    </div>
  );
}

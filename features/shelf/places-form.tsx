"use client";
import { Button } from "../../ui/button";
import { type Draft, get, type Json } from "./draft";
import { EntryChoice, EntryField, EntryRow } from "./entry-row";

const text = (v: Json | undefined) => (typeof v === "string" ? v : typeof v === "number" ? String(v) : "");
const list = (v: Json | undefined): Json[] => (Array.isArray(v) ? v : []);

interface Kind {
  key: "mounts" | "cutouts" | "tiePoints" | "channels" | "bodies";
  title: string;
  one: string;
  fresh: Draft;
  /** Its place is its two ends. */
  ends?: true;
  /** Numbers beside the place. */
  sizes?: readonly (readonly [word: string, path: string])[];
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
  {
    key: "cutouts",
    title: "Cut-outs of the tray",
    one: "cut-out",
    fresh: {},
    sizes: [
      ["Width, mm", "widthMm"],
      ["Height, mm", "heightMm"],
    ],
  },
  {
    key: "channels",
    title: "Channels for leads",
    one: "channel",
    fresh: { side: "rear" },
    ends: true,
    choice: { path: "side", word: "Side of the tray", options: ["front", "rear"] },
  },
  {
    key: "bodies",
    title: "Cages and covers",
    one: "cage or cover",
    fresh: { kind: "cage", side: "front", widthMm: 100, heightMm: 60 },
    sizes: [
      ["Width, mm", "widthMm"],
      ["Height, mm", "heightMm"],
    ],
    choice: { path: "kind", word: "Kind", options: ["cage", "cover"] },
  },
  {
    key: "tiePoints",
    title: "Tie points",
    one: "tie point",
    fresh: { side: "rear" },
    choice: { path: "side", word: "Side of the tray", options: ["front", "rear"] },
  },
];

/** The places of a case: mounts, cut-outs, channels, cages, covers and tie points, each by its numbers; the drawing beside moves them too. */
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
          const from = k.ends ? "from" : "at";
          const at = { xMm: Number(get(last, [from, "xMm"]) ?? 40) + 15, yMm: Number(get(last, [from, "yMm"]) ?? 40) };
          const place: Draft = k.ends ? { from: at, to: { xMm: at.xMm, yMm: at.yMm + 120 } } : { at };
          set(["body", k.key, items.length], { ...last, id: `${k.one.replace(/\W/g, "-")}-${n}`, label: `${k.one} ${n}`, ...place });
          onChoose(`body.${k.key}.${items.length}.${from}`);
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
                const path = `body.${k.key}.${i}.${k.ends ? "from" : "at"}`;
                const on = path === chosen || chosen === `body.${k.key}.${i}.to`;
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
                    {k.ends ? (
                      <>
                        {field("from x, mm", ["from", "xMm"], "w-24", true)}
                        {field("from y, mm", ["from", "yMm"], "w-24", true)}
                        {field("to x, mm", ["to", "xMm"], "w-24", true)}
                        {field("to y, mm", ["to", "yMm"], "w-24", true)}
                      </>
                    ) : (
                      <>
                        {field("x, mm", ["at", "xMm"], "w-20", true)}
                        {field("y, mm", ["at", "yMm"], "w-20", true)}
                      </>
                    )}
                    {k.sizes?.map(([word, at]) => field(word, [at], "w-24", true))}
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

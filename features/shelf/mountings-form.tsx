"use client";
import { useState } from "react";
import { Button } from "../../ui/button";
import { type Draft, get, type Json } from "./draft";
import { EntryChoice, EntryField, EntryRow } from "./entry-row";

const list = (v: Json | undefined): Json[] => (Array.isArray(v) ? v : []);
const text = (v: Json | undefined) => (typeof v === "string" ? v : "");
const TURNS = [0, 90, 180, 270] as const;
const PLATE = { own: "its own behind the board", board: "the board's stays", none: "none" } as const;

/** Whether the tray is open behind the CPU socket: then a backplate goes on with the board in. */
export function SocketCutout({ draft, set }: { draft: Draft; set: (path: (string | number)[], to: Json | undefined) => void }) {
  const is = get(draft, ["body", "socketCutout"]);
  return (
    <EntryChoice
      word="Tray open behind the CPU socket"
      value={is === true ? "yes" : is === false ? "no" : "not known"}
      width=""
      options={["not known", "yes", "no"]}
      onChange={(to) => set(["body", "socketCutout"], to === "not known" ? undefined : to === "yes")}
    />
  );
}

/** How a cooler is fitted to each socket: what of its box, in which position, and which ways round its head may go. */
export function MountingsForm({ draft, set }: { draft: Draft; set: (path: (string | number)[], to: Json | undefined) => void }) {
  const items = list(get(draft, ["body", "mountings"]));
  const [on, setOn] = useState<number>();
  const at = (i: number, field: string): (string | number)[] => ["body", "mountings", i, field];
  return (
    <section aria-label="Mounting by socket" className="col-span-2">
      <div className="flex items-center gap-3 pb-1">
        <h2 className="flex-1 font-semibold">Mounting by socket, {items.length}</h2>
        <Button
          onClick={() => {
            const made: Draft = { socket: `socket ${items.length + 1}`, bracket: "bracket", backplate: "own" };
            if (items.length === 0) set(["body", "mountings"], [made]);
            else set(["body", "mountings", items.length], made);
            setOn(items.length);
          }}
        >
          Add a socket
        </Button>
      </div>
      <ul>
        {items.map((m, i) => {
          const turns = list(get(m, ["turns"])).map(Number);
          const field = (word: string, id: string, width: string) => (
            <EntryField word={word} value={get(m, [id])} width={width} onChange={(to) => set(at(i, id), to === "" ? undefined : to)} />
          );
          return (
            <EntryRow
              key={i}
              item={m}
              name={<span className="min-w-0 truncate">{text(get(m, ["socket"]))}</span>}
              detail={[text(get(m, ["bracket"])), text(get(m, ["position"]))].filter(Boolean).join(", ")}
              on={on === i}
              onToggle={() => setOn(on === i ? undefined : i)}
            >
              {field("Socket", "socket", "w-28")}
              {field("Bracket", "bracket", "w-44")}
              {field("Holes or marks", "position", "w-36")}
              {field("Spacers", "spacers", "w-36")}
              <EntryChoice
                word="Backplate"
                value={text(get(m, ["backplate"]))}
                width="w-48"
                options={Object.keys(PLATE)}
                wordOf={(o) => PLATE[o as keyof typeof PLATE]}
                onChange={(to) => set(at(i, "backplate"), to)}
              />
              <fieldset className="flex items-end gap-3">
                <legend className="text-second text-soft">Head may be turned by (none: any)</legend>
                {TURNS.map((t) => (
                  <label key={t} className="flex min-h-9 items-center gap-1">
                    <input
                      type="checkbox"
                      checked={turns.includes(t)}
                      onChange={(e) => {
                        const next = TURNS.filter((x) => (x === t ? e.target.checked : turns.includes(x)));
                        set(at(i, "turns"), next.length > 0 ? next : undefined);
                      }}
                    />
                    <span className="mono">{t}°</span>
                  </label>
                ))}
              </fieldset>
              <Button
                onClick={() => {
                  set(items.length === 1 ? ["body", "mountings"] : ["body", "mountings", i], undefined);
                  setOn(undefined);
                }}
              >
                Remove
              </Button>
            </EntryRow>
          );
        })}
      </ul>
    </section>
  );
}

"use client";
import type { ReactNode } from "react";
import { cx } from "../../ui/cx";
import { get, type Json } from "./draft";

const text = (v: Json | undefined) => (typeof v === "string" ? v : typeof v === "number" ? String(v) : "");

/** One port, mount, cut-out or tie point of an entry: a line that opens to its fields. */
export function EntryRow({
  item,
  name,
  detail,
  on,
  onToggle,
  children,
}: {
  item: Json;
  name: ReactNode;
  detail: string;
  on: boolean;
  onToggle: () => void;
  children: ReactNode;
}) {
  return (
    <li className={cx("bar-left border-b border-b-rule", on && "bg-sheet")} data-chosen={on}>
      <button type="button" className="flex min-h-9 w-full items-center gap-3 px-2 text-left" aria-expanded={on} onClick={onToggle}>
        {name}
        <span className="min-w-0 truncate text-second text-soft">{detail}</span>
        {get(item, ["at"]) ? (
          <span className="mono ml-auto shrink-0 text-second">
            {text(get(item, ["at", "xMm"]))}, {text(get(item, ["at", "yMm"]))} mm
          </span>
        ) : null}
      </button>
      {on ? <div className="flex flex-wrap items-end gap-2 p-2">{children}</div> : null}
    </li>
  );
}

/** One value of an entry. An emptied number is taken away, not 0. */
export function EntryField({
  word,
  value,
  width,
  number,
  onChange,
}: {
  word: string;
  value: Json | undefined;
  width: string;
  number?: boolean;
  onChange: (to: Json | undefined) => void;
}) {
  return (
    <label className={width}>
      <span className="block text-second text-soft">{word}</span>
      <input
        className="field mono w-full"
        type={number ? "number" : "text"}
        step="any"
        value={text(value)}
        onChange={(e) => onChange(number ? (e.target.value === "" ? undefined : Number(e.target.value)) : e.target.value)}
      />
    </label>
  );
}

/** One value out of a few. A value that is none of them is shown, so that nothing changes by looking. */
export function EntryChoice({
  word,
  value,
  width,
  options,
  wordOf,
  onChange,
}: {
  word: string;
  value: string;
  width: string;
  options: readonly string[];
  wordOf?: (option: string) => string;
  onChange: (to: string) => void;
}) {
  return (
    <label className={width}>
      <span className="block text-second text-soft">{word}</span>
      <select className="field w-full" value={value} onChange={(e) => onChange(e.target.value)}>
        {options.includes(value) ? null : <option value={value}>{value}</option>}
        {options.map((o) => (
          <option key={o} value={o}>
            {(wordOf?.(o) ?? o).replace(/-/g, " ")}
          </option>
        ))}
      </select>
    </label>
  );
}

import type { Ref } from "react";

export function Pick({ word, value, options, onChange }: { word: string; value: string; options: readonly string[]; onChange: (v: string) => void }) {
  return (
    <select className="field w-full" aria-label={word} value={value} onChange={(e) => onChange(e.target.value)}>
      {options.map((o) => (
        <option key={o} value={o}>
          {o.replace("x", " × ")}
        </option>
      ))}
    </select>
  );
}

export function Text({
  word,
  value,
  most,
  onChange,
  needed,
  focus,
}: {
  word: string;
  value: string;
  most: number;
  onChange: (v: string) => void;
  needed?: boolean;
  focus?: Ref<HTMLInputElement>;
}) {
  return (
    <label>
      <span className="block text-second text-soft">{word}</span>
      <input ref={focus} className="field w-full" value={value} maxLength={most} required={needed} onChange={(e) => onChange(e.target.value)} />
    </label>
  );
}

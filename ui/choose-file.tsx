"use client";
import { cx } from "./cx";

/** A key that asks for a file. The same file may be chosen again after it was changed. */
export function ChooseFile({ word, accept, onFile, className }: { word: string; accept: string; onFile: (f: File) => void; className?: string }) {
  return (
    <label className={cx("key cursor-pointer focus-within:outline-3 focus-within:outline-offset-2 focus-within:outline-ink", className)}>
      {word}
      <input
        type="file"
        accept={accept}
        className="sr-only"
        onChange={(e) => {
          const file = e.target.files?.[0];
          if (file) onFile(file);
          e.target.value = "";
        }}
      />
    </label>
  );
}

"use client";
import { cx } from "./cx";

/** A key that asks for a file, or opens the camera. The same file may be chosen again after it was changed. */
export function ChooseFile({
  word,
  of,
  accept,
  capture = false,
  onFile,
  className,
}: {
  word: string;
  /** Of what, for who hears it. */
  of?: string;
  accept: string;
  capture?: boolean;
  onFile: (f: File) => void;
  className?: string;
}) {
  return (
    <label className={cx("key cursor-pointer focus-within:outline-3 focus-within:outline-offset-2 focus-within:outline-ink", className)}>
      {word}
      {of ? <span className="sr-only">: {of}</span> : null}
      <input
        type="file"
        accept={accept}
        {...(capture ? { capture: "environment" as const } : {})}
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

"use client";
import { type ComponentProps, type ReactNode, useId } from "react";
import { cx } from "./cx";

interface Words {
  word: string;
  /** What to know before typing. */
  hint?: string | undefined;
  /** What is wrong with what was typed. */
  fault?: string | undefined;
  bench?: boolean | undefined;
}

function Around({ id, word, hint, fault, bench, children, className }: Words & { id: string; children: ReactNode; className?: string | undefined }) {
  return (
    <div className={cx("flex min-w-0 flex-col gap-1", bench && "gap-2 text-bench", className)}>
      <label htmlFor={id} className={bench ? "" : "text-second"}>
        {word}
      </label>
      {children}
      {hint ? (
        <p id={`${id}-hint`} className={cx("text-soft", !bench && "text-second")}>
          {hint}
        </p>
      ) : null}
      {fault ? (
        <p id={`${id}-fault`} className={cx("font-semibold text-stop", !bench && "text-second")}>
          {fault}
        </p>
      ) : null}
    </div>
  );
}

const told = (id: string, { hint, fault }: Words) => ({
  "aria-describedby": [hint ? `${id}-hint` : "", fault ? `${id}-fault` : ""].filter(Boolean).join(" ") || undefined,
  "aria-invalid": fault ? true : undefined,
});
const look = (bench?: boolean) => (bench ? "min-h-20 w-full rounded-md border-2 border-edge bg-sheet px-4 text-bench text-ink" : "field w-full");

/** One line to type, under its word. */
export function Field({ word, hint, fault, bench, className, ...rest }: ComponentProps<"input"> & Words) {
  const own = useId();
  const id = rest.id ?? own;
  return (
    <Around {...{ id, word, hint, fault, bench, className }}>
      <input {...rest} {...told(id, { word, hint, fault })} id={id} className={look(bench)} />
    </Around>
  );
}

/**
 * One of a few words. The system's own list: it opens large under a finger, on every width, and every screen reader knows it.
 */
export function Select({ word, hint, fault, bench, className, children, ...rest }: ComponentProps<"select"> & Words) {
  const own = useId();
  const id = rest.id ?? own;
  return (
    <Around {...{ id, word, hint, fault, bench, className }}>
      <select {...rest} {...told(id, { word, hint, fault })} id={id} className={look(bench)}>
        {children}
      </select>
    </Around>
  );
}

"use client";
import { Slot } from "radix-ui";
import type { ComponentProps, MouseEvent } from "react";
import { cx } from "./cx";

interface Look {
  /** `mark`: the one next action of a screen. */
  tone?: "plain" | "mark" | undefined;
  /** At the bench: large, for a gloved thumb. */
  bench?: boolean;
  /** Gives its looks to its only child, such as a link. */
  asChild?: boolean;
}

const stop = (e: MouseEvent) => {
  e.preventDefault();
  e.stopPropagation();
};

/**
 * Something to press. Says with words what it does; a picture beside them is hidden from readers. Disabled it does nothing, but keeps the
 * focus that it has: what was pressed and is at work stays where the hand is.
 */
export function Button({
  tone = "plain",
  bench = false,
  asChild = false,
  className,
  type,
  disabled,
  onClick,
  ...rest
}: ComponentProps<"button"> & Look) {
  const Element = asChild ? Slot.Root : "button";
  return (
    <Element
      className={cx(bench ? "key-bench" : "key", tone === "mark" && !bench && "key-mark", className)}
      {...(bench && tone === "mark" ? { "data-done": "mark" } : {})}
      {...(asChild ? {} : { type: type ?? "button" })}
      {...(disabled ? { "aria-disabled": true } : {})}
      onClick={disabled ? stop : onClick}
      {...rest}
    />
  );
}

"use client";
import { Slot } from "radix-ui";
import type { ComponentProps } from "react";
import { cx } from "./cx";

interface Look {
  /** `mark`: the one next action of a screen. */
  tone?: "plain" | "mark";
  /** At the bench: large, for a gloved thumb. */
  bench?: boolean;
  /** Gives its looks to its only child, such as a link. */
  asChild?: boolean;
}

/** Something to press. Says with words what it does; a picture beside them is hidden from readers. */
export function Button({ tone = "plain", bench = false, asChild = false, className, type, ...rest }: ComponentProps<"button"> & Look) {
  const Element = asChild ? Slot.Root : "button";
  const look = bench ? "key-bench !min-h-20 px-6" : cx("key", tone === "mark" && "key-mark");
  return (
    <Element
      className={cx(look, className)}
      {...(bench && tone === "mark" ? { "data-done": "mark" } : {})}
      {...(asChild ? {} : { type: type ?? "button" })}
      {...rest}
    />
  );
}

"use client";
import { Toolbar as Radix } from "radix-ui";
import type { ComponentProps } from "react";
import { cx } from "./cx";

/** Keys that belong together, one stop of the Tab key: arrows move among them. */
export function Toolbar({ label, className, ...rest }: ComponentProps<typeof Radix.Root> & { label: string }) {
  return <Radix.Root aria-label={label} className={cx("flex items-center gap-2", className)} {...rest} />;
}

/** A key of a toolbar; `pressed` where it stays in. */
export function ToolbarKey({ pressed, className, ...rest }: ComponentProps<typeof Radix.Button> & { pressed?: boolean }) {
  return <Radix.Button className={cx("key shrink-0", className)} {...(pressed === undefined ? {} : { "aria-pressed": pressed })} {...rest} />;
}

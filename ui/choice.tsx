"use client";
import { Tabs as RadixTabs, Toolbar as RadixToolbar, ToggleGroup } from "radix-ui";
import type { ComponentProps, ReactNode } from "react";
import { cx } from "./cx";

export interface Option<V extends string> {
  value: V;
  word: ReactNode;
  disabled?: boolean;
}

/** One of a few, side by side: arrows move, what has the frame is chosen. There is always one. */
export function Choice<V extends string>({
  label,
  value,
  options,
  onChange,
  className,
  keyClass,
}: {
  label: string;
  value: V;
  options: readonly Option<V>[];
  onChange: (value: V) => void;
  className?: string;
  keyClass?: string;
}) {
  return (
    <ToggleGroup.Root
      type="single"
      aria-label={label}
      value={value}
      // Pressed again it stays: one of them is always so.
      onValueChange={(v) => v && onChange(v as V)}
      className={cx("flex gap-2", className)}
    >
      {options.map((o) => (
        <ToggleGroup.Item key={o.value} value={o.value} disabled={o.disabled ?? false} className={cx("key shrink-0", keyClass)}>
          {o.word}
        </ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  );
}

/** Keys that belong together, one stop of the Tab key: arrows move among them. */
export function Toolbar({ label, className, ...rest }: ComponentProps<typeof RadixToolbar.Root> & { label: string }) {
  return <RadixToolbar.Root aria-label={label} className={cx("flex items-center gap-2", className)} {...rest} />;
}

/** A key of a toolbar; `pressed` where it stays in. */
export function ToolbarKey({ pressed, className, ...rest }: ComponentProps<typeof RadixToolbar.Button> & { pressed?: boolean }) {
  return <RadixToolbar.Button className={cx("key shrink-0", className)} {...(pressed === undefined ? {} : { "aria-pressed": pressed })} {...rest} />;
}

/** Views of one thing, one shown: words on top, the view below. */
export function Tabs<V extends string>({
  label,
  value,
  options,
  onChange,
  className,
  barClass,
  children,
}: {
  label: string;
  value: V;
  options: readonly Option<V>[];
  onChange: (value: V) => void;
  className?: string;
  barClass?: string;
  children: ReactNode;
}) {
  return (
    <RadixTabs.Root value={value} onValueChange={(v) => onChange(v as V)} className={className}>
      <RadixTabs.List aria-label={label} className={cx("flex items-center gap-2", barClass)}>
        {options.map((o) => (
          <RadixTabs.Trigger key={o.value} value={o.value} className="key shrink-0 data-[state=active]:border-2 data-[state=active]:border-ink">
            {o.word}
          </RadixTabs.Trigger>
        ))}
      </RadixTabs.List>
      <RadixTabs.Content value={value} tabIndex={-1} className="flex min-h-0 flex-1 flex-col">
        {children}
      </RadixTabs.Content>
    </RadixTabs.Root>
  );
}

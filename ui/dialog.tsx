"use client";
import { Dialog as Radix } from "radix-ui";
import type { ReactNode } from "react";
import { Button } from "./button";
import { cx } from "./cx";

/**
 * A sheet over the page: title and key to close on top. Opened by `trigger`, or from outside by `open`; where it closes, focus goes back
 * to what had it. At the bench it takes the screen, at the desk it is as large as `className` says.
 */
export function Dialog({
  open,
  onOpenChange,
  trigger,
  title,
  close = "Close",
  bench = false,
  className,
  children,
}: {
  open?: boolean;
  onOpenChange?: (open: boolean) => void;
  trigger?: ReactNode;
  title: ReactNode;
  close?: string;
  bench?: boolean;
  className?: string;
  children: ReactNode;
}) {
  return (
    <Radix.Root {...(open === undefined ? {} : { open })} {...(onOpenChange ? { onOpenChange } : {})}>
      {trigger ? <Radix.Trigger asChild>{trigger}</Radix.Trigger> : null}
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-ground/80" />
        <Radix.Content
          aria-describedby={undefined}
          onOpenAutoFocus={(e) => {
            // Where there is something to type, it is typed there at once.
            const first = (e.currentTarget as HTMLElement).querySelector<HTMLElement>(
              "input:not([type=file]):not([type=checkbox]), textarea:not([data-last]), select",
            );
            if (!first) return;
            e.preventDefault();
            first.focus();
          }}
          className={cx(
            "fixed z-40 flex flex-col rounded border-2 border-ink bg-raised",
            bench
              ? "inset-3 mx-auto max-w-[960px] gap-5 overflow-auto p-4 text-bench sm:inset-6 sm:p-6"
              : "left-1/2 top-1/2 max-h-[94dvh] max-w-[96vw] -translate-x-1/2 -translate-y-1/2 gap-3 overflow-auto p-5",
            className,
          )}
        >
          <div className="flex items-center gap-3">
            <Radix.Title className={cx("flex-1", bench ? "text-bench-key font-bold" : "text-action font-[650]")}>{title}</Radix.Title>
            <Radix.Close asChild>
              <Button bench={bench}>{close}</Button>
            </Radix.Close>
          </div>
          {children}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}

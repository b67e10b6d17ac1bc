"use client";
import { Dialog } from "radix-ui";
import type { ReactNode } from "react";
import { cx } from "./cx";

/**
 * What a dialog shows, above everything that sticks to the page: title and key to close on top. Stands in a
 * `Dialog.Root` beside its trigger; `className` gives the size.
 */
export function Sheet({ title, close = "Close", className, children }: { title: string; close?: string; className: string; children: ReactNode }) {
  return (
    <Dialog.Portal>
      <Dialog.Overlay className="fixed inset-0 z-40 bg-ground/80" />
      <Dialog.Content
        aria-describedby={undefined}
        className={cx(
          "fixed left-1/2 top-1/2 z-40 flex max-w-[96vw] -translate-x-1/2 -translate-y-1/2 flex-col gap-3 rounded border-2 border-ink bg-raised p-5",
          className,
        )}
      >
        <div className="flex items-center gap-3">
          <Dialog.Title className="flex-1 text-action font-[650]">{title}</Dialog.Title>
          <Dialog.Close className="key">{close}</Dialog.Close>
        </div>
        {children}
      </Dialog.Content>
    </Dialog.Portal>
  );
}

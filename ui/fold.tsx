"use client";
import { Collapsible } from "radix-ui";
import type { ReactNode } from "react";
import { cx } from "./cx";

/** More of the same, folded away until asked for. */
export function Fold({ word, open, className, children }: { word: ReactNode; open?: boolean; className?: string; children: ReactNode }) {
  return (
    <Collapsible.Root defaultOpen={open ?? false} className={className}>
      <Collapsible.Trigger className={cx("group flex min-h-8 items-center gap-2 text-left underline-offset-4 hover:underline")}>
        <svg width="10" height="10" viewBox="0 0 10 10" aria-hidden className="shrink-0 group-data-[state=open]:rotate-90">
          <path d="M2 1l6 4-6 4z" fill="currentColor" />
        </svg>
        {word}
      </Collapsible.Trigger>
      <Collapsible.Content>{children}</Collapsible.Content>
    </Collapsible.Root>
  );
}

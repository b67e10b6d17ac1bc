"use client";
import { DropdownMenu } from "radix-ui";
import type { ReactNode } from "react";

export interface MenuItem {
  word: string;
  onSelect: () => void;
}

/** A key that opens a short list of things to do. */
export function Menu({ trigger, items }: { trigger: ReactNode; items: readonly MenuItem[] }) {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>{trigger}</DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="end" sideOffset={4} className="z-40 min-w-52 rounded border-2 border-ink bg-raised p-1">
          {items.map((i) => (
            <DropdownMenu.Item
              key={i.word}
              onSelect={i.onSelect}
              className="flex min-h-10 cursor-pointer items-center rounded px-3 outline-none data-[highlighted]:bg-ground data-[highlighted]:underline"
            >
              {i.word}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

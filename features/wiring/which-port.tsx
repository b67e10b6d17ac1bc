"use client";
import { Dialog } from "radix-ui";
import type { LeadRow } from "../../server/read/lead-rows";

/** A finger covers more than one port: ask in rows. */
export function WhichPort({
  ports,
  nameOf,
  leads,
  onPick,
  onClose,
}: {
  ports: string[];
  nameOf: (address: string) => string;
  leads: LeadRow[];
  onPick: (address: string) => void;
  onClose: () => void;
}) {
  return (
    <Dialog.Root
      open={ports.length > 0}
      onOpenChange={(open) => {
        if (!open) onClose();
      }}
    >
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-ground/60" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed left-1/2 top-1/2 z-40 flex max-h-[80vh] w-[420px] -translate-x-1/2 -translate-y-1/2 flex-col gap-2 overflow-auto rounded border-2 border-ink bg-raised p-4"
        >
          <Dialog.Title className="text-key font-[650]">Which one?</Dialog.Title>
          {ports.map((address) => {
            const here = leads.filter((l) => l.port === address);
            return (
              <button key={address} type="button" className="key !min-h-12 !justify-start text-left" onClick={() => onPick(address)}>
                <span className="mono">{nameOf(address)}</span>
                <span className="min-w-0 truncate font-normal text-soft">
                  {here.length === 0 ? "free" : here.map((l) => `${l.tag} ${l.name}`).join(", ")}
                </span>
              </button>
            );
          })}
          <Dialog.Close className="key self-end">Let go</Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

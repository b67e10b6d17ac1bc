"use client";
import type { LeadRow } from "../../server/views/lead-rows";
import { Button } from "../../ui/button";
import { Dialog } from "../../ui/dialog";

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
    <Dialog open={ports.length > 0} onOpenChange={(open) => !open && onClose()} title="Which one?" close="Let go" className="w-[420px]">
      <ul aria-label="Ports" className="flex flex-col gap-2">
        {ports.map((address) => {
          const here = leads.filter((l) => l.port === address);
          return (
            <li key={address}>
              <Button className="min-h-12 w-full justify-start text-left" onClick={() => onPick(address)}>
                <span className="mono">{nameOf(address)}</span>
                <span className="min-w-0 truncate font-normal text-soft">
                  {here.length === 0 ? "free" : here.map((l) => `${l.tag} ${l.name}`).join(", ")}
                </span>
              </Button>
            </li>
          );
        })}
      </ul>
    </Dialog>
  );
}

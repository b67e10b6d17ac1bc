"use client";
import { memo, useEffect, useRef } from "react";
import type { LeadRow } from "../../server/views";
import { cx } from "../../ui/cx";
import { LoomSwatch } from "../../ui/loom";
import { SeverityShape, StateMark } from "../../ui/marks";
import type { LeadGroup } from "./find-leads";

/** The leads in groups: where each goes, its state, and a mark when a finding concerns it. */
export const LeadList = memo(function LeadList({
  groups,
  chosen,
  onChoose,
  onTake,
}: {
  groups: LeadGroup[];
  chosen: string | null;
  onChoose: (address: string) => void;
  onTake: () => void;
}) {
  const box = useRef<HTMLDivElement>(null);
  const leads: LeadRow[] = groups.flatMap((g) => g.leads);
  useEffect(() => {
    box.current?.querySelector('[aria-selected="true"]')?.scrollIntoView({ block: "nearest" });
  }, [chosen]);
  const move = (by: number) => {
    const at = leads.findIndex((l) => l.address === chosen);
    const next = leads[Math.min(leads.length - 1, Math.max(0, at + by))];
    if (next) onChoose(next.address);
  };
  return (
    <div
      ref={box}
      role="listbox"
      tabIndex={0}
      aria-label="Leads"
      aria-activedescendant={chosen ? `lead-${chosen}` : undefined}
      className="region relative min-h-0 flex-1"
      onKeyDown={(e) => {
        if (e.key === "ArrowDown") {
          e.preventDefault();
          e.stopPropagation();
          move(1);
        }
        if (e.key === "ArrowUp") {
          e.preventDefault();
          e.stopPropagation();
          move(-1);
        }
        if (e.key === "Enter") {
          e.preventDefault();
          e.stopPropagation();
          onTake();
        }
      }}
    >
      {groups.map(({ key, name, loom, leads: mine }) => {
        return (
          <div key={key} role="group" aria-label={name}>
            <div className="sticky top-0 z-10 flex h-8 items-center gap-2 bg-ground px-4 font-semibold">
              {loom ? <LoomSwatch loom={loom} /> : null}
              <span className="min-w-0 truncate">{name}</span>
              <span className="text-second font-normal text-soft">
                {mine.filter((l) => l.port).length} of {mine.length}
              </span>
            </div>
            {mine.map((l) => (
              <Row key={l.address} l={l} chosen={chosen === l.address} onChoose={onChoose} />
            ))}
          </div>
        );
      })}
    </div>
  );
});

/** Rows outside the view keep their room and their place in the accessibility tree, and are laid out when scrolled to. */
const Row = memo(function Row({ l, chosen, onChoose }: { l: LeadRow; chosen: boolean; onChoose: (address: string) => void }) {
  return (
    <div
      id={`lead-${l.address}`}
      role="option"
      tabIndex={-1}
      aria-selected={chosen}
      data-chosen={chosen}
      onClick={() => onChoose(l.address)}
      className={cx(
        "bar-left late flex min-h-12 cursor-pointer items-center gap-2 border-b border-b-rule py-1 pl-3 pr-2 hover:bg-sheet",
        chosen && "bg-sheet",
      )}
    >
      <span className="mono w-12 shrink-0 text-second font-semibold">{l.tag}</span>
      <span className="min-w-0 flex-1">
        <span className="flex items-center gap-1.5">
          <span className="min-w-0 flex-1 truncate leading-5">{l.name}</span>
          {l.severity ? (
            <>
              <SeverityShape severity={l.severity} size={14} />
              <span className="sr-only">{l.severity}</span>
            </>
          ) : null}
        </span>
        <span className="flex items-center gap-2 text-second">
          <span className="min-w-0 flex-1 truncate text-soft">
            {l.portName ? (
              <>
                <span className="mono">{l.portName}</span>
                {l.plannedName ? ", not as planned" : ""}
                {l.fixed ? ", fixed" : ""}
              </>
            ) : l.need === "optional" ? (
              "no port, optional"
            ) : (
              "no port"
            )}
          </span>
          <StateMark state={l.state} size={13} />
        </span>
      </span>
    </div>
  );
});

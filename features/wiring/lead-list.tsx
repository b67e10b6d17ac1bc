"use client";
import { memo, useEffect, useRef } from "react";
import type { LeadRow } from "../../server/views/lead-rows";
import { cx } from "../../ui/cx";
import { LoomSwatch } from "../../ui/loom";
import { SeverityShape, StateMark } from "../../ui/marks";
import type { FoundPort, LeadGroup } from "./find-leads";

/** The leads in groups: where each goes, its state, and a mark when a finding concerns it. */
export const LeadList = memo(function LeadList({
  groups,
  ports,
  chosen,
  chosenPort,
  onChoose,
  onPort,
  onTake,
}: {
  groups: LeadGroup[];
  /** Ports with room, below the leads. */
  ports: FoundPort[];
  chosen: string | null;
  chosenPort: string | null;
  onChoose: (address: string) => void;
  onPort: (address: string) => void;
  onTake: () => void;
}) {
  const box = useRef<HTMLDivElement>(null);
  const rows = [
    ...groups.flatMap((g) => g.leads.map((l) => ({ address: l.address, choose: onChoose }))),
    ...ports.map((p) => ({ address: p.address, choose: onPort })),
  ];
  const at = rows.findIndex((r) => r.address === (chosen ?? chosenPort));
  useEffect(() => {
    if (chosen ?? chosenPort) box.current?.querySelector('[aria-selected="true"]')?.scrollIntoView({ block: "nearest" });
  }, [chosen, chosenPort]);
  const move = (by: number) => {
    const next = rows[Math.min(rows.length - 1, Math.max(0, at + by))];
    next?.choose(next.address);
  };
  return (
    <div
      ref={box}
      role="listbox"
      tabIndex={0}
      aria-label="Leads"
      aria-activedescendant={chosen ? `lead-${chosen}` : chosenPort && at >= 0 ? `port-${chosenPort}` : undefined}
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
      {ports.length > 0 ? (
        <div role="group" aria-label="Ports with room">
          <div className="sticky top-0 z-10 flex h-8 items-center bg-ground px-4 font-semibold">Ports with room</div>
          {ports.map((p) => (
            <div
              key={p.address}
              id={`port-${p.address}`}
              role="option"
              tabIndex={-1}
              aria-selected={chosenPort === p.address}
              data-chosen={chosenPort === p.address}
              onClick={() => onPort(p.address)}
              className={cx(
                "bar-left min-h-12 cursor-pointer border-b border-b-rule py-1 pl-3 pr-2 hover:bg-sheet",
                chosenPort === p.address && "bg-sheet",
              )}
            >
              <span className="mono block truncate leading-5">{p.name}</span>
              <span className="block truncate text-second text-soft">{p.kind}</span>
            </div>
          ))}
        </div>
      ) : null}
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

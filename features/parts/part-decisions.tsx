"use client";
import type { PartType } from "../../core/catalogue";
import type { JobView } from "../../server/views/job-view";

/** What is decided of how a part is fitted: where the drive cage stands, standoffs set, a bracket, a fan clipped higher. */
export function PartDecisions({
  part,
  type,
  pending,
  place,
  cards,
}: {
  part: JobView["build"]["parts"][number];
  type: PartType;
  pending: boolean;
  place: (change: Record<string, unknown>) => void;
  /** Cards that a cooler may be for. */
  cards: readonly { id: string; name: string }[];
}) {
  const { cagePlaces, maxSupplyMm, maxSupplyWithCageMm, formFactor, underMm } = type.body;
  const hasCage = type.kind === "case" && (cagePlaces.length > 0 || (maxSupplyMm ?? 0) > (maxSupplyWithCageMm ?? maxSupplyMm ?? 0));
  return (
    <>
      {hasCage ? (
        <label>
          <span className="block text-second text-soft">Drive cage</span>
          <select className="field w-full" value={part.cage ?? ""} disabled={pending} onChange={(e) => place({ cage: e.target.value || null })}>
            <option value="">{cagePlaces[0] ? `as it comes: at the ${cagePlaces[0].label}` : "in, as it comes"}</option>
            {cagePlaces.slice(1).map((c) => (
              <option key={c.id} value={c.id}>
                at the {c.label}
              </option>
            ))}
            <option value="out">taken out</option>
          </select>
        </label>
      ) : null}
      {type.kind === "case" ? (
        <label className="flex min-h-9 items-center gap-2">
          <input
            type="checkbox"
            checked={part.standoffsSet === true}
            disabled={pending}
            onChange={(e) => place({ standoffsSet: e.target.checked })}
          />
          Standoffs are set for this board
        </label>
      ) : null}
      {type.kind === "supply" && formFactor?.startsWith("SFX") ? (
        <label className="flex min-h-9 items-center gap-2">
          <input type="checkbox" checked={part.bracket === true} disabled={pending} onChange={(e) => place({ bracket: e.target.checked })} />
          On a bracket into a larger bay
        </label>
      ) : null}
      {type.kind === "cooler" && type.body.radiator ? (
        <label>
          <span className="block text-second text-soft">What it cools</span>
          <select
            className="field w-full"
            value={part.cools ?? "cpu"}
            disabled={pending}
            onChange={(e) => place({ cools: e.target.value === "cpu" ? null : e.target.value })}
          >
            <option value="cpu">the CPU</option>
            {cards.map((c) => (
              <option key={c.id} value={c.id}>
                {c.name}
              </option>
            ))}
            <option value="loop">a loop of several radiators</option>
          </select>
        </label>
      ) : null}
      {type.kind === "cooler" && underMm !== undefined ? (
        <label>
          <span className="block text-second text-soft">Front fan clipped higher by, mm</span>
          <input
            className="field mono w-28"
            type="number"
            min={0}
            max={80}
            defaultValue={part.fanUpMm ?? 0}
            disabled={pending}
            onBlur={(e) => {
              const mm = Number(e.target.value);
              if (mm !== (part.fanUpMm ?? 0)) place({ fanUpMm: mm > 0 ? mm : null });
            }}
          />
        </label>
      ) : null}
    </>
  );
}

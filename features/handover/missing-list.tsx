import type { Missing } from "../../core/handover";
import Link from "../../ui/link";
import { StateShape } from "../../ui/marks";

const WAY: Record<Exclude<Missing["where"], "handover">, string> = {
  parts: "To Parts",
  wiring: "To Wiring",
  bench: "To Bench",
  "first-boot": "To First boot",
  faults: "To Faults",
};

/** What keeps the machine here, in the order in which hands would do it. */
export function MissingList({ number, missing }: { number: string; missing: readonly Missing[] }) {
  if (missing.length === 0) return null;
  return (
    <ul aria-label="What keeps it here">
      {missing.map((m) => (
        <li key={m.id} className="flex items-start gap-3 border-t border-rule py-2">
          <span className="mt-1">
            <StateShape state={m.stays ? "wrong" : "free"} size={13} />
          </span>
          <span className="min-w-0 flex-1 [overflow-wrap:anywhere]">
            {m.what}
            {m.stays ? <span className="font-semibold"> It does not leave with that, whoever says so.</span> : null}
          </span>
          {m.where === "handover" ? (
            <span className="w-28 shrink-0 text-right text-second text-soft">on this page</span>
          ) : (
            <Link className="w-28 shrink-0 text-right underline underline-offset-4" href={`/job/${number}/${m.where}`}>
              {WAY[m.where]}
            </Link>
          )}
        </li>
      ))}
    </ul>
  );
}

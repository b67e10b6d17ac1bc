"use client";
import type { SessionView } from "../../server/people/views";
import { Button } from "../../ui/button";
import { useDates } from "../frame/dates";

/** Sign-ins that hold, each with a key that ends it. */
export function Sessions({
  list,
  names,
  disabled,
  onEnd,
}: {
  list: readonly SessionView[];
  names: boolean;
  disabled: boolean;
  onEnd: (s: SessionView) => void;
}) {
  const dates = useDates();
  if (list.length === 0) return <p>Nobody is signed in.</p>;
  return (
    <ul className="flex flex-col">
      {list.map((s) => (
        <li key={s.id} className="flex min-h-12 flex-wrap items-center gap-x-4 gap-y-1 border-b border-b-rule py-1">
          <span className="min-w-0 flex-1">
            {names ? <strong>{s.name}, </strong> : null}
            {s.label}
            {s.byPin ? ", by PIN" : ""}
            {s.openedBy ? `, signed in by ${s.openedBy}` : ""}
            {s.here ? ", this device" : ""}
            <span className="block text-second text-soft">
              since {dates.both(s.startedAt)}, last seen {dates.both(s.seenAt)}
            </span>
          </span>
          <Button disabled={disabled} onClick={() => onEnd(s)} aria-label={`End the sign-in of ${s.name} at ${s.label}`}>
            End
          </Button>
        </li>
      ))}
    </ul>
  );
}

import type { Moment } from "../../core/machine";
import { cx } from "../../ui/cx";

const when = (m: Moment) => (m.fromS < 0 ? "before" : m.fromS === m.toS ? `${m.fromS} s` : `${m.fromS}–${m.toS} s`);

/** What is seen and heard from the supply's switch to the picture, in order, as worked out from what is plugged. */
export function TenSeconds({ sequence }: { sequence: readonly Moment[] }) {
  return (
    <section aria-label="The first seconds" className="mt-4">
      <h3 className="font-semibold">The first seconds</h3>
      <ol>
        {sequence.map((m) => (
          <li key={m.id} className="grid grid-cols-[4.2rem_1fr] gap-2 border-t border-rule py-1.5 text-second">
            <span className="mono text-soft">{when(m)}</span>
            <span className={cx(!m.isWanted && "text-stop")}>{m.what}</span>
          </li>
        ))}
      </ol>
    </section>
  );
}

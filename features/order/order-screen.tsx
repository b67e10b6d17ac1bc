import type { JobView } from "../../server/read/job-view";
import Link from "../../ui/link";
import { StateMark } from "../../ui/marks";

/** The steps in the order that hands can follow, with what each covers and how long the rest takes. */
export function OrderScreen({ view }: { view: Pick<JobView, "steps" | "head" | "plan"> }) {
  const left = view.steps.filter((s) => !s.done);
  const minutes = left.reduce((n, s) => n + s.minutes, 0);
  return (
    <section aria-label="Order of work" tabIndex={0} className="region min-w-0 flex-1 px-6 py-4">
      <div className="flex items-center gap-6">
        <h1 className="flex-1 text-verdict font-semibold">
          {left.length === 0
            ? "Every step is done."
            : `${left.length} of ${view.steps.length} steps left, about ${minutes >= 90 ? `${Math.round(minutes / 30) / 2} hours` : `${minutes} minutes`}.`}
        </h1>
        <Link className="key key-mark" href={`/job/${view.head.number}/bench`}>
          Go to the bench
        </Link>
      </div>
      {view.plan ? null : (
        <p className="mt-2">
          The wiring is not planned yet, so plugs are missing from this list.{" "}
          <Link className="underline" href={`/job/${view.head.number}/wiring`}>
            Plan the wiring.
          </Link>
        </p>
      )}
      <table className="mt-4 w-full border-collapse">
        <thead>
          <tr className="text-left text-second text-soft">
            <th className="w-12 py-2 font-normal">Step</th>
            <th className="font-normal">What</th>
            <th className="w-72 font-normal">Covers</th>
            <th className="w-24 text-right font-normal">Minutes</th>
            <th className="w-32 pl-6 font-normal">State</th>
          </tr>
        </thead>
        <tbody>
          {view.steps.map((s, i) => (
            <tr key={s.id} className="h-12 border-t border-rule align-middle">
              <td className="mono">{i + 1}</td>
              <td>
                <span className={s.done ? "text-soft" : "font-semibold"}>{s.title}</span>
              </td>
              <td className="text-second">{s.covers ?? ""}</td>
              <td className="mono text-right">{s.minutes}</td>
              <td className="pl-6">
                <StateMark state={s.done ? "plugged" : "free"} word={s.done ? "done" : "to do"} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

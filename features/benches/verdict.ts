import type { BenchJob } from "../../server/views/benches";

/** Whole days from today to a date. */
export const daysTo = (today: string, due: string | null) => (due ? Math.round((Date.parse(due) - Date.parse(today)) / 86_400_000) : undefined);
export const dueWord = (days: number | undefined) =>
  days === undefined
    ? "no date"
    : days < 0
      ? `${-days} ${days === -1 ? "day" : "days"} late`
      : days === 0
        ? "today"
        : days === 1
          ? "tomorrow"
          : `in ${days} days`;

/** More jobs in danger than this are counted. */
const MOST_NAMED = 3;

/** One glance tells whether the week holds. */
export function verdictOf(jobs: readonly BenchJob[], today: string): string {
  const live = jobs.filter((j) => j.stage !== "handed-over" && j.stage !== "cancelled");
  const late = live.filter((j) => (daysTo(today, j.dueOn) ?? 99) < 0);
  const risky = live.filter(
    (j) =>
      !late.includes(j) &&
      ((j.openFaults > 0 && (daysTo(today, j.dueOn) ?? 99) <= 1) || (j.waitingUntil !== null && j.dueOn !== null && j.waitingUntil > j.dueOn)),
  );
  if (live.length === 0) return "No job is open. Make one, or read one from a build file.";
  if (late.length === 0 && risky.length === 0) return `All promises stand: ${live.length} ${live.length === 1 ? "job" : "jobs"}, none in danger.`;
  const names = [...late, ...risky].map(
    (j) =>
      `${j.number} (${late.includes(j) ? dueWord(daysTo(today, j.dueOn)) : j.openFaults > 0 ? `a fault is open, due ${dueWord(daysTo(today, j.dueOn))}` : "its delivery comes too late"})`,
  );
  const said = names.length > MOST_NAMED ? [...names.slice(0, MOST_NAMED), `${names.length - MOST_NAMED} more`] : names;
  return `In danger: ${said.join(" and ")}.`;
}

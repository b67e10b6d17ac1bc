import type { ReadingColumn, Readings } from "./readings";

/** From these on parts slow down or come to harm, °C (common practice; makers' own figures count before them). */
export const LIMITS: Readonly<Partial<Record<ReadingColumn["part"], number>>> = { cpu: 95, card: 90, drive: 70, memory: 85, board: 100 };
/** A value counts that held for so long, s: a spike of one sample is none, and how often was sampled makes no difference. */
const HELD_S = 10;
/** Readings further apart than this leave a gap in which nobody knows what was, s; a log that is written less often has longer ones. */
const LEAST_GAP_S = 60;
/** So many times as far apart as usual is a gap. */
const GAPS = 3;
/** Without so many minutes of readings nothing has soaked. */
const LEAST_MIN = 30;
/** A clock that falls under this share of the highest that held is slowed down (common practice: boost falls by a fifth from heat or power). */
const SLOWED = 0.8;
/** At work from this load on, percent. */
const BUSY = 50;
/** It is steady when the last quarter rises by no more than this, K. */
const STEADY_K = 2;

export interface Soak {
  verdict: "held" | "too hot" | "slowed down" | "still rising" | "interrupted" | "cut short" | "no load" | "not judged";
  /** Minutes of readings without the gaps. */
  minutes: number;
  /** Highest that held, by column: °C, W, rpm. */
  maxima: { name: string; part: ReadingColumn["part"]; quantity: ReadingColumn["quantity"]; value: number; limit?: number }[];
  /** Of clocks under load the lowest that held, MHz, and the highest. */
  lowestClock?: { name: string; mhz: number; ofMhz: number };
  limits: typeof LIMITS;
  /** Why, with numbers, the worst first. */
  because: string[];
}

const tenth = (v: number) => Math.round(v * 10) / 10;

/** How far apart a log's readings usually are, s (median). */
function rhythmOf(atS: readonly number[]): number {
  const steps = atS
    .slice(1)
    .map((s, i) => s - (atS[i] ?? 0))
    .sort((a, b) => a - b);
  return steps[Math.floor(steps.length / 2)] ?? 0;
}

/** From how far apart on two readings leave a gap, s: by the log's own rhythm. */
export const gapOf = (atS: readonly number[]): number => Math.max(LEAST_GAP_S, GAPS * rhythmOf(atS));
const most = (list: readonly number[]) => list.reduce((a, b) => Math.max(a, b), Number.NEGATIVE_INFINITY);
const least = (list: readonly number[]) => list.reduce((a, b) => Math.min(a, b), Number.POSITIVE_INFINITY);

/** Stretches without a gap, as pairs of indexes. */
function stretches(atS: readonly number[], gapS: number): [number, number][] {
  const out: [number, number][] = [];
  let from = 0;
  for (let i = 1; i <= atS.length; i++)
    if (i === atS.length || (atS[i] ?? 0) - (atS[i - 1] ?? 0) > gapS) {
      if (i - 1 > from) out.push([from, i - 1]);
      from = i;
    }
  return out;
}

/** Mean over each window of ten seconds, of the line through the readings; times are those of the windows' ends. */
function held(atS: readonly number[], v: readonly number[], [from, to]: readonly [number, number]): { atS: number; mean: number }[] {
  const t: number[] = [];
  const x: number[] = [];
  for (let i = from; i <= to; i++) {
    const value = v[i];
    if (value === undefined || !Number.isFinite(value)) continue;
    t.push(atS[i] ?? 0);
    x.push(value);
  }
  const [first, last] = [t[0], t.at(-1)];
  if (first === undefined || last === undefined || last - first < HELD_S) return [];
  // The area under the line up to each reading (trapezium rule), then differences.
  const area = [0];
  for (let i = 1; i < t.length; i++) area.push((area[i - 1] ?? 0) + (((x[i] ?? 0) + (x[i - 1] ?? 0)) / 2) * ((t[i] ?? 0) - (t[i - 1] ?? 0)));
  let k = 0;
  const upTo = (s: number): number => {
    while (k + 1 < t.length && (t[k + 1] ?? 0) <= s) k++;
    while (k > 0 && (t[k] ?? 0) > s) k--;
    const dt = s - (t[k] ?? 0);
    const next = t[k + 1];
    const slope = next === undefined || next === t[k] ? 0 : ((x[k + 1] ?? 0) - (x[k] ?? 0)) / (next - (t[k] ?? 0));
    return (area[k] ?? 0) + (x[k] ?? 0) * dt + (slope * dt * dt) / 2;
  };
  const out: { atS: number; mean: number }[] = [];
  for (let s = first + HELD_S; s <= last; s++) out.push({ atS: s, mean: (upTo(s) - upTo(s - HELD_S)) / HELD_S });
  return out;
}

/**
 * What a soak came to: minutes, the highest that held, the lowest clock under load, and whether it held, got too hot, slowed down, is still
 * rising, was interrupted or cut short. Values are means over ten seconds, so that the verdict is the same however often was sampled.
 */
export function soakOf(r: Readings, { leastMinutes = LEAST_MIN, limits = LIMITS }: { leastMinutes?: number; limits?: typeof LIMITS } = {}): Soak {
  const gapS = gapOf(r.atS);
  const runs = stretches(r.atS, gapS);
  const minutes = runs.reduce((n, [a, b]) => n + ((r.atS[b] ?? 0) - (r.atS[a] ?? 0)) / 60, 0);
  const gaps = Math.max(0, runs.length - 1);
  const by = r.columns.map((c, k) => ({ c, windows: runs.map((run) => held(r.atS, r.values[k] ?? [], run)).filter((w) => w.length > 0) }));
  const maxima = by.flatMap(({ c, windows }) => {
    if (c.quantity === "clock" || windows.length === 0) return [];
    const limit = c.quantity === "temperature" ? limits[c.part] : undefined;
    return [
      {
        name: c.name,
        part: c.part,
        quantity: c.quantity,
        value: tenth(most(windows.flat().map((w) => w.mean))),
        ...(limit === undefined ? {} : { limit }),
      },
    ];
  });
  const because: string[] = [];
  const hot = maxima.filter((m) => m.limit !== undefined && m.value >= m.limit).sort((a, b) => b.value - (b.limit ?? 0) - (a.value - (a.limit ?? 0)));
  for (const m of hot) because.push(`${m.name} held ${m.value} °C, of ${m.limit} °C that it may have.`);
  const clock = slowest(by, rhythmOf(r.atS));
  const slowed = clock !== undefined && clock.mhz < SLOWED * clock.ofMhz;
  if (clock && slowed) because.push(`${clock.name} fell to ${clock.mhz} MHz under load, of ${clock.ofMhz} MHz at its best.`);
  const rising = by.flatMap(({ c, windows }) => {
    const last = windows.at(-1);
    if (c.quantity !== "temperature" || !last || last.length < 240) return [];
    const quarter = last.slice(Math.floor(last.length * 0.75));
    const rise = (quarter.at(-1)?.mean ?? 0) - (quarter[0]?.mean ?? 0);
    return rise > STEADY_K ? [`${c.name} still rises: ${tenth(rise)} K over the last ${Math.round(quarter.length / 60)} minutes.`] : [];
  });
  because.push(...rising);
  if (gaps > 0)
    because.push(
      `${gaps === 1 ? "Once" : `${gaps} times`} nothing was read for more than ${Math.round(gapS)} s: it stopped, was started anew, or the log did.`,
    );
  if (minutes < leastMinutes) because.push(`${tenth(minutes)} minutes were read, of ${leastMinutes}.`);
  // At work is what the load says; where none was logged, nobody knows, and it is said.
  const loads = by.filter(({ c }) => c.quantity === "load" && (c.part === "cpu" || c.part === "card"));
  const busyMin = most([0, ...loads.map(({ windows }) => windows.flat().filter((w) => w.mean >= BUSY).length / 60)]);
  const idle = loads.length > 0 && busyMin < 0.9 * leastMinutes;
  if (idle && minutes >= leastMinutes) because.push(`It was at work for ${tenth(busyMin)} minutes, of ${leastMinutes}.`);
  const judged = maxima.some((m) => m.limit !== undefined);
  if (!judged) because.push("No temperature that has a limit was logged.");
  const verdict =
    hot.length > 0
      ? "too hot"
      : slowed
        ? "slowed down"
        : gaps > 0
          ? "interrupted"
          : minutes < leastMinutes
            ? "cut short"
            : !judged
              ? "not judged"
              : idle
                ? "no load"
                : rising.length > 0
                  ? "still rising"
                  : "held";
  if (verdict === "held")
    because.push(
      `${tenth(minutes)} minutes: ${maxima
        .filter((m) => m.limit !== undefined)
        .map((m) => `${m.name} ${m.value} of ${m.limit} °C`)
        .join(", ")}.${loads.length > 0 ? "" : " Whether it was at work was not logged."}`,
    );
  return { verdict, minutes: tenth(minutes), maxima, ...(clock ? { lowestClock: clock } : {}), limits, because };
}

/** The clock that fell furthest below its best while there was load; where no load is logged, after the first minute. */
function slowest(by: readonly { c: ReadingColumn; windows: readonly { atS: number; mean: number }[][] }[], everyS: number): Soak["lowestClock"] {
  // Where load begins or ends, a mean over both is neither.
  const edge = Math.round(Math.max(HELD_S, everyS));
  const found = by.flatMap(({ c, windows }): NonNullable<Soak["lowestClock"]>[] => {
    if (c.quantity !== "clock" || (c.part !== "cpu" && c.part !== "card")) return [];
    const load = by.find((o) => o.c.quantity === "load" && o.c.part === c.part)?.windows.flat();
    const busy = load && new Map(load.map((w) => [Math.round(w.atS), w.mean >= BUSY]));
    const all = windows.flatMap((run) =>
      run.filter((w) => (busy ? [-edge, 0, edge].every((d) => busy.get(Math.round(w.atS) + d) === true) : w.atS - (run[0]?.atS ?? 0) > 60)),
    );
    if (all.length === 0) return [];
    const means = all.map((w) => w.mean);
    return [{ name: c.name, mhz: Math.round(least(means)), ofMhz: Math.round(most(means)) }];
  });
  return found.sort((a, b) => a.mhz / a.ofMhz - b.mhz / b.ofMhz)[0];
}

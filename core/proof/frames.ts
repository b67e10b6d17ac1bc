import { readCsv } from "../table";

/** Frame times of one run, ms. */
export interface Frames {
  ms: number[];
  /** The column they came from. */
  column: string;
}

export interface Rates {
  frames: number;
  /** Minutes that the run took. */
  minutes: number;
  /** Frames over time: the mean of times, not of rates. */
  average: number;
  /** Of the slowest hundredth: 1000 over the 99th percentile of frame times. */
  worst1: number;
  lowest: number;
}

const MOST_ROWS = 400_000;
export const MOST_FRAME_CHARS = 20_000_000;
const TIMES = /frame ?time|msbetween|ms ?between|\bms\b|frametime/i;
const RATE = /\bfps\b|frames? ?per ?second|bildrate|bilder/i;

const figure = (cell: string): number => {
  const t = cell.trim().replace(/[^\d.,+-]/g, "");
  return /\d/.test(t) ? Number(t.includes(",") && !t.includes(".") ? t.replace(",", ".") : t.replace(/,/g, "")) : Number.NaN;
};

/** Frame times out of a table of a measuring tool, by its columns: times in ms, else rates a second. */
export function readFrames(text: string): { ok: true; frames: Frames; faults: string[] } | { ok: false; sentence: string } {
  if (text.length > MOST_FRAME_CHARS)
    return { ok: false, sentence: `The file is larger than ${MOST_FRAME_CHARS / 1_000_000} MB. Measure fewer minutes.` };
  const read = readCsv(text, true, MOST_ROWS);
  if (!read.ok) return { ok: false, sentence: read.sentence };
  const { columns, rows } = read.table;
  const times = columns.findIndex((c) => TIMES.test(c));
  const at = times >= 0 ? times : columns.findIndex((c) => RATE.test(c));
  if (at < 0)
    return { ok: false, sentence: `No column of frame times or rates is among: ${columns.slice(0, 8).join(", ")}. Name one “frame time, ms”.` };
  const raw = rows.map((r) => figure(r[at] ?? ""));
  const ms = raw.flatMap((v) => (Number.isFinite(v) && v > 0 ? [times >= 0 ? v : 1000 / v] : []));
  const absurd = ms.filter((v) => v > 10_000).length;
  const good = ms.filter((v) => v <= 10_000);
  if (good.length < 10) return { ok: false, sentence: `The column “${columns[at]}” holds ${good.length} frames. Measure a minute at least.` };
  const faults = [
    ...(raw.length - ms.length > 0 ? [`${raw.length - ms.length} rows hold no frame. The others count.`] : []),
    ...(absurd > 0 ? [`${absurd} frames took over ten seconds: they are left out.`] : []),
  ];
  return { ok: true, frames: { ms: good, column: columns[at] ?? "" }, faults };
}

/** A percentile with the line between neighbours (method 7 of Hyndman and Fan, as most statistics packages do it). */
export function percentile(sorted: readonly number[], share: number): number {
  const at = (sorted.length - 1) * share;
  const [low, high] = [Math.floor(at), Math.ceil(at)];
  const a = sorted[low] ?? Number.NaN;
  return a + ((sorted[high] ?? a) - a) * (at - low);
}

export function ratesOf({ ms }: Frames): Rates {
  const sum = ms.reduce((a, b) => a + b, 0);
  const sorted = [...ms].sort((a, b) => a - b);
  const tenth = (v: number) => Math.round(v * 10) / 10;
  return {
    frames: ms.length,
    minutes: Math.round((sum / 60_000) * 100) / 100,
    average: tenth((1000 * ms.length) / sum),
    worst1: tenth(1000 / percentile(sorted, 0.99)),
    lowest: tenth(1000 / (sorted.at(-1) ?? Number.NaN)),
  };
}

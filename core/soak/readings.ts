import { readCsv } from "../table";

/** What a column of a log is of, and what it measures: °C, MHz, W, rpm, percent. */
export interface ReadingColumn {
  /** As the log calls it. */
  name: string;
  part: "cpu" | "card" | "drive" | "board" | "memory" | "fan" | "other";
  quantity: "temperature" | "clock" | "power" | "speed" | "load";
}

export interface Readings {
  /** Seconds since the first reading, rising. */
  atS: number[];
  columns: ReadingColumn[];
  /** By column, a value for each moment; not a number: nothing was read. */
  values: number[][];
  /** Columns that were not understood; they are kept by whoever has the file. */
  unknown: string[];
  /** What is odd about the file, a sentence each; what could be read was read. */
  faults: string[];
}

export const MOST_READING_CHARS = 20_000_000;
/** More rows are thinned evenly: hours of a soak are told by fewer. */
const MOST_ROWS = 50_000;

const QUANTITY: readonly (readonly [RegExp, ReadingColumn["quantity"]])[] = [
  [/°\s?c\b|\btemp|\bhot ?spot|\btdie|\btctl|temperatur/i, "temperature"],
  [/\brpm\b|\bfan\b.*(?:speed|drehzahl)|drehzahl|1\/min/i, "speed"],
  [/\bmhz\b|\bghz\b|\bclock|\btakt|frequenc/i, "clock"],
  [/\bw\b|\bwatts?\b|\bpower|\bppt|leistung/i, "power"],
  [/%|\bload\b|\busage|\butili[sz]ation|auslastung/i, "load"],
];
const PART: readonly (readonly [RegExp, ReadingColumn["part"]])[] = [
  [/\bgpu|\bgraphics|\bvideo|grafik|\bhot ?spot/i, "card"],
  [/\bcpu|\bcore\b|\bprocessor|\bpackage|prozessor|\btctl|\btdie|\bccd/i, "cpu"],
  [/\bssd|\bhdd|\bdrive|\bnvme|\bdisk|laufwerk/i, "drive"],
  [/\bdimm|\bmemory|\bdram|speicher/i, "memory"],
  [/\bfan|lüfter|\bpump/i, "fan"],
  [/\bvrm|\bboard|\bchipset|\bpch|\bsystem/i, "board"],
];

/** What a log's column is; undefined: nothing that a soak is judged by. */
export function columnOf(name: string): ReadingColumn | undefined {
  const quantity = QUANTITY.find(([r]) => r.test(name))?.[1];
  if (!quantity) return undefined;
  // A pump's and a fan's speed are of the fan, whatever part it cools.
  const part = quantity === "speed" ? "fan" : (PART.find(([r]) => r.test(name))?.[1] ?? "other");
  return { name, part, quantity };
}

/** "1.234,5", "61.5", "61,5 °C": the figure, whichever way decimals are written; not a number: none. */
function figure(cell: string): number {
  const t = cell.replace(/[^\d.,+-]/g, "");
  if (!/\d/.test(t)) return Number.NaN;
  const last = Math.max(t.lastIndexOf(","), t.lastIndexOf("."));
  const both = t.includes(",") && t.includes(".");
  const plain = both ? `${t.slice(0, last).replace(/[.,]/g, "")}.${t.slice(last + 1)}` : t.replace(",", ".");
  return Number(plain);
}

/** Seconds of a moment as logs write it: seconds, a clock, a date with a clock; undefined: none of these. */
function secondsOf(cell: string): number | undefined {
  const t = cell.trim();
  if (/^\d+(?:[.,]\d+)?$/.test(t)) return Number(t.replace(",", "."));
  const clock = /(\d{1,2}):(\d{2})(?::(\d{2})(?:[.,](\d{1,6}))?)?/.exec(t);
  if (!clock) return undefined;
  const ofDay = Number(clock[1]) * 3600 + Number(clock[2]) * 60 + Number(clock[3] ?? 0) + Number(`0.${clock[4] ?? 0}`);
  const iso = /(\d{4})-(\d{1,2})-(\d{1,2})/.exec(t);
  const dotted = /(\d{1,2})\.(\d{1,2})\.(\d{4})/.exec(t);
  const day = iso
    ? Date.UTC(Number(iso[1]), Number(iso[2]) - 1, Number(iso[3]))
    : dotted
      ? Date.UTC(Number(dotted[3]), Number(dotted[2]) - 1, Number(dotted[1]))
      : 0;
  return day / 1000 + ofDay;
}

/**
 * A log of readings as common logging tools write it: a table with a time in one column and sensors in the others, with units in their
 * headings or after the figures. Whatever is not understood is named; a moment from before the one above it (midnight, a restart) is told.
 */
export function readReadings(text: string): Readings | string {
  if (text.length > MOST_READING_CHARS)
    return `The log has ${text.length} characters; at most ${MOST_READING_CHARS} are read. Log for a shorter time, or less often.`;
  const rows = text.split(/\r?\n/).filter((l) => l.trim() !== "");
  const head = rows[0];
  if (head === undefined || rows.length < 3) return "The log holds fewer than two readings. Nothing was read.";
  const step = Math.ceil((rows.length - 1) / MOST_ROWS);
  const table = readCsv([head, ...rows.slice(1).filter((_, i) => i % step === 0)].slice(0, MOST_ROWS + 1).join("\n"), true, MOST_ROWS + 1);
  if (!table.ok) return table.sentence;
  const { columns: names, rows: cells } = table.table;
  const timed = names.findIndex((n, i) => /time|date|zeit|uhr|elapsed/i.test(n) && cells.some((r) => secondsOf(r[i] ?? "") !== undefined));
  const at = timed >= 0 ? timed : names.findIndex((_, i) => cells.slice(0, 5).every((r) => secondsOf(r[i] ?? "") !== undefined));
  if (at < 0) return "No column of the log holds a time. Nothing was read. Log with a time in the first column.";
  // Date and time may stand in columns of their own.
  const clockAt = names.findIndex((n, i) => i !== at && /^time$|^uhrzeit$/i.test(n.trim()) && cells.some((r) => /\d:\d\d/.test(r[i] ?? "")));
  const faults: string[] = [];
  const used = names.flatMap((name, i) => {
    const c = i === at || i === clockAt ? undefined : columnOf(name);
    return c && cells.some((r) => Number.isFinite(figure(r[i] ?? ""))) ? [{ i, c }] : [];
  });
  const unknown = names.filter((_, i) => i !== at && i !== clockAt && !used.some((u) => u.i === i));
  if (used.length === 0)
    return `No column of the log is a temperature, a clock, watts, a load or rpm: ${names.slice(0, 6).join(", ")}. Nothing was read.`;
  const atS: number[] = [];
  const values = used.map((): number[] => []);
  let before: number | undefined;
  let shift = 0;
  let back = 0;
  let bare = 0;
  for (const r of cells) {
    const said = secondsOf(`${r[at] ?? ""}${clockAt >= 0 ? ` ${r[clockAt] ?? ""}` : ""}`);
    if (said === undefined) {
      bare++;
      continue;
    }
    let s = said + shift;
    if (before !== undefined && s < before) {
      // Past midnight a clock without a date begins anew.
      if (before - s > 43_200 && before - s <= 86_400) shift += 86_400;
      else back++;
      s = Math.max(before, said + shift);
    }
    before = s;
    atS.push(s);
    for (const [k, u] of used.entries()) {
      const n = figure(r[u.i] ?? "");
      values[k]?.push(u.c.quantity === "clock" && n < 20 ? n * 1000 : isAbsurd(u.c.quantity, n) ? Number.NaN : n);
    }
  }
  if (atS.length < 2) return "The log holds fewer than two readings with a time. Nothing was read.";
  if (bare > 0) faults.push(`${bare} ${bare === 1 ? "row has" : "rows have"} no time and were left out.`);
  if (back > 0)
    faults.push(`The time runs backwards ${back} ${back === 1 ? "time" : "times"}: the machine was started anew, or the log was put together.`);
  for (const [k, u] of used.entries()) {
    const lost = values[k]?.filter((v) => !Number.isFinite(v)).length ?? 0;
    if (lost > 0) faults.push(`“${u.c.name}”: ${lost} of ${atS.length} readings are missing or cannot be, and were left out.`);
  }
  const [start = 0] = atS;
  return { atS: atS.map((s) => s - start), columns: used.map((u) => u.c), values, unknown, faults };
}

/** What no such part ever reads. */
export const isAbsurd = (q: ReadingColumn["quantity"], v: number): boolean =>
  q === "temperature"
    ? v < -20 || v > 150
    : q === "clock"
      ? v < 0 || v > 12_000
      : q === "power"
        ? v < 0 || v > 3000
        : q === "speed"
          ? v < 0 || v > 30_000
          : v < 0 || v > 100.5;

import Papa from "papaparse";
import { type ListRow, MOST_ROWS, pastedLine } from "../../core/intake";

const MOST_BYTES = 4_000_000;

export interface Table {
  columns: string[];
  rows: string[][];
}

export type Read = { ok: true; table: Table } | { ok: false; sentence: string };

/** A CSV file's text: UTF-8, with or without its mark, or UTF-16 with its mark; anything else is named and refused. */
export function decode(bytes: Uint8Array): { ok: true; text: string } | { ok: false; sentence: string } {
  if (bytes.length > MOST_BYTES)
    return {
      ok: false,
      sentence: `The file has ${(bytes.length / 1e6).toFixed(1)} MB; at most ${MOST_BYTES / 1e6}. Nothing was read. Is it a parts list?`,
    };
  const utf16 = bytes[0] === 0xff && bytes[1] === 0xfe ? "utf-16le" : bytes[0] === 0xfe && bytes[1] === 0xff ? "utf-16be" : undefined;
  try {
    return { ok: true, text: new TextDecoder(utf16 ?? "utf-8", { fatal: true }).decode(bytes) };
  } catch {
    return { ok: false, sentence: "The file is not UTF-8 text. Nothing was read. Save it again as CSV UTF-8." };
  }
}

/** RFC 4180, comma, semicolon or tab. Bounded; a quote that never closes is named with its line. */
export function readCsv(text: string): Read {
  if (text.includes("\u0000")) return { ok: false, sentence: "The file holds binary data, not text. Nothing was read." };
  const parsed = Papa.parse<string[]>(text.replace(/^\ufeff/, "").trim(), { delimitersToGuess: [",", ";", "\t"], skipEmptyLines: "greedy" });
  const open = parsed.errors.find((e) => e.type === "Quotes");
  if (open) return { ok: false, sentence: `Line ${(open.row ?? 0) + 1}: a quote is opened and never closed. Nothing was read.` };
  const rows = parsed.data.map((r) => r.map((c) => c.trim()));
  if (rows.length === 0) return { ok: false, sentence: "The list is empty. Nothing was read." };
  if (rows.length > MOST_ROWS + 1) return { ok: false, sentence: `${rows.length} rows; at most ${MOST_ROWS}. Nothing was read. Split the list.` };
  const width = Math.max(...rows.map((r) => r.length));
  const head = rows[0] ?? [];
  const named = head.length > 1 && head.every((c) => c !== "" && !/^\d+([.,]\d+)?$/.test(c));
  return {
    ok: true,
    table: {
      columns: named
        ? Array.from({ length: width }, (_, i) => head[i] ?? `column ${i + 1}`)
        : Array.from({ length: width }, (_, i) => `column ${i + 1}`),
      rows: named ? rows.slice(1) : rows,
    },
  };
}

export interface Columns {
  part: number;
  count: number | null;
  serial: number | null;
}

/** A guess from the columns' names: the person may choose others. */
export function guessColumns(t: Table): Columns {
  const find = (words: RegExp) => {
    const i = t.columns.findIndex((c) => words.test(c));
    return i < 0 ? null : i;
  };
  const count =
    find(/^(count|qty|quantity|number|pcs|pieces|amount)$/i) ??
    t.columns.findIndex((_, i) => t.rows.length > 0 && t.rows.every((r) => /^\d{1,2}$/.test(r[i] ?? "")));
  const part =
    find(/part|item|name|article|product|description/i) ??
    t.columns.findIndex((_, i) => i !== count && t.rows.some((r) => /[a-z]/i.test(r[i] ?? "")));
  return { part: Math.max(0, part), count: count === null || count < 0 ? null : count, serial: find(/serial|s\/n/i) };
}

export function rowsOf(t: Table, c: Columns): { rows: ListRow[]; faults: string[] } {
  const faults: string[] = [];
  const seen = new Map<string, number>();
  const rows = t.rows.flatMap((r, i): ListRow[] => {
    const line = i + 2;
    const text = (r[c.part] ?? "").slice(0, 200);
    if (text === "") return [];
    const raw = c.count === null ? "1" : (r[c.count] ?? "1");
    const count = Number(raw || "1");
    if (!Number.isInteger(count) || count < 0 || count > 99) {
      faults.push(`Line ${line}: the count "${raw}" is not a whole number from 0 to 99. It is kept aside.`);
      return [{ line, text, count: 0 }];
    }
    const serial = c.serial === null ? "" : (r[c.serial] ?? "").slice(0, 80);
    const before = serial ? seen.get(serial) : undefined;
    if (before !== undefined) faults.push(`Line ${line}: serial ${serial} is on line ${before} already. The part is taken, the serial is not.`);
    else if (serial) seen.set(serial, line);
    return [{ line, text, count, ...(serial && before === undefined ? { serial } : {}) }];
  });
  return { rows, faults };
}

/** Lines as they are pasted from a mail: one part each. */
export function pastedRows(text: string): ListRow[] {
  return text
    .split(/\r?\n/)
    .flatMap((t, i) => pastedLine(t.slice(0, 200), i + 1) ?? [])
    .slice(0, MOST_ROWS);
}

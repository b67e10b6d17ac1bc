import Papa from "papaparse";

const MOST_BYTES = 4_000_000;
/** More rows than this are refused. */
export const MOST_ROWS = 2000;
/** More columns than this are no list of parts. */
export const MOST_COLUMNS = 200;

export interface Table {
  columns: string[];
  rows: string[][];
}

export type Read = { ok: true; table: Table } | { ok: false; sentence: string };

/** A file that is too large, by its real size, before any of it is read. */
export const tooLarge = (bytes: number, what: string): string | undefined =>
  bytes > MOST_BYTES ? `The file has ${(bytes / 1e6).toFixed(1)} MB; at most ${MOST_BYTES / 1e6}. Nothing was read. Is it ${what}?` : undefined;

/** A text file's text: UTF-8, with or without its mark, or UTF-16 with its mark; anything else is named and refused. */
export function decode(bytes: Uint8Array, what = "a parts list"): { ok: true; text: string } | { ok: false; sentence: string } {
  const large = tooLarge(bytes.length, what);
  if (large) return { ok: false, sentence: large };
  const utf16 = bytes[0] === 0xff && bytes[1] === 0xfe ? "utf-16le" : bytes[0] === 0xfe && bytes[1] === 0xff ? "utf-16be" : undefined;
  try {
    return { ok: true, text: new TextDecoder(utf16 ?? "utf-8", { fatal: true }).decode(bytes) };
  } catch {
    return { ok: false, sentence: "The file is not UTF-8 text. Nothing was read. Save it again as CSV UTF-8." };
  }
}

/**
 * RFC 4180, comma, semicolon or tab. Bounded; a quote that never closes is named with its line. Without `named`, a first
 * row that holds a number or an empty cell is taken for data. `mostRows`: more are refused.
 */
export function readCsv(text: string, named?: true, mostRows = MOST_ROWS): Read {
  if (text.includes("\u0000")) return { ok: false, sentence: "The file holds binary data, not text. Nothing was read." };
  const parsed = Papa.parse<string[]>(text.replace(/^\ufeff/, "").trim(), { delimitersToGuess: [",", ";", "\t"], skipEmptyLines: "greedy" });
  const open = parsed.errors.find((e) => e.type === "Quotes");
  if (open) return { ok: false, sentence: `Line ${(open.row ?? 0) + 1}: a quote is opened and never closed. Nothing was read.` };
  const rows = parsed.data.map((r) => r.map((c) => c.trim()));
  if (rows.length === 0) return { ok: false, sentence: "The list is empty. Nothing was read." };
  const head = rows[0] ?? [];
  const hasNames = named ?? (head.length > 1 && head.every((c) => c !== "" && !/^\d+([.,]\d+)?$/.test(c)));
  const data = hasNames ? rows.slice(1) : rows;
  if (data.length > mostRows) return { ok: false, sentence: `${data.length} rows; at most ${mostRows}. Nothing was read. Split the list.` };
  const width = rows.reduce((n, r) => Math.max(n, r.length), 0);
  if (width > MOST_COLUMNS) return { ok: false, sentence: `${width} columns; at most ${MOST_COLUMNS}. Nothing was read. Is it the right file?` };
  return {
    ok: true,
    table: {
      columns: Array.from({ length: width }, (_, i) => (hasNames ? head[i] : undefined) ?? `column ${i + 1}`),
      rows: data,
    },
  };
}

/** A cell that a spreadsheet would run as a formula is written with an apostrophe before it, and read without. */
export const writeCsv = (columns: readonly string[], rows: readonly (readonly string[])[]): string =>
  Papa.unparse({ fields: [...columns], data: rows.map((r) => [...r]) }, { escapeFormulae: true, newline: "\r\n" });
export const plainCell = (cell: string): string => (/^'[=+\-@\t\r]/.test(cell) ? cell.slice(1) : cell);

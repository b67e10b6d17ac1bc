import { type ListRow, pastedLine } from "../../core/intake";
import { MOST_ROWS, type Table } from "../../core/table";

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

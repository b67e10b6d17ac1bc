import type { ReceiptRow } from "../../server/receipt/receipt-view";

/** A line that is said to be here, with what was scanned or typed for it. */
export interface Arrival {
  part: string;
  serial: string;
}

/** What scans came to: lines that wait to be recorded, one after the other, and codes of which nobody has said what they are of. */
export interface Scans {
  waiting: readonly Arrival[];
  asking: readonly string[];
}

export const NO_SCANS: Scans = { waiting: [], asking: [] };

type Line = Pick<ReceiptRow, "part" | "type" | "arrivedAt">;

/** The next line that is not here, neither recorded nor waiting to be; from `from` on, then from the start. */
export function nextLine(rows: readonly Line[], { waiting }: Scans, from?: string): Line | undefined {
  const taken = new Set(waiting.map((w) => w.part));
  const open = (r: Line) => !r.arrivedAt && !taken.has(r.part);
  const at = rows.findIndex((r) => r.part === from);
  return (at >= 0 ? rows.slice(at).find(open) : undefined) ?? rows.find(open);
}

/**
 * A code was scanned, however quickly after the one before. It goes to the line in front; to the next of the same part, when the one
 * before was of that; where the next line is another part, what is in the hand is asked, and codes that come meanwhile wait behind.
 */
export function scan(rows: readonly Line[], scans: Scans, code: string, front: string | undefined, last: string | undefined): Scans {
  if (scans.waiting.some((w) => w.serial === code) || scans.asking.includes(code)) return scans;
  if (scans.asking.length > 0) return { ...scans, asking: [...scans.asking, code] };
  const line = nextLine(rows, scans, front);
  if (!line) return { ...scans, asking: [code] };
  const before = rows.find((r) => r.part === (scans.waiting.at(-1)?.part ?? last));
  const chosen = line.part === front && scans.waiting.length === 0;
  if (!chosen && before && before.type !== line.type) return { ...scans, asking: [code] };
  return { ...scans, waiting: [...scans.waiting, { part: line.part, serial: code }] };
}

/** The first code that was asked about is of this line; those behind it go on by themselves while they are of the same part. */
export function answer(rows: readonly Line[], scans: Scans, part: string): Scans {
  const [code, ...rest] = scans.asking;
  if (code === undefined) return scans;
  let now: Scans = { waiting: [...scans.waiting, { part, serial: code }], asking: [] };
  for (const c of rest) now = scan(rows, now, c, undefined, part);
  return now;
}

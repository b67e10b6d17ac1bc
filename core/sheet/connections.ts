import type { Graph } from "../assembly";
import { mateOf } from "../assembly";
import { family } from "../catalogue";
import { plainCell, readCsv, writeCsv } from "../table";
import type { Sheet } from "./rows";

const COLUMNS = ["order", "tag", "plug", "into", "pins", "state", "length_mm", "run_mm", "region", "lead", "port", "place"] as const;
const MOST = 600;

/** The connection list as CSV (RFC 4180). `lead`, `port` and `place` are what reading back needs. */
export const connectionsCsv = (sheet: Sheet): string =>
  writeCsv(
    COLUMNS,
    sheet.rows.map((r) => [
      String(r.order),
      r.tag,
      r.plug,
      r.into,
      r.place?.join(" ") ?? "",
      r.state,
      String(r.lengthMm),
      r.runMm === undefined ? "" : String(r.runMm),
      r.region,
      r.lead,
      r.port,
      r.place?.join(" ") ?? "",
    ]),
  );

export interface WantedConnection {
  line: number;
  lead: string;
  port: string;
  place?: number[];
}

/**
 * A connection list read back: rows that could be fixed, and a sentence for each that could not, with its line. Two rows
 * that contradict each other are both left out.
 */
export function readConnections(
  text: string,
  graph: Graph,
): { ok: true; rows: WantedConnection[]; faults: string[] } | { ok: false; sentence: string } {
  const read = readCsv(text, true);
  if (!read.ok) return read;
  const { columns, rows } = read.table;
  const missing = ["lead", "port"].filter((c) => !columns.includes(c));
  if (missing.length > 0)
    return {
      ok: false,
      sentence: `There is no column ${missing.map((m) => `"${m}"`).join(" and no column ")}; the columns are ${columns.slice(0, 8).join(", ")}. Nothing was fixed.`,
    };
  if (rows.length > MOST) return { ok: false, sentence: `${rows.length} rows; a build has at most ${MOST} leads. Nothing was fixed.` };
  const cell = (row: readonly string[], column: string) => plainCell(row[columns.indexOf(column)] ?? "").slice(0, 200);
  const faults: string[] = [];
  const out: WantedConnection[] = [];
  for (const [i, row] of rows.entries()) {
    const line = i + 2;
    const [lead, port, placed] = [cell(row, "lead"), cell(row, "port"), columns.includes("place") ? cell(row, "place") : ""];
    const l = graph.leads.get(lead);
    const p = graph.ports.get(port);
    if (!l) faults.push(`Line ${line}: there is no lead "${lead}" in this job.`);
    else if (!p) faults.push(`Line ${line}: there is no port "${port}" in this job.`);
    else {
      const place = placed === "" ? undefined : placed.split(/[\s;]+/).map(Number);
      const m = mateOf(l, p);
      if (place?.some((x) => !Number.isInteger(x) || x < 1 || x > 30) || (place?.length ?? 0) > 10)
        faults.push(`Line ${line}: the place "${placed}" is not a list of pins from 1 to 30.`);
      else if (m.outcome === "keyed" || m.outcome === "harm")
        faults.push(`Line ${line}: ${l.tag} (${l.name}) does not go into ${p.name}: ${m.because}.`);
      else out.push({ line, lead, port, ...(place ? { place } : {}) });
    }
  }
  const clash = new Set<WantedConnection>();
  for (const [i, a] of out.entries()) {
    for (const b of out.slice(0, i)) {
      const p = graph.ports.get(a.port);
      const capacity = p ? (p.port.places ?? family(p.port.family).places) : 1;
      const sameSpot = a.port === b.port && (capacity === 1 || !a.place || !b.place || a.place.some((x) => b.place?.includes(x)));
      if (a.lead !== b.lead && !sameSpot) continue;
      clash.add(a).add(b);
      faults.push(
        a.lead === b.lead
          ? `Lines ${b.line} and ${a.line} put ${a.lead} into two ports. Neither was fixed.`
          : `Lines ${b.line} and ${a.line} both take ${p?.name ?? a.port}. Neither was fixed.`,
      );
    }
  }
  return { ok: true, rows: out.filter((r) => !clash.has(r)), faults: faults.slice(0, 60) };
}

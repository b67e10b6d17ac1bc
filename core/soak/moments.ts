import { columnOf, isAbsurd, type ReadingColumn, type Readings } from "./readings";

/** What a machine read of itself at one moment: seconds since it began to send, and values by the names that its programs give. */
export interface ReadMoment {
  atS: number;
  readings: Readonly<Record<string, number>>;
}

/** What hands named: of which part a column is that its own name does not say. */
export type NamedColumns = Readonly<Record<string, ReadingColumn["part"]>>;

/** A stream of moments as a log. What comes twice counts once, what comes late stands where it belongs. */
export function readingsOf(moments: readonly ReadMoment[], named: NamedColumns = {}): Readings {
  const rows = [...new Map([...moments].sort((a, b) => a.atS - b.atS).map((m) => [m.atS, m])).values()];
  const names = [...new Set(rows.flatMap((m) => Object.keys(m.readings)))];
  const columns = names.flatMap((n) => columnOf(n) ?? []);
  const start = rows[0]?.atS ?? 0;
  return withNames(
    {
      atS: rows.map((m) => m.atS - start),
      columns,
      values: columns.map((c) =>
        rows.map((m) => {
          const v = m.readings[c.name];
          return v === undefined || isAbsurd(c.quantity, v) ? Number.NaN : v;
        }),
      ),
      unknown: names.filter((n) => !columnOf(n)),
      faults: [],
    },
    named,
  );
}

/** The same log with its columns as hands named them before. */
export const withNames = (r: Readings, named: NamedColumns): Readings => ({
  ...r,
  columns: r.columns.map((c) => (named[c.name] === undefined ? c : { ...c, part: named[c.name] as ReadingColumn["part"] })),
});

import { z } from "zod";
import { belongsTo } from "../../core/diagnose";
import { type Expectation, headerLines, asExpected as isAsExpected, NEEDS_LOAD, otherLines, powerOn } from "../../core/machine";
import { FaultEvent, type FaultRow, Observation, type ObservationRow, SoakLog } from "../../db";
import { misplacedOfJob } from "../build/misplaced-of-job";
import { done, no, type Result } from "../kernel/result";
import { JobNumber, key, line } from "../kernel/text";
import { jobAction } from "../unit/action";
import type { JobUnit } from "../unit/unit";

const Seen = z.object({ line: key(200), value: line(120).refine((s) => s.length > 0, "say what was seen") });
export const Observe = z.object({
  number: JobNumber,
  lines: z.array(Seen).min(1).max(200),
  /** Only what nobody has said anything of: "the others as expected" is never said over what was seen a moment ago. */
  unseenOnly: z.boolean().default(false),
});

/** Keeps what was seen of lines of the sheet, whoever or whatever said so. */
export async function see(unit: JobUnit, o: Pick<z.infer<typeof Observe>, "lines" | "unseenOnly">, simulated = false): Promise<Result> {
  const { tx, job } = unit;
  const { graph } = await unit.build();
  const sheet = [...powerOn(graph).lines, ...headerLines(graph), ...otherLines(graph)];
  const lines = new Map(sheet.map((l) => [l.id, l]));
  if (o.lines.some((s) => !lines.has(s.line)))
    return no("A line is no longer on the sheet: the wiring changed. Nothing was stored. Look at the sheet again.");
  // What a stand-in shows and what somebody saw of the machine are two records, and neither speaks in the other.
  const open = (await unit.faults.open()).filter((f) => f.simulated === simulated);
  const rows = new Map((await tx.find(Observation, { job: job.id }, { limit: 1000 })).map((r) => [r.line, r]));
  let known: Promise<ReadonlySet<string>> | undefined;
  const explained = () => {
    known ??= unit.build().then(async (b) => new Set((await misplacedOfJob(tx, b)).flatMap((m) => m.lines)));
    return known;
  };
  for (const seen of o.lines) {
    const expected = lines.get(seen.line);
    if (!expected) continue;
    const unitWord = expected.unit ? ` ${expected.unit}` : "";
    const asExpected = isAsExpected(expected, seen.value);
    const row = rows.get(seen.line);
    if (row && !row.simulated && o.unseenOnly) continue;
    // A stand-in says nothing over what somebody saw of the machine; a fault of its own it may have all the same.
    const seenOfMachine = simulated && row !== undefined && !row.simulated;
    // Nobody sees at a glance that full load holds: a log under load says so.
    if (
      NEEDS_LOAD.has(seen.line) &&
      asExpected &&
      expected.works &&
      (await tx.count(SoakLog, { job: job.id, ...(simulated ? {} : { simulated: false }) })) === 0
    ) {
      if (o.unseenOnly) continue;
      return no(
        `${expected.what} ${expected.expected} only where it was under load. Nothing was stored. Choose a log of the soak, or type what was read.`,
      );
    }
    const worked = !simulated && row?.asExpected === true && !row.simulated;
    if (!seenOfMachine) keep(unit, row, { line: seen.line, value: seen.value, asExpected, simulated });
    const what = `${simulated ? "Simulated: " : ""}${expected.what}`;
    unit.emit("seen", { line: seen.line, what, value: seen.value, expected: expected.expected, asExpected, unit: unitWord });
    const mine = open.find((f) => f.lines.includes(seen.line));
    // In an exercise what works is evidence in all that is hunted: no sheet keeps it.
    const about = mine ? [mine] : simulated && asExpected ? open : [];
    for (const f of about) unit.faults.note(f.number, { line: seen.line, value: seen.value, words: expected.what, simulated });
    // As predicted and not as wanted, because a plug is on record in a wrong place: that is a fault, and its cause is certain.
    const misplacedHere = asExpected && expected.expected !== expected.wanted && (await explained()).has(seen.line);
    if ((asExpected && !misplacedHere) || mine) continue;
    const should = misplacedHere ? `wanted ${expected.wanted}` : `expected ${expected.expected}`;
    const words = `${what}: ${seen.value}${unitWord}, ${should}${unitWord}`;
    const all = await rowsOf(unit, lines, [...rows.values()], open, simulated);
    await openOrJoin(unit, { sheet, rows: all, open }, { line: expected, value: seen.value, words, simulated, worked });
  }
  unit.stage.to("looked");
  return done();
}

/** What was seen first stays beside what is seen at a second look. */
function keep(
  unit: JobUnit,
  row: ObservationRow | undefined,
  { line: id, value, asExpected, simulated }: { line: string; value: string; asExpected: boolean; simulated: boolean },
): void {
  const now = { value, asExpected, simulated, at: unit.when.happened, by: unit.by };
  if (row) Object.assign(row, now, row.value === value || row.firstValue || row.simulated ? {} : { firstValue: row.value });
  else unit.tx.create(Observation, { job: unit.job, line: id, ...now, firstValue: null });
}

/** What is known of lines in this record: of the machine what was seen of it, of a stand-in what it showed, its hunts among that. */
async function rowsOf(
  unit: JobUnit,
  lines: ReadonlyMap<string, Expectation>,
  rows: readonly ObservationRow[],
  open: readonly FaultRow[],
  simulated: boolean,
): Promise<{ line: string; asExpected: boolean; at: Date }[]> {
  const own = rows.filter((r) => r.simulated === simulated);
  if (!simulated || open.length === 0) return own;
  const shown = await unit.tx.find(FaultEvent, { job: unit.job.id, fault: { $in: open.map((f) => f.number) }, line: { $ne: null } }, { limit: 1000 });
  return [
    ...own,
    ...shown.flatMap((e) => {
      const l = lines.get(e.line ?? "");
      return l ? [{ line: l.id, asExpected: isAsExpected(l, e.value ?? ""), at: e.at }] : [];
    }),
  ];
}

/** What is wrong belongs to a fault that is open where both may have one cause, else it opens one. */
async function openOrJoin(
  unit: JobUnit,
  known: { sheet: readonly Expectation[]; rows: readonly { line: string; asExpected: boolean; at: Date }[]; open: FaultRow[] },
  seen: { line: Expectation; value: string; words: string; simulated: boolean; worked: boolean },
): Promise<void> {
  const { line, value, words, simulated, worked } = seen;
  // What was seen to work and does not any more broke with what broke then: what was seen before that clears nothing of it.
  const since = (f: FaultRow) => (worked ? known.rows.filter((r) => r.at >= f.openedAt) : known.rows);
  const of = known.open.find((f) => belongsTo(known.sheet, since(f), f.lines, line.id));
  if (of) unit.faults.join(of, line.id, words);
  const number = of?.number ?? (await unit.faults.add({ line: line.id, title: words, expected: line.expected, seen: value, simulated }));
  unit.faults.note(number, { line: line.id, value, words: line.what, simulated });
  if (of) return;
  known.open.splice(0, known.open.length, ...(await unit.faults.open()).filter((f) => f.simulated === simulated));
  unit.emit("fault-opened", { number, what: line.what });
}

/** What was seen at first boot. A mismatch opens a fault with the observation; the right value later does not close it. */
export const observe = jobAction({ name: "first-boot.observe", permission: "record", input: Observe, run: (unit, o) => see(unit, o) });

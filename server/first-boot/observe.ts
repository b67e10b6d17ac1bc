import { z } from "zod";
import { headerLines, asExpected as isAsExpected, NEEDS_LOAD, powerOn } from "../../core/machine";
import { Observation, SoakLog } from "../../db";
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
  const lines = new Map([...powerOn(graph).lines, ...headerLines(graph)].map((l) => [l.id, l]));
  if (o.lines.some((s) => !lines.has(s.line)))
    return no("A line is no longer on the sheet: the wiring changed. Nothing was stored. Look at the sheet again.");
  const open = new Set((await unit.faults.open()).map((f) => f.line));
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
    // A stand-in says nothing over what somebody saw of the machine.
    if (row && !row.simulated && (o.unseenOnly || simulated)) continue;
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
    const now = { value: seen.value, asExpected, simulated, at: unit.when.happened, by: unit.by };
    // What was seen first stays beside what is seen at a second look.
    if (row) Object.assign(row, now, row.value === seen.value || row.firstValue || row.simulated ? {} : { firstValue: row.value });
    else tx.create(Observation, { job, line: seen.line, ...now, firstValue: null });
    unit.emit("seen", { line: seen.line, what: expected.what, value: seen.value, expected: expected.expected, asExpected, unit: unitWord });
    // As predicted and not as wanted, because a plug is on record in a wrong place: that is a fault, and its cause is certain.
    const misplacedHere = asExpected && expected.expected !== expected.wanted && (await explained()).has(seen.line);
    if ((asExpected && !misplacedHere) || open.has(seen.line)) continue;
    open.add(seen.line);
    const should = misplacedHere ? `wanted ${expected.wanted}` : `expected ${expected.expected}`;
    const title = `${simulated ? "Simulated: " : ""}${expected.what}: ${seen.value}${unitWord}, ${should}${unitWord}`;
    const number = await unit.faults.add({ line: seen.line, title, expected: expected.expected, seen: seen.value });
    unit.emit("fault-opened", { number, what: expected.what });
  }
  unit.stage.to("looked");
  return done();
}

/** What was seen at first boot. A mismatch opens a fault with the observation; the right value later does not close it. */
export const observe = jobAction({ name: "first-boot.observe", permission: "record", input: Observe, run: (unit, o) => see(unit, o) });

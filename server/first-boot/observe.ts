import { z } from "zod";
import { asExpected as isAsExpected, powerOn } from "../../core/machine";
import { Observation } from "../../db";
import { done, no } from "../kernel/result";
import { JobNumber, key, line } from "../kernel/text";
import { jobAction } from "../unit/action";

const Seen = z.object({ line: key(200), value: line(120).refine((s) => s.length > 0, "say what was seen") });
export const Observe = z.object({
  number: JobNumber,
  lines: z.array(Seen).min(1).max(200),
  /** Only what nobody has said anything of: "the others as expected" is never said over what was seen a moment ago. */
  unseenOnly: z.boolean().default(false),
});

/** What was seen at first boot. A mismatch opens a fault with the observation; the right value later does not close it. */
export const observe = jobAction({
  name: "first-boot.observe",
  permission: "record",
  input: Observe,
  run: async (unit, o) => {
    const { tx, job } = unit;
    const lines = new Map(powerOn((await unit.build()).graph).lines.map((l) => [l.id, l]));
    if (o.lines.some((s) => !lines.has(s.line)))
      return no("A line is no longer on the sheet: the wiring changed. Nothing was stored. Look at the sheet again.");
    const open = new Set((await unit.faults.open()).map((f) => f.line));
    const rows = new Map((await tx.find(Observation, { job: job.id }, { limit: 1000 })).map((r) => [r.line, r]));
    for (const seen of o.lines) {
      const expected = lines.get(seen.line);
      if (!expected) continue;
      const unitWord = expected.unit ? ` ${expected.unit}` : "";
      const asExpected = isAsExpected(expected, seen.value);
      const row = rows.get(seen.line);
      if (row && o.unseenOnly) continue;
      const now = { value: seen.value, asExpected, at: unit.when.happened, by: unit.by };
      if (row) Object.assign(row, now);
      else tx.create(Observation, { job, line: seen.line, ...now });
      unit.emit("seen", { line: seen.line, what: expected.what, value: seen.value, expected: expected.expected, asExpected, unit: unitWord });
      if (asExpected || open.has(seen.line)) continue;
      open.add(seen.line);
      const title = `${expected.what}: ${seen.value}${unitWord}, expected ${expected.expected}${unitWord}`;
      const number = await unit.faults.add({ line: seen.line, title, expected: expected.expected, seen: seen.value });
      unit.emit("fault-opened", { number, what: expected.what });
    }
    unit.stage.to("looked");
    return done();
  },
});

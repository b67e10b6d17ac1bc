import { z } from "zod";
import { Override as Row } from "../../db";
import { covers, findingsOf, MOST_SET_ASIDE, mayBeSetAside, overridesOf } from "../build/findings";
import { done, no } from "../kernel/result";
import { JobNumber, key, text } from "../kernel/text";
import { jobAction } from "../unit/action";

export const SetAsideEntry = z.object({
  number: JobNumber,
  finding: key(2000),
  reason: text(500).refine((s) => s.length >= 5, "say why, in five letters or more"),
});

/** Sets one finding aside, with a reason, for good. */
export const setAside = jobAction({
  name: "job.set-aside",
  permission: "plan",
  input: SetAsideEntry,
  run: async (unit, o) => {
    const b = await unit.build();
    const { parts, wiring } = findingsOf(b.graph, b.build.connections.length > 0);
    const rows = await overridesOf(unit.tx, unit.job.id);
    const f = [...parts, ...wiring].find((x) => x.id === o.finding);
    if (!f) return no("Nothing of the kind is found any more. Nothing was changed.");
    if (!mayBeSetAside(f)) return no("What this finds can destroy parts, and cannot be accepted. Put it right. Nothing was changed.");
    if (rows.some((r) => covers(r, f))) return no("It is accepted already. Nothing was changed.");
    if (rows.length >= MOST_SET_ASIDE) return no(`There are already ${MOST_SET_ASIDE} findings accepted on this job. Nothing was changed.`);
    unit.tx.create(Row, {
      job: unit.job,
      finding: f.id.slice(0, 500),
      rule: f.rule,
      severity: f.severity,
      message: f.message,
      reason: o.reason,
      by: unit.by,
      at: unit.when.happened,
    });
    unit.emit("set-aside", { finding: f.id.slice(0, 500), message: f.message, reason: o.reason });
    return done();
  },
});

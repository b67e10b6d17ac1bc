import { z } from "zod";
import { Address } from "../../core/assembly";
import { Observation } from "../../db";
import { plugIn } from "../bench/plug";
import { misplacedOfJob } from "../build/misplaced-of-job";
import { no } from "../kernel/result";
import { JobNumber } from "../kernel/text";
import { jobAction } from "../unit/action";
import { minutesSince } from "./minutes";

/** A plug that was on record in a wrong place is where it belongs: what was wrong because of it is closed, and its lines are to be seen again. */
export const moveRight = jobAction({
  name: "faults.move",
  permission: "record",
  input: z.object({ number: JobNumber, lead: Address }),
  run: async (unit, { number, lead }) => {
    const b = await unit.build();
    const m = (await misplacedOfJob(unit.tx, b)).find((x) => x.lead === lead);
    if (!m) return no("That plug is not in a wrong place any more. Nothing was changed. Look at the faults again.");
    const out = await plugIn(unit, { number, lead, port: m.from, state: "planned" });
    if (!out.ok) return out;
    const said = await plugIn(unit, { number, lead, port: m.to, state: "plugged" });
    if (!said.ok) return said;
    const name = b.graph.leads.get(lead)?.name ?? lead;
    const lines = new Set(m.lines);
    const finding = `${name} was in a wrong place and was moved`;
    const about = (await unit.faults.open()).filter((f) => !f.simulated && f.lines.some((l) => lines.has(l)));
    for (const f of about) unit.faults.note(f.number, { words: finding, result: "moved", minutes: await minutesSince(unit, f) });
    // What else is wrong of it stays open.
    const closed = about.filter((f) => f.lines.every((l) => lines.has(l)));
    for (const f of closed) unit.faults.close(f, finding);
    // The old symptoms were about the machine as it was: these lines are to be seen again.
    await unit.tx.nativeDelete(Observation, { job: unit.job.id, line: { $in: m.lines } });
    unit.emit("tried", { element: `${lead}@${m.from}`, name: `${name}, moved`, result: "that was it", closed: closed.map((f) => f.number) });
    return said;
  },
});

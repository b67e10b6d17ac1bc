import { z } from "zod";
import { done, no } from "../kernel/result";
import { JobNumber, line, PartKey } from "../kernel/text";
import { findPart } from "../parts/find-part";
import { jobAction } from "../unit/action";
import { sendBack } from "./returns";

export const Refuse = z.object({
  number: JobNumber,
  part: PartKey,
  why: z.enum(["damaged", "wrong", "missing"]),
  serial: line(80).optional(),
  words: line(300).default(""),
});

/** What came is not taken: damaged, another than ordered, or not in its box. It counts as not here; what went back is a return. */
export const refuse = jobAction({
  name: "receipt.refuse",
  permission: "record",
  input: Refuse,
  run: async (unit, r) => {
    const found = await findPart(unit, r.part);
    if (!found.ok) return found;
    const { row, name } = found;
    const b = await unit.build();
    const plugged = b.build.connections.some(
      (c) => (c.state === "plugged" || c.state === "checked") && (c.lead.startsWith(`${r.part}:`) || c.port.startsWith(`${r.part}:`)),
    );
    if (plugged) return no(`${name} is plugged in the machine. Take its plugs out first. Nothing was changed.`);
    const serial = r.serial || (row.serial ?? null);
    if (r.why !== "missing") await sendBack(unit, Object.assign(row, { serial }), name, { why: r.why, words: r.words });
    Object.assign(row, { arrivedAt: null, serial: null, testResult: null, testedWith: null });
    unit.emit("refused", { part: r.part, name, why: r.why, words: r.words, serial });
    return done();
  },
});

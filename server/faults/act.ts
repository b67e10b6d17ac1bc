import { z } from "zod";
import { deedById, isMended, type KnownDeed } from "../../core/diagnose";
import { type FaultRow, Observation } from "../../db";
import { serialTaken } from "../build/serial";
import { done, no, type Refusal, type Result } from "../kernel/result";
import { Day, JobNumber, key, line } from "../kernel/text";
import { findPart, type PartRow } from "../parts/find-part";
import { sendBack } from "../receipt/returns";
import { jobAction } from "../unit/action";
import type { JobUnit } from "../unit/unit";
import { minutesOf, minutesSince } from "./minutes";

export const Act = z.object({
  number: JobNumber,
  fault: z.number().int().min(1),
  deed: key(300),
  result: line(40).refine((s) => s.length > 0, "say what came of it"),
  /** Of the part that went in. */
  serial: line(80).optional(),
  /** There is no spare: the job waits for a replacement until then. */
  waitUntil: Day.nullable().optional(),
});

/** Something was done about a fault, with what came of it. What mends it closes it with what it was; its lines are to be seen again. */
export const actOn = jobAction({
  name: "faults.act",
  permission: "record",
  input: Act,
  run: act,
});

/** The same, whoever or whatever did it. In an exercise no part comes out of the machine, and nothing counts in the shop's record. */
export async function act(unit: JobUnit, a: z.infer<typeof Act>): Promise<Result> {
  const f = (await unit.faults.open()).find((x) => x.number === a.fault);
  if (!f) return no(`Fault ${a.fault} is not open. Somebody may have closed it. Nothing was stored.`);
  const { simulated } = f;
  const { graph } = await unit.build();
  const deed = deedById(graph, a.deed);
  if (!deed)
    return no("What was done is no longer part of this machine: its parts or its wiring changed. Nothing was stored. Look at the fault again.");
  const waits = a.result === "waits";
  if (!waits && !deed.results.includes(a.result))
    return no(`“${a.result}” cannot come of that. It may be: ${deed.results.join(", ")}. Nothing was stored.`);
  const part = deed.kind === "swap" && graph.parts.has(deed.target) ? await findPart(unit, deed.target) : undefined;
  if (part && !part.ok) return part;
  if (waits && simulated) return no("In an exercise no part is waited for. Nothing was stored.");
  if (waits) return waitFor(unit, f, deed, part?.row, a.waitUntil ?? undefined);
  const minutes = await minutesSince(unit, f);
  const mended = isMended(deed, a.result);
  if (part && mended && !simulated) {
    const refused = await swapped(unit, part.row, part.name, f.number, a.serial);
    if (refused) return refused;
  }
  unit.faults.note(f.number, { deed: deed.id, words: deed.words, result: a.result, minutes, simulated });
  if (mended) await mendedBy(unit, f, deed, deed.words);
  if (a.result === "changed") await seeAgain(unit, f);
  unit.emit("tried", { element: deed.id, name: deed.words, result: a.result, closed: mended ? [f.number] : [] });
  return done();
}

/** It was this: the fault ends with its cause and what it took, and its lines are to be seen again. */
export async function mendedBy(unit: JobUnit, f: FaultRow, deed: KnownDeed, words: string): Promise<void> {
  const cause = deed.causes[0];
  if (!f.simulated)
    Object.assign(f, {
      causes: cause ? [{ element: cause.element, mode: cause.mode, kind: cause.kind, words: cause.words }] : [],
      minutes: await minutesOf(unit, f),
    });
  unit.faults.close(f, words);
  await seeAgain(unit, f);
}

/** What was wrong was of the machine as it was. */
const seeAgain = ({ tx, job }: JobUnit, { lines, simulated }: FaultRow) =>
  tx.nativeDelete(Observation, { job: job.id, line: { $in: lines }, ...(simulated ? { simulated } : {}) });

/** A dead part came out: it goes back, and its successor begins with its own serial. */
async function swapped(unit: JobUnit, row: PartRow, name: string, fault: number, serial: string | undefined): Promise<Refusal | undefined> {
  const taken = serial ? await serialTaken(unit.tx, [serial], row.id) : undefined;
  if (taken) return no(`${taken}. Nothing was stored. Look at the label again.`);
  await sendBack(unit, row, name, { why: "exchanged", words: `Found dead: fault ${fault}.` });
  unit.emit("replaced", { part: row.key, name, serial: row.serial ?? null });
  Object.assign(row, { serial: serial || null, testResult: null, testedWith: null, arrivedAt: unit.when.happened });
  return undefined;
}

/** No spare lies here: it goes back as dead, and the job waits for another. */
async function waitFor(unit: JobUnit, f: FaultRow, deed: KnownDeed, row: PartRow | undefined, until: string | undefined) {
  if (deed.kind !== "swap" || !row) return no("Only a part that is swapped is waited for. Nothing was stored.");
  if (!until) return no("Say until when the replacement is due. Nothing was stored.");
  const { types } = await unit.build();
  const name = row.label ?? types(row.type)?.name ?? row.key;
  await sendBack(unit, row, name, { why: "dead", words: `Suspected: fault ${f.number}.` });
  unit.faults.note(f.number, { words: `${name}: sent back, a replacement is waited for`, minutes: await minutesSince(unit, f) });
  unit.stage.to("waits");
  Object.assign(unit.job, { waitingFor: `a replacement ${types(row.type)?.name ?? name}`, waitingUntil: until });
  unit.emit("tried", { element: deed.id, name, result: `goes back under suspicion, a replacement is due ${until}`, closed: [] });
  return done();
}

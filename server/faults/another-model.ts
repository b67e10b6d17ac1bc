import { z } from "zod";
import { deedById } from "../../core/diagnose";
import { problemOf, stepsByName, undoOf } from "../../core/order";
import { Link, ShelfType, StepDone } from "../../db";
import { serialTaken } from "../build/serial";
import { done, no, type Result } from "../kernel/result";
import { JobNumber, key, line, TypeId } from "../kernel/text";
import { findPart, isOf } from "../parts/find-part";
import { swapPart } from "../parts/swap";
import { jobAction } from "../unit/action";
import type { JobUnit } from "../unit/unit";
import { mendedBy } from "./act";
import { minutesSince } from "./minutes";

export const AnotherModel = z.object({
  number: JobNumber,
  fault: z.number().int().min(1),
  deed: key(300),
  model: TypeId,
  /** Of the part that goes in. */
  serial: line(80).optional(),
});

/**
 * A part that is found dead is replaced by another model: what is plugged on it is out on record, the old piece goes back, and the machine is
 * planned anew around what stays plugged. What the fault showed is to be seen again.
 */
export const anotherModel = jobAction({
  name: "faults.another-model",
  permission: "change parts",
  input: AnotherModel,
  run: async (unit, a): Promise<Result> => {
    const f = (await unit.faults.open()).find((x) => x.number === a.fault);
    if (!f) return no(`Fault ${a.fault} is not open. Somebody may have closed it. Nothing was stored.`);
    if (f.simulated) return no("In an exercise no part comes out of the machine. Nothing was stored.");
    const { graph } = await unit.build();
    const deed = deedById(graph, a.deed);
    if (deed?.kind !== "swap" || !graph.parts.has(deed.target))
      return no("Only a part that is swapped is replaced by another model. Nothing was stored.");
    const part = await findPart(unit, deed.target);
    if (!part.ok) return part;
    const { row, name } = part;
    const model = await unit.tx.findOne(ShelfType, { id: a.model });
    if (!model) return no(`The shelf has no part type ${a.model} any more. Nothing was stored. Choose another.`);
    if (row.type === a.model) return no(`${model.name} is what is in it already: say what came of the swap. Nothing was stored.`);
    const taken = a.serial ? await serialTaken(unit.tx, [a.serial], row.id) : undefined;
    if (taken) return no(`${taken}. Nothing was stored. Look at the label again.`);
    const minutes = await minutesSince(unit, f);
    const was = row.serial ?? null;
    await takenOut(unit, row.key);
    // It was in the machine, so it was here: it goes back.
    row.arrivedAt ??= unit.when.happened;
    const swapped = await swapPart(unit, row.key, a.model, { out: true, why: `Found dead: fault ${f.number}. ${model.name} in its place.` });
    if (!swapped.ok) return swapped;
    // Price, cover and what was known of the old piece are not those of the new one.
    const unknown = { supplier: null, warrantyUntil: null, priceCents: null, priceFrom: null, priceOn: null, availability: null, facts: {} };
    Object.assign(row, { ...unknown, serial: a.serial || null, testResult: null, testedWith: null, arrivedAt: unit.when.happened });
    const words = `${name}, replaced by ${model.name}`;
    unit.faults.note(f.number, { deed: deed.id, words, result: "another model", minutes });
    unit.emit("replaced", { part: row.key, name, serial: was });
    await mendedBy(unit, f, deed, words);
    unit.emit("tried", { element: deed.id, name: words, result: "that was it", closed: [f.number] });
    return done();
  },
});

/** A part comes out: its plugs and those in it are out on record, and whatever must come out for it, by the order, is to be done again. */
async function takenOut(unit: JobUnit, part: string): Promise<void> {
  const { graph } = await unit.build();
  const own = isOf(part);
  const problem = problemOf(graph, { powered: true });
  const undo = undoOf(problem, `mount:${part}`);
  // Its leads go with it, so that the bundles they lie in are led and tied anew; and the machine is open: all that closes it is done again.
  const anew = problem.works.filter((w) => w.kind === "close" || (w.kind !== "plug" && w.leads.some(own))).map((w) => w.id);
  const comesOut = new Set([`mount:${part}`, ...(undo?.out.map((o) => o.step) ?? []), ...anew]);
  const links = await unit.tx.find(Link, { job: unit.job.id }, { limit: 2000 });
  for (const l of links) {
    if ((l.state !== "plugged" && l.state !== "checked") || !(own(l.lead) || own(l.port) || comesOut.has(`plug:${l.lead}`))) continue;
    Object.assign(l, { state: "planned", plannedPort: null, changedAt: unit.when.happened });
    const [lead, port] = [graph.leads.get(l.lead), graph.ports.get(l.port)];
    if (lead && port) unit.emit("plug", { lead: l.lead, tag: lead.tag, name: lead.name, port: l.port, portName: port.name, state: "out" });
  }
  const named = stepsByName(graph);
  const rows = await unit.tx.find(StepDone, { job: unit.job.id }, { limit: 1000 });
  for (const r of rows) {
    const step = named(r.step);
    const sets = step && (step.kind === "fit" || step.kind === "assemble") && step.parts.includes(part);
    if (!sets && !comesOut.has(r.step)) continue;
    unit.tx.remove(r);
    unit.emit("step", { step: r.step, title: step?.title ?? r.step, done: false });
  }
}

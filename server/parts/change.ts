import { z } from "zod";
import { serialTaken } from "../build/serial";
import { done, no, type Result } from "../kernel/result";
import { Saw, seenOtherwise } from "../kernel/saw";
import { JobNumber, line, PartKey, TypeId } from "../kernel/text";
import { jobAction } from "../unit/action";
import type { JobUnit } from "../unit/unit";
import { findPart } from "./find-part";
import { swapPart } from "./swap";

export const ChangePart = z.object({
  number: JobNumber,
  part: PartKey,
  type: TypeId.optional(),
  serial: line(80).optional(),
  label: line(60).optional(),
  saw: Saw,
});

/** Another type in place of a part, its serial, or its name. */
export const changePart = jobAction({
  name: "parts.change",
  permission: "change parts",
  input: ChangePart,
  run: async (unit, c) => {
    const found = await findPart(unit, c.part);
    if (!found.ok) return found;
    const { row, name } = found;
    const two = seenOtherwise(c.saw, [
      { field: "serial", word: `the serial of ${name}`, is: row.serial ?? null, now: c.serial },
      { field: "label", word: `the name of ${name}`, is: row.label ?? null, now: c.label },
      { field: "type", word: `what ${name} is`, is: row.type, now: c.type },
    ]);
    if (two) return two;
    const taken = c.serial ? await serialTaken(unit.tx, [c.serial], row.id) : undefined;
    if (taken) return no(`${taken}. Nothing was changed. Look at the label again.`);
    if (c.label !== undefined && c.label !== (row.label ?? "")) {
      const named = await nameIt(unit, c.part, c.label);
      if (!named.ok) return named;
    }
    // The old piece goes with its own serial; what is given is the new one's.
    const swapped = c.type === undefined ? done() : await swapPart(unit, c.part, c.type);
    if (!swapped.ok || c.serial === undefined) return swapped;
    row.serial = c.serial === "" ? null : c.serial;
    unit.emit("part-serial", { part: c.part, name: row.label ?? c.part, serial: row.serial });
    return swapped;
  },
});

/** Another name for a part; none: it is called by its place. */
export async function nameIt(unit: JobUnit, part: string, label: string): Promise<Result> {
  const found = await findPart(unit, part);
  if (!found.ok) return found;
  const { build } = await unit.build();
  const there = build.parts.find((p) => p.label?.toLowerCase() === label.toLowerCase() && p.id !== part);
  if (label !== "" && there) return no(`Another part is called ${label} already. Nothing was changed. Give this one a name of its own.`);
  found.row.label = label === "" ? null : label;
  unit.emit("part-named", { part, was: found.name, now: label });
  return done();
}

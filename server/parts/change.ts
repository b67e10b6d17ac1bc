import { z } from "zod";
import { jobAction } from "../kernel/action";
import { done, no } from "../kernel/result";
import { JobNumber, line, PartKey, TypeId } from "../kernel/text";
import { findPart } from "./find-part";
import { swapPart } from "./swap";

export const ChangePart = z.object({
  number: JobNumber,
  part: PartKey,
  type: TypeId.optional(),
  serial: line(80).optional(),
  label: line(60).optional(),
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
    if (c.serial !== undefined) {
      row.serial = c.serial === "" ? null : c.serial;
      unit.emit("part-serial", { part: c.part, name: row.label ?? c.part, serial: row.serial });
    }
    if (c.label !== undefined && c.label !== (row.label ?? "")) {
      const { build } = await unit.build();
      const there = build.parts.find((p) => p.label?.toLowerCase() === c.label?.toLowerCase() && p.id !== c.part);
      if (c.label !== "" && there) return no(`Another part is called ${c.label} already. Nothing was changed. Give this one a name of its own.`);
      row.label = c.label === "" ? null : c.label;
      unit.emit("part-named", { part: c.part, was: name, now: c.label });
    }
    return c.type === undefined ? done() : swapPart(unit, c.part, c.type);
  },
});

import { z } from "zod";
import { ShelfType } from "../../db";
import { joinParts, MOST_PARTS } from "../build/join";
import { entryOf } from "../build/parts-of-job";
import { done, no } from "../kernel/result";
import { JobNumber, TypeId } from "../kernel/text";
import { jobAction } from "../unit/action";

export const AddPart = z.object({ number: JobNumber, type: TypeId, count: z.number().int().min(1).max(20).default(1) });

/** Parts from the shelf join a job; fans, drives, hubs and lights get a free mount. */
export const addPart = jobAction({
  name: "parts.add",
  permission: "change parts",
  input: AddPart,
  run: async (unit, a) => {
    const type = await unit.tx.findOne(ShelfType, { id: a.type });
    if (!type) return no(`The shelf has no part type ${a.type}. Nothing was changed.`);
    const { build } = await unit.build();
    if (build.parts.length + a.count > MOST_PARTS) return no(`A job holds at most ${MOST_PARTS} parts. Nothing was changed.`);
    joinParts(
      unit.tx,
      unit.job,
      build,
      Array.from({ length: a.count }, () => ({ type: entryOf(type.body) })),
    );
    unit.partsChanged();
    unit.emit("part-added", { names: [type.name], count: a.count });
    return done();
  },
});

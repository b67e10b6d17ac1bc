import { z } from "zod";
import { done, no } from "../kernel/result";
import { JobNumber, PartKey } from "../kernel/text";
import { jobAction } from "../unit/action";
import { findPart, isOf } from "./find-part";
import { dropLost } from "./lost-links";

export const RemovePart = z.object({ number: JobNumber, part: PartKey });

export const removePart = jobAction({
  name: "parts.remove",
  permission: "change parts",
  input: RemovePart,
  run: async (unit, r) => {
    const found = await findPart(unit, r.part);
    if (!found.ok) return found;
    const b = await unit.build();
    const own = isOf(r.part);
    const held = b.build.connections.find((c) => (c.state === "plugged" || c.state === "checked") && (own(c.lead) || own(c.port)));
    if (held)
      return no(
        `${found.row.label ?? r.part} is plugged (${b.graph.leads.get(held.lead)?.tag ?? held.lead}). Take its plugs out first. Nothing was changed.`,
      );
    if (b.build.parts.length === 1) return no("A job keeps at least one part. Nothing was changed.");
    unit.tx.remove(found.row);
    unit.partsChanged();
    await dropLost(unit);
    unit.emit("part-removed", { part: r.part, name: found.name });
    return done();
  },
});

import { z } from "zod";
import { ShelfType } from "../../db";
import { joinParts, MOST_PARTS } from "../build/join";
import { entryOf } from "../build/parts-of-job";
import { done, no } from "../kernel/result";
import { JobNumber } from "../kernel/text";
import { jobAction } from "../unit/action";
import { swapPart } from "./swap";
import { Trial } from "./what-if";

export const KeepTrial = z.object({ number: JobNumber, trial: Trial.min(1) });

/** What was tried on a copy becomes the job: all its changes at once, or none. */
export const keepTrial = jobAction({
  name: "parts.keep-trial",
  permission: "change parts",
  input: KeepTrial,
  run: async (unit, k) => {
    const { build } = await unit.build();
    const added = k.trial.filter((t) => t.adds);
    if (build.parts.length + added.length > MOST_PARTS) return no(`A job holds at most ${MOST_PARTS} parts. Nothing was changed.`);
    const rows = await unit.tx.find(ShelfType, { id: { $in: added.map((t) => t.type) } }, { limit: 20 });
    const joining = added.map((t) => rows.find((r) => r.id === t.type));
    const gone = added.find((_, i) => !joining[i]);
    if (gone) return no(`The shelf has no part type ${gone.type} any more. Nothing was changed.`);
    // All at once: each gets an id of its own.
    const types = joining.flatMap((r) => (r ? [entryOf(r.body)] : []));
    if (types.length > 0) {
      joinParts(
        unit.tx,
        unit.job,
        build,
        types.map((type) => ({ type })),
      );
      unit.partsChanged();
      unit.emit("part-added", { names: types.map((t) => t.name), count: 1 });
    }
    for (const t of k.trial.filter((x) => !x.adds)) {
      const said = await swapPart(unit, t.part, t.type);
      if (!said.ok) return said;
    }
    return done();
  },
});

import { z } from "zod";
import { Address } from "../../core/assembly";
import { cutoutsFor } from "../../core/routes";
import { done, no, type Result } from "../kernel/result";
import { Saw, seenOtherwise } from "../kernel/saw";
import { JobNumber, line } from "../kernel/text";
import { jobAction } from "../unit/action";

const LeadThrough = z.object({ number: JobNumber, lead: Address, cutout: line(40).nullable(), saw: Saw });

/** The technician leads a lead through a cut-out of their choice, or the usual way again. It stays so over plans. */
export const leadThrough = jobAction({
  name: "wiring.way",
  permission: "plan",
  input: LeadThrough,
  run: async (unit, w): Promise<Result> => {
    const b = await unit.build();
    const l = b.graph.leads.get(w.lead);
    if (!l) return no(`The parts of ${w.number} have changed. Nothing was changed. Look at the wiring again.`);
    const cut = cutoutsFor(b.graph, w.lead).find((c) => c.id === w.cutout);
    if (w.cutout !== null && !cut)
      return no(
        `${l.tag} (${l.name}) cannot be led through such a cut-out: there is none, or it would only go through and back. Nothing was changed.`,
      );
    const two = seenOtherwise(w.saw, [
      {
        field: "cutout",
        word: `the way of ${l.tag}`,
        is: unit.job.ways?.[w.lead] ?? null,
        now: w.cutout,
        words: (v) => (v === null ? "the usual one" : `through ${v}`),
      },
    ]);
    if (two) return two;
    const ways = { ...unit.job.ways };
    if (w.cutout === null) delete ways[w.lead];
    else ways[w.lead] = w.cutout;
    unit.job.ways = ways;
    unit.emit("led-through", { lead: w.lead, tag: l.tag, name: l.name, cutout: w.cutout, label: cut?.label ?? "" });
    return done();
  },
});

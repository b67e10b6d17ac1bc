import { z } from "zod";
import { done, type Result } from "../kernel/result";
import { JobNumber } from "../kernel/text";
import { jobAction } from "../unit/action";
import type { JobUnit } from "../unit/unit";
import { Note, say } from "./note";
import { Plug, plugIn } from "./plug";
import { markStep, Step } from "./step";

/** So many things are on one card at most; a bench says more in several entries. */
export const MOST_ON_CARD = 60;

const One = z.discriminatedUnion("kind", [
  Plug.omit({ number: true }).extend({ kind: z.literal("plug") }),
  Step.omit({ number: true }).extend({ kind: z.literal("step") }),
  Note.omit({ number: true, kind: true }).extend({ kind: z.literal("skip") }),
]);
type One = z.infer<typeof One>;

const about = (o: One): string => (o.kind === "plug" ? `plug:${o.lead}` : `${o.kind === "skip" ? "skip " : ""}${o.step ?? ""}`);

export const CardSaid = z.object({
  number: JobNumber,
  items: z
    .array(One)
    .min(1)
    .max(MOST_ON_CARD)
    .refine((list) => new Set(list.map(about)).size === list.length, "each lead and step is said once"),
});

function one(unit: JobUnit, number: string, o: One): Promise<Result> {
  if (o.kind === "plug") return plugIn(unit, { ...o, number });
  if (o.kind === "step") return markStep(unit, { ...o, number });
  return say(unit, { ...o, kind: "skip", number });
}

/** Everything that one press said of a card: all of it is recorded or, with the reason of the first that cannot be, nothing. */
export const card = jobAction({
  name: "bench.card",
  permission: "record",
  input: CardSaid,
  run: async (unit, { number, items }) => {
    await unit.links.read(items.flatMap((o) => (o.kind === "plug" ? o.lead : [])));
    for (const o of items) {
      const r = await one(unit, number, o);
      if (!r.ok) return r;
    }
    return done();
  },
});

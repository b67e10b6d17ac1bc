import { z } from "zod";
import { PHOTO_PLACES } from "../../core/handover";

const Who = { by: z.string().max(120), at: z.string().max(40) };

/** How a machine leaves, as it is kept with its job. */
export const Leaving = z.object({
  way: z.enum(["collected", "travels"]).optional(),
  /** What the client said to a difference from what was sold, by the line. */
  words: z
    .record(z.string().max(1500), z.object({ words: z.string().max(500), who: z.string().max(120), on: z.string().max(10), ...Who }))
    .default({}),
  /** What somebody saw in the bag, by what it is. */
  bag: z.record(z.string().max(400), z.object(Who)).default({}),
  packed: z.record(z.string().max(200), z.object(Who)).default({}),
  safety: z.object({ result: z.enum(["passed", "failed"]), with: z.string().max(200), ...Who }).optional(),
  /** Who took it, and what they saw. */
  taken: z
    .object({ who: z.string().max(120), saw: z.string().max(500), carrier: z.string().max(120), tracking: z.string().max(120), ...Who })
    .optional(),
});
export type Leaving = z.infer<typeof Leaving>;

/** What a later version no longer knows is left out. */
export const leavingOf = (stored: unknown): Leaving => {
  const read = Leaving.safeParse(stored ?? {});
  return read.success ? read.data : Leaving.parse({});
};

/** A photo of the fixed set hangs on such a step. */
export const PHOTO_STEP = "handover:";
export const photoPlaceOf = (step: string | null | undefined) =>
  step?.startsWith(PHOTO_STEP) ? PHOTO_PLACES.find((p) => p.id === step.slice(PHOTO_STEP.length)) : undefined;

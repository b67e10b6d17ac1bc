import { z } from "zod";
import { afterCommit, type EntityManager, ShelfType, TypePhoto } from "../../db";
import { done, no, type Result } from "../kernel/result";
import { TypeId } from "../kernel/text";
import { KeptPhotoSize } from "../photos/size";
import { photoStore } from "../photos/store";
import { shopAction } from "../unit/action";

/** The photo that lies under a part type's drawing, and the points of it whose place is known: px of the photo, mm of the part. */
export interface TypePhotoView {
  id: string;
  width: number;
  height: number;
  taps: { xPx: number; yPx: number; xMm: number; yMm: number }[];
}

const Taps = z
  .array(
    z.strictObject({
      xPx: z.number().min(0).max(20_000),
      yPx: z.number().min(0).max(20_000),
      xMm: z.number().min(-2000).max(5000),
      yMm: z.number().min(-2000).max(5000),
    }),
  )
  .max(20, "at most 20 points");

export async function typePhotoOf(em: EntityManager, type: string): Promise<TypePhotoView | null> {
  const row = await em.findOne(TypePhoto, { type });
  return row ? { id: row.id, width: row.width, height: row.height, taps: row.taps } : null;
}

/** Of these types, those that have one. */
export async function typePhotosOf(em: EntityManager, types: readonly string[]): Promise<Record<string, TypePhotoView>> {
  if (types.length === 0) return {};
  const rows = await em.find(TypePhoto, { type: { $in: [...types] } }, { limit: 400 });
  return Object.fromEntries(rows.map((r) => [r.type, { id: r.id, width: r.width, height: r.height, taps: r.taps }]));
}

/** A photo that is in the store already lies under the type's drawing from now on; the one before goes. */
export const keepTypePhoto = shopAction({
  name: "shelf.photo",
  permission: "keep the shelf",
  input: z.object({
    type: TypeId,
    photo: KeptPhotoSize,
  }),
  run: async (unit, p): Promise<Result> => {
    if ((await unit.tx.count(ShelfType, { id: p.type })) === 0) return no(`The shelf has no part type ${p.type}. Nothing was kept.`);
    const had = await unit.tx.findOne(TypePhoto, { type: p.type });
    if (had) {
      unit.tx.remove(had);
      await unit.tx.flush();
      // Not before it is certain that the new one is kept.
      afterCommit(unit.tx, () => void photoStore.remove(had.id));
    }
    unit.tx.create(TypePhoto, { ...p.photo, type: p.type, taps: [], by: unit.by, at: unit.when.happened });
    return done();
  },
});

/** Where somebody tapped on it. */
export const keepTaps = shopAction({
  name: "shelf.photo-taps",
  permission: "keep the shelf",
  input: z.object({ type: TypeId, photo: z.uuid("is none of ours"), taps: Taps }),
  run: async (unit, { type, photo, taps }): Promise<Result> => {
    const row = await unit.tx.findOne(TypePhoto, { type, id: photo });
    if (!row) return no("Somebody put another photo there meanwhile. Nothing was kept. Look again.");
    row.taps = taps;
    return done();
  },
});

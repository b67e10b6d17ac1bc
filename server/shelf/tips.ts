import { z } from "zod";
import { STEP_KINDS } from "../../core/order";
import { afterCommit, type EntityManager, ShelfType, Tip } from "../../db";
import { done, no, type Result, yes } from "../kernel/result";
import { line, TypeId } from "../kernel/text";
import { KeptPhotoSize } from "../photos/size";
import { photoStore } from "../photos/store";
import { shopDefaults } from "../shop/defaults";
import { shopAction } from "../unit/action";
import { type TypePhotoView, typePhotosOf } from "./type-photo";

/** What a colleague found out about a part type. */
export interface TipView {
  id: string;
  type: string;
  /** The kind of step that it is about; null: wherever a part of the type is in the hand. */
  step: string | null;
  words: string;
  by: string;
  at: string;
  stillSo: { by: string; at: string } | null;
  photo: { id: string; width: number; height: number } | null;
}

const MOST_A_TYPE = 40;

const viewOf = (t: {
  id: string;
  type: string;
  step?: string | null;
  words: string;
  by: { name: string };
  at: Date;
  stillSoAt?: Date | null;
  stillSoBy?: { name: string } | null;
  photo?: string | null;
  photoWidth?: number | null;
  photoHeight?: number | null;
}): TipView => ({
  id: t.id,
  type: t.type,
  step: t.step ?? null,
  words: t.words,
  by: t.by.name,
  at: t.at.toISOString(),
  stillSo: t.stillSoAt ? { by: t.stillSoBy?.name ?? "", at: t.stillSoAt.toISOString() } : null,
  photo: t.photo ? { id: t.photo, width: t.photoWidth ?? 1, height: t.photoHeight ?? 1 } : null,
});

/** Tips at these part types that hold, oldest first. */
export async function tipsOf(em: EntityManager, types: readonly string[]): Promise<TipView[]> {
  if (types.length === 0) return [];
  const rows = await em.find(
    Tip,
    { type: { $in: [...types] }, withdrawnAt: null },
    { orderBy: { at: "asc", id: "asc" }, limit: 400, populate: ["by", "stillSoBy"] },
  );
  return rows.map(viewOf);
}

/** What whoever has a part in the hand should know: tips at its type, and what the shop reminds of at its kind. */
export interface Notes {
  tips: TipView[];
  prompts: { kind: string; words: string }[];
  /** Photos of part types, by type, of which some points are known. */
  photos: Record<string, TypePhotoView>;
}
export const notesOf = async (em: EntityManager, types: readonly string[]): Promise<Notes> => ({
  tips: await tipsOf(em, types),
  prompts: (await shopDefaults(em)).prompts,
  photos: await typePhotosOf(em, types),
});

/** What of it moves without any job's revision, in a few letters. */
export async function notesMark(em: EntityManager): Promise<string> {
  const [row] = await em.execute<{ mark: string }[]>(
    `select count(*) || ' ' || coalesce(max(greatest("at", "still_so_at", "withdrawn_at"))::text, '') || ' ' || count("photo") as mark from "tip"`,
  );
  const [photos] = await em.execute<{ mark: string }[]>(
    `select count(*) || ' ' || coalesce(md5(string_agg("id" || "taps"::text, ' ' order by "id")), '') as mark from "type_photo"`,
  );
  return `${row?.mark ?? ""} ${photos?.mark ?? ""} ${JSON.stringify((await shopDefaults(em)).prompts)}`;
}

export const addTip = shopAction({
  name: "shelf.tip",
  permission: "keep the shelf",
  input: z.object({
    type: TypeId,
    step: z.enum(STEP_KINDS).nullable().default(null),
    words: line(200).refine((s) => s.length > 0, "say it in a line"),
  }),
  run: async (unit, t): Promise<Result<TipView>> => {
    if ((await unit.tx.count(ShelfType, { id: t.type })) === 0) return no(`The shelf has no part type ${t.type}. Nothing was kept.`);
    const there = await unit.tx.find(Tip, { type: t.type, withdrawnAt: null }, { limit: MOST_A_TYPE });
    if (there.length >= MOST_A_TYPE) return no(`${MOST_A_TYPE} tips are at it already. Nothing was kept. A lead may withdraw some.`);
    if (there.some((x) => x.words === t.words)) return no("That tip is there already. Nothing was kept. Press Still so at it.");
    const row = unit.tx.create(Tip, {
      ...t,
      by: unit.by,
      at: unit.when.happened,
      stillSoAt: null,
      stillSoBy: null,
      withdrawnAt: null,
      photo: null,
      photoWidth: null,
      photoHeight: null,
      photoBytes: null,
    });
    await unit.tx.flush();
    return yes(viewOf({ ...row, by: { name: unit.actor.name } } as never));
  },
});

/** A photo that is in the store already shows what a tip means; the one before goes. */
export const keepTipPhoto = shopAction({
  name: "shelf.tip-photo",
  permission: "keep the shelf",
  input: z.object({ tip: z.uuid("is none of ours"), photo: KeptPhotoSize }),
  run: async (unit, { tip, photo }): Promise<Result> => {
    const row = await unit.tx.findOne(Tip, { id: tip, withdrawnAt: null });
    if (!row) return no("That tip was withdrawn. Nothing was kept.");
    const had = row.photo;
    Object.assign(row, { photo: photo.id, photoWidth: photo.width, photoHeight: photo.height, photoBytes: photo.bytes });
    // Not before it is certain that the new one is kept.
    if (had) afterCommit(unit.tx, () => void photoStore.remove(had));
    return done();
  },
});

/** Somebody had such a part in the hand, and it is still so. */
export const stillSo = shopAction({
  name: "shelf.tip-still-so",
  permission: "record",
  input: z.object({ tip: z.uuid("is none of ours") }),
  run: async (unit, { tip }): Promise<Result> => {
    const row = await unit.tx.findOne(Tip, { id: tip, withdrawnAt: null });
    if (!row) return no("That tip was withdrawn. Nothing was changed.");
    Object.assign(row, { stillSoAt: unit.when.happened, stillSoBy: unit.by });
    return done();
  },
});

/** It holds no more, or never did; a lead says so. */
export const withdrawTip = shopAction({
  name: "shelf.tip-withdraw",
  permission: "keep the shop",
  input: z.object({ tip: z.uuid("is none of ours") }),
  run: async (unit, { tip }): Promise<Result> => {
    const row = await unit.tx.findOne(Tip, { id: tip, withdrawnAt: null });
    if (!row) return no("That tip was withdrawn already. Nothing was changed.");
    row.withdrawnAt = unit.when.happened;
    const shown = row.photo;
    row.photo = null;
    if (shown) afterCommit(unit.tx, () => void photoStore.remove(shown));
    return done();
  },
});

import { z } from "zod";
import { powerOn, SHEET } from "../../core/machine";
import { Photo, Tip, TypePhoto } from "../../db";
import { setupOfJob } from "../build/setup-of-job";
import { photoPlaceOf } from "../handover/leaving";
import { done, no, type Result, yes } from "../kernel/result";
import { JobNumber, key, PartKey } from "../kernel/text";
import { findPart } from "../parts/find-part";
import { jobAction, query } from "../unit/action";
import type { JobUnit } from "../unit/unit";
import { KeptPhotoSize } from "./size";
import { photoStore } from "./store";

/** Photos of one job. */
const MOST_PHOTOS = 300;

export const KeepPhoto = z.object({
  number: JobNumber,
  step: key(200).optional(),
  part: PartKey.optional(),
  photo: KeptPhotoSize,
});

/** What a line of the first-boot sheet, or a thing of the set-up, is called. */
async function lineName(unit: JobUnit, id: string): Promise<string | undefined> {
  const b = await unit.build();
  return powerOn(b.graph).lines.find((l) => l.id === id)?.what ?? (await setupOfJob(unit.tx, b)).find((i) => i.id === id)?.what;
}

/** A photo that is in the store already hangs on its step or part from now on. */
export const keepPhoto = jobAction({
  name: "photo.keep",
  permission: "record",
  input: KeepPhoto,
  run: async (unit, p): Promise<Result> => {
    if ((await unit.tx.count(Photo, { job: unit.job.id })) >= MOST_PHOTOS)
      return no(`${p.number} has ${MOST_PHOTOS} photos already. Nothing was changed.`);
    const part = p.part === undefined ? undefined : await findPart(unit, p.part);
    if (part && !part.ok) return part;
    const title =
      p.step === undefined
        ? undefined
        : p.step.startsWith(SHEET)
          ? await lineName(unit, p.step.slice(SHEET.length))
          : (photoPlaceOf(p.step)?.what ?? (await unit.step(p.step))?.title);
    unit.tx.create(Photo, { job: unit.job, step: p.step ?? null, part: p.part ?? null, ...p.photo, by: unit.by, at: unit.when.happened });
    unit.emit("photo", { photo: p.photo.id, of: title ?? part?.name ?? "the job" });
    return done();
  },
});

/** The picture of one photo. */
export const photo = query({
  name: "photo.see",
  input: z.object({ id: z.uuid() }),
  run: async (em, { id }): Promise<Result<Buffer>> => {
    const known =
      (await em.findOne(Photo, { id })) ?? (await em.findOne(TypePhoto, { id })) ?? (await em.findOne(Tip, { photo: id, withdrawnAt: null }));
    const bytes = known ? await photoStore.get(id) : undefined;
    return bytes ? yes(bytes) : no("There is no such photo.");
  },
});

import type { Result } from "../../server/kernel/result";
import { MOST_PHOTO_BYTES, PHOTO_TYPES } from "../device/photos";

/** A photo for the shelf, of a part type or of a tip at one: refused at once where it is none or too large. */
export async function sendShelfPhoto(of: { type: string } | { tip: string }, file: File): Promise<Result<undefined>> {
  if (!PHOTO_TYPES.includes(file.type))
    return { ok: false, sentence: `${file.name} is no photo that Imbra reads: it takes JPEG, PNG and WebP. Nothing was changed.` };
  if (file.size > MOST_PHOTO_BYTES)
    return { ok: false, sentence: `${file.name} is too large: ${Math.round(MOST_PHOTO_BYTES / 1_000_000)} MB at most. Nothing was changed.` };
  const r = await fetch(`/photos?${new URLSearchParams(of)}`, { method: "POST", headers: { "Content-Type": file.type }, body: file });
  return (await r.json()) as Result<undefined>;
}

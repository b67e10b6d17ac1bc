import sharp from "sharp";

/** A photo may be so large as it comes, bytes. */
export const MOST_PHOTO_BYTES = 25_000_000;
/** Longer edge of what is kept, px. */
const LONGEST_PX = 2000;
/** More than this many pixels are not unpacked: a small file may hold a huge picture. */
const MOST_PIXELS = 120_000_000;
// Four bytes of each in memory: some 500 MB, in a process of its own (beside.ts).

export interface Upright {
  bytes: Buffer;
  width: number;
  height: number;
}

/** A photo turned upright as its camera says (Exif orientation) and no larger than is needed, without anything else that the camera wrote; undefined: no photo. */
export async function upright(raw: Buffer): Promise<Upright | undefined> {
  try {
    const { format } = await sharp(raw, { limitInputPixels: MOST_PIXELS }).metadata();
    if (format === undefined || !["jpeg", "png", "webp"].includes(format)) return undefined;
    const { data, info } = await sharp(raw, { limitInputPixels: MOST_PIXELS })
      .rotate()
      .resize({ width: LONGEST_PX, height: LONGEST_PX, fit: "inside", withoutEnlargement: true })
      .flatten({ background: "#fff" })
      .jpeg({ quality: 82 })
      .toBuffer({ resolveWithObject: true });
    return { bytes: data, width: info.width, height: info.height };
  } catch {
    return undefined;
  }
}

import "server-only";
import { createHash, randomUUID } from "node:crypto";
import { may, mayNot, type Permission } from "../kernel/actor";
import { bodyAtMost } from "../kernel/body";
import { no, type Result } from "../kernel/result";
import { sealedOfPhoto } from "../kernel/seal";
import { seatHere } from "../kernel/who";
import { keepTipPhoto } from "../shelf/tips";
import { keepTypePhoto } from "../shelf/type-photo";
import { perform } from "../unit/door";
import { performKept } from "../unit/kept-entry";
import { uprightBeside } from "./beside";
import { keepPhoto } from "./keep";
import type { Kept } from "./size";
import { photoStore } from "./store";
import { MOST_PHOTO_BYTES } from "./upright";

/** One photo as a bench sends it: the picture as the body, what it is of and who took it in the address. Whatever is understood is answered with 200. */
export async function takePhoto(request: Request): Promise<{ status: number; body: Result }> {
  // Nobody's pictures are read.
  if (!(await seatHere())) return { status: 200, body: { ...no("You are not signed in any more. The photo is kept on the tablet."), later: "who" } };
  const asked = new URL(request.url).searchParams;
  const [type, tip] = [asked.get("type"), asked.get("tip")];
  if (type !== null)
    return { status: 200, body: await takeShelfPhoto(request, keepTypePhoto.permission, (photo) => perform(keepTypePhoto, { type, photo })) };
  if (tip !== null)
    return { status: 200, body: await takeShelfPhoto(request, keepTipPhoto.permission, (photo) => perform(keepTipPhoto, { tip, photo })) };
  let entry: unknown;
  try {
    entry = JSON.parse(asked.get("entry") ?? "");
  } catch {
    return { status: 400, body: no("The photo was not understood. Nothing was changed.") };
  }
  const raw = await bodyAtMost(request.body, MOST_PHOTO_BYTES);
  if (!raw)
    return { status: 200, body: no(`The photo is larger than ${MOST_PHOTO_BYTES / 1_000_000} MB. Take it with fewer pixels. Nothing was changed.`) };
  const made = await uprightBeside(raw);
  if (made === "busy")
    return { status: 200, body: { ...no("Many photos come in at this moment. This one is kept on the tablet and sent again."), later: "again" } };
  if (!made) return { status: 200, body: no("This file is no photo that Imbra reads: it takes JPEG, PNG and WebP. Nothing was changed.") };
  const id = randomUUID();
  const { bytes, ...size } = made;
  await photoStore.put(id, bytes);
  const about = Object.fromEntries(["number", "step", "part"].flatMap((k) => (asked.get(k) ? [[k, asked.get(k)]] : [])));
  const sealed = sealedOfPhoto({ ...about, sha256: createHash("sha256").update(raw).digest("hex") });
  const said = await performKept(seatHere, keepPhoto, { ...about, photo: { id, ...size, bytes: bytes.length } }, entry, sealed);
  if (!said.ok) await photoStore.remove(id);
  return { status: 200, body: said };
}

/** A photo of the shelf, under a part type's drawing or of a tip: whoever sends it stands at a page that waits for the answer. */
async function takeShelfPhoto(request: Request, permission: Permission, keep: (photo: Kept) => Promise<Result>): Promise<Result> {
  // Nothing is read, let alone unpacked, of whoever may not keep it.
  const actor = (await seatHere())?.actor;
  if (!may(actor, permission)) return no(mayNot(actor, permission));
  const raw = await bodyAtMost(request.body, MOST_PHOTO_BYTES);
  if (!raw) return no(`The photo is larger than ${MOST_PHOTO_BYTES / 1_000_000} MB. Take it with fewer pixels. Nothing was changed.`);
  const made = await uprightBeside(raw);
  if (made === "busy") return no("Many photos come in at this moment. Nothing was changed. Try again.");
  if (!made) return no("This file is no photo that Imbra reads: it takes JPEG, PNG and WebP. Nothing was changed.");
  const id = randomUUID();
  const { bytes, ...size } = made;
  await photoStore.put(id, bytes);
  const said = await keep({ id, ...size, bytes: bytes.length });
  if (!said.ok) await photoStore.remove(id);
  return said;
}

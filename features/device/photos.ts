import Dexie, { type EntityTable, liveQuery } from "dexie";
import type { Result } from "../../server/kernel/result";
import { hashOfBytes, sealedOfPhoto, sealOf } from "../../server/kernel/seal";
import { type AtTurn, turnNow } from "../frame/worker";
import { resultOf } from "./answer";

/** A photo may be so large as the camera gives it, bytes; as the server takes it. */
export const MOST_PHOTO_BYTES = 25_000_000;
export const PHOTO_TYPES = ["image/jpeg", "image/png", "image/webp"];
/** As many wait on one device. */
const MOST_WAITING = 60;

/** A photo as this device keeps it until the server has it. */
export interface KeptPhoto {
  id: number;
  key: string;
  number: string;
  step?: string;
  part?: string;
  picture: Blob;
  by?: { id: string; name: string };
  /** Whose turn it was, and what proves that they took it. */
  turn?: string;
  seal?: string;
  /** Of the picture, in hexadecimal. */
  sha256?: string;
  madeAtMs: number;
  /** The server cannot take it, and why. */
  aside?: string;
}

const db = new Dexie("imbra-photos") as Dexie & { photos: EntityTable<KeptPhoto, "id"> };
db.version(1).stores({ photos: "++id, &key" });

const megabytes = (n: number) => `${Math.round(n / 1_000_000)} MB`;

/** Keeps a photo on the device; a sentence where it cannot be one. */
export async function addPhoto(file: File, about: Pick<KeptPhoto, "number" | "step" | "part">): Promise<string | undefined> {
  if (!PHOTO_TYPES.includes(file.type)) return `${file.name} is no photo that Imbra reads: it takes JPEG, PNG and WebP. Nothing was kept.`;
  if (file.size > MOST_PHOTO_BYTES)
    return `${file.name} has ${megabytes(file.size)}; a photo may have ${megabytes(MOST_PHOTO_BYTES)}. Take it with fewer pixels. Nothing was kept.`;
  if ((await db.photos.count()) >= MOST_WAITING)
    return `${MOST_WAITING} photos wait on this tablet already. Nothing was kept. Let them be sent first.`;
  const key = `${Date.now().toString(36)}-${crypto.getRandomValues(new Uint32Array(2)).join("-")}`;
  // Whose it is is decided by the press, not by when its picture has been read.
  const at = turnNow();
  const photo = { ...about, key, madeAtMs: Date.now(), sha256: await hashOf(file) };
  await db.photos.add({ ...photo, picture: file, ...(at ? signed(at, photo) : {}) });
  return undefined;
}

/** SHA-256 by the browser where it has it (on this machine and behind TLS), else by ourselves. */
async function hashOf(file: Blob): Promise<string> {
  const bytes = await file.arrayBuffer();
  if (!crypto.subtle) return hashOfBytes(new Uint8Array(bytes));
  const hash = new Uint8Array(await crypto.subtle.digest("SHA-256", bytes));
  return [...hash].map((b) => b.toString(16).padStart(2, "0")).join("");
}

const signed = (
  at: AtTurn,
  { key, madeAtMs, number, step, part, sha256 }: Pick<KeptPhoto, "key" | "madeAtMs" | "number" | "step" | "part" | "sha256">,
) => ({
  by: { id: at.id, name: at.name },
  turn: at.turn.id,
  seal: sealOf(at.turn.secret, { turn: at.turn.id, key, madeAtMs, action: "photo.keep", input: sealedOfPhoto({ number, step, part, sha256 }) }),
});

/** What nobody has signed is of whoever says now that they are here. */
export async function adoptPhotos(at: AtTurn): Promise<void> {
  const nobodys = await db.photos.filter((p) => !p.aside && !p.seal && (!p.by || p.by.id === at.id)).toArray();
  for (const p of nobodys) {
    const sha256 = p.sha256 ?? (await hashOf(p.picture));
    await db.photos.update(p.id, { sha256, ...signed(at, { ...p, sha256 }) });
  }
}

export const dropPhoto = (id: number): Promise<void> => db.photos.delete(id);

/** Calls back with all that are kept here, now and after each change. Ends with the function it gives. */
export function watchPhotos(now: (list: KeptPhoto[]) => void): () => void {
  const subscription = liveQuery(() => db.photos.orderBy("id").toArray()).subscribe({ next: now, error: () => now([]) });
  return () => subscription.unsubscribe();
}

async function send(p: KeptPhoto): Promise<Result> {
  const entry = JSON.stringify({ key: p.key, madeAtMs: p.madeAtMs, sentAtMs: Date.now(), turn: p.turn, seal: p.seal });
  const about = new URLSearchParams({ number: p.number, ...(p.step ? { step: p.step } : {}), ...(p.part ? { part: p.part } : {}), entry });
  const answer = await fetch(`/photos?${about}`, {
    method: "POST",
    headers: { "Content-Type": p.picture.type },
    body: p.picture,
    signal: AbortSignal.timeout(120_000),
  });
  return resultOf(answer);
}

/** Sends what waits, one after the other; what the server cannot take is set aside with its reason. How many went. */
export async function sendPhotos(): Promise<number> {
  let sent = 0;
  for (const p of await db.photos.orderBy("id").toArray()) {
    if (p.aside) continue;
    // Nobody has said yet that it is theirs.
    if (!p.seal) return sent;
    try {
      const r = await send(p);
      if (!r.ok && r.later) return sent;
      if (r.ok) {
        await db.photos.delete(p.id);
        sent++;
      } else await db.photos.update(p.id, { aside: r.sentence });
    } catch {
      return sent;
    }
  }
  return sent;
}

import { z } from "zod";
import { STEP_KINDS } from "../../core/order";
import type { EntityManager } from "../../db";
import type { Actor } from "../kernel/actor";
import { no, type Result, yes } from "../kernel/result";
import { TypeId } from "../kernel/text";
import { uprightBeside } from "../photos/beside";
import type { Kept } from "../photos/size";
import { photoStore } from "../photos/store";
import { carryOut, query } from "../unit/action";
import { shelfEntry } from "./search";
import { addTip, keepTipPhoto } from "./tips";
import { keepTaps, keepTypePhoto } from "./type-photo";

/** A photo in a file is at most so long as text. */
const MOST_PHOTO_CHARS = 3_500_000;

const Jpeg = z.base64("is no picture").max(MOST_PHOTO_CHARS);

/** What comes with part types in a file: tips of colleagues, the shop's own photo with the points that are known of it. */
const Beside = z.object({
  format: z.literal("imbra-part-types"),
  version: z.literal(1),
  tips: z
    .array(
      z.object({
        type: z.string().max(80),
        step: z.enum(STEP_KINDS).nullable().default(null),
        words: z.string().min(1).max(200),
        jpeg: Jpeg.optional(),
      }),
    )
    .max(400)
    .default([]),
  photos: z
    .array(
      z.object({
        type: z.string().max(80),
        jpeg: Jpeg,
        taps: z
          .array(z.object({ xPx: z.number(), yPx: z.number(), xMm: z.number(), yMm: z.number() }))
          .max(20)
          .default([]),
      }),
    )
    .max(20)
    .default([]),
});
export type BesideTypes = z.infer<typeof Beside>;

/** A file that holds more than part types: these, and what comes with them. Undefined: it is none. */
export function besideTypes(data: unknown): { types: unknown[]; beside: BesideTypes } | string | undefined {
  if (data === null || typeof data !== "object" || Array.isArray(data) || (data as { format?: unknown }).format !== "imbra-part-types")
    return undefined;
  const read = Beside.safeParse(data);
  if (!read.success) return `${read.error.issues[0]?.path.join(".") ?? "The file"}: ${read.error.issues[0]?.message ?? "is not as it should be"}.`;
  const { types } = data as { types?: unknown };
  return Array.isArray(types) ? { types, beside: read.data } : "types: is no list of part types.";
}

/** A part type with its tips and its photo as one file, to be given to another shop. */
export const typeAsFile = query({
  name: "shelf.type-file",
  input: z.object({ id: TypeId }),
  run: async (em, { id }): Promise<Result<string>> => {
    const entry = await shelfEntry(em, id);
    if (!entry) return no(`The shelf has no part type ${id}.`);
    const picture = entry.photo ? await photoStore.get(entry.photo.id) : undefined;
    const file = {
      format: "imbra-part-types",
      version: 1,
      types: [entry.type],
      tips: await Promise.all(
        entry.tips.map(async ({ type, step, words, by, photo }) => {
          const shown = photo ? await photoStore.get(photo.id) : undefined;
          return { type, step, words, by, ...(shown ? { jpeg: shown.toString("base64") } : {}) };
        }),
      ),
      photos: picture && entry.photo ? [{ type: id, taps: entry.photo.taps, jpeg: picture.toString("base64") }] : [],
    };
    return yes(`${JSON.stringify(file, null, 1)}\n`);
  },
});

/** Tips and photos join the types that the shelf has; what is there already stays. What could not be taken, in sentences. */
export async function takeBeside(
  em: EntityManager,
  actor: Actor,
  beside: BesideTypes,
  types: ReadonlySet<string>,
): Promise<{ taken: number; left: string[] }> {
  const out = { taken: 0, left: [] as string[] };
  const fresh = () => em.fork() as EntityManager;
  for (const t of beside.tips.filter((x) => types.has(x.type))) {
    const r = await carryOut(fresh(), actor, addTip, { type: t.type, step: t.step, words: t.words });
    if (r.ok) {
      out.taken++;
      const { id: tip } = r.value;
      const said = t.jpeg === undefined ? undefined : await takePicture(t.jpeg, (photo) => carryOut(fresh(), actor, keepTipPhoto, { tip, photo }));
      if (said) out.left.push(`The photo of a tip at ${t.type} ${said}`);
    } else if (!r.sentence.startsWith("That tip is there already")) out.left.push(`A tip at ${t.type}: ${r.sentence}`);
  }
  for (const p of beside.photos.filter((x) => types.has(x.type))) {
    if ((await shelfEntry(fresh(), p.type))?.photo) {
      out.left.push(`The photo of ${p.type}: the shelf has one already, and keeps it.`);
      continue;
    }
    let photo = "";
    const said = await takePicture(p.jpeg, (size) => {
      photo = size.id;
      return carryOut(fresh(), actor, keepTypePhoto, { type: p.type, photo: size });
    });
    if (said) {
      out.left.push(`The photo of ${p.type} ${said}`);
      continue;
    }
    await carryOut(fresh(), actor, keepTaps, { type: p.type, photo, taps: p.taps });
    out.taken++;
  }
  return out;
}

/** A picture out of a file, made upright and kept; why not, where it could not be. */
async function takePicture(jpeg: string, keep: (photo: Kept) => Promise<Result>): Promise<string | undefined> {
  const made = await uprightBeside(Buffer.from(jpeg, "base64"));
  if (made === "busy") return "could not be read at this moment. Take the file again.";
  if (!made) return "is no picture that Imbra reads.";
  const id = crypto.randomUUID();
  await photoStore.put(id, made.bytes);
  const kept = await keep({ id, width: made.width, height: made.height, bytes: made.bytes.length });
  if (kept.ok) return undefined;
  await photoStore.remove(id);
  return `was not kept: ${kept.sentence}`;
}

import { z } from "zod";
import { PART_KINDS } from "../../core/catalogue";
import { type EntityManager, Shop } from "../../db";
import { FirstStartEnds } from "../build/first-start";
import { MinutesSaid } from "../build/own-minutes";
import { TestPrograms } from "../build/setup-of-job";
import { line, text } from "../kernel/text";
import { SchoolsPicked } from "../schools/follow";

/** What a shop sets once, instead of Imbra's on every job. Money in the shop's own, rate for an hour. */
export const ShopDefaults = z.object({
  name: line(120).default(""),
  /** As it stands on papers. */
  address: text(400).default(""),
  currency: line(8).default(""),
  rate: z.number().min(0).max(10_000).default(0),
  /** At what hour a machine is promised, where nobody says so. */
  dueHour: z
    .string()
    .regex(/^(([01]\d|2[0-3]):[0-5]\d)?$/, "give an hour, such as 15:00")
    .default(""),
  /** Schools that every new job follows; those left out are Imbra's. */
  schools: SchoolsPicked.default({}),
  /** What a letter to a client begins with: above the list of every offer. */
  letterWords: text(2000).default(""),
  /** On the label of every machine: whom to call, until when it is covered. */
  labelWords: text(200).default(""),
  /** What hands take here, by measure, minutes; instead of the practice value, until enough were recorded. */
  minutes: MinutesSaid.default({}),
  /** Under every offer. */
  offerWords: text(2000).default(""),
  /** Programs and accounts of the shop for the test: they come off again before a machine leaves. */
  testPrograms: TestPrograms.default([]),
  /** Where a first start ends; what comes after is put off until the machine is together. */
  firstStartEnds: FirstStartEnds.default("system"),
  /** Where phones and calendars reach this shop's Imbra; empty: no code with an address is printed. */
  reachAt: z
    .string()
    .trim()
    .max(200)
    .refine((s) => s === "" || /^https?:\/\/[^\s/]+[^\s]*$/.test(s), "give an address, such as https://imbra.example")
    .default(""),
  /** The local code asks for an electrical safety test before a machine leaves. */
  safetyTest: z.boolean().default(false),
  /** What the shop reminds everybody of at the bench, at parts of a kind. */
  prompts: z
    .array(z.object({ kind: z.enum(PART_KINDS), words: line(200).refine((s) => s.length > 0, "say what to remember") }))
    .max(40, "at most 40 reminders")
    .default([]),
});
export type ShopDefaults = z.infer<typeof ShopDefaults>;

/** The shop's own defaults; what a later version no longer knows is left out. */
export async function shopDefaults(em: EntityManager): Promise<ShopDefaults> {
  const row = await em.findOne(Shop, { id: 1 });
  const read = ShopDefaults.safeParse(row?.defaults ?? {});
  return read.success ? read.data : ShopDefaults.parse({});
}

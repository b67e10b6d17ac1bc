import { createHash } from "node:crypto";
import { z } from "zod";
import type { Agreed, Bought } from "../../core/offer";
import type { EntityManager } from "../../db";
import { findJob } from "../build/build-of-job";
import { Brief } from "../job/brief";
import { no, type Result, yes } from "../kernel/result";
import { JobNumber, line } from "../kernel/text";
import { newsMark } from "../live/since";
import { type OfferView, offerNow, offersOf } from "../offer/offers";
import { boughtOf, type LastPrice, lastPrices } from "../parts/bought";
import { type Facts, factsOfJob } from "../parts/facts";
import { isPlanning } from "../planner/runs";
import { notesMark, notesOf, type TipView, tipsOf } from "../shelf/tips";
import { shopDefaults } from "../shop/defaults";
import { query } from "../unit/action";
import { benches } from "./benches";
import { correctedSince, type OldEntry } from "./corrected-since";
import type { Had, Looked } from "./had";
import type { JobView } from "./job-view";
import { keptView, keyOf } from "./kept";
import { benchSlice, frameSlice, orderSlice, partsSlice, wiringSlice } from "./slices";

// What screens have as data: the page brings it the first time, and what news move is asked for again, alone.

interface JobSlice<T> {
  /** What of it moves without the job's revision, in a few letters. */
  besides?: (em: EntityManager, number: string) => Promise<string>;
  of: (view: JobView, em: EntityManager) => T | Promise<T>;
}
const slice = <T>(s: JobSlice<T>): JobSlice<T> => s;

/** What only Parts wants: what the client wrote and is offered, how parts come, part types corrected since. */
async function partsExtras(em: EntityManager, number: string, types: readonly string[]): Promise<PartsExtras | undefined> {
  const row = await findJob(em, number);
  if (!row) return undefined;
  return {
    aside: row.aside,
    brief: Brief.parse(row.brief ?? {}),
    corrected: await correctedSince(em, row.id),
    bought: await boughtOf(em, row.id),
    lastPrices: await lastPrices(em, row.id, types),
    offers: await offersOf(em, row.id),
    tips: await tipsOf(em, types),
    facts: await factsOfJob(em, row.id),
    offerNow: await offerNow(em, row),
  };
}
interface PartsExtras {
  aside: string[];
  brief: Brief;
  corrected: OldEntry[];
  bought: Bought[];
  lastPrices: Record<string, LastPrice>;
  offers: OfferView[];
  tips: TipView[];
  facts: Record<string, Facts>;
  /** What would be offered as the job stands. */
  offerNow: Agreed;
}

const typesOf = (v: JobView): string[] => [...new Set(v.build.parts.map((p) => p.type))];

/** The slices of a job, by the name that stands in their address. */
const JOB_SLICES = {
  frame: slice({ of: frameSlice }),
  bench: slice({
    besides: notesMark,
    of: async (v, em) => ({ ...benchSlice(v), notes: await notesOf(em, typesOf(v)) }),
  }),
  order: slice({ of: orderSlice }),
  wiring: slice({
    besides: async (em, number) => ((await isPlanning(em, number)) ? "r" : ""),
    of: async (v, em) => ({ ...wiringSlice(v), isRunning: await isPlanning(em, v.head.number) }),
  }),
  parts: slice({
    // What a thing cost elsewhere and what the shop takes for an hour moves without the job.
    besides: async (em) => `${JSON.stringify(await shopDefaults(em))} ${await notesMark(em)}`,
    of: async (v, em) => {
      const more = await partsExtras(em, v.head.number, typesOf(v));
      if (!more) throw new Error(`${v.head.number} is gone`);
      return { ...partsSlice(v), ...more };
    },
  }),
};
type JobSlices = typeof JOB_SLICES;
export type JobSliceName = keyof JobSlices;
/** What a screen gets of a slice. */
export type JobData<N extends JobSliceName> = Awaited<ReturnType<JobSlices[N]["of"]>>;
const NAMES = Object.keys(JOB_SLICES) as [JobSliceName, ...JobSliceName[]];

/** A build of this program tells its data from another's: a page that is older than the server loads itself anew. */
export const BUILD = process.env.IMBRA_BUILD ?? "";
const tagOf = (text: string): string => createHash("sha256").update(BUILD).update(text).digest("base64url").slice(0, 20);

/** A slice of a job. Where it is asked with the tag that it has now, nothing is derived and nothing sent. */
export const jobSlice = query({
  name: "job.slice",
  input: z.object({ number: JobNumber, slice: z.enum(NAMES), tag: line(60).optional() }),
  run: async (em, { number, slice: name, tag: known }): Promise<Result<Looked<unknown>>> => {
    const asOfMs = Date.now();
    const { besides, of }: JobSlice<unknown> = JOB_SLICES[name];
    const now = await keyOf(em, number);
    if (!now) return no(`There is no job ${number}.`);
    const { key, since } = now;
    const tag = tagOf(`${name} ${key} ${(await besides?.(em, number)) ?? ""}`);
    if (tag === known) return yes({ asOfMs, tag, since });
    const view = await keptView(em, number, key);
    if (!view) return no(`There is no job ${number}.`);
    return yes<Had<unknown>>({ data: await of(view, em), asOfMs, tag, since });
  },
});

/** What Benches shows. It is one question to the database, which tells by itself whether anything moved. */
export const benchesSlice = query({
  name: "bench.slice",
  input: z.strictObject({ tag: line(60).optional() }),
  run: async (em, { tag: known }): Promise<Result<Looked<BenchesData>>> => {
    const asOfMs = Date.now();
    const since = await newsMark();
    const data: BenchesData = { ...(await benches(em)), today: new Date(asOfMs).toISOString().slice(0, 10) };
    const tag = tagOf(JSON.stringify(data));
    return yes(tag === known ? { asOfMs, tag, since } : { data, asOfMs, tag, since });
  },
});
export type BenchesData = Awaited<ReturnType<typeof benches>> & { today: string };

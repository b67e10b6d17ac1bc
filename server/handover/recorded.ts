import type { TypeLookup } from "../../core/assembly";
import {
  bagOf,
  type InBag,
  type Missing,
  missingOf,
  type Packing,
  PHOTO_PLACES,
  packingOf,
  type SoldRow,
  soldAgainstBuilt,
  type Word,
  withoutLaidIn,
} from "../../core/handover";
import { powerOn } from "../../core/machine";
import { type EntityManager, Fault, Job, type JobRow, Observation, Photo, ShelfType, StepSkipped } from "../../db";
import { afterStart } from "../build/after-start";
import type { JobBuild } from "../build/build-of-job";
import { findingsOf, overridesOf, withSetAside } from "../build/findings";
import { entryOf } from "../build/parts-of-job";
import { stepsOfJob } from "../build/steps-of-job";
import { offerNow, offersOf } from "../offer/offers";
import { overOf } from "../parts/left-over";
import { shopDefaults } from "../shop/defaults";
import { type Leaving, leavingOf, photoPlaceOf } from "./leaving";

/** Kinds of part whose maker asks for the serial when one fails (common practice). */
const WITH_SERIAL = new Set(["board", "card", "supply", "drive"]);

export interface ReadyView {
  /** What keeps it here; none: it can go. */
  missing: Missing[];
  /** What was agreed: which offer, by whom, when; null: no offer was accepted. */
  agreed: { count: number; by: string; on: string } | null;
  sold: SoldRow[];
  currency: string;
  bag: (InBag & { seen: { by: string; at: string } | null })[];
  packing: (Packing & { done: { by: string; at: string } | null })[];
  photos: { id: string; what: string; taken: number }[];
  leaving: Leaving;
  safetyTest: boolean;
  /** The machine's other jobs: where it was built or last served, and where it came back. */
  before: { number: string; title: string } | null;
  after: { number: string; says: string; open: boolean }[];
}

const wordsOf = (l: Leaving): Record<string, Word> => l.words;

/** Types of the machine, and those that were sold and are not in it: as the shelf has them. */
async function typesOf(em: EntityManager, b: JobBuild, lines: readonly { type?: string | undefined }[]): Promise<TypeLookup> {
  const gone = lines.flatMap((l) => (l.type !== undefined && !b.types(l.type) ? [l.type] : []));
  const rows = gone.length === 0 ? [] : await em.find(ShelfType, { id: { $in: gone } }, { limit: 200 });
  const there = new Map(rows.map((r) => [r.id, entryOf(r.body)]));
  return (id) => b.types(id) ?? there.get(id);
}

/** Everything that a hand-over has to answer for, as the record has it at this moment. */
export async function readyOf(em: EntityManager, job: JobRow, b: JobBuild): Promise<ReadyView> {
  const leaving = leavingOf(job.leaving);
  const shop = await shopDefaults(em);
  const after = await afterStart(em, b);
  const found = findingsOf(b.graph, b.build.connections.length > 0);
  const findings = withSetAside([...found.parts, ...found.wiring], await overridesOf(em, job.id));
  const { steps } = await stepsOfJob(em, b);
  const skipped = new Map((await em.find(StepSkipped, { job: job.id }, { limit: 500 })).map((s) => [s.step, s.reason]));
  // What a stand-in showed nobody has seen of the machine.
  const seen = new Set((await em.find(Observation, { job: job.id, simulated: false }, { limit: 1000 })).map((o) => o.line));
  const faults = await em.find(Fault, { job: job.id }, { orderBy: { number: "asc" }, limit: 200 });
  const photos = await em.find(Photo, { job: job.id, step: { $ne: null } }, { limit: 300, fields: ["step"] });
  // The card that closes the case asks for the inside and for behind the tray: what was taken there is of them, in that order.
  const atClose = photos.filter((p) => p.step === "close").map((_, i) => (i === 0 ? "open" : "behind"));
  const places = [...photos.flatMap((p) => photoPlaceOf(p.step)?.id ?? []), ...atClose];
  const agreed = (await offersOf(em, job.id)).find((o) => o.acceptedBy !== null);
  // Hours that are left are no hours that were sold: what was agreed is what is worked.
  const now = agreed && (await offerNow(em, job, { hours: agreed.body.hours, words: agreed.body.words }));
  const sold =
    agreed && now
      ? soldAgainstBuilt(
          agreed.body,
          { ...withoutLaidIn(b.build, now, agreed.body), rate: agreed.body.rate },
          await typesOf(em, b, agreed.body.parts),
          after.promises,
          wordsOf(leaving),
        )
      : [];
  const bag = bagOf(b.graph, await overOf(em, b)).map((x) => ({ ...x, seen: leaving.bag[x.what] ?? null }));
  const packing = packingOf(b.graph, leaving.way).map((p) => ({ ...p, done: leaving.packed[p.id] ?? null }));
  const safety = !shop.safetyTest ? ("not asked for" as const) : (leaving.safety?.result ?? ("open" as const));
  const before = job.serviceOf ? await em.findOne(Job, { id: job.serviceOf.id }, { fields: ["number", "title"] }) : null;
  const later = await em.find(Job, { serviceOf: job.id }, { orderBy: { createdAt: "asc" }, limit: 50, fields: ["number", "purpose", "stage"] });
  return {
    missing: missingOf({
      stops: findings.filter((f) => f.severity === "stop"),
      steps: steps.filter((s) => !s.done).map((s) => ({ id: s.id, title: s.title, skipped: skipped.get(s.id) })),
      unseen: powerOn(b.graph).lines.filter((l) => !seen.has(l.id)),
      faults: faults.map((f) => ({
        number: f.number,
        title: f.title,
        state: f.state,
        known: (f.causes ?? []).length > 0 || (f.finding ?? "") !== "",
        simulated: f.simulated,
      })),
      setup: after.items
        .filter((i) => (i.mustBeOut ? i.stands !== "as wanted" && i.stands !== "not done" : ["open", "later", "otherwise"].includes(i.stands)))
        .map((i) => ({ id: i.id, what: i.what, mustBeOut: i.mustBeOut === true })),
      soaked: after.soaked,
      promises: after.promises,
      loans: after.loans,
      sold,
      photos: places,
      bag: bag.map((x) => ({ what: x.what, count: x.count, ticked: x.seen !== null })),
      way: leaving.way,
      packing: packing.map((p) => ({ id: p.id, what: p.what, done: p.done !== null })),
      safety,
      noSerial: b.build.parts.flatMap((p) => {
        const type = b.types(p.type);
        return type && WITH_SERIAL.has(type.kind) && !p.serial ? [p.label ?? type.name] : [];
      }),
    }),
    agreed: agreed ? { count: agreed.count, by: agreed.acceptedBy ?? "", on: agreed.acceptedOn ?? "" } : null,
    sold,
    currency: agreed?.body.currency ?? shop.currency,
    bag,
    packing,
    photos: PHOTO_PLACES.map((p) => ({ ...p, taken: places.filter((x) => x === p.id).length })),
    leaving,
    safetyTest: shop.safetyTest,
    before: before ? { number: before.number, title: before.title } : null,
    after: later.map((j) => ({ number: j.number, says: j.purpose, open: j.stage !== "handed-over" && j.stage !== "cancelled" })),
  };
}

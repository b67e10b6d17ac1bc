import { fullName } from "../../core/catalogue";
import type { Facts } from "../../core/handover";
import { asExpected, powerOn } from "../../core/machine";
import { type EntityManager, JobPart, type JobRow, LogEntry, Observation, SoakLog } from "../../db";
import { afterStart } from "../build/after-start";
import type { JobBuild } from "../build/build-of-job";
import { day } from "../kernel/text";
import { shopDefaults } from "../shop/defaults";
import { leavingOf } from "./leaving";

/** A soak as it is kept, as far as papers tell of it. */
interface KeptSoak {
  verdict?: string;
  minutes?: number;
  maxima?: { part: string; quantity: string; value: number }[];
}

/** What the record says of a job, for its papers. */
export async function factsOfRecord(em: EntityManager, job: JobRow, b: JobBuild): Promise<Facts> {
  const shop = await shopDefaults(em);
  const rows = await em.find(JobPart, { job: job.id }, { orderBy: { position: "asc" }, limit: 500, fields: ["key", "serial", "warrantyUntil"] });
  const own = new Map(rows.map((r) => [r.key, r]));
  const after = await afterStart(em, b);
  const soaks = await em.find(SoakLog, { job: job.id, simulated: false }, { orderBy: { at: "desc" }, limit: 20, fields: ["soak"] });
  const held = soaks.map((s) => s.soak as KeptSoak).find((s) => s.verdict === "held");
  const hottest = held?.maxima?.find((m) => m.part === "cpu" && m.quantity === "temperature")?.value;
  const seen = new Map((await em.find(Observation, { job: job.id, simulated: false }, { limit: 1000 })).map((o) => [o.line, o.value]));
  const { lines } = powerOn(b.graph);
  const left = await em.findOne(LogEntry, { job: job.id, kind: "handed-over" }, { orderBy: { id: "desc" }, populate: ["by"] });
  const said = left?.data as { open?: string[]; reason?: string } | null | undefined;
  return {
    number: job.number,
    title: job.title,
    client: job.client,
    shop: { name: shop.name, address: shop.address, label: shop.labelWords },
    parts: b.build.parts.map((p) => {
      const type = b.types(p.type);
      const r = own.get(p.id);
      const until = day(r?.warrantyUntil);
      return {
        id: p.id,
        name: type ? fullName(type) : p.type,
        ...(p.label ? { label: p.label } : {}),
        ...(r?.serial ? { serial: r.serial } : {}),
        ...(until ? { coverUntil: until } : {}),
      };
    }),
    promises: after.promises.map(({ words, verdict, because }) => ({ words, verdict, because })),
    ...(held ? { soak: { minutes: Math.round(held.minutes ?? 0), ...(hottest === undefined ? {} : { hottestC: hottest }) } } : {}),
    seen: {
      asExpected: lines.filter((l) => seen.has(l.id) && asExpected(l, seen.get(l.id) ?? "")).length,
      of: lines.length,
      not: lines.filter((l) => !seen.has(l.id)).map((l) => l.what),
    },
    setup: after.items.flatMap((i) => (i.stands === "as wanted" && i.done?.after && !i.mustBeOut ? [{ what: i.what, value: i.done.after }] : [])),
    ...(left && job.stage === "handed-over" && (said?.open?.length ?? 0) > 0
      ? { asItIs: { reason: said?.reason ?? "", by: left.by.name, missing: said?.open ?? [] } }
      : {}),
    way: leavingOf(job.leaving).way,
  };
}

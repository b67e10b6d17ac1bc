import { asPlugged, type Graph } from "../../core/assembly";
import { asItIs, clientPaper, type Paper, type Row, say, withRows } from "../../core/handover";
import { eventWords } from "../../core/job";
import { sumsOf } from "../../core/offer";
import { type EntityManager, Fault, type JobRow, LogEntry, SoakLog } from "../../db";
import { afterStart } from "../build/after-start";
import { buildOfJob, findJob, type JobBuild } from "../build/build-of-job";
import { overridesOf } from "../build/findings";
import { factsOfRecord } from "../handover/facts";
import { readyOf } from "../handover/recorded";
import { Brief } from "../job/brief";
import { offerNow, offersOf } from "../offer/offers";

/** Papers of a job that are made of the same parts: on screen, and as PDF. */
export const PAPERS = ["client", "shop", "delivery", "prices", "parcel"] as const;
export type PaperKind = (typeof PAPERS)[number];
export const isPaper = (k: string): k is PaperKind => (PAPERS as readonly string[]).includes(k);

const MOST_LOG = 2000;

/** A paper of a job, from its record at this moment, with the machine as hands have plugged it. */
export async function paperOf(em: EntityManager, number: string, kind: PaperKind): Promise<{ paper: Paper; graph: Graph } | undefined> {
  const job = await findJob(em, number);
  if (!job) return undefined;
  const b = await buildOfJob(em, job);
  const graph = asPlugged(b.graph);
  const make = { client: forClient, shop: forShop, delivery: forDelivery, prices: withPrices, parcel: parcelList }[kind];
  return { paper: await make(em, job, { ...b, graph }), graph };
}

const forClient = async (em: EntityManager, job: JobRow, b: JobBuild): Promise<Paper> => clientPaper(b.graph, await factsOfRecord(em, job, b));

const under = (job: JobRow) => [say("client.for", { client: job.client })];
const row = (what: string, says?: string | null, right?: string | null): Row => ({
  what: asItIs(what),
  ...(says ? { says: asItIs(says) } : {}),
  ...(right ? { right: asItIs(right) } : {}),
});

/** Everything that the record holds, for the shop. */
async function forShop(em: EntityManager, job: JobRow, b: JobBuild): Promise<Paper> {
  const facts = await factsOfRecord(em, job, b);
  const ready = await readyOf(em, job, b);
  const after = await afterStart(em, b);
  const faults = await em.find(Fault, { job: job.id, simulated: false }, { orderBy: { number: "asc" }, limit: 200 });
  const soaks = await em.find(SoakLog, { job: job.id }, { orderBy: { at: "asc" }, limit: 20, fields: ["name", "soak", "simulated"] });
  const log = await em.find(LogEntry, { job: job.id }, { orderBy: { id: "asc" }, limit: MOST_LOG, populate: ["by"] });
  const overrides = await overridesOf(em, job.id);
  return {
    title: say("shop.title", { number: job.number, title: job.title }),
    under: under(job),
    sections: withRows([
      { title: say("shop.missing"), rows: ready.missing.map((m) => row(m.what)) },
      {
        title: say("shop.sold"),
        rows: ready.sold.map((r) =>
          row(
            r.sold || `${r.built}, not sold`,
            r.state === "same" ? null : `${r.built}${r.word ? `. ${r.word.words} (${r.word.who}, ${r.word.on})` : ""}`,
            r.state,
          ),
        ),
      },
      { title: say("machine.title"), rows: [], drawing: "front" },
      { title: say("shop.behind"), rows: [], drawing: "behind" },
      { title: say("inside.title"), rows: facts.parts.map((p) => row(p.label ? `${p.label}: ${p.name}` : p.name, null, p.serial)) },
      {
        title: say("shop.faults"),
        rows: faults.map((f) =>
          row(
            `${f.number}. ${f.title}`,
            [f.finding, ...(f.causes ?? []).map((c) => c.words)].filter(Boolean).join("; "),
            f.minutes ? `${Math.round(f.minutes)} min` : f.state,
          ),
        ),
      },
      { title: say("shop.settings"), rows: after.items.map((i) => row(i.what, i.done?.why, i.done?.after || i.stands)) },
      {
        title: say("shop.soaks"),
        rows: soaks.map((s) =>
          row(s.name, (s.soak as { because?: string }).because, s.simulated ? "simulated" : (s.soak as { verdict?: string }).verdict),
        ),
      },
      { title: say("shop.accepted"), rows: overrides.map((o) => row(o.message, `${o.by.name}: ${o.reason}`)) },
      {
        title: say("shop.log"),
        rows: log.map((e) =>
          row(
            e.text ?? eventWords({ kind: e.kind, data: e.data ?? null }),
            null,
            `${e.happenedAt.toISOString().slice(0, 16).replace("T", " ")} ${e.by.name}`,
          ),
        ),
      },
    ]),
  };
}

const forDelivery = (em: EntityManager, job: JobRow, b: JobBuild) => delivery(em, job, b, false);
const withPrices = (em: EntityManager, job: JobRow, b: JobBuild) => delivery(em, job, b, true);

/** Parts and hours, with prices or without. */
async function delivery(em: EntityManager, job: JobRow, b: JobBuild, prices: boolean): Promise<Paper> {
  const agreed = (await offersOf(em, job.id)).find((o) => o.acceptedBy !== null)?.body;
  const now = await offerNow(em, job, agreed ? { hours: agreed.hours, words: agreed.words } : {});
  const serials = new Map<string, string[]>();
  for (const p of (await factsOfRecord(em, job, b)).parts) {
    const type = b.build.parts.find((x) => x.id === p.id)?.type ?? "";
    if (p.serial) serials.set(type, [...(serials.get(type) ?? []), p.serial]);
  }
  const money = (n: number) => `${n.toFixed(2)}${now.currency ? ` ${now.currency}` : ""}`;
  const price = (l: (typeof now.parts)[number]) => (!prices || l.own || l.each === undefined ? null : money(l.each * l.count));
  const sums = sumsOf(now);
  return {
    title: say("delivery.title", { number: job.number, title: job.title }),
    under: under(job),
    sections: withRows([
      { title: say("delivery.parts"), rows: now.parts.map((l) => row(`${l.count} × ${l.what}`, serials.get(l.type ?? "")?.join(", "), price(l))) },
      { title: say("delivery.beside"), rows: now.beside.map((l) => row(`${l.count} × ${l.what}`, null, price(l))) },
      {
        title: say("delivery.work"),
        rows:
          now.hours > 0
            ? [{ what: say("delivery.hours", { n: now.hours }), ...(prices && now.rate > 0 ? { right: asItIs(money(sums.work)) } : {}) }]
            : [],
      },
      ...(prices ? [{ title: say("delivery.together"), rows: [{ what: say("delivery.total"), right: asItIs(money(sums.total)) }] }] : []),
    ]),
  };
}

/** What goes along and is no part of the machine, with the bag. */
async function parcelList(em: EntityManager, job: JobRow, b: JobBuild): Promise<Paper> {
  const brief = Brief.parse(job.brief ?? {});
  const { bag, packing } = await readyOf(em, job, b);
  return {
    title: say("parcel.title", { number: job.number, title: job.title }),
    under: under(job),
    sections: withRows([
      { title: say("parcel.machine"), rows: [row(job.title, null, job.number)] },
      { title: say("parcel.beside"), rows: brief.extras.map((x) => row(`${Math.max(1, x.count)} × ${x.words}`)) },
      { title: say("parcel.bag"), rows: bag.map((x) => row(`${x.count} × ${x.what}`, x.onlyFor ? `only for ${x.onlyFor}` : null)) },
      { title: say("parcel.packing"), rows: packing.map((p) => row(p.what, p.because)) },
    ]),
  };
}

import { type Build, naturally } from "../../core/assembly";
import { type EntityManager, JobPart, type JobRow, ShelfType } from "../../db";
import { buildOfJob, findJob } from "../build/build-of-job";
import { onTheirWay } from "./returns";

export interface ReceiptRow {
  part: string;
  name: string;
  kind: string;
  serial: string | null;
  supplier: string | null;
  arrivedAt: string | null;
  warrantyUntil: string | null;
  price: number | null;
  reused: boolean;
  testResult: "passed" | "dead" | null;
  testedWith: string | null;
  /** Of which type it is: the next of the same may be taken for it. */
  type: string;
  /** Ordered as an accessory of the plan. */
  accessory: boolean;
  /** It went back, and no replacement is here. */
  back: { why: string; since: string; toWhom: string | null } | null;
}

async function receiptOf(em: EntityManager, job: JobRow, b: { build: Build }): Promise<ReceiptRow[]> {
  const rows = await em.find(JobPart, { job: job.id }, { limit: 250 });
  const away = new Map((await onTheirWay(em, job.id)).map((r) => [r.part, r]));
  const types = new Map(b.build.partTypes.map((t) => [t.id, t]));
  return rows
    .sort((x, y) => x.position - y.position || naturally(x.key, y.key))
    .filter((r) => r.origin === "client" || r.origin === "order")
    .map((r) => ({
      part: r.key,
      name: r.label ?? types.get(r.type)?.name ?? r.key,
      kind: types.get(r.type)?.kind ?? "cable",
      serial: r.serial ?? null,
      supplier: r.supplier ?? null,
      arrivedAt: r.arrivedAt ? r.arrivedAt.toISOString() : null,
      warrantyUntil: r.warrantyUntil ? String(r.warrantyUntil).slice(0, 10) : null,
      price: typeof r.priceCents === "number" ? r.priceCents / 100 : null,
      reused: (r.placing as { reused?: boolean }).reused === true,
      testResult: (r.testResult as "passed" | "dead" | null) ?? null,
      testedWith: r.testedWith ?? null,
      type: r.type,
      accessory: r.origin === "order",
      back: away.get(r.key) ?? null,
    }));
}

export interface ReceiptView {
  number: string;
  title: string;
  rows: ReceiptRow[];
  /** Known-good spares of the shop. */
  spares: { kind: string; name: string }[];
}

export async function receiptView(em: EntityManager, number: string): Promise<ReceiptView | undefined> {
  const job = await findJob(em, number);
  if (!job) return undefined;
  const b = await buildOfJob(em, job);
  const spares = await em.find(ShelfType, { spares: { $gt: 0 } }, { limit: 200, orderBy: { name: "asc" } });
  return {
    number: job.number,
    title: job.title,
    rows: await receiptOf(em, job, b),
    spares: spares.map((s) => ({ kind: s.kind, name: s.name })),
  };
}

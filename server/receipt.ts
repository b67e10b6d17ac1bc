import { z } from "zod";
import { type Build, naturally } from "../core/assembly";
import { type EntityManager, Fault, JobPart, type JobRow, ShelfType, type TechnicianRow } from "../db";
import { buildOfJob, findJob } from "./build-of-job";
import { log } from "./log";
import { done, no, type Result } from "./result";
import { withJob } from "./work";

const Number_ = z.string().min(1).max(40);
const PartKey = z.string().min(1).max(80);
const EntryKey = z.string().max(80).optional();

export const Receive = z.object({
  number: Number_,
  part: PartKey,
  serial: z.string().trim().max(80).optional(),
  supplier: z.string().trim().max(120).optional(),
  warrantyUntil: z.iso.date().nullable().optional(),
  price: z.number().min(0).max(1_000_000).nullable().optional(),
  entryKey: EntryKey,
});

/** A part has arrived: its serial by scanner or hand, who sold it, until when it is covered. */
export async function receive(em: EntityManager, by: TechnicianRow, r: z.infer<typeof Receive>): Promise<Result> {
  return withJob(em, r, async (tx, job, b) => {
    const row = await tx.findOne(JobPart, { job: job.id, key: r.part });
    if (!row) return no(`${r.number} has no part ${r.part} any more. Nothing was changed.`);
    const name = row.label ?? b.types(row.type)?.name ?? r.part;
    if (r.serial) {
      const other = await tx.findOne(JobPart, { serial: r.serial, id: { $ne: row.id } }, { populate: ["job"] });
      if (other)
        return no(
          `Serial ${r.serial} is already on ${other.label ?? other.key} of ${other.job.number}. Nothing was changed. Look at the label again.`,
        );
    }
    Object.assign(row, {
      arrivedAt: row.arrivedAt ?? new Date(),
      ...(r.serial === undefined ? {} : { serial: r.serial || null }),
      ...(r.supplier === undefined ? {} : { supplier: r.supplier || null }),
      ...(r.warrantyUntil === undefined ? {} : { warrantyUntil: r.warrantyUntil }),
      ...(r.price === undefined ? {} : { priceCents: r.price === null ? null : Math.round(r.price * 100) }),
    });
    log(
      tx,
      job,
      by,
      "receipt",
      `${name} arrived${r.serial ? `, serial ${r.serial}` : ""}${r.supplier ? `, from ${r.supplier}` : ""}${r.warrantyUntil ? `, covered until ${r.warrantyUntil}` : ""}${typeof r.price === "number" ? `, ${r.price.toFixed(2)}` : ""}.`,
      r.entryKey ? { entryKey: r.entryKey } : {},
    );
    return done();
  });
}

export const BenchTest = z.object({
  number: Number_,
  part: PartKey,
  result: z.enum(["passed", "dead"]),
  with: z.string().trim().max(200).default(""),
  waitUntil: z.iso.date().nullable().optional(),
  entryKey: EntryKey,
});

/** The test before assembly, with which known-good spare. A dead part starts a return: the job waits for its replacement. */
export async function benchTest(em: EntityManager, by: TechnicianRow, t: z.infer<typeof BenchTest>): Promise<Result> {
  return withJob(em, t, async (tx, job, b) => {
    const row = await tx.findOne(JobPart, { job: job.id, key: t.part });
    if (!row) return no(`${t.number} has no part ${t.part} any more. Nothing was changed.`);
    const type = b.types(row.type);
    const name = row.label ?? type?.name ?? t.part;
    row.testResult = t.result;
    row.testedWith = t.with || null;
    const withWhat = t.with ? ` Tested with ${t.with}.` : "";
    if (t.result === "passed") {
      log(tx, job, by, "test", `${name} passed the bench test.${withWhat}`, t.entryKey ? { entryKey: t.entryKey } : {});
      return done();
    }
    if (!t.waitUntil) return no("A dead part starts a return: say until when the replacement is due. Nothing was changed.");
    Object.assign(job, { stage: "waiting", waitingFor: `a replacement ${type?.name ?? name}`, waitingUntil: t.waitUntil });
    const last = await tx.findOne(Fault, { job: job.id }, { orderBy: { number: "desc" } });
    tx.create(Fault, {
      job,
      number: (last?.number ?? 0) + 1,
      line: "bench-test",
      title: `${name} dead on arrival`,
      expected: "passes the bench test",
      seen: `dead.${withWhat}`,
      state: "open",
      tried: [],
      finding: null,
      openedBy: by,
      openedAt: new Date(),
      closedAt: null,
    });
    log(
      tx,
      job,
      by,
      "test",
      `${name} is dead on arrival.${withWhat} The job waits for a replacement until ${t.waitUntil}.`,
      t.entryKey ? { entryKey: t.entryKey } : {},
    );
    return done();
  });
}

export const Replacement = z.object({ number: Number_, part: PartKey });

/** The replacement is here: the part begins anew, the job goes on, its old serial stays in the log. */
export async function replacementCame(em: EntityManager, by: TechnicianRow, r: z.infer<typeof Replacement>): Promise<Result> {
  return withJob(em, r, async (tx, job, b) => {
    const row = await tx.findOne(JobPart, { job: job.id, key: r.part });
    if (!row) return no(`${r.number} has no part ${r.part} any more. Nothing was changed.`);
    if (row.testResult !== "dead") return no(`${row.label ?? r.part} is not on its way back. Nothing was changed.`);
    const name = row.label ?? b.types(row.type)?.name ?? r.part;
    log(tx, job, by, "receipt", `Replacement for ${name} arrived${row.serial ? `; the dead one had serial ${row.serial}` : ""}.`);
    Object.assign(row, { serial: null, testResult: null, testedWith: null, arrivedAt: new Date() });
    const others = await tx.count(JobPart, { job: job.id, testResult: "dead", id: { $ne: row.id } });
    if (job.stage === "waiting" && others === 0) Object.assign(job, { stage: "planning", waitingFor: null, waitingUntil: null });
    const faults = await tx.find(Fault, { job: job.id, line: "bench-test", state: "open", title: `${name} dead on arrival` });
    for (const f of faults) Object.assign(f, { state: "closed", finding: "Replaced under warranty.", closedAt: new Date() });
    return done();
  });
}

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
}

async function receiptOf(em: EntityManager, job: JobRow, b: { build: Build }): Promise<ReceiptRow[]> {
  const rows = await em.find(JobPart, { job: job.id }, { limit: 250 });
  const types = new Map(b.build.partTypes.map((t) => [t.id, t]));
  return rows
    .sort((x, y) => x.position - y.position || naturally(x.key, y.key))
    .filter((r) => r.origin === "client")
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

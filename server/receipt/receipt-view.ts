import { type Build, naturally } from "../../core/assembly";
import { assumed, type FigureValue, figureWords, type PartType, rangeOf } from "../../core/catalogue";
import { orderList } from "../../core/intake";
import { type EntityManager, JobPart, type JobRow, ShelfType } from "../../db";
import { buildOfJob, findJob } from "../build/build-of-job";
import { type Facts, factsOf, whereBefore } from "../parts/facts";
import { onTheirWay } from "./returns";

/** Something that is only assumed of a part, and what it may be instead: the assumed value first. */
export interface AssumedOf {
  figure: string;
  word: string;
  ask: string;
  value: FigureValue;
  words: string;
  unit?: string;
  choices: { value: FigureValue; words: string }[];
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
  /** Of which type it is: the next of the same may be taken for it. */
  type: string;
  /** Ordered as an accessory of the plan. */
  accessory: boolean;
  /** It went back, and no replacement is here. */
  back: { why: string; since: string; toWhom: string | null } | null;
  assumed: AssumedOf[];
  facts: Facts;
  /** Other jobs in which a piece of this serial was. */
  before: { job: string; name: string }[];
}

async function receiptOf(em: EntityManager, job: JobRow, b: { build: Build }): Promise<ReceiptRow[]> {
  const rows = await em.find(JobPart, { job: job.id }, { limit: 250 });
  const away = new Map((await onTheirWay(em, job.id)).map((r) => [r.part, r]));
  const types = new Map(b.build.partTypes.map((t) => [t.id, t]));
  const before = await whereBefore(
    em,
    job.id,
    rows.flatMap((r) => r.serial ?? []),
  );
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
      assumed: assumedOf(types.get(r.type)),
      facts: factsOf(r.facts),
      before: r.serial ? before.filter((x) => x.serial === r.serial).map(({ job: n, name }) => ({ job: n, name })) : [],
    }));
}

function assumedOf(type: PartType | undefined): AssumedOf[] {
  if (!type) return [];
  // What nobody said and is only text is nothing that a tap answers.
  const answerable = assumed(type).filter((f) => f.options || typeof type.figures?.[f.id]?.value !== "string" || rangeOf(type, f).length > 0);
  return answerable.map((f) => {
    const value = type.figures?.[f.id]?.value ?? 0;
    // Lengths and watts are typed, what is counted or chosen is tapped.
    const other = typeof value === "number" && f.unit ? [] : rangeOf(type, f);
    const said = (v: FigureValue) => (v === "another" ? "another" : v === "assumed" ? "the usual one" : figureWords(f, v));
    return {
      figure: f.id,
      word: f.word,
      ask: f.ask(type.name),
      value,
      words: said(value),
      ...(f.unit ? { unit: f.unit } : {}),
      choices: [value, ...other].map((v) => ({ value: v, words: said(v) })),
    };
  });
}

export interface ReceiptView {
  number: string;
  title: string;
  rows: ReceiptRow[];
  /** Known-good spares of the shop. */
  spares: { kind: string; name: string }[];
  /** What has to be bought besides the parts, unless it comes along with one. */
  toOrder: { id: string; what: string; count: number }[];
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
    toOrder: orderList(b.graph)
      .slice(0, 30)
      .map(({ id, what, count }) => ({ id, what, count })),
    spares: spares.map((s) => ({ kind: s.kind, name: s.name })),
  };
}

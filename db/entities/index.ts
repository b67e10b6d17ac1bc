import { defineEntity, type InferEntity, p } from "@mikro-orm/core";

const id = () => p.uuid().primary().defaultRaw("gen_random_uuid()");
const now = () => p.datetime().defaultRaw("now()");

/** Who works here. Every entry of the log names one. */
export const Technician = defineEntity({
  name: "Technician",
  tableName: "technician",
  properties: { id: id(), name: p.string().unique(), role: p.string() },
});

/** A part type of the shelf, whole, as `core/catalogue` reads it. */
export const ShelfType = defineEntity({
  name: "ShelfType",
  tableName: "shelf_type",
  properties: {
    id: p.string().primary(),
    kind: p.string().index(),
    maker: p.string(),
    name: p.string(),
    revision: p.integer(),
    body: p.json<unknown>(),
    stock: p.integer().default(0),
    /** Kept for testing, known to be good; never built in. */
    spares: p.integer().default(0),
  },
  // Over an expression: written by the migration, named here so that both agree.
  indexes: [
    { name: "shelf_type_name_index", properties: ["name", "id"] },
    {
      name: "shelf_type_search_index",
      expression: `create index "shelf_type_search_index" on "shelf_type" using gin ((lower("maker" || ' ' || "name" || ' ' || "id" || ' ' || "kind")) gin_trgm_ops)`,
    },
  ],
});

/** What a part type was at each revision, and who made it so. */
export const ShelfRevision = defineEntity({
  name: "ShelfRevision",
  tableName: "shelf_revision",
  properties: {
    id: p.integer().primary().autoincrement(),
    type: p.string(),
    revision: p.integer(),
    body: p.json<unknown>(),
    by: () => p.manyToOne(Technician),
    at: now(),
    because: p.text().default(""),
  },
  uniques: [{ properties: ["type", "revision"] }],
});

export const Job = defineEntity({
  name: "Job",
  tableName: "job",
  properties: {
    id: id(),
    number: p.string().unique(),
    client: p.string(),
    title: p.string(),
    purpose: p.string().default(""),
    stage: p.string(),
    bench: p.integer().nullable(),
    technician: () => p.manyToOne(Technician).nullable(),
    dueOn: p.date().nullable(),
    waitingFor: p.string().nullable(),
    waitingUntil: p.date().nullable(),
    policy: p.json<unknown>(),
    settings: p.json<unknown>(),
    wishes: p.json<unknown>().defaultRaw("'{}'"),
    /** Lines of a pasted list that no part type of the shelf answered to. */
    aside: p.json<string[]>().defaultRaw("'[]'"),
    /** Counts changes of the parts; a plan remembers the count that it was made for. */
    partsRevision: p.integer().default(1),
    version: p.integer().version(),
    createdAt: now(),
  },
});

export const JobPart = defineEntity({
  name: "JobPart",
  tableName: "job_part",
  properties: {
    id: id(),
    job: () => p.manyToOne(Job).deleteRule("cascade"),
    key: p.string(),
    type: p.string(),
    label: p.string().nullable(),
    mount: p.string().nullable(),
    zone: p.string().nullable(),
    serial: p.string().nullable(),
    origin: p.string().default("client"),
    position: p.integer(),
    /** Which side of the frame, which way a fan blows, a card's vertical mount. */
    placing: p.json<unknown>().defaultRaw("'{}'"),
    supplier: p.string().nullable(),
    arrivedAt: p.datetime().nullable(),
    warrantyUntil: p.date().nullable(),
    /** Hundredths of the shop's money. */
    priceCents: p.integer().nullable(),
    /** `passed` or `dead`, on the bench test before assembly. */
    testResult: p.string().nullable(),
    testedWith: p.string().nullable(),
    typeRevision: p.integer().default(1),
    /** The catalogue entry as it was when the part joined the job. */
    body: p.json<unknown>(),
  },
  uniques: [{ properties: ["job", "key"] }],
  indexes: [{ name: "job_part_type_index", properties: ["type"] }],
});

export const Plan = defineEntity({
  name: "Plan",
  tableName: "plan",
  properties: {
    id: id(),
    job: () => p.manyToOne(Job).deleteRule("cascade"),
    revision: p.integer(),
    partsRevision: p.integer(),
    status: p.string(),
    /** How far it is proved, in words; empty when to its end. */
    proof: p.text().default(""),
    /** What it was proved for, as a hash, and what was held then. */
    proofKey: p.text().default(""),
    held: p.json<unknown>().default("[]"),
    cost: p.json<unknown>(),
    free: p.json<unknown>(),
    /** What would let in what stays free. */
    ways: p.json<unknown>().nullable(),
    cables: p.json<unknown>(),
    connections: p.json<unknown>(),
    madeBy: () => p.manyToOne(Technician),
    madeAt: now(),
    tookMs: p.integer(),
  },
  uniques: [{ properties: ["job", "revision"] }],
});

export const Link = defineEntity({
  name: "Link",
  tableName: "connection",
  properties: {
    id: id(),
    job: () => p.manyToOne(Job).deleteRule("cascade"),
    lead: p.string(),
    port: p.string(),
    place: p.json<number[]>().nullable(),
    state: p.string(),
    /** Where the plan wanted it, when hands did otherwise. */
    plannedPort: p.string().nullable(),
    why: p.text().default(""),
    planRevision: p.integer().nullable(),
    changedAt: now(),
  },
  uniques: [{ properties: ["job", "lead"] }],
});

/** Steps that make no connection: a fan fitted, the board in. */
export const StepDone = defineEntity({
  name: "StepDone",
  tableName: "step_done",
  properties: { id: id(), job: () => p.manyToOne(Job).deleteRule("cascade"), step: p.string(), at: now(), by: () => p.manyToOne(Technician) },
  uniques: [{ properties: ["job", "step"] }],
});

/** A finding that somebody set aside, with the reason: it shows for ever after, also when the finding is gone. */
export const Override = defineEntity({
  name: "Override",
  tableName: "finding_override",
  indexes: [{ name: "finding_override_job_index", properties: ["job"] }],
  properties: {
    id: id(),
    job: () => p.manyToOne(Job).deleteRule("cascade"),
    finding: p.string().length(500),
    rule: p.string(),
    severity: p.string(),
    message: p.text(),
    reason: p.text(),
    by: () => p.manyToOne(Technician),
    at: now(),
  },
});

/** Append-only: the database refuses to change or delete a row. */
export const LogEntry = defineEntity({
  name: "LogEntry",
  tableName: "log_entry",
  indexes: [{ name: "log_entry_job_index", properties: ["job", "id"] }],
  properties: {
    id: p.integer().primary().autoincrement(),
    job: () => p.manyToOne(Job),
    at: now(),
    by: () => p.manyToOne(Technician),
    kind: p.string(),
    text: p.text(),
    planRevision: p.integer().nullable(),
    /** Made by the sender, so that an entry sent twice is kept once. */
    entryKey: p.string().unique().nullable(),
    data: p.json<unknown>().nullable(),
  },
});

export const Observation = defineEntity({
  name: "Observation",
  tableName: "observation",
  properties: {
    id: id(),
    job: () => p.manyToOne(Job).deleteRule("cascade"),
    line: p.string(),
    asExpected: p.boolean(),
    value: p.string(),
    at: now(),
    by: () => p.manyToOne(Technician),
  },
  uniques: [{ properties: ["job", "line"] }],
});

export const Fault = defineEntity({
  name: "Fault",
  tableName: "fault",
  properties: {
    id: id(),
    job: () => p.manyToOne(Job).deleteRule("cascade"),
    number: p.integer(),
    line: p.string(),
    title: p.text(),
    expected: p.string(),
    seen: p.string(),
    state: p.string().default("open"),
    tried: p.json<{ element: string; name: string; result: string; at: string }[]>(),
    finding: p.text().nullable(),
    openedAt: now(),
    openedBy: () => p.manyToOne(Technician),
    closedAt: p.datetime().nullable(),
    version: p.integer().version(),
  },
  uniques: [{ properties: ["job", "number"] }],
});

export const ENTITIES = [Technician, ShelfType, ShelfRevision, Job, JobPart, Plan, Link, StepDone, Override, LogEntry, Observation, Fault];

export type JobRow = InferEntity<typeof Job>;
export type LinkRow = InferEntity<typeof Link>;
export type OverrideRow = InferEntity<typeof Override>;
export type TechnicianRow = InferEntity<typeof Technician>;
export type FaultRow = InferEntity<typeof Fault>;

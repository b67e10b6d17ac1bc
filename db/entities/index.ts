import { defineEntity, type InferEntity, p } from "@mikro-orm/core";

const id = () => p.uuid().primary().defaultRaw("gen_random_uuid()");
const now = () => p.datetime().defaultRaw("now()");

/** Who works here. Every entry of the log names one. */
export const Person = defineEntity({
  name: "Person",
  tableName: "person",
  properties: {
    id: id(),
    name: p.string().unique(),
    /** `lead`, `technician` or `reader`. */
    role: p.string(),
    /** Who has left stays in the log, and does nothing more. */
    active: p.boolean().default(true),
  },
});

/** What a person proves who they are with; never read together with the person. */
export const Credential = defineEntity({
  name: "Credential",
  tableName: "credential",
  properties: {
    person: () => p.oneToOne(Person).primary(),
    /** Argon2id, as its own text; without one nobody signs in under this name. */
    passwordHash: p.text().nullable(),
    pinHash: p.text().nullable(),
  },
});

/** A device that somebody signed in at. The token is in its cookie, its hash here. */
export const Session = defineEntity({
  name: "Session",
  tableName: "session",
  indexes: [{ name: "session_person_index", properties: ["person", "endedAt"] }],
  properties: {
    id: id(),
    tokenHash: p.string().length(64).unique(),
    /** Stays the same over sign-ins at one device. */
    device: p.uuid(),
    /** Who works at it now. */
    person: () => p.manyToOne(Person),
    /** Taken over by a PIN: what changes people or ends jobs asks for the password. */
    byPin: p.boolean().default(false),
    /** Browser and system, in words. */
    label: p.string().length(80),
    startedAt: now(),
    seenAt: now(),
    /** When somebody last showed that they are there: by signing in, by a PIN, by an entry. */
    actedAt: now(),
    endedAt: p.datetime().nullable(),
  },
});

/** Who has worked at a device: an entry that waited on it may be theirs. */
export const Turn = defineEntity({
  name: "Turn",
  tableName: "turn",
  properties: { device: p.uuid().primary(), person: () => p.manyToOne(Person).primary(), since: now() },
});

/** Wrong attempts by key, as the rate limiter counts them. */
export const Attempt = defineEntity({
  name: "Attempt",
  tableName: "attempt",
  properties: { key: p.string().primary(), points: p.integer().default(0), expire: p.bigint().nullable() },
});

/** What happened to the shop's people and settings, append-only. */
export const ShopEntry = defineEntity({
  name: "ShopEntry",
  tableName: "shop_log",
  properties: {
    id: p.integer().primary().autoincrement(),
    at: now(),
    by: () => p.manyToOne(Person),
    kind: p.string(),
    data: p.json<unknown>(),
  },
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
    by: () => p.manyToOne(Person),
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
    purpose: p.text().default(""),
    stage: p.string(),
    /** Where a job that waits goes on. */
    stageBefore: p.string().nullable(),
    bench: p.integer().nullable(),
    technician: () => p.manyToOne(Person).nullable(),
    dueOn: p.date().nullable(),
    waitingFor: p.text().nullable(),
    waitingUntil: p.date().nullable(),
    policy: p.json<unknown>(),
    settings: p.json<unknown>(),
    wishes: p.json<unknown>().defaultRaw("'{}'"),
    /** Leads that are led through a cut-out of somebody's choice: lead to cut-out. */
    ways: p.json<Record<string, string>>().defaultRaw("'{}'"),
    /** Steps that somebody pulled before others by hand, the last last. */
    pulled: p.json<{ step: string; before: string }[]>().defaultRaw("'[]'"),
    /** Lines of a pasted list that no part type of the shelf answered to. */
    aside: p.json<string[]>().defaultRaw("'[]'"),
    /** Counts changes of the parts; a plan remembers the count that it was made for. */
    partsRevision: p.integer().default(1),
    /** Counts what happened to the job: raised by every event. What screens show is kept for a revision. */
    revision: p.integer().default(1),
    version: p.integer().version(),
    createdAt: now(),
  },
  indexes: [
    { name: "job_stage_index", properties: ["stage", "createdAt"] },
    { name: "job_created_index", properties: ["createdAt"] },
    {
      name: "job_search_index",
      expression: `create index "job_search_index" on "job" using gin ((lower("number" || ' ' || "client" || ' ' || "title")) gin_trgm_ops)`,
    },
  ],
});

/** What lists show of a job, kept ready; derived for a revision of the job. Minutes are those of the steps that are left. */
export const JobHead = defineEntity({
  name: "JobHead",
  tableName: "job_head",
  properties: {
    job: () => p.oneToOne(Job).primary().deleteRule("cascade"),
    revision: p.integer(),
    next: p.text(),
    stops: p.integer(),
    openFaults: p.integer(),
    steps: p.integer(),
    done: p.integer(),
    minutes: p.integer(),
    leads: p.integer(),
    placed: p.integer(),
  },
});

/** The shop's one row: its revision of the shelf is raised by whatever changes stock, entries or what is promised of them. */
export const Shop = defineEntity({
  name: "Shop",
  tableName: "shop",
  properties: {
    id: p.integer().primary().autoincrement(false).default(1),
    shelfRevision: p.integer().default(1),
    /** A bench that nobody has touched for so long asks who it is before the next entry; 0: never. */
    benchLockMinutes: p.integer().default(15),
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
  indexes: [
    { name: "job_part_type_index", properties: ["type"] },
    {
      name: "job_part_serial_index",
      expression: `create index "job_part_serial_index" on "job_part" using gin (lower("serial") gin_trgm_ops)`,
    },
  ],
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
    madeBy: () => p.manyToOne(Person),
    madeAt: now(),
    tookMs: p.integer(),
  },
  uniques: [{ properties: ["job", "revision"] }],
});

/** A plan that was asked for: what it is for, how far it is, and what came of it. Planner processes take the rows that wait. */
export const PlanRun = defineEntity({
  name: "PlanRun",
  tableName: "plan_run",
  indexes: [
    { name: "plan_run_state_index", properties: ["state", "askedAt"] },
    {
      name: "plan_run_open_unique",
      expression: `create unique index "plan_run_open_unique" on "plan_run" ("job_id", "hash") where "state" in ('waiting', 'working')`,
    },
  ],
  properties: {
    id: id(),
    job: () => p.manyToOne(Job).deleteRule("cascade"),
    /** Everything that decides the plan, as a hash: the same plan is not made twice at once. */
    hash: p.text(),
    /** `waiting`, `working`, `done` or `stopped`. */
    state: p.string().default("waiting"),
    /** How far it is, from 0 to 1, and at what. */
    share: p.float().default(0),
    words: p.text().default(""),
    /** A first plan that was stored while it is being proved. */
    first: p.json<unknown>().nullable(),
    result: p.json<unknown>().nullable(),
    askedBy: () => p.manyToOne(Person),
    askedAt: now(),
    takenBy: p.text().nullable(),
    /** When its planner was last heard of. */
    beatAt: p.datetime().nullable(),
    tries: p.integer().default(0),
    endedAt: p.datetime().nullable(),
  },
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
  properties: { id: id(), job: () => p.manyToOne(Job).deleteRule("cascade"), step: p.string(), at: now(), by: () => p.manyToOne(Person) },
  uniques: [{ properties: ["job", "step"] }],
});

/** A step that hands left out for now, with the reason. Done, it is skipped no longer. */
export const StepSkipped = defineEntity({
  name: "StepSkipped",
  tableName: "step_skipped",
  properties: {
    id: id(),
    job: () => p.manyToOne(Job).deleteRule("cascade"),
    step: p.string(),
    reason: p.text(),
    at: now(),
    by: () => p.manyToOne(Person),
  },
  uniques: [{ properties: ["job", "step"] }],
});

/** A photo of a job; the picture itself is in the photo store under the id. Lengths in px and bytes. */
export const Photo = defineEntity({
  name: "Photo",
  tableName: "photo",
  indexes: [{ name: "photo_job_index", properties: ["job", "at"] }],
  properties: {
    id: id(),
    job: () => p.manyToOne(Job).deleteRule("cascade"),
    step: p.string().nullable(),
    part: p.string().nullable(),
    width: p.integer(),
    height: p.integer(),
    bytes: p.integer(),
    at: now(),
    by: () => p.manyToOne(Person),
  },
});

/** How long hands were at a step, s. What steps of one measure take is the shop's own figure. */
export const StepTime = defineEntity({
  name: "StepTime",
  tableName: "step_time",
  indexes: [
    { name: "step_time_measure_index", properties: ["measure", "seconds"] },
    { name: "step_time_job_index", properties: ["job"] },
  ],
  properties: {
    id: id(),
    job: () => p.manyToOne(Job).deleteRule("cascade"),
    step: p.string(),
    measure: p.string(),
    seconds: p.integer(),
    at: now(),
    by: () => p.manyToOne(Person),
  },
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
    by: () => p.manyToOne(Person),
    at: now(),
  },
});

/** What happened, append-only: the database refuses to change or delete a row. The sentence is made from kind and data. */
export const LogEntry = defineEntity({
  name: "LogEntry",
  tableName: "log_entry",
  indexes: [
    { name: "log_entry_job_index", properties: ["job", "id"] },
    {
      name: "log_entry_lead_index",
      expression: `create index "log_entry_lead_index" on "log_entry" ("job_id", ("data"->>'lead'), "id")`,
    },
  ],
  properties: {
    id: p.integer().primary().autoincrement(),
    job: () => p.manyToOne(Job),
    /** When the server heard of it. */
    at: now(),
    happenedAt: now(),
    by: () => p.manyToOne(Person),
    kind: p.string(),
    /** The sentence of an entry older than its kind's data. */
    text: p.text().nullable(),
    planRevision: p.integer().nullable(),
    /** Made by the sender, so that an entry sent twice is kept once. */
    entryKey: p.string().nullable(),
    data: p.json<unknown>().nullable(),
  },
  uniques: [{ name: "log_entry_job_entry_key_unique", properties: ["job", "entryKey"] }],
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
    by: () => p.manyToOne(Person),
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
    expected: p.text(),
    seen: p.text(),
    state: p.string().default("open"),
    tried: p.json<{ element: string; name: string; result: string; at: string }[]>(),
    finding: p.text().nullable(),
    openedAt: now(),
    openedBy: () => p.manyToOne(Person),
    closedAt: p.datetime().nullable(),
    version: p.integer().version(),
  },
  uniques: [{ properties: ["job", "number"] }],
});

export const ENTITIES = [
  Person,
  Credential,
  Session,
  Turn,
  Attempt,
  ShopEntry,
  ShelfType,
  ShelfRevision,
  Job,
  JobHead,
  Shop,
  JobPart,
  Plan,
  PlanRun,
  Link,
  StepDone,
  StepSkipped,
  StepTime,
  Photo,
  Override,
  LogEntry,
  Observation,
  Fault,
];

export type PlanRunRow = InferEntity<typeof PlanRun>;
export type JobRow = InferEntity<typeof Job>;
export type LinkRow = InferEntity<typeof Link>;
export type OverrideRow = InferEntity<typeof Override>;
export type PersonRow = InferEntity<typeof Person>;
export type FaultRow = InferEntity<typeof Fault>;

import { defineEntity, type InferEntity, p } from "@mikro-orm/core";
import { id, now } from "./columns";
import { Person } from "./people";

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
    /** The client's mail, how to reach them, what is promised, what goes into no machine. */
    brief: p.json<unknown>().defaultRaw("'{}'"),
    /** How it leaves: collected or sent, words of the client, what was seen in the bag, its safety test. */
    leaving: p.json<unknown>().defaultRaw("'{}'"),
    /** The job of the same machine before this one: it came back. */
    serviceOf: () => p.manyToOne(Job).nullable(),
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
      name: "job_service_of_index",
      expression: `create index "job_service_of_index" on "job" ("service_of_id") where "service_of_id" is not null`,
    },
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
    /** Where the price was read, and on which day. */
    priceFrom: p.text().nullable(),
    priceOn: p.date().nullable(),
    availability: p.text().nullable(),
    orderedOn: p.date().nullable(),
    expectedOn: p.date().nullable(),
    /** What is known of this very piece: firmware, where it comes from, its condition, what was proved on it. */
    facts: p.json<unknown>().defaultRaw("'{}'"),
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
      name: "job_part_serial_exact_index",
      expression: `create index "job_part_serial_exact_index" on "job_part" (lower("serial"))`,
    },
    {
      name: "job_part_serial_index",
      expression: `create index "job_part_serial_index" on "job_part" using gin (lower("serial") gin_trgm_ops)`,
    },
  ],
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

/** What was offered to the client; once accepted it is what was agreed, and never changes. */
export const Offer = defineEntity({
  name: "Offer",
  tableName: "offer",
  properties: {
    id: id(),
    job: () => p.manyToOne(Job).deleteRule("cascade"),
    count: p.integer(),
    body: p.json<unknown>(),
    by: () => p.manyToOne(Person),
    at: now(),
    /** Who of the client's side said yes. */
    acceptedBy: p.text().nullable(),
    acceptedOn: p.date().nullable(),
    acceptedToldBy: () => p.manyToOne(Person).nullable(),
  },
  uniques: [{ properties: ["job", "count"] }],
});

export type JobRow = InferEntity<typeof Job>;
export type OverrideRow = InferEntity<typeof Override>;

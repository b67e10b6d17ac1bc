import { defineEntity, type InferEntity, p } from "@mikro-orm/core";
import { id, now } from "./columns";
import { Job } from "./job";
import { Person } from "./people";

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
    /** What was seen before a second look said otherwise. */
    firstValue: p.text().nullable(),
    /** Said by a stand-in. */
    simulated: p.boolean().default(false),
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
    /** Before a fault was an incident: what was tried. */
    tried: p.json<{ element: string; name: string; result: string; at: string }[]>(),
    /** All lines of the sheet that are wrong because of it, the first among them. */
    lines: p.json<string[]>(),
    /** What it was in the end: elements with the mode of each. */
    causes: p.json<{ element: string; mode: string; kind: string; words: string }[]>().nullable(),
    /** Lost by it, of hands. */
    minutes: p.float().nullable(),
    /** Of a stand-in that is practised on: it holds up nothing, and nothing of it counts in the shop's record. */
    simulated: p.boolean().default(false),
    finding: p.text().nullable(),
    openedAt: now(),
    openedBy: () => p.manyToOne(Person),
    closedAt: p.datetime().nullable(),
    version: p.integer().version(),
  },
  uniques: [{ properties: ["job", "number"] }],
});

/** What was seen of a fault or done about it, append-only: the database refuses to change or delete a row. */
export const FaultEvent = defineEntity({
  name: "FaultEvent",
  tableName: "fault_event",
  indexes: [{ name: "fault_event_job_index", properties: ["job", "fault", "id"] }],
  properties: {
    id: p.integer().primary().autoincrement(),
    job: () => p.manyToOne(Job),
    fault: p.integer(),
    /** A look: the line and what it showed. */
    line: p.text().nullable(),
    value: p.text().nullable(),
    /** Or something done: by its id, in words, and what came of it. */
    deed: p.text().nullable(),
    words: p.text().default(""),
    result: p.text().nullable(),
    /** Since what was seen or done before it. */
    minutes: p.float().nullable(),
    simulated: p.boolean().default(false),
    by: () => p.manyToOne(Person),
    at: now(),
  },
});

/** A part that went back to whom it came from: dead, damaged, another than ordered, exchanged. Open until its replacement is here. */
export const PartReturn = defineEntity({
  name: "PartReturn",
  tableName: "part_return",
  indexes: [{ properties: ["job", "part"] }],
  properties: {
    id: id(),
    job: () => p.manyToOne(Job).deleteRule("cascade"),
    part: p.string(),
    name: p.text(),
    serial: p.text().nullable(),
    /** `dead`, `damaged`, `wrong` or `exchanged`. */
    why: p.string(),
    words: p.text().default(""),
    toWhom: p.text().nullable(),
    since: now(),
    closedAt: p.datetime().nullable(),
    by: () => p.manyToOne(Person),
  },
});

/** A log of readings under load, thinned, and what it came to. */
export const SoakLog = defineEntity({
  name: "SoakLog",
  tableName: "soak_log",
  indexes: [{ name: "soak_log_job_index", properties: ["job", "at"] }],
  properties: {
    id: id(),
    job: () => p.manyToOne(Job).deleteRule("cascade"),
    name: p.text(),
    readings: p.json<unknown>(),
    soak: p.json<unknown>(),
    /** Under which it ran: room, panels, fans, how the supply sounded. */
    conditions: p.text().default(""),
    /** Of a stand-in, not of the machine itself. */
    simulated: p.boolean().default(false),
    by: () => p.manyToOne(Person),
    at: now(),
  },
});

/** One thing of the set-up as somebody wrote it down: how it was, how it is, or why not. */
export const SetupRow = defineEntity({
  name: "SetupRow",
  tableName: "setup_done",
  uniques: [{ properties: ["job", "item"] }],
  properties: {
    id: id(),
    job: () => p.manyToOne(Job).deleteRule("cascade"),
    item: p.text(),
    target: p.text(),
    before: p.text().default(""),
    after: p.text().default(""),
    state: p.text(),
    why: p.text().default(""),
    by: () => p.manyToOne(Person),
    at: now(),
  },
});

/** What was measured or seen of one thing that was promised. */
export const ProofRow = defineEntity({
  name: "ProofRow",
  tableName: "proof",
  uniques: [{ properties: ["job", "about", "words"] }],
  properties: {
    id: id(),
    job: () => p.manyToOne(Job).deleteRule("cascade"),
    about: p.text(),
    words: p.text(),
    body: p.json<unknown>(),
    by: () => p.manyToOne(Person),
    at: now(),
  },
});

export type PartReturnRow = InferEntity<typeof PartReturn>;
export type FaultRow = InferEntity<typeof Fault>;
export type ObservationRow = InferEntity<typeof Observation>;
export type FaultEventRow = InferEntity<typeof FaultEvent>;

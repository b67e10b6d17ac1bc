import { defineEntity, type InferEntity, p } from "@mikro-orm/core";
import { id, now } from "./columns";
import { Job } from "./job";
import { Person } from "./people";

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

export type PlanRunRow = InferEntity<typeof PlanRun>;
export type LinkRow = InferEntity<typeof Link>;

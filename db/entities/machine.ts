import { defineEntity, p } from "@mikro-orm/core";
import { id, now } from "./columns";
import { Job } from "./job";
import { Person } from "./people";

/** Lets a machine send what it reads of itself, to one job, for a while. The database has only the hash of what proves it. */
export const MachineToken = defineEntity({
  name: "MachineToken",
  tableName: "machine_token",
  indexes: [{ name: "machine_token_job_index", properties: ["job", "at"] }],
  properties: {
    id: id(),
    job: () => p.manyToOne(Job).deleteRule("cascade"),
    tokenHash: p.text().unique(),
    name: p.text(),
    /** The stand-in that has it; nothing: a machine. */
    simulated: p.text().nullable(),
    by: () => p.manyToOne(Person),
    at: now(),
    until: p.datetime(),
    withdrawnAt: p.datetime().nullable(),
  },
});

/** A page of a machine for its client's eyes. The database has only the hash of what its address says. */
export const ClientPage = defineEntity({
  name: "ClientPage",
  tableName: "client_page",
  indexes: [{ name: "client_page_job_index", properties: ["job", "at"] }],
  properties: {
    id: id(),
    job: () => p.manyToOne(Job).deleteRule("cascade"),
    tokenHash: p.text().unique(),
    by: () => p.manyToOne(Person),
    at: now(),
    withdrawnAt: p.datetime().nullable(),
  },
});

/** What a machine read of itself at one moment, by the names that its programs give. */
export const Reading = defineEntity({
  name: "Reading",
  tableName: "reading",
  indexes: [{ name: "reading_token_index", properties: ["token", "atS"] }],
  properties: {
    id: id(),
    token: () => p.manyToOne(MachineToken).deleteRule("cascade"),
    atS: p.double().$type<number>(),
    at: now(),
    values: p.json<Record<string, number>>(),
  },
});

/** A thing of the shop, or of somebody, that is in a machine for a while and must be out before it goes. */
export const Loan = defineEntity({
  name: "Loan",
  tableName: "loan",
  indexes: [{ name: "loan_job_index", properties: ["job", "at"] }],
  properties: {
    id: id(),
    job: () => p.manyToOne(Job).deleteRule("cascade"),
    what: p.text(),
    owner: p.text(),
    serial: p.text().default(""),
    by: () => p.manyToOne(Person),
    at: now(),
    backAt: p.datetime().nullable(),
    backBy: () => p.manyToOne(Person).nullable().deleteRule("set null"),
  },
});

/** Something that only its client is to know: sealed until it is shown, once; then nothing of it is left. */
export const Secret = defineEntity({
  name: "Secret",
  tableName: "secret",
  indexes: [{ name: "secret_job_index", properties: ["job", "at"] }],
  properties: {
    id: id(),
    job: () => p.manyToOne(Job).deleteRule("cascade"),
    what: p.text(),
    sealed: p.text().nullable(),
    by: () => p.manyToOne(Person),
    at: now(),
    shownAt: p.datetime().nullable(),
    shownTo: () => p.manyToOne(Person).nullable().deleteRule("set null"),
  },
});

/** Something that a machine does by itself for some minutes. */
export const ByItself = defineEntity({
  name: "ByItself",
  tableName: "by_itself",
  indexes: [{ name: "by_itself_job_index", properties: ["job", "at"] }],
  properties: {
    id: id(),
    job: () => p.manyToOne(Job).deleteRule("cascade"),
    what: p.text(),
    minutes: p.integer(),
    by: () => p.manyToOne(Person),
    at: now(),
    seenAt: p.datetime().nullable(),
  },
});

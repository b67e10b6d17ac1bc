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

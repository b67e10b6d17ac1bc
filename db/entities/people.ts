import { defineEntity, type InferEntity, p } from "@mikro-orm/core";
import { id, now } from "./columns";

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
  indexes: [
    { name: "session_person_index", properties: ["person", "endedAt"] },
    { name: "session_opened_index", properties: ["openedBy", "device"] },
  ],
  properties: {
    id: id(),
    tokenHash: p.string().length(64).unique(),
    /** Stays the same over sign-ins at one device. */
    device: p.uuid(),
    /** Who works at it now. */
    person: () => p.manyToOne(Person),
    /** Who signed in with a password: it ends with them, whoever works at it since. */
    openedBy: () => p.manyToOne(Person),
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

/** From when to when a person worked at a device: an entry that waited on it may be theirs, if its seal says that it is of this turn. */
export const Turn = defineEntity({
  name: "Turn",
  tableName: "turn",
  indexes: [
    { name: "turn_device_index", properties: ["device", "person"] },
    { name: "turn_open_unique", expression: `create unique index "turn_open_unique" on "turn" ("session_id") where "ended_at" is null` },
  ],
  properties: {
    id: id(),
    device: p.uuid(),
    session: () => p.manyToOne(Session).deleteRule("cascade"),
    person: () => p.manyToOne(Person),
    byPin: p.boolean().default(false),
    beganAt: now(),
    endedAt: p.datetime().nullable(),
    /** `taken over`, `signed out`, `ended` (by a lead, or with its person). */
    endedBy: p.string().length(20).nullable(),
  },
});

/** Wrong tries in a row by key, since when they count, and until when no more are taken. */
export const WrongTry = defineEntity({
  name: "WrongTry",
  tableName: "wrong_try",
  properties: { key: p.string().primary(), count: p.integer(), since: p.datetime(), until: p.datetime() },
});

/** Wrong attempts by key, as the rate limiter counts them. */
export const Attempt = defineEntity({
  name: "Attempt",
  tableName: "attempt",
  properties: { key: p.string().primary(), points: p.integer().default(0), expire: p.bigint().nullable() },
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
    /** What the shop sets once for all jobs. */
    defaults: p.json<unknown>().defaultRaw("'{}'"),
    /** Of which part a column of a log is, as hands said once. */
    logColumns: p.json<unknown>().defaultRaw("'{}'"),
  },
});

/** What happened to the shop's people and settings, append-only. */
export const ShopEntry = defineEntity({
  name: "ShopEntry",
  tableName: "shop_log",
  properties: {
    id: p.integer().primary().autoincrement(),
    at: now(),
    /** Nobody: wrong tries of somebody who is not signed in. */
    by: () => p.manyToOne(Person).nullable(),
    kind: p.string(),
    data: p.json<unknown>(),
  },
});

export type PersonRow = InferEntity<typeof Person>;

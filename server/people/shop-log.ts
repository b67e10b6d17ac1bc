import { type EntityManager, ShopEntry } from "../../db";
import type { Unit } from "../unit/unit";

/** What can happen to people and to what the shop sets. Names are those of the moment; no secret is among it. */
export interface ShopEvents {
  "person-added": { person: string; name: string; role: string };
  "role-changed": { person: string; name: string; was: string; now: string };
  left: { person: string; name: string };
  "came-back": { person: string; name: string };
  "password-set": { person: string; name: string };
  "pin-set": { person: string; name: string };
  "session-ended": { person: string; name: string; label: string };
  "bench-lock": { was: number; now: number };
  defaults: { changed: string[] };
  "archive-taken-in": { number: string; title: string };
  /** So many wrong ones in a row that the next has to wait. */
  "wrong-tries": { name: string; what: "PIN" | "password"; label: string; count: number };
}
export type ShopEventKind = keyof ShopEvents;

const DEFAULT_WORD: Readonly<Record<string, string>> = {
  name: "its name",
  address: "its address",
  currency: "the currency",
  rate: "the rate of an hour",
  dueHour: "the usual hour",
  schools: "how it is done",
  offerWords: "the words under offers",
  prompts: "reminders",
  firstStartEnds: "where a first start ends",
  safetyTest: "the safety test",
  reachAt: "the address that phones reach",
};

const WORDS: { [K in ShopEventKind]: (d: ShopEvents[K]) => string } = {
  "person-added": (d) => `${d.name} works here, as a ${d.role}.`,
  "role-changed": (d) => `${d.name} is a ${d.now}, no longer a ${d.was}.`,
  left: (d) => `${d.name} has left and can no longer sign in.`,
  "came-back": (d) => `${d.name} works here again.`,
  "password-set": (d) => `A new password for ${d.name}.`,
  "pin-set": (d) => `A new PIN for ${d.name}.`,
  "session-ended": (d) => `The sign-in of ${d.name} at ${d.label} was ended.`,
  "archive-taken-in": (d) => `${d.number} ${d.title} was taken in from its archive.`,
  "wrong-tries": (d) => `${d.count} wrong ${d.what === "PIN" ? "PINs" : "passwords"} in a row for ${d.name}, the last at ${d.label}.`,
  defaults: (d) => `What the shop sets for every job was changed: ${d.changed.map((c) => DEFAULT_WORD[c] ?? c).join(", ")}.`,
  "bench-lock": (d) =>
    `A bench asks who it is after ${d.now === 0 ? "no time at all: never" : `${d.now} minutes`}; before, ${d.was === 0 ? "never" : `${d.was}`}.`,
};

/** The sentence of an event; one that nobody can word says so, and nothing else falls. */
export function shopEventWords(kind: string, data: unknown): string {
  try {
    if (Object.hasOwn(WORDS, kind)) return (WORDS[kind as ShopEventKind] as (d: unknown) => string)(data);
  } catch {
    // Data of another version.
  }
  return `Something happened that this version has no words for (${kind}).`;
}

export function tell<K extends ShopEventKind>(unit: Unit, kind: K, data: ShopEvents[K]): void {
  unit.tx.create(ShopEntry, { by: unit.by, kind, data, at: unit.when.arrived });
}

/** Leads are told of wrong tries, whoever made them. */
export const tellTries = (em: EntityManager, data: ShopEvents["wrong-tries"]) =>
  em.execute(`insert into "shop_log" ("by_id", "kind", "data") values (null, 'wrong-tries', ?::jsonb)`, [JSON.stringify(data)]);

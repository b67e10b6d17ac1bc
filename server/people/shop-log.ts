import { ShopEntry } from "../../db";
import type { Unit } from "../kernel/unit";

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
}
export type ShopEventKind = keyof ShopEvents;

const WORDS: { [K in ShopEventKind]: (d: ShopEvents[K]) => string } = {
  "person-added": (d) => `${d.name} works here, as a ${d.role}.`,
  "role-changed": (d) => `${d.name} is a ${d.now}, no longer a ${d.was}.`,
  left: (d) => `${d.name} has left and can no longer sign in.`,
  "came-back": (d) => `${d.name} works here again.`,
  "password-set": (d) => `A new password for ${d.name}.`,
  "pin-set": (d) => `A new PIN for ${d.name}.`,
  "session-ended": (d) => `The sign-in of ${d.name} at ${d.label} was ended.`,
  "bench-lock": (d) =>
    `A bench asks who it is after ${d.now === 0 ? "no time at all: never" : `${d.now} minutes`}; before, ${d.was === 0 ? "never" : `${d.was}`}.`,
};

export const shopEventWords = (kind: string, data: unknown): string =>
  Object.hasOwn(WORDS, kind) ? (WORDS[kind as ShopEventKind] as (d: unknown) => string)(data) : kind;

export function tell<K extends ShopEventKind>(unit: Unit, kind: K, data: ShopEvents[K]): void {
  unit.tx.create(ShopEntry, { by: unit.by, kind, data, at: unit.when.arrived });
}

import { SCHOOLS as ALL } from "../../core/wiring";

/** The schools of the shop for a list: each with its answers, in order. */
export const SCHOOLS = ALL.map((s) => ({ id: s.id, word: s.word, options: Object.entries(s.options) as [string, string][] }));

export type SchoolId = (typeof ALL)[number]["id"];

/** What was picked, as the server takes it: mains are a number. */
export const pickedSchools = (picked: Partial<Record<SchoolId, string>>): Record<string, string | number> =>
  Object.fromEntries(Object.entries(picked).flatMap(([k, v]) => (v ? [[k, k === "mainsV" ? Number(v) : v]] : [])));

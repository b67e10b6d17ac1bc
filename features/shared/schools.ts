import { WIRING_SCHOOLS } from "../../core/schools";

/** The schools of the wiring for a list: each with its answers, in order. */
export const SCHOOLS = WIRING_SCHOOLS.map((s) => ({
  id: s.id,
  word: s.word,
  options: Object.entries(s.options).map(([answer, { words }]): [string, string] => [answer, words]),
}));

export type SchoolId = (typeof WIRING_SCHOOLS)[number]["id"];

/** What was picked, as the server takes it: mains are a number. */
export const pickedSchools = (picked: Partial<Record<SchoolId, string>>): Record<string, string | number> =>
  Object.fromEntries(Object.entries(picked).flatMap(([k, v]) => (v ? [[k, k === "mainsV" ? Number(v) : v]] : [])));

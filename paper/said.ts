import { IntlMessageFormat } from "intl-messageformat";
import type { Say } from "../core/handover";
import type { PlainNames } from "../core/scene";
import de from "./messages/de.json";
import en from "./messages/en.json";

/** Languages of papers; a further one is a file of messages and a line here. */
export const LANGUAGES = { en, de } as const;
export type Language = keyof typeof LANGUAGES;
export const isLanguage = (l: string): l is Language => Object.hasOwn(LANGUAGES, l);

const made = new Map<string, IntlMessageFormat>();

/** A sentence in a language. What a language lacks is said in English; words of the record stand as they are. */
export function saidIn(language: Language, what: Say): string {
  if ("words" in what) return what.words;
  const own: Record<string, string> = LANGUAGES[language];
  const text = own[what.id] ?? (en as Record<string, string>)[what.id];
  if (text === undefined) throw new Error(`no paper knows the sentence ${what.id}`);
  const key = `${language} ${what.id}`;
  const format = made.get(key) ?? new IntlMessageFormat(text, language);
  made.set(key, format);
  return String(format.format(what.with));
}

const NAMED = ["fan", "radiator", "supply", "drive", "card", "cooler", "pump", "hub"] as const;
/** What a client calls the things in a machine. */
export const plainNames = (language: Language): PlainNames => Object.fromEntries(NAMED.map((k) => [k, saidIn(language, { id: `plain.${k}` })]));

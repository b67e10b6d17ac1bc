import { IntlMessageFormat } from "intl-messageformat";
import type { Paper, Say } from "../core/handover";
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

/** A paper in one language, as it is read. */
export interface SaidPaper {
  title: string;
  under: string[];
  sections: { title: string; lead?: string; drawing?: "front" | "behind"; plain?: true; rows: { what: string; says?: string; right?: string }[] }[];
}

export const saidPaper = (p: Paper, l: Language): SaidPaper => ({
  title: saidIn(l, p.title),
  under: p.under.map((u) => saidIn(l, u)),
  sections: p.sections.map((s) => ({
    title: saidIn(l, s.title),
    ...(s.lead ? { lead: saidIn(l, s.lead) } : {}),
    ...(s.drawing ? { drawing: s.drawing } : {}),
    ...(s.plain ? { plain: s.plain } : {}),
    rows: s.rows.map((r) => ({
      what: saidIn(l, r.what),
      ...(r.says ? { says: saidIn(l, r.says) } : {}),
      ...(r.right ? { right: saidIn(l, r.right) } : {}),
    })),
  })),
});

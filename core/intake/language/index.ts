import { GERMAN } from "./de";
import { ENGLISH } from "./en";
import type { Language } from "./types";

export { EXTRA_KINDS, type ExtraKind, type Language, PROMISE_KINDS, type PromiseKind } from "./types";

/** The languages that are read, all at once: mails mix them. Another one is another file, and its name here. */
export const LANGUAGES: readonly Language[] = [ENGLISH, GERMAN];

"use client";
import { LRUCache } from "lru-cache";
import { createContext, type ReactNode, useContext, useEffect, useMemo, useState } from "react";

export interface Dates {
  /** Hours and minutes of a moment. */
  clock: (moment: string | number) => string;
  /** A day without its year, of a moment or of YYYY-MM-DD. */
  day: (moment: string) => string;
  both: (moment: string | number) => string;
}

const IsDay = /^\d{4}-\d{2}-\d{2}$/;

/** By language and zone: making them takes as long as a small screen, and each day on a page asks for them. */
const made = new LRUCache<string, Dates>({ max: 40 });

/** Dates as they are written in a language. A zone is left out for the device's own. */
export function datesIn(language: string, zone?: string): Dates {
  // A device may be taken elsewhere.
  const key = `${language} ${zone ?? new Date().getTimezoneOffset()}`;
  const is = made.get(key) ?? make(language, zone);
  made.set(key, is);
  return is;
}

function make(language: string, zone: string | undefined): Dates {
  const format = (options: Intl.DateTimeFormatOptions) => new Intl.DateTimeFormat(language, options);
  const here = zone ? { timeZone: zone } : {};
  const clock = format({ hour: "2-digit", minute: "2-digit", ...here });
  const day = format({ day: "numeric", month: "short", ...here });
  const wholeDay = format({ day: "numeric", month: "short", weekday: "short", timeZone: "UTC" });
  return {
    clock: (m) => clock.format(new Date(m)),
    // A day is the same day everywhere.
    day: (m) => (IsDay.test(m) ? wholeDay.format(new Date(`${m}T00:00:00Z`)) : day.format(new Date(m))),
    both: (m) => `${day.format(new Date(m))} ${clock.format(new Date(m))}`,
  };
}

const Language = createContext("en-GB");

/** The language that the person's browser asks for, as the server heard it: both write the same. */
export function LanguageProvider({ language, children }: { language: string; children: ReactNode }) {
  return <Language.Provider value={language}>{children}</Language.Provider>;
}

/** Dates in the person's language. Moments are of this device's zone once the page is alive; before, of Greenwich, so that both agree. */
export function useDates(): Dates {
  const language = useContext(Language);
  const [alive, setAlive] = useState(false);
  useEffect(() => setAlive(true), []);
  return useMemo(() => datesIn(language, alive ? undefined : "UTC"), [language, alive]);
}

/** A sentence with its moments (as clocks) and days (without a year) as a person's dates are written. */
export const withDates = (text: string, { clock, day }: Dates): string =>
  text.replace(/\b\d{4}-\d{2}-\d{2}(T[\d:.]+Z)?\b/g, (d, time) => (Number.isNaN(Date.parse(d)) ? d : time ? clock(d) : day(d)));

/** A sentence of the server with its moments and days as the person's language writes them. */
export function WithDates({ text }: { text: string }) {
  return <>{withDates(text, useDates())}</>;
}

/** A day, as the person's language writes it. */
export function Day({ of }: { of: string }) {
  return <time dateTime={of}>{useDates().day(of)}</time>;
}

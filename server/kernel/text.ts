import { z } from "zod";

/** What PostgreSQL cannot keep: NUL, and half of a character. */
const UNKEEPABLE = /[\0\p{Surrogate}]/u;
/** What has no place in one line: control characters. */
const CONTROL = /\p{Cc}/u;

const kept = (most: number, letters: string) => z.string().max(most, `at most ${most} ${letters}`);
const SAID = "holds a character that cannot be kept; type it again";

/** One line as a person types it, at most as long as its column; outer blanks go. */
export const line = (most: number) =>
  kept(most + 20, "letters")
    .trim()
    .max(most, `at most ${most} letters`)
    .refine((s) => !UNKEEPABLE.test(s) && !CONTROL.test(s), SAID);

/** Text of several lines. */
export const text = (most: number) =>
  kept(most + 20, "letters")
    .trim()
    .max(most, `at most ${most} letters`)
    .refine((s) => !UNKEEPABLE.test(s), SAID);

/** A secret as it is typed: not a letter of it is trimmed. */
export const secretText = (most: number) =>
  z
    .string()
    .min(1, "is missing")
    .max(most, `at most ${most} characters`)
    .refine((s) => !UNKEEPABLE.test(s), SAID);

/** The contents of a file: only its size is bounded, and what cannot be kept refused. */
export const fileText = (most: number) => kept(most, "characters").refine((s) => !UNKEEPABLE.test(s), SAID);

/** A name that we gave: a job's number, a part's key, a part type's id. */
export const key = (most = 80) => line(most).refine((s) => s.length > 0, "is missing");

/** A day as the calendar of a shop has it: the year 0 is none that the database keeps. */
export const Day = z.iso.date("is no day of the calendar").refine((d) => d >= "1990-01-01" && d <= "2199-12-31", "is no day between 1990 and 2199");

/** Which of a port's places a plug is in, counted from 1. */
export const Place = z.array(z.number().int().min(1).max(30)).max(10);

export const JobNumber = key(40);
export const PartKey = key(80);
export const TypeId = key(80);

/** A day as it is written, whatever the database gave. */
export const day = (d: Date | string | null | undefined) => (d ? (typeof d === "string" ? d : d.toISOString().slice(0, 10)) : null);

import { z } from "zod";
import { buildGraph, typeLookup } from "../../core/assembly";
import { assumed, PART_KINDS } from "../../core/catalogue";
import { checkParts } from "../../core/checks";
import { type Fix, keysOf, type Mail, type MailLine, MOST_CHARS, understood } from "../../core/intake";
import { no, type Result, yes } from "../kernel/result";
import { TypeId, text } from "../kernel/text";
import { query } from "../unit/action";
import { readMailBeside } from "./list-thread";
import type { MailRead } from "./mail-read";

/** What somebody corrected of a mail's lines. */
export const Fixes = z
  .array(
    z.object({
      key: text(420),
      as: z.enum(["part", "extra", "talk"]).optional(),
      kind: z.enum(PART_KINDS).optional(),
      count: z.number().int().min(0).max(20).optional(),
      type: z.union([TypeId, z.literal("new")]).optional(),
    }),
  )
  .max(500);
export const MailText = text(MOST_CHARS);
export const ReadMail = z.object({ text: MailText, fixes: Fixes.default([]) });

export interface MailAnswerLine extends MailLine {
  key: string;
  /** The part type that was made for it, and how many of its values are assumed. */
  made?: { id: string; name: string; assumed: number };
}

/** A mail as it was understood, and its machine as it is judged. */
export interface MailAnswer extends Omit<Mail, "lines"> {
  lines: MailAnswerLine[];
  parts: number;
  known: number;
  total?: number;
  findings: { severity: "stop" | "warn" | "note"; message: string }[];
  /** Values that are only assumed. */
  assumed: number;
}

const MOST_FINDINGS = 12;

export function answerOf({ mail, build, made, known, parts }: MailRead): MailAnswer {
  const { lines, ...rest } = mail;
  const keys = keysOf(lines);
  const types = new Map(made.map((t) => [t.id, t]));
  const of = new Map(parts);
  const typeOf = new Map(build.parts.map((p) => [p.id, p.type]));
  const whole = { ...build, partTypes: [...build.partTypes, ...known] };
  const findings = build.parts.length === 0 ? [] : checkParts(buildGraph(whole, typeLookup(whole, [])));
  const order = { stop: 0, warn: 1, note: 2 };
  return {
    ...rest,
    lines: lines.map((l, i) => {
      const own = types.get(typeOf.get(of.get(i)?.[0] ?? "") ?? "");
      return { ...l, key: keys[i] ?? "", ...(own ? { made: { id: own.id, name: own.name, assumed: assumed(own).length } } : {}) };
    }),
    ...understood(mail),
    findings: findings
      .filter((f) => f.severity !== "note")
      .sort((a, b) => order[a.severity] - order[b.severity])
      .slice(0, MOST_FINDINGS)
      .map(({ severity, message }) => ({ severity, message })),
    assumed: made.reduce((n, t) => n + assumed(t).length, 0),
  };
}

export const today = (): string => new Date().toISOString().slice(0, 10);

/** A mail against the shelf: line by line what it asks for, and what the machine comes to. Nothing is stored. */
export const readMailHere = query({
  name: "job.read-mail",
  input: ReadMail,
  run: async (_em, r): Promise<Result<MailAnswer>> => {
    const read = await readMailBeside(r.text, r.fixes as Fix[], today());
    if (!read) return { ...no("Many lists are read at this moment. Nothing was changed. Try again."), later: "again" };
    return yes(answerOf(read));
  },
});

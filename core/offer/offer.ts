import { z } from "zod";
import type { Build, TypeLookup } from "../assembly";
import { PROMISE_KINDS } from "../intake";
import { purchases } from "./purchases";

const Line = z.object({
  what: z.string().max(300),
  type: z.string().max(80).optional(),
  count: z.number().int().min(1).max(200),
  /** The shop's money, for one. */
  each: z.number().min(0).max(1_000_000).optional(),
  /** The client has it already. */
  own: z.boolean().optional(),
});
export type OfferLine = z.infer<typeof Line>;

/** What a client is offered, and what was agreed once it is accepted: parts and what goes beside them, work, the moment, what is promised. */
export const Agreed = z.object({
  parts: z.array(Line).max(200),
  beside: z.array(Line).max(100).default([]),
  /** Hours of work, and what the shop takes for one. */
  hours: z.number().min(0).max(1000).default(0),
  rate: z.number().min(0).max(10_000).default(0),
  machines: z.number().int().min(1).max(50).default(1),
  currency: z.string().max(8).default(""),
  due: z.object({ on: z.string().max(10), hour: z.string().max(5).optional(), promised: z.boolean() }).optional(),
  promises: z
    .array(z.object({ about: z.enum(PROMISE_KINDS), words: z.string().max(500) }))
    .max(60)
    .default([]),
  /** What the shop writes under each offer. */
  words: z.string().max(2000).default(""),
});
export type Agreed = z.infer<typeof Agreed>;

export interface OfferAsked {
  beside: OfferLine[];
  hours: number;
  rate: number;
  machines: number;
  currency: string;
  due?: Agreed["due"] | undefined;
  promises: Agreed["promises"];
  words: string;
}

/** The offer of a build as it stands. Equal parts at one price are one line. */
export function offerOf(build: Build, types: TypeLookup, asked: OfferAsked): Agreed {
  const lines = new Map<string, OfferLine>();
  for (const p of purchases(build, types, [])) {
    const key = `${p.type} ${p.from === "own"} ${p.each ?? ""}`;
    const had = lines.get(key);
    if (had) had.count += p.parts.length;
    else
      lines.set(key, {
        what: p.name,
        type: p.type,
        count: p.parts.length,
        ...(p.from === "own" ? { own: true } : p.each === undefined ? {} : { each: p.each }),
      });
  }
  return Agreed.parse({ ...asked, parts: [...lines.values()] });
}

const cents = (lines: readonly OfferLine[]) => lines.reduce((n, l) => n + (l.own ? 0 : Math.round((l.each ?? 0) * 100) * l.count), 0);

/** What it comes to, in the shop's money: one machine, and all of them. Lines without a price are counted, not guessed. */
export function sumsOf(a: Agreed): { parts: number; beside: number; work: number; each: number; total: number; unpriced: number } {
  const [parts, beside, work] = [cents(a.parts), cents(a.beside), Math.round(a.hours * a.rate * 100)];
  // What goes beside the machine was asked for once, whatever the number of machines.
  const each = parts + work;
  return {
    parts: parts / 100,
    beside: beside / 100,
    work: work / 100,
    each: each / 100,
    total: (each * a.machines + beside) / 100,
    unpriced: [...a.parts, ...a.beside].filter((l) => !l.own && l.each === undefined).length,
  };
}

/** What differs today from what was agreed, a sentence each. Nothing differs: nothing is said. */
export function changedSince(agreed: Agreed, now: Agreed): string[] {
  const out: string[] = [];
  const count = (lines: readonly OfferLine[]) => {
    const by = new Map<string, { what: string; n: number; cents: number | undefined }>();
    for (const l of lines) {
      const key = l.type ?? l.what;
      const had = by.get(key);
      const c = l.each === undefined ? undefined : Math.round(l.each * 100) * l.count;
      by.set(key, {
        what: l.what,
        n: (had?.n ?? 0) + l.count,
        cents: had ? (had.cents === undefined || c === undefined ? undefined : had.cents + c) : c,
      });
    }
    return by;
  };
  for (const [was, is] of [
    [count(agreed.parts), count(now.parts)],
    [count(agreed.beside), count(now.beside)],
  ] as const) {
    for (const [k, a] of was) {
      const b = is.get(k);
      if (!b) out.push(`${a.n} × ${a.what} was agreed and is not in the list any more.`);
      else if (b.n !== a.n) out.push(`${a.what}: ${a.n} agreed, ${b.n} now.`);
      else if (a.cents !== b.cents)
        out.push(
          `${a.what}: ${a.cents === undefined ? "no price" : (a.cents / 100).toFixed(2)} agreed, ${b.cents === undefined ? "no price" : (b.cents / 100).toFixed(2)} now.`,
        );
    }
    for (const [k, b] of is) if (!was.has(k)) out.push(`${b.n} × ${b.what} was not agreed.`);
  }
  if (agreed.machines !== now.machines) out.push(`${agreed.machines} machines were agreed, ${now.machines} now.`);
  const when = (a: Agreed) => (a.due ? `${a.due.on}${a.due.hour ? ` ${a.due.hour}` : ""}` : "no day");
  if (when(agreed) !== when(now)) out.push(`${when(agreed)} was agreed, ${when(now)} stands now.`);
  const words = (a: Agreed) => new Map(a.promises.map((p) => [`${p.about} ${p.words}`, p.words]));
  const [was, is] = [words(agreed), words(now)];
  for (const [k, w] of was) if (!is.has(k)) out.push(`No longer promised: ${w}.`);
  for (const [k, w] of is) if (!was.has(k)) out.push(`Promised since: ${w}.`);
  return out;
}

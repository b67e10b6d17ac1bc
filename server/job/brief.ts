import { z } from "zod";
import { EXTRA_KINDS, type Mail, PROMISE_KINDS } from "../../core/intake";

const Promised = z.object({
  about: z.enum(PROMISE_KINDS),
  words: z.string().max(500),
  value: z.number().optional(),
  /** Who agreed, and when; left out: read from the mail. */
  by: z.string().max(80).optional(),
  at: z.string().max(40).optional(),
});
export type Promised = z.infer<typeof Promised>;

/** What a client wrote, and what was read of it. */
export const Brief = z.object({
  mail: z.string().default(""),
  phone: z.string().default(""),
  address: z.string().default(""),
  dueHour: z.string().optional(),
  /** The moment was promised by the shop, or only wished. */
  duePromised: z.boolean().default(false),
  /** Lines that can be proved. */
  promises: z.array(Promised).max(60).default([]),
  /** What is asked for and goes into no machine. */
  extras: z
    .array(
      z.object({
        what: z.enum(EXTRA_KINDS),
        words: z.string().max(400),
        count: z.number().int(),
        price: z.number().optional(),
        own: z.boolean().optional(),
      }),
    )
    .max(100)
    .default([]),
  /** Equal machines of one order. */
  machines: z.number().int().min(1).max(50).default(1),
});
export type Brief = z.infer<typeof Brief>;

/** The brief of a job that is made, of what was typed and what the mail says. */
export function briefOf(
  n: { phone: string; dueHour?: string | undefined; duePromised: boolean; machines: number; mail?: { text: string } | undefined },
  mail: Mail | undefined,
): Brief {
  return Brief.parse({
    mail: n.mail?.text ?? "",
    phone: n.phone || (mail?.client.phone ?? ""),
    address: mail?.client.address ?? "",
    ...(n.dueHour ? { dueHour: n.dueHour } : {}),
    duePromised: n.duePromised,
    promises: (mail?.promises ?? []).slice(0, 60).map((p) => ({ ...p, words: p.words.slice(0, 500) })),
    extras: (mail?.lines ?? [])
      .flatMap((l) =>
        l.as === "extra" && l.extra
          ? [
              {
                what: l.extra,
                words: l.words.slice(0, 400),
                count: l.count,
                ...(l.price === undefined ? {} : { price: l.price }),
                ...(l.origin === "own" ? { own: true } : {}),
              },
            ]
          : [],
      )
      .slice(0, 100),
    // Each has a job of its own, and with it an offer of its own.
    machines: n.machines > 1 ? 1 : (mail?.machines ?? 1),
  });
}

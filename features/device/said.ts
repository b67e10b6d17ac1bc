import type { Sealed } from "../../server/kernel/seal";

/** What the screen showed of values that are written. */
type Showed = Record<string, string | number | boolean | null>;

/** One thing that the bench has to say. */
export type One =
  | {
      kind: "plug";
      number: string;
      lead: string;
      port: string;
      place?: number[];
      state: "planned" | "plugged" | "checked";
      /** What the screen showed. Left out where a person has looked and decided. */
      saw?: { port: string | null; state: "free" | "planned" | "plugged" | "checked" };
      /** How long hands were at it, s. */
      tookS?: number;
    }
  | { kind: "step"; number: string; step: string; done: boolean; saw?: boolean; tookS?: number }
  | { kind: "note"; number: string; step: string; text: string; as: "note" | "skip" | "problem" }
  /** A part is here, though no receipt says so; it sits elsewhere or another way round; it is given up. */
  | { kind: "receive"; number: string; part: string; saw?: Showed }
  | { kind: "place"; number: string; part: string; mount?: string; blows?: "in" | "out"; frame?: "inside" | "outside"; saw?: Showed }
  | { kind: "gone"; number: string; part: string }
  /** It is another part, or of another length. */
  | { kind: "swap"; number: string; part: string; type: string; serial?: string; saw?: Showed }
  | { kind: "measure"; number: string; part: string; what: string; mm: number; saw?: Showed };

/** What stands on a card is said with one press. */
export type OnCard = Extract<One, { kind: "plug" | "step" | "note" }>;
export type Said = One | { kind: "card"; number: string; items: { said: OnCard; words: string }[] };

/** Everything that was said, one by one. */
export const onesOf = (said: Said): One[] => (said.kind === "card" ? said.items.map((i) => i.said) : [said]);

const ACTION = {
  plug: "bench.plug",
  step: "bench.step",
  receive: "receipt.receive",
  place: "parts.place",
  gone: "parts.remove",
  swap: "parts.change",
  measure: "parts.measure",
} as const;

/** What was said as the server takes it: an action and its input. */
export function asAction(said: Said): Pick<Sealed, "action" | "input"> {
  if (said.kind === "card") return { action: "bench.card", input: { number: said.number, items: said.items.map((i) => inCard(i.said)) } };
  if (said.kind === "note") return { action: "bench.note", input: noteOf(said) };
  const { kind, ...input } = said;
  return { action: ACTION[kind], input };
}

function noteOf({ kind: _, as, ...note }: Extract<One, { kind: "note" }>) {
  return { ...note, kind: as };
}

function inCard(said: OnCard): unknown {
  const { number: _, ...one } = said.kind === "note" ? noteOf(said) : said;
  return one;
}

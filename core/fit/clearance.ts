import { type PartNode, sayingAssumed } from "../assembly";
import type { Point } from "../catalogue";

/** Under this much room a clearance is marked tight; 4 mm counts as a fit (common practice). */
export const TIGHT_MM = 2;
export type Verdict = "fits" | "tight" | "not";

/** One thing that has to go into one room, with the millimetres left. */
export interface Clearance {
  id: string;
  what: string;
  /** Parts concerned: the one to change first. */
  parts: string[];
  /** Slots for the width of cards, millimetres for everything else. */
  unit: "mm" | "slots";
  need: number;
  has: number;
  left: number;
  verdict: Verdict;
  /** What goes in, and where: `said` makes the sentence, when somebody reads it. */
  subject: string;
  /** The subject is several things. */
  many?: boolean;
  room: string;
  /** What happens when nobody minds. */
  ifIgnored: string;
  /** What of it is only assumed. */
  assumed?: readonly string[];
  /** Where to draw it, in case millimetres of the side section; left out for what only the front section shows. */
  line?: { from: Point; to: Point };
}

export const round = (n: number) => Math.round(n * 10) / 10;
export const verdictOf = (left: number, unit: "mm" | "slots" = "mm"): Verdict =>
  left < 0 ? "not" : unit === "mm" && left < TIGHT_MM ? "tight" : "fits";

export function clearance(c: Omit<Clearance, "left" | "verdict" | "unit"> & { unit?: "mm" | "slots" }): Clearance {
  const left = round(c.has - c.need);
  const unit = c.unit ?? "mm";
  return {
    id: c.id,
    what: c.what,
    parts: c.parts,
    unit,
    need: round(c.need),
    has: round(c.has),
    left,
    verdict: verdictOf(left, unit),
    subject: c.subject,
    ...(c.many ? { many: true } : {}),
    room: c.room,
    ifIgnored: c.ifIgnored,
    ...(c.line ? { line: c.line } : {}),
  };
}

/** A clearance in words, with its numbers. */
export function said(c: Clearance): string {
  return sayingAssumed(plainly(c), c.assumed ?? []);
}

function plainly({ subject, many, room, need, has, left, unit, verdict }: Clearance): string {
  const numbers = `${need} of ${has} ${unit}`;
  const fits = many ? "fit" : "fits";
  return verdict === "not"
    ? `${subject} ${many ? "do" : "does"} not fit ${room}: ${numbers}, ${round(-left)} ${unit} too much.`
    : `${subject} ${verdict === "tight" ? `only just ${fits}` : fits} ${room}: ${numbers}, ${left} ${unit} to spare.`;
}

export const nameOf = (p: PartNode) => p.part.label ?? p.type.name;

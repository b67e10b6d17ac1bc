import { PartType } from "./part-type";

/*
 * Part types are kept as they were when they were stored, in the shelf and with each job. What they look like is numbered: a change of it is
 * a step here, from one number to the next, and nothing is guessed from what a stored entry happens to have.
 */

type Stored = Record<string, unknown>;

/** Steps from each number to the next, in their order: the first leads from 0 (before there were numbers) to 1. A step never changes again. */
const STEPS: readonly ((stored: Stored) => Stored)[] = [
  // 1: lists that came to a part's body later (cage places, radiator places, mountings, rooms …) are there, if only as empty ones.
  (stored) => PartType.parse(stored) as unknown as Stored,
];

/** The number of what is stored today. */
export const STORED_VERSION = STEPS.length;

/** A part type as it is to be stored. */
export const toStored = (type: PartType): Stored => ({ ...type, stored: STORED_VERSION });

/**
 * A part type from what is stored, whatever its number is.
 * @throws where it is of a later version of Imbra, or is none at all.
 */
export function fromStored(body: unknown): PartType {
  const { stored: number = 0, ...rest } = (body ?? {}) as Stored & { stored?: number };
  if (typeof number !== "number" || number > STORED_VERSION)
    throw new Error(`A stored part type is of version ${String(number)}; this Imbra knows up to ${STORED_VERSION}. Start a newer one.`);
  return STEPS.slice(number).reduce((entry, step) => step(entry), rest as Stored) as unknown as PartType;
}

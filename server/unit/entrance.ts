import type { z } from "zod";
import { parseWith } from "../../core/assembly";
import { type EntityManager, entityManager } from "../../db";
import { failed } from "../kernel/failed";
import { no, type Result } from "../kernel/result";
import { type Door, doorHere } from "../kernel/who";

/** What may be asked by somebody who is not signed in: coming in, going out. Declared once, like an action. */
export interface Entrance<S extends z.ZodType, T> {
  name: string;
  input: S;
  run: (em: EntityManager, value: z.infer<S>, door: Door) => Promise<Result<T>>;
}

export const entrance = <S extends z.ZodType, T = undefined>(e: Entrance<S, T>): Entrance<S, T> => e;

export async function enter<S extends z.ZodType, T>(e: Entrance<S, T>, input: unknown): Promise<Result<T>> {
  try {
    const value = parseWith(e.input, input);
    if (!value.ok) return no("That was not understood. Nothing was changed.", value.faults);
    return await e.run(await entityManager(), value.value, await doorHere());
  } catch (err) {
    return failed(err);
  }
}

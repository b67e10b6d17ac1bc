import "server-only";
import type { z } from "zod";
import { parseWith } from "../core/assembly";
import { type EntityManager, entityManager, type TechnicianRow } from "../db";
import { failed } from "./failed";
import { no, type Result } from "./result";
import { whoIsIt } from "./who";

/** Every action goes through here: who is it, is the input sound, then the use case; whatever is thrown is a sentence. */
export async function act<S extends z.ZodType, T>(
  schema: S,
  input: unknown,
  work: (em: EntityManager, by: TechnicianRow, value: z.infer<S>) => Promise<Result<T>>,
): Promise<Result<T>> {
  try {
    const by = await whoIsIt();
    if (!by) return no("Choose who you are first, at the top right. Nothing was changed.");
    const parsed = parseWith(schema, input);
    if (!parsed.ok) return no("The entry was not understood. Nothing was changed.", parsed.faults);
    return await work(await entityManager(), by, parsed.value);
  } catch (e) {
    return failed(e);
  }
}

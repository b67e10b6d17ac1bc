import "server-only";
import type { z } from "zod";
import { entityManager } from "../../db";
import { type Action, carryOut } from "./action";
import { failed } from "./failed";
import { no, type Result } from "./result";
import { whoIsIt } from "./who";

const NOBODY = "Choose who you are first. Nothing was changed.";

/** What a page asks to show itself: by whom, and may they, is looked at in the same place. Nothing: there is no such thing, or not for them. */
export async function see<S extends z.ZodType, T>(question: Action<S, T>, input: unknown): Promise<T | undefined> {
  const r = await carryOut(await entityManager(), await whoIsIt(), question, input);
  return r.ok ? r.value : undefined;
}

/** Every action and every query of a screen goes through here; whatever is thrown becomes a sentence. */
export async function perform<S extends z.ZodType, T>(action: Action<S, T>, input: unknown, entry?: unknown): Promise<Result<T>> {
  try {
    const actor = await whoIsIt();
    if (!actor) return { ...no(NOBODY), later: "who" };
    return await carryOut(await entityManager(), actor, action, input, entry);
  } catch (e) {
    return failed(e);
  }
}

import "server-only";
import { headers } from "next/headers";
import { redirect } from "next/navigation";
import type { z } from "zod";
import { entityManager } from "../../db";
import { failed } from "../kernel/failed";
import { isUntouched, locked, touched } from "../kernel/lock";
import { NOBODY, type Result } from "../kernel/result";
import { seatHere, whoIsIt } from "../kernel/who";
import { type Action, carryOut } from "./action";

/** Where a page sends somebody who is not signed in; they come back to it. */
export async function toSignIn(): Promise<never> {
  const path = (await headers()).get("x-imbra-path") ?? "/";
  redirect(path === "/" ? "/sign-in" : `/sign-in?to=${encodeURIComponent(path)}`);
}

/**
 * What a page asks to show itself: by whom, and may they, is looked at in the same place. Nobody is sent to sign in. Nothing: there is
 * no such thing, or not for them.
 */
export async function see<S extends z.ZodType, T>(question: Action<S, T>, input: unknown): Promise<T | undefined> {
  const actor = await whoIsIt();
  if (!actor) return toSignIn();
  const r = await carryOut(await entityManager(), actor, question, input);
  return r.ok ? r.value : undefined;
}

/** What a file or a stream asks for: an answer of its own for whoever is not signed in. */
export async function fetched<S extends z.ZodType, T>(question: Action<S, T>, input: unknown): Promise<{ value: T } | { status: 401 | 404 }> {
  const actor = await whoIsIt();
  if (!actor) return { status: 401 };
  const r = await carryOut(await entityManager(), actor, question, input);
  return r.ok ? { value: r.value } : { status: 404 };
}

/** Every action and every query of a screen goes through here; whatever is thrown becomes a sentence. */
export async function perform<S extends z.ZodType, T>(action: Action<S, T>, input: unknown): Promise<Result<T>> {
  try {
    const seat = await seatHere();
    if (!seat) return NOBODY;
    const em = await entityManager();
    if (!action.changes) return await carryOut(em, seat.actor, action, input);
    if (isUntouched(seat, new Date())) return locked(seat);
    const said = await carryOut(em, seat.actor, action, input);
    if (said.ok) await touched(em.fork() as typeof em, seat);
    return said;
  } catch (e) {
    return failed(e);
  }
}

import "server-only";
import { headers } from "next/headers";
import { redirect } from "next/navigation";
import type { z } from "zod";
import { parseWith } from "../../core/assembly";
import { type EntityManager, entityManager } from "../../db";
import { type Action, carryOut } from "./action";
import type { Actor } from "./actor";
import { Entry, happenedAt } from "./entry";
import { failed } from "./failed";
import { no, type Refusal, type Result } from "./result";
import { type Seat, seatHere, whoIsIt } from "./who";

const NOBODY = "You are not signed in any more. Nothing was changed. Sign in, then press again.";

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
    const actor = await whoIsIt();
    if (!actor) return { ...no(NOBODY), later: "who" };
    return await carryOut(await entityManager(), actor, action, input);
  } catch (e) {
    return failed(e);
  }
}

/** The seat is known to have been used this much later at most than it says: it is written seldom. */
const SLACK_MS = 60_000;

/** An entry that may have waited on a device: recorded under whoever worked there when it was made. */
export async function performKept<S extends z.ZodType, T>(action: Action<S, T>, input: unknown, entry: unknown): Promise<Result<T>> {
  try {
    const seat = await seatHere();
    if (!seat) return { ...no(NOBODY), later: "who" };
    const em = await entityManager();
    const own = parseWith(Entry, entry);
    if (!own.ok) return no("The entry was not understood. Nothing was changed.", own.faults);
    const happened = happenedAt(own.value, new Date());
    const idleMs = happened.getTime() - seat.actedAt.getTime();
    if (seat.lockMinutes > 0 && idleMs > seat.lockMinutes * 60_000 + SLACK_MS)
      return { ...no(`Nobody touched this bench for ${seat.lockMinutes} minutes. Say who you are; what you pressed is kept.`), later: "who" };
    const actor = await whose(em, seat, own.value.by);
    if ("ok" in actor) return actor;
    const said = await carryOut(em, actor, action, input, own.value);
    if (said.ok && idleMs > SLACK_MS)
      await em.execute(`update "session" set "acted_at" = ? where "id" = ? and "acted_at" < ?`, [happened, seat.session, happened]);
    return said;
  } catch (e) {
    return failed(e);
  }
}

/** Who made an entry: whoever sits here, or somebody who has worked at this device. */
async function whose(em: EntityManager, seat: Seat, by: string | undefined): Promise<Actor | Refusal> {
  if (by === undefined || by === seat.actor.id) return seat.actor;
  const [row] = await em.execute<{ id: string; name: string; role: string; active: boolean }[]>(
    `select p."id", p."name", p."role", p."active" from "turn" t join "person" p on p."id" = t."person_id" where t."device" = ? and t."person_id" = ?`,
    [seat.device, by],
  );
  if (!row) {
    const [other] = await em.execute<{ name: string }[]>(`select "name" from "person" where "id" = ?`, [by]);
    return no(
      `${other ? `This was pressed by ${other.name}, who` : "Whoever pressed this"} has not said who they are on this device since its sign-in was lost. Let them do so under the name above, then send it again.`,
    );
  }
  if (!row.active) return no(`${row.name} pressed this and has left since. A lead decides: record it under your own name, or leave it out.`);
  return { id: row.id, name: row.name, role: row.role };
}

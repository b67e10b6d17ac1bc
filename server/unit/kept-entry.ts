import type { z } from "zod";
import { parseWith } from "../../core/assembly";
import { type EntityManager, entityManager } from "../../db";
import { type Actor, may } from "../kernel/actor";
import { Entry, happenedAt } from "../kernel/entry";
import { failed } from "../kernel/failed";
import { isUntouched, LOCK_SLACK_MS, locked } from "../kernel/lock";
import { NOBODY, no, type Refusal, type Result } from "../kernel/result";
import type { Seat } from "../kernel/seat";
import { isSealOf, turnOf } from "../kernel/turn";
import { carryOut, type JobAction, SeatMoved } from "./action";

/**
 * An entry that may have waited on a device: recorded under whoever worked there when it was made. `seatNow` tells who sits there; what
 * it remembers is asked of the database in the transaction of the entry, and where it is not so any more the seat is asked for anew.
 * `said` is what the entry's seal stands for, where that is not the input itself.
 */
export async function performKept<S extends z.ZodType<{ number: string }>, T>(
  seatNow: (anew: boolean) => Promise<Seat | undefined>,
  action: JobAction<S, T>,
  input: unknown,
  entry: unknown,
  said: unknown = input,
): Promise<Result<T>> {
  try {
    const own = parseWith(Entry, entry);
    if (!own.ok) return no("The entry was not understood. Nothing was changed.", own.faults);
    const remembered = await seatNow(false);
    if (remembered?.remembered) {
      const kept = await recordedAt(remembered, action, input, own.value, said).catch((e: unknown) => {
        if (e instanceof SeatMoved) return undefined;
        throw e;
      });
      // What is refused is refused to whoever is known to sit there.
      if (kept?.ok) return kept;
    }
    const seat = remembered?.remembered ? await seatNow(true) : remembered;
    if (!seat) return NOBODY;
    return (await recordedAt(seat, action, input, own.value, said)) ?? locked(seat);
  } catch (e) {
    return failed(e);
  }
}

/** Undefined: nobody touched the bench for so long that it asks who is there. */
async function recordedAt<S extends z.ZodType<{ number: string }>, T>(
  seat: Seat,
  action: JobAction<S, T>,
  input: unknown,
  entry: Entry,
  said: unknown,
): Promise<Result<T> | undefined> {
  const em = await entityManager();
  const arrived = new Date();
  const happened = happenedAt(entry, arrived);
  // When it was pressed is believed of what is sealed alone: anything else is pressed now, as far as anybody knows.
  const sealed = isSealed(entry);
  if (isUntouched(seat, sealed ? happened : arrived)) return undefined;
  // A reader's seat sends nobody's entries: they stay on the device until somebody sits there who records.
  if (!may(seat.actor, action.permission) && sealed)
    return {
      ...no(`${seat.actor.name} is a ${seat.actor.role} and sends no entries of others. They are kept until somebody signs in who records.`),
      later: "who",
    };
  const actor = await whose(em, seat, action.name, said, entry, happened);
  if ("ok" in actor) return actor;
  const kept = await carryOut(em, actor, action, input, entry, seat.remembered ? seat : undefined);
  const idleMs = happened.getTime() - seat.actedAt.getTime();
  if (kept.ok && idleMs > LOCK_SLACK_MS)
    await em.execute(`update "session" set "acted_at" = ? where "id" = ? and "acted_at" < ?`, [happened, seat.session, happened]);
  return kept;
}

/** Does it say whose turn seals it? A seal of no turn is none; whether it is right is looked at before anybody is named. */
const isSealed = ({ turn, seal }: Entry): boolean => turn !== undefined && seal !== undefined;

const DECIDE = "Look at it, then record it under your own name or leave it out.";

/** Who made an entry: whoever had the turn that sealed it, or, without a seal, whoever sits here now. */
async function whose(em: EntityManager, seat: Seat, action: string, input: unknown, entry: Entry, happened: Date): Promise<Actor | Refusal> {
  const { turn: id, seal, key, madeAtMs, by } = entry;
  if (id === undefined || seal === undefined) {
    if (by === undefined || by === seat.actor.id) return seat.actor;
    return no(`Nothing proves who pressed this. ${DECIDE}`);
  }
  const turn = await turnOf(em, id);
  const sealed = madeAtMs !== undefined && isSealOf(seal, { turn: id, key, madeAtMs, action, input });
  // A browser that lost its cookies is another device; whoever says there who they are may send what is their own.
  const here = turn?.device === seat.device || turn?.person === seat.actor.id;
  if (!turn || !here || !sealed) return no(`Nothing proves who pressed this on this device. ${DECIDE}`);
  if (!turn.active) return no(`${turn.name} pressed this and has left since. A lead decides: record it under your own name, or leave it out.`);
  // Ended from elsewhere, as for a device that was lost: what was made later is not theirs.
  if (turn.endedBy === "ended" && turn.endedAt && happened.getTime() > turn.endedAt.getTime() + LOCK_SLACK_MS)
    return no(`This was pressed after the sign-in of ${turn.name} was ended. ${DECIDE}`);
  return { id: turn.person, name: turn.name, role: turn.role, ...(turn.byPin ? { byPin: true } : {}) };
}

import type { z } from "zod";
import { parseWith } from "../../core/assembly";
import { type EntityManager, entityManager } from "../../db";
import { carryOut, type JobAction, SeatMoved } from "./action";
import type { Actor } from "./actor";
import { Entry, happenedAt } from "./entry";
import { failed } from "./failed";
import { NOBODY, no, type Refusal, type Result } from "./result";
import type { Seat } from "./seat";

/** The seat is known to have been used this much later at most than it says: it is written seldom. */
const SLACK_MS = 60_000;

/**
 * An entry that may have waited on a device: recorded under whoever worked there when it was made. `seatNow` tells who sits there; what
 * it remembers is asked of the database in the transaction of the entry, and where it is not so any more the seat is asked for anew.
 */
export async function performKept<S extends z.ZodType<{ number: string }>, T>(
  seatNow: (anew: boolean) => Promise<Seat | undefined>,
  action: JobAction<S, T>,
  input: unknown,
  entry: unknown,
): Promise<Result<T>> {
  try {
    const own = parseWith(Entry, entry);
    if (!own.ok) return no("The entry was not understood. Nothing was changed.", own.faults);
    const remembered = await seatNow(false);
    if (remembered?.remembered) {
      const said = await recordedAt(remembered, action, input, own.value).catch((e: unknown) => {
        if (e instanceof SeatMoved) return undefined;
        throw e;
      });
      // What is refused is refused to whoever is known to sit there.
      if (said?.ok) return said;
    }
    const seat = remembered?.remembered ? await seatNow(true) : remembered;
    if (!seat) return NOBODY;
    return (await recordedAt(seat, action, input, own.value)) ?? locked(seat);
  } catch (e) {
    return failed(e);
  }
}

const locked = ({ lockMinutes }: Seat): Refusal => ({
  ...no(`Nobody touched this bench for ${lockMinutes} minutes. Say who you are; what you pressed is kept.`),
  later: "who",
});

/** Undefined: nobody touched the bench for so long that it asks who is there. */
async function recordedAt<S extends z.ZodType<{ number: string }>, T>(
  seat: Seat,
  action: JobAction<S, T>,
  input: unknown,
  entry: Entry,
): Promise<Result<T> | undefined> {
  const em = await entityManager();
  const happened = happenedAt(entry, new Date());
  const idleMs = happened.getTime() - seat.actedAt.getTime();
  if (seat.lockMinutes > 0 && idleMs > seat.lockMinutes * 60_000 + SLACK_MS) return undefined;
  const actor = await whose(em, seat, entry.by);
  if ("ok" in actor) return actor;
  const said = await carryOut(em, actor, action, input, entry, seat.remembered ? seat : undefined);
  if (said.ok && idleMs > SLACK_MS)
    await em.execute(`update "session" set "acted_at" = ? where "id" = ? and "acted_at" < ?`, [happened, seat.session, happened]);
  return said;
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

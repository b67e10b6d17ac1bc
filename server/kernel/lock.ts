import type { EntityManager } from "../../db";
import { no, type Refusal } from "./result";
import type { Seat } from "./seat";

/** A seat is known to have been used this much later at most than it says: it is written seldom. */
export const LOCK_SLACK_MS = 60_000;

/** Did nobody touch this seat for so long, at that moment, that it asks who is there? */
export const isUntouched = ({ lockMinutes, actedAt }: Pick<Seat, "lockMinutes" | "actedAt">, at: Date): boolean =>
  lockMinutes > 0 && at.getTime() - actedAt.getTime() > lockMinutes * 60_000 + LOCK_SLACK_MS;

export const locked = ({ lockMinutes }: Pick<Seat, "lockMinutes">): Refusal => ({
  ...no(`Nobody touched this bench for ${lockMinutes} minutes. Say who you are; what you pressed is kept.`),
  later: "who",
});

/** Says that somebody is at a seat that is not locked; a locked one stays so. */
export async function touched(em: EntityManager, seat: Seat, at = new Date()): Promise<void> {
  if (isUntouched(seat, at) || at.getTime() - seat.actedAt.getTime() <= LOCK_SLACK_MS) return;
  await em.execute(`update "session" set "acted_at" = ? where "id" = ? and "acted_at" < ? and "ended_at" is null`, [at, seat.session, at]);
}

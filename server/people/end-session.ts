import { z } from "zod";
import { Session } from "../../db";
import { may } from "../kernel/actor";
import { done, no } from "../kernel/result";
import { endSessions } from "../kernel/turn";
import { shopAction } from "../unit/action";
import { tell } from "./shop-log";

/** Ends a sign-in: one's own, or anybody's for who keeps people. */
export const endSession = shopAction({
  name: "people.end-session",
  permission: "look",
  input: z.object({ session: z.uuid() }),
  run: async (unit, { session }) => {
    const row = await unit.tx.findOne(Session, { id: session, endedAt: null }, { populate: ["person", "openedBy"] });
    if (!row || (![row.person.id, row.openedBy.id].includes(unit.actor.id) && !may(unit.actor, "keep people")))
      return no("There is no such sign-in any more. Nothing was changed.");
    await endSessions(unit.tx, `"id" = ?`, [session], "ended");
    tell(unit, "session-ended", { person: row.person.id, name: row.person.name, label: row.label });
    return done();
  },
});

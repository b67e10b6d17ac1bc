import { z } from "zod";
import { Session } from "../../db";
import { shopAction } from "../kernel/action";
import { may } from "../kernel/actor";
import { done, no } from "../kernel/result";
import { tell } from "./shop-log";

/** Ends a sign-in: one's own, or anybody's for who keeps people. */
export const endSession = shopAction({
  name: "people.end-session",
  permission: "look",
  input: z.object({ session: z.uuid() }),
  run: async (unit, { session }) => {
    const row = await unit.tx.findOne(Session, { id: session, endedAt: null }, { populate: ["person"] });
    if (!row || (row.person.id !== unit.actor.id && !may(unit.actor, "keep people")))
      return no("There is no such sign-in any more. Nothing was changed.");
    row.endedAt = unit.when.arrived;
    tell(unit, "session-ended", { person: row.person.id, name: row.person.name, label: row.label });
    return done();
  },
});

import { z } from "zod";
import { LockMode, Person, type PersonRow } from "../../db";
import { ROLES, type Role } from "../kernel/actor";
import { done, no } from "../kernel/result";
import { endSessions } from "../kernel/turn";
import { shopAction } from "../unit/action";
import { tell } from "./shop-log";

const RoleName = z.enum(Object.keys(ROLES) as [Role, ...Role[]]);

/** Another role, or somebody leaves or comes back. Somebody who can keep people is always left. */
export const changePerson = shopAction({
  name: "people.change",
  permission: "keep people",
  input: z.object({
    person: z.uuid(),
    role: RoleName.optional(),
    active: z.boolean().optional(),
    /** What the screen showed. */
    saw: z.object({ role: RoleName, active: z.boolean() }),
  }),
  run: async (unit, c) => {
    // All leads in one order: two who change each other come one after the other, and the second sees what the first did.
    const leads = (await unit.tx.find(
      Person,
      { role: "lead", active: true },
      { orderBy: { id: "asc" }, limit: 500, lockMode: LockMode.PESSIMISTIC_WRITE },
    )) as PersonRow[];
    if (!leads.some((l) => l.id === unit.actor.id)) return no(`You are no longer a lead, ${unit.actor.name}. Nothing was changed.`);
    const person = (await unit.tx.findOne(Person, { id: c.person }, { lockMode: LockMode.PESSIMISTIC_WRITE, refresh: true })) as PersonRow | null;
    if (!person) return no("That person is not in the list. Nothing was changed.");
    if (person.role !== c.saw.role || person.active !== c.saw.active)
      return no(
        `${person.name} is a ${person.role} ${person.active ? "now" : "who has left"}: somebody changed that meanwhile. Nothing was changed. Look, then choose.`,
      );
    const [role, active] = [c.role ?? person.role, c.active ?? person.active];
    if (leads.length === 1 && leads[0]?.id === person.id && (role !== "lead" || !active))
      return no(`${person.name} is the last lead. Nothing was changed. Make somebody else a lead first.`);
    if (role !== person.role) tell(unit, "role-changed", { person: person.id, name: person.name, was: person.role, now: role });
    if (active !== person.active) tell(unit, active ? "came-back" : "left", { person: person.id, name: person.name });
    // Also those that they opened and at which somebody else works now.
    if (!active) await endSessions(unit.tx, `"person_id" = ? or "opened_by_id" = ?`, [person.id, person.id], "ended");
    Object.assign(person, { role, active });
    return done();
  },
});

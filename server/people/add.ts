import { z } from "zod";
import { Credential, type EntityManager, Person } from "../../db";
import { ROLES, type Role } from "../kernel/actor";
import { done, no } from "../kernel/result";
import { line } from "../kernel/text";
import { query, shopWork } from "../unit/action";
import { hashSecret, passwordFault } from "./password";
import { tell } from "./shop-log";
import { Secret } from "./sign-in";

const RoleName = z.enum(Object.keys(ROLES) as [Role, ...Role[]]);

/** Somebody new, with a first password that they change. */
export const addPerson = query({
  name: "people.add",
  permission: "keep people",
  input: z.object({ name: line(120).refine((s) => s.length > 1, "name them"), role: RoleName, password: Secret }),
  run: async (em, n, actor) => {
    const fault = passwordFault(n.password, n.name);
    if (fault) return no(`${fault} Nobody was added.`);
    // Before the transaction: it takes long.
    const hash = await hashSecret(n.password);
    return shopWork(em.fork() as EntityManager, actor, async (unit) => {
      const [taken] = await unit.tx.execute<{ name: string }[]>(`select "name" from "person" where lower("name") = lower(?)`, [n.name]);
      if (taken) return no(`${taken.name} is in the list already. Nobody was added. Names tell people apart: add a letter or a second name.`);
      const person = unit.tx.create(Person, { name: n.name, role: n.role, active: true });
      await unit.tx.flush();
      unit.tx.create(Credential, { person, passwordHash: hash, pinHash: null });
      tell(unit, "person-added", { person: person.id, name: n.name, role: n.role });
      return done();
    });
  },
});

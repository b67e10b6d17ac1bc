import { z } from "zod";
import { Credential, type EntityManager, Person, type PersonRow } from "../../db";
import type { Actor } from "../kernel/actor";
import { done, no, type Refusal, type Result } from "../kernel/result";
import { secretText } from "../kernel/text";
import { endSessions } from "../kernel/turn";
import { query, shopWork } from "../unit/action";
import { countTry, forgive, forgiveAll, notWrong } from "./attempts";
import { hashSecret, isSecret, passwordFault, pinFault } from "./password";
import { tell } from "./shop-log";
import { Secret } from "./sign-in";

// Secrets are looked at and made before a transaction begins: that takes long, and holds neither a connection nor a row meanwhile.

async function keepSecret(tx: EntityManager, person: string, secret: { passwordHash: string } | { pinHash: string }): Promise<void> {
  const kept = await tx.findOne(Credential, { person });
  if (kept) Object.assign(kept, secret);
  else tx.create(Credential, { person: tx.getReference(Person, person), passwordHash: null, pinHash: null, ...secret });
}

/** Is it their own password? Tries are counted here too: a PIN, or a screen left open, is no place to guess it. Nothing: it is. */
async function unproved(em: EntityManager, actor: Actor, password: string): Promise<Refusal | undefined> {
  const tries = await countTry(em, "own", actor.id);
  if (tries.wait !== 0) return no(`Too many wrong passwords. Nothing was changed. Wait ${tries.wait} ${tries.wait === 1 ? "minute" : "minutes"}.`);
  const right = await isSecret((await em.findOne(Credential, { person: actor.id }))?.passwordHash, password);
  if (right === true) await forgive(em, "own", actor.id);
  if (right === "busy") await notWrong(em, "own", actor.id);
  if (right === "busy") return no("Too many sign in at this moment. Nothing was changed. Try again.");
  return right ? undefined : no("That is not your password. Nothing was changed.");
}

/** One's own password, proved by the one before. Every other sign-in of one's own ends (ASVS V7.4). */
export const ownPassword = query({
  name: "people.own-password",
  changes: true,
  input: z.object({ before: Secret, password: Secret }),
  run: async (em, c, actor): Promise<Result> => {
    const wrong = await unproved(em, actor, c.before);
    if (wrong) return wrong;
    const fault = passwordFault(c.password, actor.name);
    if (fault) return no(`${fault} Nothing was changed.`);
    const passwordHash = await hashSecret(c.password);
    return shopWork(em.fork() as EntityManager, actor, async (unit) => {
      await keepSecret(unit.tx, actor.id, { passwordHash });
      const here = actor.session ?? "00000000-0000-0000-0000-000000000000";
      await endSessions(unit.tx, `("person_id" = ? or "opened_by_id" = ?) and "id" <> ?`, [actor.id, actor.id, here], "ended");
      tell(unit, "password-set", { person: actor.id, name: actor.name });
      return done();
    });
  },
});

/** One's own PIN for the benches, proved by the password. */
export const ownPin = query({
  name: "people.own-pin",
  permission: "record",
  input: z.object({ password: Secret, pin: secretText(20) }),
  run: async (em, c, actor): Promise<Result> => {
    const fault = pinFault(c.pin);
    if (fault) return no(`${fault} Nothing was changed.`);
    const wrong = await unproved(em, actor, c.password);
    if (wrong) return wrong;
    const pinHash = await hashSecret(c.pin);
    return shopWork(em.fork() as EntityManager, actor, async (unit) => {
      await keepSecret(unit.tx, actor.id, { pinHash });
      tell(unit, "pin-set", { person: actor.id, name: actor.name });
      return done();
    });
  },
});

/** A new password for somebody who forgot theirs; all their sign-ins end, and their PIN with them. */
export const newPassword = query({
  name: "people.new-password",
  permission: "keep people",
  input: z.object({ person: z.uuid(), password: Secret }),
  run: async (em, c, actor): Promise<Result> => {
    const person = (await em.findOne(Person, { id: c.person })) as PersonRow | null;
    if (!person) return no("That person is not in the list. Nothing was changed.");
    const fault = passwordFault(c.password, person.name);
    if (fault) return no(`${fault} Nothing was changed.`);
    const passwordHash = await hashSecret(c.password);
    return shopWork(em.fork() as EntityManager, actor, async (unit) => {
      await keepSecret(unit.tx, person.id, { passwordHash });
      await unit.tx.flush();
      await unit.tx.execute(`update "credential" set "pin_hash" = null where "person_id" = ?`, [person.id]);
      await forgiveAll(unit.tx, person);
      if (person.id !== actor.id) await endSessions(unit.tx, `"person_id" = ? or "opened_by_id" = ?`, [person.id, person.id], "ended");
      tell(unit, "password-set", { person: person.id, name: person.name });
      return done();
    });
  },
});

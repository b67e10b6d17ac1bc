import { z } from "zod";
import { Credential, type EntityManager, Person, type PersonRow } from "../../db";
import { shopAction } from "../kernel/action";
import { done, no, type Refusal, type Result } from "../kernel/result";
import type { Unit } from "../kernel/unit";
import { countTry, forgive, waitMinutes } from "./attempts";
import { hashSecret, isSecret, passwordFault, pinFault } from "./password";
import { tell } from "./shop-log";
import { Secret } from "./sign-in";

async function keepSecret(tx: EntityManager, person: string, secret: { passwordHash: string } | { pinHash: string }): Promise<void> {
  const kept = await tx.findOne(Credential, { person });
  if (kept) Object.assign(kept, secret);
  else tx.create(Credential, { person: tx.getReference(Person, person), passwordHash: null, pinHash: null, ...secret });
}

/** Is it their own password? Tries are counted here too: a PIN, or a screen left open, is no place to guess it. Nothing: it is. */
async function unproved(unit: Unit, password: string): Promise<Refusal | undefined> {
  const key = `own ${unit.actor.id}`;
  if (!(await countTry(unit.tx, "password", key)))
    return no(`Too many wrong passwords. Nothing was changed. Wait ${Math.max(1, await waitMinutes(unit.tx, "password", key))} minutes.`);
  if (!(await isSecret((await unit.tx.findOne(Credential, { person: unit.actor.id }))?.passwordHash, password)))
    return no("That is not your password. Nothing was changed.");
  await forgive(unit.tx, "password", key);
  return undefined;
}

/** One's own password, proved by the one before. Every other sign-in of one's own ends (ASVS V7.4). */
export const ownPassword = shopAction({
  name: "people.own-password",
  permission: "look",
  input: z.object({ before: Secret, password: Secret }),
  run: async (unit, c): Promise<Result> => {
    const wrong = await unproved(unit, c.before);
    if (wrong) return wrong;
    const fault = passwordFault(c.password, unit.actor.name);
    if (fault) return no(`${fault} Nothing was changed.`);
    await keepSecret(unit.tx, unit.actor.id, { passwordHash: await hashSecret(c.password) });
    await unit.tx.execute(`update "session" set "ended_at" = now() where "person_id" = ? and "ended_at" is null and "id" <> ?`, [
      unit.actor.id,
      unit.actor.session ?? "00000000-0000-0000-0000-000000000000",
    ]);
    tell(unit, "password-set", { person: unit.actor.id, name: unit.actor.name });
    return done();
  },
});

/** One's own PIN for the benches, proved by the password. */
export const ownPin = shopAction({
  name: "people.own-pin",
  permission: "record",
  input: z.object({ password: Secret, pin: z.string().max(20) }),
  run: async (unit, c): Promise<Result> => {
    const fault = pinFault(c.pin);
    if (fault) return no(`${fault} Nothing was changed.`);
    const wrong = await unproved(unit, c.password);
    if (wrong) return wrong;
    await keepSecret(unit.tx, unit.actor.id, { pinHash: await hashSecret(c.pin) });
    tell(unit, "pin-set", { person: unit.actor.id, name: unit.actor.name });
    return done();
  },
});

/** A new password for somebody who forgot theirs; all their sign-ins end, and their PIN with them. */
export const newPassword = shopAction({
  name: "people.new-password",
  permission: "keep people",
  input: z.object({ person: z.uuid(), password: Secret }),
  run: async (unit, c): Promise<Result> => {
    const person = (await unit.tx.findOne(Person, { id: c.person })) as PersonRow | null;
    if (!person) return no("That person is not in the list. Nothing was changed.");
    const fault = passwordFault(c.password, person.name);
    if (fault) return no(`${fault} Nothing was changed.`);
    await keepSecret(unit.tx, person.id, { passwordHash: await hashSecret(c.password) });
    await unit.tx.execute(`update "credential" set "pin_hash" = null where "person_id" = ?`, [person.id]);
    await unit.tx.execute(`delete from "attempt" where "key" = ? or "key" like ?`, [
      `account:${person.name.toLowerCase()}`,
      `password:${person.name.toLowerCase().replace(/[\\%_]/g, (c) => `\\${c}`)}|%`,
    ]);
    if (person.id !== unit.actor.id)
      await unit.tx.execute(`update "session" set "ended_at" = now() where "person_id" = ? and "ended_at" is null`, [person.id]);
    tell(unit, "password-set", { person: person.id, name: person.name });
    return done();
  },
});

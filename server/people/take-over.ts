import { z } from "zod";
import { Credential, type EntityManager, Person, type PersonRow } from "../../db";
import { isRole, may } from "../kernel/actor";
import { no, type Result, yes } from "../kernel/result";
import { beginTurn, keyOfTurn } from "../kernel/turn";
import type { Door } from "../kernel/who";
import { entrance } from "../unit/entrance";
import { countTry, forgive, notWrong, type Tries } from "./attempts";
import { isSecret } from "./password";
import { tellTries } from "./shop-log";
import { type NowAt, proved, Secret } from "./sign-in";

const records = (p: PersonRow) => may({ id: p.id, name: p.name, role: p.role }, "record");

/** Is it their PIN, within the tries that are allowed? The sentence that is said where it is not, or where only the password helps. */
async function pinRefused(em: EntityManager, door: Door, person: PersonRow, pin: string): Promise<string | undefined> {
  const here = `${door.device}|${person.id}`;
  const tries: Tries[] = [];
  // One that is refused here is none anywhere.
  for (const [what, key] of [
    ["pin", here],
    ["pin-anywhere", person.id],
  ] as const) {
    const t = await countTry(em, what, key);
    if (t.wait === "password") return `Too many wrong PINs for ${person.name}. Only the password opens this bench now.`;
    if (t.wait > 0) return `Too many wrong PINs for ${person.name}. Wait ${t.wait} ${t.wait === 1 ? "minute" : "minutes"}, or use the password.`;
    tries.push(t);
  }
  const kept = await em.findOne(Credential, { person: person.id });
  const right = kept?.pinHash ? await isSecret(kept.pinHash, pin) : false;
  if (right === "busy" || right === true || !kept?.pinHash) {
    // None of these was a wrong PIN; a right one ends the row of this device, and of no other.
    await notWrong(em, "pin-anywhere", person.id);
    if (right === true) await forgive(em, "pin", here);
    else await notWrong(em, "pin", here);
    if (right === true) return undefined;
    return right === "busy"
      ? "Too many sign in at this moment. Try again."
      : `${person.name} has no PIN yet. Use the password; a PIN is set under "You".`;
  }
  const worse = tries.find((t) => t.worse);
  if (worse) await tellTries(em, { name: person.name, what: "PIN", label: door.label, count: worse.count });
  return `That is not ${person.name}'s PIN. Try again.`;
}

/**
 * Another person works at this device from now on, or the same one is there again: by PIN, where somebody has signed in with a
 * password; by password anywhere. By a PIN one may what hands at a bench do, and no more.
 */
export const takeOver = entrance({
  name: "people.take-over",
  input: z.object({ person: z.uuid(), secret: Secret, by: z.enum(["pin", "password"]) }),
  run: async (em, t, door): Promise<Result<NowAt>> => {
    const { seat } = door;
    if (!seat)
      return { ...no("Nobody is signed in at this device any more. Sign in with name and password. What waits here is kept."), later: "who" };
    const person = (await em.findOne(Person, { id: t.person, active: true })) as PersonRow | null;
    if (!person || !isRole(person.role) || !records(person)) return no("That person does not work at the benches any more. Choose another.");
    if (t.by === "pin") {
      const refused = await pinRefused(em, door, person, t.secret);
      if (refused) return no(refused);
    } else {
      const right = await proved(em, door, person.name, t.secret);
      if (!right.ok) return right;
      await forgive(em, "pin", `${door.device}|${person.id}`);
    }
    // Whoever may more from now on gets a new token (OWASP Session Management: renew it with the privileges).
    const fresh = t.by === "password" ? (await door.give()).tokenHash : undefined;
    // Whoever signed in here by password stays so, PIN or not.
    const byPin = t.by === "pin" && !(seat.actor.id === person.id && !seat.actor.byPin);
    let turn = keyOfTurn("");
    const still = await em.transactional(async (tx) => {
      const [row] = await tx.execute<{ id: string }[]>(
        `update "session" set "person_id" = ?, "by_pin" = ?, "acted_at" = now(), "seen_at" = now() where "id" = ? and "ended_at" is null returning "id"`,
        [person.id, byPin, seat.session],
      );
      if (!row) return false;
      // With the password it is theirs: it does not end with whoever opened it before.
      if (fresh) await tx.execute(`update "session" set "token_hash" = ?, "opened_by_id" = ? where "id" = ?`, [fresh, person.id, seat.session]);
      turn = await beginTurn(tx as EntityManager, seat, person.id, byPin);
      return true;
    });
    if (!still)
      return { ...no("The sign-in of this device was ended meanwhile. Sign in with name and password. What waits here is kept."), later: "who" };
    return yes({ id: person.id, name: person.name, asOfMs: Date.now(), turn, records: true });
  },
});

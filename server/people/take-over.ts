import { z } from "zod";
import { Credential, type EntityManager, Person, type PersonRow } from "../../db";
import { isRole, ROLES } from "../kernel/actor";
import { entrance } from "../kernel/entrance";
import { no, type Result, yes } from "../kernel/result";
import { countTry, forgive, waitMinutes } from "./attempts";
import { isSecret } from "./password";
import { proved, Secret, takesTurn } from "./sign-in";

/**
 * Another person works at this device from now on, or the same one is there again: by PIN, where somebody has signed in with a
 * password; by password anywhere. By a PIN one may what hands at a bench do, and no more.
 */
export const takeOver = entrance({
  name: "people.take-over",
  input: z.object({ person: z.uuid(), secret: Secret, by: z.enum(["pin", "password"]) }),
  run: async (em, t, door): Promise<Result<{ id: string; name: string; asOfMs: number }>> => {
    if (!door.seat)
      return { ...no("Nobody is signed in at this device any more. Sign in with name and password. What waits here is kept."), later: "who" };
    const person = (await em.findOne(Person, { id: t.person, active: true })) as PersonRow | null;
    if (!person || !isRole(person.role) || !(ROLES[person.role] as readonly string[]).includes("record"))
      return no("That person does not work at the benches any more. Choose another.");
    if (t.by === "pin") {
      const keys = [
        ["pin", `${door.device}|${person.id}`],
        // Whoever signs in anew gets a new device, but no more tries.
        ["pin-anywhere", person.id],
      ] as const;
      for (const [what, key] of keys)
        if (!(await countTry(em, what, key)))
          return no(`Too many wrong PINs for ${person.name}. Wait ${Math.max(1, await waitMinutes(em, what, key))} minutes, or use the password.`);
      const kept = await em.findOne(Credential, { person: person.id });
      if (!kept?.pinHash) return no(`${person.name} has no PIN yet. Use the password; a PIN is set under "You".`);
      if (!(await isSecret(kept.pinHash, t.secret))) return no(`That is not ${person.name}'s PIN. Try again.`);
      for (const [what, key] of keys) await forgive(em, what, key);
    } else {
      const right = await proved(em, door, person.name, t.secret);
      if (!right.ok) return right;
    }
    // Whoever may more from now on gets a new token (OWASP Session Management: renew it with the privileges).
    const fresh = t.by === "password" ? (await door.give()).tokenHash : undefined;
    await em.transactional(async (tx) => {
      if (fresh) await tx.execute(`update "session" set "token_hash" = ? where "id" = ?`, [fresh, door.seat?.session ?? ""]);
      await tx.execute(
        `update "session" set "person_id" = ?, "by_pin" = ?, "acted_at" = now(), "seen_at" = now() where "id" = ? and "ended_at" is null`,
        [
          person.id,
          // Whoever signed in here by password stays so, PIN or not.
          t.by === "pin" && !(door.seat?.actor.id === person.id && !door.seat.actor.byPin),
          door.seat?.session ?? "",
        ],
      );
      await takesTurn(tx as EntityManager, door.device, person.id);
    });
    return yes({ id: person.id, name: person.name, asOfMs: Date.now() });
  },
});

import { z } from "zod";
import { Credential, type EntityManager, Person, type PersonRow, Session } from "../../db";
import { entrance } from "../kernel/entrance";
import { done, no, type Result } from "../kernel/result";
import { line } from "../kernel/text";
import type { Door } from "../kernel/who";
import { countTry, forgive, waitMinutes } from "./attempts";
import { isSecret, MOST_PASSWORD } from "./password";

export const Secret = z.string().min(1, "is missing").max(MOST_PASSWORD, `at most ${MOST_PASSWORD} characters`);

const WRONG = "Name and password do not belong together. Look at both, then try again.";
const tooMany = (minutes: number) =>
  `Too many wrong tries under this name. Wait ${minutes} ${minutes === 1 ? "minute" : "minutes"}, or let a lead set a new password.`;

/** Name and password, within the tries that are allowed; the person, or the sentence that is said. */
export async function proved(em: EntityManager, door: Pick<Door, "address">, name: string, password: string): Promise<Result<PersonRow>> {
  const account = name.toLowerCase();
  const keys = [
    ["password", `${account}|${door.address}`],
    ["account", account],
  ] as const;
  for (const [what, key] of keys) if (!(await countTry(em, what, key))) return no(tooMany(Math.max(await waitMinutes(em, what, key), 1)));
  const person = (await em.findOne(Person, { name, active: true })) as PersonRow | null;
  const kept = person && (await em.findOne(Credential, { person: person.id }));
  if (!(await isSecret(kept?.passwordHash, password)) || !person) return no(WRONG);
  for (const [what, key] of keys) await forgive(em, what, key);
  return { ok: true, value: person };
}

/** A sign-in of a person at a device: the one before at it ends, and the token is a new one (against session fixation, CWE-384). */
export async function seatAt(em: EntityManager, door: Door, person: string): Promise<void> {
  const { tokenHash } = await door.give();
  await em.transactional(async (tx) => {
    await tx.execute(`update "session" set "ended_at" = now() where "device" = ? and "ended_at" is null`, [door.device]);
    const now = new Date();
    tx.create(Session, {
      tokenHash,
      device: door.device,
      person: tx.getReference(Person, person),
      byPin: false,
      label: door.label,
      startedAt: now,
      seenAt: now,
      actedAt: now,
      endedAt: null,
    });
    await tx.flush();
    await takesTurn(tx as EntityManager, door.device, person);
  });
}

export const takesTurn = (em: EntityManager, device: string, person: string) =>
  em.execute(`insert into "turn" ("device", "person_id") values (?, ?) on conflict do nothing`, [device, person]);

export const signIn = entrance({
  name: "people.sign-in",
  input: z.object({ name: line(120).refine((s) => s.length > 0, "is missing"), password: Secret }),
  run: async (em, { name, password }, door): Promise<Result> => {
    const who = await proved(em, door, name, password);
    if (!who.ok) return who;
    await seatAt(em, door, who.value.id);
    return done();
  },
});

/** Ends the sign-in of this device. Entries that wait on it stay there. */
export const signOut = entrance({
  name: "people.sign-out",
  input: z.strictObject({}),
  run: async (em, _, door): Promise<Result> => {
    if (door.seat) await em.execute(`update "session" set "ended_at" = now() where "id" = ?`, [door.seat.session]);
    await door.take();
    return done();
  },
});

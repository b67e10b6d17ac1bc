import { z } from "zod";
import { Credential, type EntityManager, Person, type PersonRow, Session } from "../../db";
import { no, type Result, yes } from "../kernel/result";
import { line, secretText } from "../kernel/text";
import { beginTurn, endSessions, keyOfTurn, type TurnKey } from "../kernel/turn";
import type { Door } from "../kernel/who";
import { entrance } from "../unit/entrance";
import { countFrom, countTry, forgive, notWrong, type Tried } from "./attempts";
import { isSecret, MOST_PASSWORD } from "./password";
import { tellTries } from "./shop-log";

export const Secret = secretText(MOST_PASSWORD);

const WRONG = "Name and password do not belong together. Look at both, then try again.";
const minutes = (n: number) => `${n} ${n === 1 ? "minute" : "minutes"}`;
const tooMany = (n: number) => `Too many wrong tries under this name. Wait ${minutes(n)}, or let a lead set a new password.`;
const TOO_MANY_HERE = "Too many wrong tries from this address. Wait a quarter of an hour, or sign in at a device where you have signed in before.";

/** Has this person signed in at this device before? The device's name is sealed in its cookie. */
async function isTheirs(em: EntityManager, device: string, person: string): Promise<boolean> {
  const [row] = await em.execute<{ known: boolean }[]>(`select exists(select from "session" where "opened_by_id" = ? and "device" = ?) as "known"`, [
    person,
    device,
  ]);
  return row?.known === true;
}

/** Name and password, within the tries that are allowed; the person, or the sentence that is said. */
export async function proved(
  em: EntityManager,
  door: Pick<Door, "address" | "device" | "label">,
  name: string,
  password: string,
): Promise<Result<PersonRow>> {
  const person = (await em.findOne(Person, { name, active: true })) as PersonRow | null;
  const own = person !== null && (await isTheirs(em, door.device, person.id));
  const [what, key]: [Tried, string] = own ? ["own-device", `${person.id}|${door.device}`] : ["name", name];
  // Before anything is worked out: it takes a processor's time.
  if (!own && !(await countFrom(em, "address", door.address))) return no(TOO_MANY_HERE);
  const tries = await countTry(em, what, key);
  if (tries.wait !== 0) return no(tooMany(Number(tries.wait)));
  const kept = person && (await em.findOne(Credential, { person: person.id }));
  const right = await isSecret(kept?.passwordHash, password);
  if (right === "busy") {
    await notWrong(em, what, key);
    return no("Too many sign in at this moment. Nothing was changed. Try again.");
  }
  if (!right || !person) {
    if (person && tries.worse) await tellTries(em, { name: person.name, what: "password", label: door.label, count: tries.count });
    return no(WRONG);
  }
  // At a strange device others' wrong tries stay counted: from now on it is one of theirs.
  await (own ? forgive : notWrong)(em, what, key);
  return { ok: true, value: person };
}

/** A sign-in of a person at a device: the one before at it ends, and the token is a new one (against session fixation, CWE-384). */
export async function seatAt(em: EntityManager, door: Door, person: string): Promise<TurnKey> {
  const { tokenHash } = await door.give();
  let turn: TurnKey = keyOfTurn("");
  await em.transactional(async (tx) => {
    await endSessions(tx as EntityManager, `"device" = ?`, [door.device], "taken over");
    const now = new Date();
    const session = tx.create(Session, {
      tokenHash,
      device: door.device,
      person: tx.getReference(Person, person),
      openedBy: tx.getReference(Person, person),
      byPin: false,
      label: door.label,
      startedAt: now,
      seenAt: now,
      actedAt: now,
      endedAt: null,
    });
    await tx.flush();
    turn = await beginTurn(tx as EntityManager, { session: session.id, device: door.device }, person, false);
  });
  return turn;
}

/** Who works at a device from now on, and what the device seals their entries with. */
export interface NowAt {
  id: string;
  name: string;
  asOfMs: number;
  turn: TurnKey;
  /** May they record anything at all? */
  records: boolean;
}

export const signIn = entrance({
  name: "people.sign-in",
  input: z.object({ name: line(120).refine((s) => s.length > 0, "is missing"), password: Secret }),
  run: async (em, { name, password }, door): Promise<Result<NowAt>> => {
    const who = await proved(em, door, name, password);
    if (!who.ok) return who;
    const { id, name: known, role } = who.value;
    return yes({ id, name: known, asOfMs: Date.now(), turn: await seatAt(em, door, id), records: role !== "reader" });
  },
});

/** Ends the sign-in of this device. Entries that wait on it stay there. */
export const signOut = entrance({
  name: "people.sign-out",
  input: z.strictObject({}),
  run: async (em, _, door): Promise<Result> => {
    if (door.seat) await endSessions(em, `"id" = ?`, [door.seat.session], "signed out");
    await door.take();
    return yes(undefined);
  },
});

import { createHmac, timingSafeEqual } from "node:crypto";
import type { EntityManager } from "../../db";
import { type Sealed, sealOf } from "./seal";
import { cookieRules } from "./seat";

/** What a device seals entries with, as long as the turn lasts. */
export interface TurnKey {
  id: string;
  secret: string;
}

/** The secret of a turn: only this server and the device at which the turn is know it; the database does not. */
const secretOf = (id: string): string => createHmac("sha256", cookieRules().password).update(`imbra turn ${id}`).digest("base64url");

export const keyOfTurn = (id: string): TurnKey => ({ id, secret: secretOf(id) });

/** Is this the seal of what came, by the secret of its turn? */
export function isSealOf(seal: string, sealed: Sealed): boolean {
  const [is, should] = [Buffer.from(seal), Buffer.from(sealOf(secretOf(sealed.turn), sealed))];
  return is.length === should.length && timingSafeEqual(is, should);
}

export type TurnEnd = "taken over" | "signed out" | "ended";

/** Ends what turns a sign-in has open. */
export const endTurns = (em: EntityManager, session: string, by: TurnEnd) =>
  em.execute(`update "turn" set "ended_at" = now(), "ended_by" = ? where "session_id" = ? and "ended_at" is null`, [by, session]);

/** Somebody works at a device from now on; whoever did before does no more. */
export async function beginTurn(
  tx: EntityManager,
  at: { session: string; device: string },
  person: string,
  byPin: boolean,
  was: TurnEnd = "taken over",
): Promise<TurnKey> {
  await endTurns(tx, at.session, was);
  const [row] = await tx.execute<{ id: string }[]>(
    `insert into "turn" ("device", "session_id", "person_id", "by_pin") values (?, ?, ?, ?) returning "id"`,
    [at.device, at.session, person, byPin],
  );
  return keyOfTurn(row?.id ?? "");
}

/** Ends the sign-ins that a condition names, and their turns with them. */
export async function endSessions(em: EntityManager, where: string, values: readonly unknown[], by: TurnEnd): Promise<void> {
  await em.execute(
    `with s as (update "session" set "ended_at" = now() where "ended_at" is null and (${where}) returning "id")
     update "turn" set "ended_at" = now(), "ended_by" = ? from s where "turn"."session_id" = s."id" and "turn"."ended_at" is null`,
    [...values, by],
  );
}

export interface TurnRow {
  id: string;
  device: string;
  person: string;
  name: string;
  role: string;
  active: boolean;
  byPin: boolean;
  endedAt: Date | null;
  endedBy: TurnEnd | null;
}

export async function turnOf(em: EntityManager, id: string): Promise<TurnRow | undefined> {
  const [row] = await em.execute<(Omit<TurnRow, "endedAt"> & { endedAt: string | Date | null })[]>(
    `select t."id", t."device", p."id" as "person", p."name", p."role", p."active", t."by_pin" as "byPin", t."ended_at" as "endedAt", t."ended_by" as "endedBy"
     from "turn" t join "person" p on p."id" = t."person_id" where t."id" = ?`,
    [id],
  );
  return row && { ...row, endedAt: row.endedAt === null ? null : new Date(row.endedAt) };
}

/** The turn that goes on at a sign-in. */
export async function openTurn(em: EntityManager, session: string): Promise<string | undefined> {
  const [row] = await em.execute<{ id: string }[]>(`select "id" from "turn" where "session_id" = ? and "ended_at" is null`, [session]);
  return row?.id;
}

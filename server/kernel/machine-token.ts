import { randomBytes } from "node:crypto";
import { isClosed, type Stage } from "../../core/job";
import { type EntityManager, MachineToken } from "../../db";
import type { Actor } from "./actor";
import { no, type Result, yes } from "./result";
import { hashOfToken } from "./seat";

/** What proves a machine: 256 bits at random, of which the database has only the hash. */
export function machineToken(): { token: string; hash: string } {
  const token = randomBytes(32).toString("base64url");
  return { token, hash: hashOfToken(token) };
}

/** A machine that proved that it may send to a job. */
export interface LetIn {
  id: string;
  /** The job's number. */
  number: string;
  /** Since when it may send. */
  at: Date;
  simulated: boolean;
  /** Who let it in: what it says is recorded as theirs, as far as they still may. */
  actor: Actor;
}

const SHUT = "Nothing was kept. Somebody at First boot lets the machine in again.";

/** The machine that a bearer token proves (RFC 6750), or why not: unknown, withdrawn, over, its person has left. */
export async function letIn(em: EntityManager, authorization: string | null): Promise<Result<LetIn>> {
  const token = /^Bearer ([\w-]{20,200})$/.exec(authorization ?? "")?.[1];
  if (!token) return no("No token came with this. Send it in a header: Authorization: Bearer TOKEN. Nothing was kept.");
  const row = await em.findOne(MachineToken, { tokenHash: hashOfToken(token) }, { populate: ["job", "by"] });
  if (!row) return no(`This token is not known here. ${SHUT}`);
  if (row.withdrawnAt !== null) return no(`This token was withdrawn. ${SHUT}`);
  if (row.until.getTime() < Date.now()) return no(`This token was good until ${row.until.toISOString()}. ${SHUT}`);
  if (isClosed(row.job.stage as Stage)) return no(`${row.job.number} is not in work any more. Nothing was kept.`);
  if (!row.by.active) return no(`${row.by.name}, who let this machine in, has left. ${SHUT}`);
  return yes({
    id: row.id,
    number: row.job.number,
    at: row.at,
    simulated: row.simulated !== null,
    actor: { id: row.by.id, name: row.by.name, role: row.by.role },
  });
}

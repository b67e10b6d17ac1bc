import "server-only";
import { createHash, randomBytes, randomUUID } from "node:crypto";
import { getIronSession } from "iron-session";
import { cookies, headers } from "next/headers";
import { cache } from "react";
import { entityManager } from "../../db";
import type { Actor } from "./actor";
import { deviceWords } from "./device-words";

/** A sign-in ends after so long, and where it was not used for so long (OWASP Session Management Cheat Sheet: both, by the risk). */
export const SESSION_DAYS = 30;
export const IDLE_DAYS = 7;
/** Written at most so often: a look is no reason to write. */
const SEEN_EVERY_MS = 5 * 60_000;

interface Cookie {
  /** This device, over all sign-ins at it. */
  device?: string;
  /** What proves the sign-in: 256 bits at random. The database has only its hash. */
  token?: string;
}

/** Sealed, for this server alone, not for scripts, never sent from other sites (RFC 6265bis; `__Host-` where there is TLS). */
async function cookie() {
  const password = process.env.IMBRA_SECRET;
  if (!password) throw new Error("IMBRA_SECRET is not set. Start Imbra with npm start, which makes one.");
  const secure = process.env.IMBRA_TLS === "1";
  return getIronSession<Cookie>(await cookies(), {
    password,
    cookieName: secure ? "__Host-imbra" : "imbra",
    ttl: SESSION_DAYS * 86_400,
    cookieOptions: { secure, sameSite: "strict", httpOnly: true, path: "/" },
  });
}

export const hashOfToken = (token: string) => createHash("sha256").update(token).digest("hex");

/** Who sits at a device now, and since when nobody touched it. */
export interface Seat {
  session: string;
  device: string;
  actor: Actor;
  actedAt: Date;
  /** Minutes after which a bench that nobody touched asks who it is; 0: never. */
  lockMinutes: number;
}

interface SeatRow {
  session: string;
  device: string;
  person: string;
  name: string;
  role: string;
  by_pin: boolean;
  acted_at: string | Date;
  seen_at: string | Date;
  lock_minutes: number;
}

/** The seat of this request; undefined where nobody signed in, or the sign-in was ended, is too old, or its person has left. */
export const seatHere = cache(async (): Promise<Seat | undefined> => {
  const { token, device } = await cookie();
  return seatOf(token, device);
});

async function seatOf(token: string | undefined, device: string | undefined): Promise<Seat | undefined> {
  if (!token || !device) return undefined;
  const em = await entityManager();
  const [row] = await em.execute<SeatRow[]>(
    `select s."id" as session, s."device", p."id" as person, p."name", p."role", s."by_pin", s."acted_at", s."seen_at",
       coalesce((select "bench_lock_minutes" from "shop" where "id" = 1), 15) as lock_minutes
     from "session" s join "person" p on p."id" = s."person_id"
     where s."token_hash" = ? and s."ended_at" is null and p."active"
       and s."started_at" > now() - interval '${SESSION_DAYS} days' and s."seen_at" > now() - interval '${IDLE_DAYS} days'`,
    [hashOfToken(token)],
  );
  if (!row) return undefined;
  if (Date.now() - new Date(row.seen_at).getTime() > SEEN_EVERY_MS)
    await em.execute(`update "session" set "seen_at" = now() where "id" = ?`, [row.session]);
  return {
    session: row.session,
    device: row.device,
    actor: { id: row.person, name: row.name, role: row.role, session: row.session, ...(row.by_pin ? { byPin: true } : {}) },
    actedAt: new Date(row.acted_at),
    lockMinutes: row.lock_minutes,
  };
}

/** Asks for the seat of this request again whenever it is called: for what lasts longer than a request. */
export async function seatKept(): Promise<() => Promise<Seat | undefined>> {
  const { token, device } = await cookie();
  return () => seatOf(token, device);
}

export const whoIsIt = async (): Promise<Actor | undefined> => (await seatHere())?.actor;

/** What somebody who comes in brings: where from, on which device, and how the door gives or takes the sign-in. */
export interface Door {
  /** Address of the other side, as far as it is known. */
  address: string;
  /** Browser and system, in words. */
  label: string;
  device: string;
  seat: Seat | undefined;
  /** Makes a token, keeps it in the cookie; what the database may know of it. */
  give: () => Promise<{ tokenHash: string }>;
  take: () => Promise<void>;
}

export async function doorHere(): Promise<Door> {
  const [c, h, seat] = [await cookie(), await headers(), await seatHere()];
  const device = c.device ?? randomUUID();
  return {
    address: (h.get("x-forwarded-for") ?? "").split(",").at(-1)?.trim().slice(0, 60) || "unknown",
    label: deviceWords(h.get("user-agent") ?? ""),
    device,
    seat,
    give: async () => {
      const token = randomBytes(32).toString("base64url");
      Object.assign(c, { device, token });
      await c.save();
      return { tokenHash: hashOfToken(token) };
    },
    take: async () => {
      delete c.token;
      c.device = device;
      await c.save();
    },
  };
}

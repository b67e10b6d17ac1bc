import "server-only";
import { randomBytes, randomUUID } from "node:crypto";
import { getIronSession } from "iron-session";
import { cookies, headers } from "next/headers";
import { cache } from "react";
import type { Actor } from "./actor";
import { deviceWords } from "./device-words";
import { type Cookie, cookieRules, hashOfToken, type Seat, seatOf } from "./seat";

const cookie = async () => getIronSession<Cookie>(await cookies(), cookieRules());

/** The seat of this request; undefined where nobody signed in, or the sign-in was ended, is too old, or its person has left. */
export const seatHere = cache(async (): Promise<Seat | undefined> => {
  const { token, device } = await cookie();
  return seatOf(token, device);
});

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

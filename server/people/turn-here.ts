import "server-only";
import { entityManager } from "../../db";
import { may } from "../kernel/actor";
import { isUntouched, touched } from "../kernel/lock";
import type { Seat } from "../kernel/seat";
import { beginTurn, keyOfTurn, openTurn } from "../kernel/turn";
import { seatHere } from "../kernel/who";
import type { NowAt } from "./sign-in";

/** Who works at a seat now, with the key of their turn. */
async function turnAt(seat: Seat): Promise<NowAt> {
  const em = await entityManager();
  const id = await openTurn(em, seat.session);
  const turn = id ? keyOfTurn(id) : await beginTurn(em, seat, seat.actor.id, seat.actor.byPin === true);
  return { id: seat.actor.id, name: seat.actor.name, asOfMs: Date.now(), turn, records: may(seat.actor, "record") };
}

/** 401: nobody is signed in here; 423 (RFC 4918): nobody touched this device for so long that it asks who is there; 503: not to be said now. */
export async function takeTurnHere(isTouched: boolean): Promise<{ status: 200 | 401 | 423 | 503; body?: NowAt }> {
  try {
    const seat = await seatHere();
    if (!seat) return { status: 401 };
    if (isUntouched(seat, new Date())) return { status: 423 };
    if (isTouched) await touched(await entityManager(), seat);
    return { status: 200, body: await turnAt(seat) };
  } catch (e) {
    console.error(e);
    return { status: 503 };
  }
}

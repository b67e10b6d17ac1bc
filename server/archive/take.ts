import "server-only";
import { may, mayNot } from "../kernel/actor";
import { bodyAtMost } from "../kernel/body";
import { no, type Result } from "../kernel/result";
import { seatHere } from "../kernel/who";
import { perform } from "../unit/door";
import { takeIn } from "./take-in";

/** So much a browser sends at once. */
const MOST_SENT_BYTES = 25_000_000;

/** Nothing is read, let alone unpacked, of whoever may not keep it. */
export async function takeInArchive(request: Request): Promise<{ status: number; body: Result<string> }> {
  const actor = (await seatHere())?.actor;
  if (!may(actor, takeIn.permission)) return { status: actor ? 200 : 401, body: no(mayNot(actor, takeIn.permission)) };
  const bytes = await bodyAtMost(request.body, MOST_SENT_BYTES);
  if (!bytes)
    return {
      status: 200,
      body: no(`The file is larger than ${MOST_SENT_BYTES / 1_000_000} MB, more than a browser sends at once. Nothing was taken in.`),
    };
  return { status: 200, body: await perform(takeIn, { bytes: Buffer.from(bytes) }) };
}

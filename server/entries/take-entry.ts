import { z } from "zod";
import { card } from "../bench/card";
import { note } from "../bench/note";
import { plug } from "../bench/plug";
import { step } from "../bench/step";
import { no, type Result } from "../kernel/result";
import type { Seat } from "../kernel/seat";
import { changePart } from "../parts/change";
import { measurePart } from "../parts/measure";
import { placePart } from "../parts/place";
import { removePart } from "../parts/remove";
import { receive } from "../receipt/receive";
import { performKept } from "../unit/kept-entry";

/** What may wait on a device and be sent later. */
const ACTIONS = {
  [card.name]: card,
  [plug.name]: plug,
  [step.name]: step,
  [note.name]: note,
  [receive.name]: receive,
  [placePart.name]: placePart,
  [removePart.name]: removePart,
  [changePart.name]: changePart,
  [measurePart.name]: measurePart,
};

const Sent = z.object({ action: z.string().max(40), input: z.unknown(), entry: z.unknown() });
/** A longer body is no entry. */
export const MOST_ENTRY_BYTES = 60_000;

/** One entry as a bench sends it; undefined: its body was too long. Whatever is understood is answered with 200 and a result, refused or not. */
export async function takeEntry(
  text: Buffer | undefined,
  seatNow: (anew: boolean) => Promise<Seat | undefined>,
): Promise<{ status: number; body: Result }> {
  if (text === undefined) return { status: 413, body: no("The entry is too large. Nothing was changed.") };
  let data: unknown;
  try {
    data = JSON.parse(text.toString("utf8"));
  } catch {
    return { status: 400, body: no("The entry was not understood. Nothing was changed.") };
  }
  const sent = Sent.safeParse(data);
  const action = sent.success && Object.hasOwn(ACTIONS, sent.data.action) ? ACTIONS[sent.data.action] : undefined;
  if (!sent.success || !action) return { status: 400, body: no("The entry was not understood. Nothing was changed.") };
  return { status: 200, body: await performKept(seatNow, action as typeof note, sent.data.input, sent.data.entry) };
}

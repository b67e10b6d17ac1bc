import "server-only";
import { z } from "zod";
import { bodyAtMost } from "../kernel/body";
import { performKept } from "../kernel/door";
import { no, type Result } from "../kernel/result";
import { changePart } from "../parts/change";
import { measurePart } from "../parts/measure";
import { placePart } from "../parts/place";
import { removePart } from "../parts/remove";
import { receive } from "../receipt/receive";
import { card } from "./card";
import { note } from "./note";
import { plug } from "./plug";
import { step } from "./step";

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
const MOST_BYTES = 60_000;

/** One entry as a bench sends it. Whatever is understood is answered with 200 and a result, refused or not. */
export async function takeEntry(request: Request): Promise<{ status: number; body: Result }> {
  const text = (await bodyAtMost(request, MOST_BYTES))?.toString("utf8");
  if (text === undefined) return { status: 413, body: no("The entry is too large. Nothing was changed.") };
  let data: unknown;
  try {
    data = JSON.parse(text);
  } catch {
    return { status: 400, body: no("The entry was not understood. Nothing was changed.") };
  }
  const sent = Sent.safeParse(data);
  const action = sent.success && Object.hasOwn(ACTIONS, sent.data.action) ? ACTIONS[sent.data.action] : undefined;
  if (!sent.success || !action) return { status: 400, body: no("The entry was not understood. Nothing was changed.") };
  return { status: 200, body: await performKept(action as typeof note, sent.data.input, sent.data.entry) };
}

import { z } from "zod";
import { key } from "./text";

/** What comes with an entry that may have waited on a device: its key there, by the device's own clock when it was made and sent, and whose it is. */
export const Entry = z.object({
  key: key(80),
  madeAtMs: z.number().int().optional(),
  sentAtMs: z.number().int().optional(),
  /** Who worked at the device then: said by devices of an earlier version, and proves nothing. */
  by: z.uuid().optional(),
  /** Whose turn it was at the device, and the seal that proves it. */
  turn: z.uuid().optional(),
  seal: z
    .string()
    .regex(/^[0-9a-f]{64}$/)
    .optional(),
});
export type Entry = z.infer<typeof Entry>;

/** An entry that waited longer than this is dated by its arrival. */
const MOST_WAITED_MS = 30 * 86_400_000;

/** When an entry happened: it waited as long as the device says between making and sending, however wrong its clock is. */
export function happenedAt(entry: Entry | undefined, arrived: Date): Date {
  if (entry?.madeAtMs === undefined || entry.sentAtMs === undefined) return arrived;
  const waited = entry.sentAtMs - entry.madeAtMs;
  return waited > 0 && waited <= MOST_WAITED_MS ? new Date(arrived.getTime() - waited) : arrived;
}

// A process of its own for pictures that come in: what is slow or crafted in one holds up nobody who waits for a page, and can be ended.
import { constants, setPriority } from "node:os";
import sharp from "sharp";
import { upright } from "../server/photos/upright";

try {
  setPriority(constants.priority.PRIORITY_LOW);
} catch {}
sharp.concurrency(1);
sharp.cache(false);

process.on("message", async ({ raw }: { raw: Uint8Array }) => {
  const made = await upright(Buffer.from(raw));
  process.send?.({ made });
});
process.on("disconnect", () => process.exit(0));

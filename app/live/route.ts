import { notHere } from "../../server/files/not-here";
import { seatKept } from "../../server/kernel/who";
import { newsStream } from "../../server/live/stream";

export const dynamic = "force-dynamic";

/** News of one job (`?job=FS-1041`) or of all, as they happen. */
export async function GET(request: Request): Promise<Response> {
  const seat = await seatKept();
  if (!(await seat())) return notHere(401);
  const job = new URL(request.url).searchParams.get("job")?.slice(0, 40);
  return newsStream(job || undefined, request.signal, async () => (await seat()) !== undefined);
}

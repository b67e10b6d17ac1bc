import { notHere } from "../../server/documents/not-here";
import { seatKept } from "../../server/kernel/who";
import { changedSince } from "../../server/live/since";
import { newsStream } from "../../server/live/stream";

export const dynamic = "force-dynamic";

/** News of one job (`?job=FS-1041`) or of all, as they happen, and whether there were any since the page was made (`&since=`). */
export async function GET(request: Request): Promise<Response> {
  const seat = await seatKept();
  const here = await seat();
  if (!here) return notHere(401);
  const asked = new URL(request.url).searchParams;
  const job = asked.get("job")?.slice(0, 40) || undefined;
  const since = asked.get("since");
  return newsStream(
    job,
    here.session,
    request.signal,
    async () => (await seat()) !== undefined,
    async () => since !== null && changedSince(since, job),
  );
}

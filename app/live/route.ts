import { newsStream } from "../../server/live/stream";

export const dynamic = "force-dynamic";

/** News of one job (`?job=FS-1041`) or of all, as they happen. */
export function GET(request: Request): Response {
  const job = new URL(request.url).searchParams.get("job")?.slice(0, 40);
  return newsStream(job || undefined, request.signal);
}

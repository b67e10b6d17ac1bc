import { answers } from "../../../server/live/answers";

export const dynamic = "force-dynamic";

/** Can a page be had now? 204 when server and database answer, 503 when the database does not. */
export async function GET(): Promise<Response> {
  return new Response(null, { status: (await answers()) ? 204 : 503, headers: { "Cache-Control": "no-store" } });
}

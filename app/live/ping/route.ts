import { whoIsIt } from "../../../server/kernel/who";
import { answers } from "../../../server/live/answers";

export const dynamic = "force-dynamic";

/** Can a page be had now? 204 when server and database answer, 503 when the database does not, 401 when nobody is signed in. */
export async function GET(): Promise<Response> {
  const status = !(await answers()) ? 503 : (await whoIsIt()) ? 204 : 401;
  return new Response(null, { status, headers: { "Cache-Control": "no-store" } });
}

import { MOST_ENTRY_BYTES, takeEntry } from "../../server/entries/take-entry";
import { bodyAtMost } from "../../server/kernel/body";
import { seatHere } from "../../server/kernel/who";

/** Entries of benches, one a request. The development server's way to them: the server of npm start answers before it comes here (scripts/server.mjs). */
export async function POST(request: Request): Promise<Response> {
  const { status, body } = await takeEntry(await bodyAtMost(request.body, MOST_ENTRY_BYTES), seatHere);
  return Response.json(body, { status, headers: { "Cache-Control": "no-store" } });
}

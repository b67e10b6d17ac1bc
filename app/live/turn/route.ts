import { takeTurnHere } from "../../../server/people/turn-here";

export const dynamic = "force-dynamic";

/** Whose turn it is at this device, and what it seals entries with; asked for by the device itself, which says whether it was touched. */
export async function POST(request: Request): Promise<Response> {
  const { status, body } = await takeTurnHere(new URL(request.url).searchParams.get("touched") === "1");
  return body
    ? Response.json(body, { status, headers: { "Cache-Control": "no-store" } })
    : new Response(null, { status, headers: { "Cache-Control": "no-store" } });
}

import { takeFromMachine } from "../../server/machine/take";

export const dynamic = "force-dynamic";

/** What a machine sends of itself, with the token that somebody at First boot gave it. */
export async function POST(request: Request): Promise<Response> {
  const { status, body } = await takeFromMachine(request);
  return Response.json(body.ok ? { ok: true, ...body.value } : body, { status, headers: { "Cache-Control": "no-store" } });
}

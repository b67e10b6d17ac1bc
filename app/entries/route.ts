import { takeEntry } from "../../server/bench/take-entry";

/** Entries of benches, one a request: small, and without a page to render. */
export async function POST(request: Request): Promise<Response> {
  const { status, body } = await takeEntry(request);
  return Response.json(body, { status, headers: { "Cache-Control": "no-store" } });
}

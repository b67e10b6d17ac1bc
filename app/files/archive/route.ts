import { takeInArchive } from "../../../server/archive/take";

/** An archive that is taken in again: the file as the body. */
export async function POST(request: Request): Promise<Response> {
  const { status, body } = await takeInArchive(request);
  return Response.json(body, { status, headers: { "Cache-Control": "no-store" } });
}

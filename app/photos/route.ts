import { takePhoto } from "../../server/photos/take";

/** Photos of benches, one a request. */
export async function POST(request: Request): Promise<Response> {
  const { status, body } = await takePhoto(request);
  return Response.json(body, { status, headers: { "Cache-Control": "no-store" } });
}

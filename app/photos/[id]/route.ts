import { notHere } from "../../../server/documents/not-here";
import { photo } from "../../../server/photos/keep";
import { fetched } from "../../../server/unit/door";

/** One photo as JPEG. It never changes. */
export async function GET(_request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const seen = await fetched(photo, { id: (await params).id });
  if ("status" in seen) return notHere(seen.status);
  return new Response(new Uint8Array(seen.value), {
    headers: { "Content-Type": "image/jpeg", "Cache-Control": "private, max-age=31536000, immutable", "X-Content-Type-Options": "nosniff" },
  });
}

import { notHere } from "../../../../server/documents/not-here";
import { typeAsFile } from "../../../../server/shelf/type-file";
import { fetched } from "../../../../server/unit/door";

/** A part type with its tips and its photo as one file. */
export async function GET(_request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const { id } = await params;
  const made = await fetched(typeAsFile, { id });
  if ("status" in made) return notHere(made.status);
  return new Response(made.value, {
    headers: {
      "Content-Type": "application/json; charset=utf-8",
      "Content-Disposition": `attachment; filename="${id.replace(/[^A-Za-z0-9-]/g, "")}.json"`,
      "Cache-Control": "no-store",
    },
  });
}

import { notHere } from "../../../server/documents/not-here";
import { fetched } from "../../../server/unit/door";
import { shelfAsFile } from "../../../server/views/questions";

/** The shelf, or a part of it, as a file: `?as=csv` or `?as=json`, narrowed by `q` and `kind`. */
export async function GET(request: Request): Promise<Response> {
  const p = new URL(request.url).searchParams;
  const as = p.get("as") === "csv" ? "csv" : "json";
  const made = await fetched(shelfAsFile, { as, text: p.get("q") ?? "", kind: p.get("kind") ?? "" });
  if ("status" in made) return notHere(made.status);
  return new Response(made.value, {
    headers: {
      "Content-Type": as === "csv" ? "text/csv; charset=utf-8" : "application/json; charset=utf-8",
      "Content-Disposition": `attachment; filename="shelf.${as}"`,
      "Cache-Control": "no-store",
    },
  });
}

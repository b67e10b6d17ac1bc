import { entityManager } from "../../../db";
import { shelfFile } from "../../../server/shelf/shelf-file";

/** The shelf, or a part of it, as a file: `?as=csv` or `?as=json`, narrowed by `q` and `kind`. */
export async function GET(request: Request): Promise<Response> {
  const p = new URL(request.url).searchParams;
  const as = p.get("as") === "csv" ? "csv" : "json";
  const text = await shelfFile(await entityManager(), as, (p.get("q") ?? "").slice(0, 80), p.get("kind")?.slice(0, 30) || undefined);
  return new Response(text, {
    headers: {
      "Content-Type": as === "csv" ? "text/csv; charset=utf-8" : "application/json; charset=utf-8",
      "Content-Disposition": `attachment; filename="shelf.${as}"`,
      "Cache-Control": "no-store",
    },
  });
}

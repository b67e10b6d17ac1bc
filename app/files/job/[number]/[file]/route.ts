import { entityManager } from "../../../../../db";
import { WIRING_FILES, type WiringFile, wiringFile } from "../../../../../server/files/wiring-file";

/** `wiring.pdf`, `wiring.csv`, `wiring.svg` or `wiring.json` of a job. */
export async function GET(_request: Request, { params }: { params: Promise<{ number: string; file: string }> }): Promise<Response> {
  const { number, file } = await params;
  const as = /^wiring\.(csv|json|svg|pdf)$/.exec(file)?.[1] as WiringFile | undefined;
  const made = as ? await wiringFile(await entityManager(), number.slice(0, 40), as) : undefined;
  if (!as || made === undefined) return new Response("There is no such file.", { status: 404 });
  return new Response(typeof made === "string" ? made : new Uint8Array(made), {
    headers: {
      "Content-Type": WIRING_FILES[as],
      "Content-Disposition": `attachment; filename="${number.replace(/[^A-Za-z0-9-]/g, "")}-wiring.${as}"`,
      "Cache-Control": "no-store",
    },
  });
}

import { WIRING_FILES, type WiringFile } from "../../../../../server/files/wiring-file";
import { see } from "../../../../../server/kernel/door";
import { wiringAsFile } from "../../../../../server/read/questions";

/** `wiring.pdf`, `wiring.csv`, `wiring.svg` or `wiring.json` of a job. */
export async function GET(_request: Request, { params }: { params: Promise<{ number: string; file: string }> }): Promise<Response> {
  const { number, file } = await params;
  const as = /^wiring\.(csv|json|svg|pdf)$/.exec(file)?.[1] as WiringFile | undefined;
  const made = as ? await see(wiringAsFile, { number, as }) : undefined;
  if (!as || made === undefined) return new Response("There is no such file.", { status: 404 });
  return new Response(typeof made === "string" ? made : new Uint8Array(made), {
    headers: {
      "Content-Type": WIRING_FILES[as],
      "Content-Disposition": `attachment; filename="${number.replace(/[^A-Za-z0-9-]/g, "")}-wiring.${as}"`,
      "Cache-Control": "no-store",
    },
  });
}

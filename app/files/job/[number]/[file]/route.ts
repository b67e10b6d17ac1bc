import { isLanguage } from "../../../../../paper/said";
import { archiveAsFile } from "../../../../../server/archive/make";
import { labelsAsFile } from "../../../../../server/documents/labels";
import { notHere } from "../../../../../server/documents/not-here";
import { paperAsFile, plainDrawing } from "../../../../../server/documents/paper-asked";
import { isPaper } from "../../../../../server/documents/papers";
import { WIRING_FILES, type WiringFile } from "../../../../../server/documents/wiring-file";
import { whoIsIt } from "../../../../../server/kernel/who";
import { offerAsFile, purchasesAsFile } from "../../../../../server/offer/files";
import { fetched } from "../../../../../server/unit/door";
import { runSheetAsFile, wiringAsFile } from "../../../../../server/views/questions";

/** `wiring.pdf`, `wiring.csv`, `wiring.svg`, `wiring-behind.svg`, `wiring.json`, `as-built.pdf`, `as-built.svg`, `as-built-behind.svg`, `run-sheet.pdf`, `machine-labels.pdf` (or of leads, bag, box; on a sheet: `leads-labels-a4-38x21.pdf`), `offer.pdf`, `to-order.csv`, or a paper (`client.pdf`, `client-de.pdf`, `shop.pdf` …) of a job. */
export async function GET(_request: Request, { params }: { params: Promise<{ number: string; file: string }> }): Promise<Response> {
  const { number, file } = await params;
  const [, kind, , language = "en"] = /^(\w+)(-(\w\w))?\.pdf$/.exec(file) ?? [];
  if (kind && isPaper(kind) && isLanguage(language)) {
    const made = await fetched(paperAsFile, { number, kind, language });
    return "status" in made ? notHere(made.status) : asFile(new Uint8Array(made.value), "application/pdf", number, file);
  }
  if (file === "client.svg" || file === "client-de.svg") {
    const made = await fetched(plainDrawing, { number, language: file === "client.svg" ? "en" : "de" });
    return "status" in made ? notHere(made.status) : asFile(made.value, "image/svg+xml", number, file);
  }
  if (file === "offer.pdf") {
    const offer = await fetched(offerAsFile, { number });
    return "status" in offer ? notHere(offer.status) : asFile(new Uint8Array(offer.value), "application/pdf", number, file);
  }
  if (file === "to-order.csv") {
    const list = await fetched(purchasesAsFile, { number });
    return "status" in list ? notHere(list.status) : asFile(list.value, "text/csv; charset=utf-8", number, file);
  }
  if (file === "archive.zip") {
    const made = await fetched(archiveAsFile, { number });
    return "status" in made ? notHere(made.status) : asFile(new Uint8Array(made.value), "application/zip", number, file);
  }
  const labels = /^(leads|bag|machine|box)-labels(?:-([a-z0-9-]+))?\.pdf$/.exec(file);
  if (labels) {
    const made = await fetched(labelsAsFile, { number, kind: labels[1] as "leads", ...(labels[2] ? { sheet: labels[2] } : {}) });
    return "status" in made ? notHere(made.status) : asFile(new Uint8Array(made.value), "application/pdf", number, file);
  }
  if (file === "run-sheet.pdf") {
    const sheet = await fetched(runSheetAsFile, { number });
    return "status" in sheet ? notHere(sheet.status) : asFile(new Uint8Array(sheet.value), "application/pdf", number, file);
  }
  const as = /^wiring\.(csv|json|svg|pdf)$|^(?:wiring|as-built)-behind\.(svg)$|^as-built\.(svg|pdf)$/.exec(file)?.slice(1).find(Boolean) as
    | WiringFile
    | undefined;
  if (!as) return notHere((await whoIsIt()) ? 404 : 401);
  const made = await fetched(wiringAsFile, { number, as, side: file.includes("behind") ? "behind" : "front", built: file.startsWith("as-built") });
  if ("status" in made) return notHere(made.status);
  return asFile(typeof made.value === "string" ? made.value : new Uint8Array(made.value), WIRING_FILES[as], number, file);
}

const asFile = (body: BodyInit, type: string, number: string, file: string): Response =>
  new Response(body, {
    headers: {
      "Content-Type": type,
      "Content-Disposition": `attachment; filename="${number.replace(/[^A-Za-z0-9-]/g, "")}-${file}"`,
      "Cache-Control": "no-store",
    },
  });

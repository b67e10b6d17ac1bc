import { join } from "node:path";
import PDFDocument from "pdfkit";

/** Points of a millimetre. */
export const MM = 72 / 25.4;
/** A4, points. */
export const PAGE = { w: 210 * MM, h: 297 * MM, edge: 14 * MM };
const FONTS = "node_modules/@fontsource";

/** An empty A4 document in the app's own letters; `end` numbers its pages and gives it. */
export function newPaper(title: string): { doc: PDFKit.PDFDocument; end: () => Promise<Buffer> } {
  const doc = new PDFDocument({ size: "A4", margin: PAGE.edge, info: { Title: title }, lang: "en", bufferPages: true });
  doc.registerFont("text", join(process.cwd(), FONTS, "atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400-normal.woff"));
  doc.registerFont("mono", join(process.cwd(), FONTS, "atkinson-hyperlegible-mono/files/atkinson-hyperlegible-mono-latin-400-normal.woff"));
  const chunks: Buffer[] = [];
  const ended = new Promise<Buffer>((resolve, reject) => {
    doc.on("data", (c: Buffer) => chunks.push(c));
    doc.on("end", () => resolve(Buffer.concat(chunks)));
    doc.on("error", reject);
  });
  const end = (): Promise<Buffer> => {
    const pages = doc.bufferedPageRange();
    for (let i = 0; i < pages.count; i++) {
      doc.switchToPage(i);
      doc
        .font("text")
        .fontSize(8)
        .text(`${title}, page ${i + 1} of ${pages.count}`, PAGE.edge, PAGE.h - 10 * MM, { lineBreak: false });
    }
    doc.end();
    return ended;
  };
  return { doc, end };
}

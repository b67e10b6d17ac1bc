import { join } from "node:path";
import PDFDocument from "pdfkit";
import { type Drawing, LOOM_DASH, type Sheet } from "../../core/sheet";

const MM = 72 / 25.4;
const PAGE = { w: 210 * MM, h: 297 * MM, edge: 14 * MM };
const FONTS = "node_modules/@fontsource";

export interface PdfHead {
  number: string;
  title: string;
  client: string;
  plan: string;
}

/** The wiring sheet on A4: the board plan, the table in plugging order, what stays free and why, the bag. */
export function wiringPdf(head: PdfHead, sheet: Sheet, drawing: Drawing | undefined): Promise<Buffer> {
  const doc = new PDFDocument({ size: "A4", margin: PAGE.edge, info: { Title: `${head.number} wiring sheet` }, lang: "en", bufferPages: true });
  doc.registerFont("text", join(process.cwd(), FONTS, "atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-400-normal.woff"));
  doc.registerFont("mono", join(process.cwd(), FONTS, "atkinson-hyperlegible-mono/files/atkinson-hyperlegible-mono-latin-400-normal.woff"));
  const chunks: Buffer[] = [];
  const ended = new Promise<Buffer>((resolve, reject) => {
    doc.on("data", (c: Buffer) => chunks.push(c));
    doc.on("end", () => resolve(Buffer.concat(chunks)));
    doc.on("error", reject);
  });
  doc.font("text").fontSize(18).text(`${head.number} ${head.title}`);
  doc.fontSize(10).text(`${head.client}. ${head.plan}`).moveDown(0.5);
  if (drawing) draw(doc, drawing);
  doc.addPage();
  table(doc, sheet);
  freeAndBag(doc, sheet);
  const pages = doc.bufferedPageRange();
  for (let i = 0; i < pages.count; i++) {
    doc.switchToPage(i);
    doc
      .font("text")
      .fontSize(8)
      .text(`${head.number} wiring sheet, page ${i + 1} of ${pages.count}`, PAGE.edge, PAGE.h - 10 * MM, { lineBreak: false });
  }
  doc.end();
  return ended;
}

function draw(doc: PDFKit.PDFDocument, d: Drawing): void {
  const [w, h] = [PAGE.w - 2 * PAGE.edge, PAGE.h - doc.y - PAGE.edge - 6 * MM];
  const s = Math.min(w / d.w, h / d.h);
  doc.save().translate(PAGE.edge + (w - d.w * s) / 2, doc.y);
  for (const i of d.items) {
    if (i.kind === "rect")
      doc
        .lineWidth(i.heavy ? 1.6 : 0.5)
        .undash()
        .rect(i.x * s, i.y * s, i.w * s, i.h * s)
        .stroke();
    else if (i.kind === "line") {
      const dash = LOOM_DASH[i.loom];
      doc.lineWidth(i.done ? 1.4 : 0.7);
      if (dash) doc.dash(dash[0] * s, { space: dash[1] * s });
      else doc.undash();
      const [first, ...rest] = i.points;
      if (!first) continue;
      doc.moveTo(first[0] * s, first[1] * s);
      for (const [x, y] of rest) doc.lineTo(x * s, y * s);
      doc.stroke();
    } else {
      const size = Math.max(4.5, i.size * s);
      doc
        .undash()
        .font(i.bold ? "mono" : "text")
        .fontSize(size);
      const wide = doc.widthOfString(i.text);
      const x = i.x * s - (i.anchor === "middle" ? wide / 2 : i.anchor === "end" ? wide : 0);
      if (i.upright) doc.save().rotate(-90, { origin: [i.x * s, i.y * s] });
      doc.text(i.text, x, i.y * s - size * 0.8, { lineBreak: false });
      if (i.upright) doc.restore();
    }
  }
  doc.restore();
}

const COLUMNS = [
  { title: "", w: 8 },
  { title: "Lead", w: 16 },
  { title: "Plug", w: 58 },
  { title: "Into", w: 44 },
  { title: "Pins", w: 18 },
  { title: "Run of length, mm", w: 26 },
  { title: "Done", w: 12 },
] as const;

function table(doc: PDFKit.PDFDocument, sheet: Sheet): void {
  doc.font("text").fontSize(14).text("Plugs, in their order", PAGE.edge, PAGE.edge);
  doc.moveDown(0.3);
  let region = "";
  // A caution that holds for several plugs in a row is said once.
  let said = "";
  const line = (cells: readonly string[], mono: boolean) => {
    const heights = cells.map((c, i) => {
      doc.font(mono && (i < 2 || i > 3) ? "mono" : "text").fontSize(9);
      return doc.heightOfString(c || " ", { width: (COLUMNS[i]?.w ?? 10) * MM - 4 });
    });
    const high = Math.max(...heights) + 3;
    if (doc.y + high > PAGE.h - 16 * MM) {
      doc.addPage();
      doc.y = PAGE.edge;
    }
    const y = doc.y;
    let x = PAGE.edge;
    for (const [i, c] of cells.entries()) {
      const w = (COLUMNS[i]?.w ?? 10) * MM;
      doc
        .font(mono && (i < 2 || i > 3) ? "mono" : "text")
        .fontSize(9)
        .text(c, x, y, { width: w - 4 });
      x += w;
    }
    doc
      .undash()
      .lineWidth(0.3)
      .moveTo(PAGE.edge, y + high - 1.5)
      .lineTo(PAGE.w - PAGE.edge, y + high - 1.5)
      .stroke();
    doc.y = y + high;
  };
  line(
    COLUMNS.map((c) => c.title),
    false,
  );
  for (const r of sheet.rows) {
    if (r.region !== region) {
      region = r.region;
      if (doc.y > PAGE.h - 30 * MM) {
        doc.addPage();
        doc.y = PAGE.edge;
      }
      doc
        .font("text")
        .fontSize(10)
        .text(`${region[0]?.toUpperCase() ?? ""}${region.slice(1)}`, PAGE.edge, doc.y + 4);
      doc.y += 2;
    }
    const run = r.runMm === undefined ? "" : `${r.runMm} of ${r.lengthMm}`;
    line([String(r.order), r.tag, r.plug, r.into, r.place?.join(" ") ?? "", run, r.state === "plugged" || r.state === "checked" ? "yes" : ""], true);
    if (r.caution && r.caution !== said) {
      doc
        .font("text")
        .fontSize(8)
        .text(`Caution: ${r.caution}`, PAGE.edge + 24 * MM, doc.y, { width: 150 * MM });
      doc.y += 2;
    }
    said = r.caution ?? "";
  }
}

function freeAndBag(doc: PDFKit.PDFDocument, sheet: Sheet): void {
  const head = (text: string) => {
    if (doc.y > PAGE.h - 40 * MM) {
      doc.addPage();
      doc.y = PAGE.edge;
    }
    doc.moveDown(0.8).font("text").fontSize(14).text(text, PAGE.edge);
  };
  head("What stays free, and why");
  doc.fontSize(9);
  if (sheet.free.length === 0) doc.text("Nothing.");
  for (const f of sheet.free) doc.text(`${f.what} (${f.need}): ${f.reason}`, { width: PAGE.w - 2 * PAGE.edge });
  if (sheet.tied.length > 0) {
    head("What is tied back");
    doc.fontSize(9);
    for (const t of sheet.tied) doc.text(`${t.what}: ${t.reason}`, { width: PAGE.w - 2 * PAGE.edge });
  }
  head("What stays in the bag");
  doc.fontSize(9).text(sheet.bag.length > 0 ? `${sheet.bag.join(", ")}.` : "Nothing.");
}

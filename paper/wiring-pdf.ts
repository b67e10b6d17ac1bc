import type { Graph } from "../core/assembly";
import { type Item, LOOM_DASH, laid, PAPER_INK, PAPER_TONE, type PaperDrawing, type PlainNames, paperDrawing } from "../core/scene";
import type { Sheet } from "../core/sheet";
import { MM, newPaper, PAGE } from "./paper";

export interface PdfHead {
  number: string;
  title: string;
  client: string;
  plan: string;
}

/** The wiring sheet on A4: the machine from both sides of its tray, the table in plugging order, what stays free and why, the bag. */
export function wiringPdf(head: PdfHead, sheet: Sheet, graph: Graph): Promise<Buffer> {
  const { doc, end } = newPaper(`${head.number} wiring sheet`);
  doc.font("text").fontSize(18).text(`${head.number} ${head.title}`);
  doc.fontSize(10).text(`${head.client}. ${head.plan}`).moveDown(0.5);
  for (const side of ["front", "behind"] as const) {
    if (side === "behind") doc.addPage();
    drawSide(doc, graph, side);
  }
  doc.addPage();
  table(doc, sheet);
  freeAndBag(doc, sheet);
  return end();
}

/** No words on paper under so many points. */
const LEAST_PT = 7.5;

/** One side of the tray, as large as the rest of the page or as `most` points of height allow. */
export function drawSide(doc: PDFKit.PDFDocument, graph: Graph, side: "front" | "behind", most = Number.POSITIVE_INFINITY, names?: PlainNames): void {
  const first = paperDrawing(graph, side, "");
  if (!names) doc.font("text").fontSize(10).text(first.words, PAGE.edge, doc.y);
  const [w, h] = [PAGE.w - 2 * PAGE.edge, Math.min(most - 6 * MM, PAGE.h - doc.y - PAGE.edge - 8 * MM)];
  const s = Math.min(w / first.frame.w, h / first.frame.h);
  // Words keep their size on the page, however large the case is.
  const d = paperDrawing(graph, side, "", (LEAST_PT * 1.16) / s, names);
  doc.save().translate(PAGE.edge + (w - d.frame.w * s) / 2 - d.frame.x * s, doc.y + 2 * MM - d.frame.y * s);
  for (const i of d.items) drawItem(doc, i, s, d);
  doc.restore();
}

const inked = (doc: PDFKit.PDFDocument, ink: keyof typeof PAPER_INK, s: number) => {
  const i = PAPER_INK[ink];
  doc.lineWidth(Math.max(0.35, i.width * s)).strokeColor(i.grey ? "#555" : "#000");
  if (i.dash) doc.dash(i.dash[0] * s, { space: i.dash[1] * s });
  else doc.undash();
};

function lined(doc: PDFKit.PDFDocument, points: readonly (readonly [number, number])[], s: number): void {
  const [start, ...rest] = points;
  if (!start) return;
  doc.moveTo(start[0] * s, start[1] * s);
  for (const [x, y] of rest) doc.lineTo(x * s, y * s);
  doc.stroke();
}

function drawItem(doc: PDFKit.PDFDocument, i: Item, s: number, d: PaperDrawing): void {
  switch (i.kind) {
    case "rect":
      inked(doc, i.ink, s);
      if (i.dashed && !PAPER_INK[i.ink].dash) doc.dash(3, { space: 1.2 });
      doc.roundedRect(i.box.x * s, i.box.y * s, i.box.w * s, i.box.h * s, Math.min(i.round ?? 0, 4) * s);
      if (i.tone === undefined) doc.stroke();
      else doc.fillAndStroke(PAPER_TONE[i.tone], PAPER_INK[i.ink].grey ? "#666" : "#000");
      return;
    case "detail":
      doc.save().undash().scale(s).lineWidth(0.25).path(i.d);
      if (i.fill === undefined) doc.stroke("#888");
      else if (i.line) doc.fillAndStroke(PAPER_TONE[i.fill], "#888");
      else doc.fill(PAPER_TONE[i.fill]);
      doc.restore();
      return;
    case "tick":
      inked(doc, i.ink, s);
      lined(doc, i.points, s);
      return;
    case "hole":
      inked(doc, "landmark", s);
      doc.circle(i.x * s, i.y * s, i.r * s).stroke();
      return;
    case "lead": {
      const dash = LOOM_DASH[i.loom];
      doc.strokeColor("#000").lineWidth(i.done ? 1.4 : 0.8);
      if (dash) doc.dash(Math.max(0.4, dash[0] * 1.6), { space: dash[1] * 1.6 });
      else doc.undash();
      lined(doc, i.points, s);
      return;
    }
    case "count":
      doc.undash().lineWidth(0.5);
      doc.circle(i.x * s, i.y * s, LEAST_PT * 0.8).fillAndStroke("#fff", "#000");
      words(doc, i.words, i.x * s, i.y * s - LEAST_PT * 0.5, true);
      return;
    case "port": {
      inked(doc, i.port.landmark ? "landmark" : "port", s);
      doc.rect(i.box.x * s, i.box.y * s, i.box.w * s, i.box.h * s);
      if (i.port.landmark) doc.stroke();
      else doc.fillAndStroke(i.state === "done" ? "#000" : "#fff", "#000");
      if (i.state === "planned" && !i.port.landmark) doc.circle((i.box.x + i.box.w / 2) * s, (i.box.y + i.box.h / 2) * s, 0.9).fill("#000");
      return;
    }
    case "label": {
      const { leader } = i.label;
      const { lines, high: lineMm, turn, middle } = laid(i.label);
      if (leader) {
        inked(doc, "landmark", s);
        lined(
          doc,
          [
            [leader.x1, leader.y1],
            [leader.x2, leader.y2],
          ],
          s,
        );
      }
      const high = lineMm * s;
      const [mx, my] = [middle.x * s, middle.y * s];
      doc.save();
      if (turn) doc.rotate(-90, { origin: [mx, my] });
      for (const [k, t] of lines.entries()) words(doc, t, mx, my - (high * lines.length) / 2 + high * k, i.mono);
      doc.restore();
      return;
    }
    default:
      throw new Error(`Nothing draws ${(i as Item).kind} of ${d.title}`);
  }
}

/** Words about a middle, on a ground of their own so that lines do not cross them. */
function words(doc: PDFKit.PDFDocument, text: string, x: number, y: number, mono: boolean): void {
  doc.font(mono ? "mono" : "text").fontSize(LEAST_PT);
  const wide = doc.widthOfString(text);
  doc
    .save()
    .fillOpacity(0.8)
    .rect(x - wide / 2 - 0.5, y, wide + 1, LEAST_PT * 1.1)
    .fill("#fff")
    .restore();
  doc.fillColor("#000").text(text, x - wide / 2, y + LEAST_PT * 0.05, { lineBreak: false });
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

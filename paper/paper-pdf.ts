import type { Graph } from "../core/assembly";
import type { Paper, Row, Say } from "../core/handover";
import { MM, newPaper, PAGE } from "./paper";
import { type Language, plainNames, saidIn } from "./said";
import { drawSide } from "./wiring-pdf";

const WIDE = PAGE.w - 2 * PAGE.edge;
const FOOT = PAGE.h - PAGE.edge - 8 * MM;
const RIGHT_W = 46 * MM;
/** The machine stands so high on a page, with its words still readable. */
const DRAWING_H = 118 * MM;

/** A paper as A4 pages: real text, an outline of its sections, its language. */
export function paperPdf(paper: Paper, graph: Graph, language: Language): Promise<Buffer> {
  const said = (s: Say) => saidIn(language, s);
  const title = said(paper.title);
  const { doc, end } = newPaper(title, undefined, {
    language,
    foot: (n, of) => said({ id: "page", with: { title, n, of } }),
  });
  doc.font("text").fontSize(20).text(title);
  doc.fontSize(10);
  for (const u of paper.under) doc.text(said(u));
  const room = (high: number) => {
    if (doc.y + high > FOOT) {
      doc.addPage();
      doc.y = PAGE.edge;
    }
  };
  for (const s of paper.sections) {
    room(s.drawing ? DRAWING_H + 14 * MM : 22 * MM);
    doc.moveDown(0.7).font("text").fontSize(13);
    doc.outline.addItem(said(s.title));
    doc.text(said(s.title), PAGE.edge);
    doc.moveDown(0.15).fontSize(10);
    if (s.lead) doc.text(said(s.lead), PAGE.edge, doc.y, { width: WIDE });
    if (s.drawing) {
      const y = doc.y;
      drawSide(doc, graph, s.drawing, DRAWING_H, s.plain ? plainNames(language) : undefined);
      doc.x = PAGE.edge;
      doc.y = y + DRAWING_H;
    }
    for (const r of s.rows) row(doc, r, said, room);
  }
  return end();
}

function row(doc: PDFKit.PDFDocument, r: Row, said: (s: Say) => string, room: (high: number) => void): void {
  const right = r.right ? said(r.right) : "";
  const w = right ? WIDE - RIGHT_W - 4 * MM : WIDE;
  const [what, says] = [said(r.what), r.says ? said(r.says) : ""];
  doc.font("text").fontSize(10);
  const high = doc.heightOfString(what, { width: w });
  doc.fontSize(9);
  const more = says ? doc.heightOfString(says, { width: w }) : 0;
  const rightHigh = right ? doc.heightOfString(right, { width: RIGHT_W }) : 0;
  room(Math.max(high + more, rightHigh) + 5);
  const y = doc.y + 2;
  doc.fontSize(10).text(what, PAGE.edge, y, { width: w });
  if (says)
    doc
      .fontSize(9)
      .fillColor("#333")
      .text(says, PAGE.edge, y + high, { width: w })
      .fillColor("#000");
  if (right) doc.fontSize(9).text(right, PAGE.w - PAGE.edge - RIGHT_W, y, { width: RIGHT_W, align: "right" });
  const under = y + Math.max(high + more, rightHigh) + 1.5;
  doc
    .undash()
    .lineWidth(0.3)
    .strokeColor("#888")
    .moveTo(PAGE.edge, under)
    .lineTo(PAGE.w - PAGE.edge, under)
    .stroke();
  doc.x = PAGE.edge;
  doc.y = under + 1;
}

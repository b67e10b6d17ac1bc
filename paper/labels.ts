import { qrOf } from "./code";
import { MM, newPaper } from "./paper";

/** What stands on one label. */
export interface LabelText {
  /** Large: a tag, a number. */
  big: string;
  lines: readonly string[];
  /** What a scan of it says; left out: no code. */
  code?: string;
}

/** A sheet or a roll, mm. */
export interface LabelSheet {
  name: string;
  /** The page: a roll's is its label. */
  page: { w: number; h: number };
  label: { w: number; h: number };
  columns: number;
  rows: number;
  /** Where the first stands, and from one to the next. */
  first: { x: number; y: number };
  pitch: { x: number; y: number };
  /** Wraps around a lead: both halves say the same, with the lead between them. */
  flag?: boolean;
}

const A4 = { w: 210, h: 297 };
const roll = (name: string, w: number, h: number, flag = false): LabelSheet => ({
  name,
  page: { w, h },
  label: { w, h },
  columns: 1,
  rows: 1,
  first: { x: 0, y: 0 },
  pitch: { x: w, y: h },
  ...(flag ? { flag } : {}),
});

/** Sizes as label makers commonly sell them, mm (common practice). */
export const LABEL_SHEETS: readonly LabelSheet[] = [
  { name: "a4-70x37", page: A4, label: { w: 70, h: 37 }, columns: 3, rows: 8, first: { x: 0, y: 0.5 }, pitch: { x: 70, y: 37 } },
  { name: "a4-38x21", page: A4, label: { w: 38.1, h: 21.2 }, columns: 5, rows: 13, first: { x: 4.75, y: 10.7 }, pitch: { x: 40.6, y: 21.2 } },
  roll("roll-90x50", 90, 50),
  roll("roll-62x29", 62, 29),
  roll("flag-24x60", 24, 60, true),
];
export const sheetNamed = (name: string): LabelSheet | undefined => LABEL_SHEETS.find((s) => s.name === name);

const EDGE = 2;
/** No word on a label is smaller, points. */
const LEAST_PT = 8;
const RULER_MM = { long: 50, short: 20 };
/** More than so many nobody prints at once. */
export const MOST_LABELS = 1000;

/** Labels at their size in millimetres, the first of all a ruler: it measures what it says when the printer has not scaled the page. */
export function labelsPdf(title: string, labels: readonly LabelText[], sheet: LabelSheet): Promise<Buffer> {
  const { doc, end } = newPaper(title, sheet.page);
  const per = sheet.columns * sheet.rows;
  const all: (LabelText | "ruler")[] = ["ruler", ...labels.slice(0, MOST_LABELS)];
  for (const [i, l] of all.entries()) {
    const at = i % per;
    if (i > 0 && at === 0) doc.addPage();
    const x = sheet.first.x + (at % sheet.columns) * sheet.pitch.x;
    const y = sheet.first.y + Math.floor(at / sheet.columns) * sheet.pitch.y;
    if (l === "ruler") ruler(doc, x, y, sheet);
    else if (sheet.flag) {
      one(doc, l, x, y, sheet.label.w, sheet.label.h / 2 - 4);
      one(doc, l, x, y + sheet.label.h / 2 + 4, sheet.label.w, sheet.label.h / 2 - 4);
    } else one(doc, l, x, y, sheet.label.w, sheet.label.h);
  }
  return end();
}

function ruler(doc: PDFKit.PDFDocument, x: number, y: number, { label }: LabelSheet): void {
  const mm = label.w > RULER_MM.long + 2 * EDGE ? RULER_MM.long : RULER_MM.short;
  const [from, at] = [(x + EDGE) * MM, (y + EDGE + 2) * MM];
  doc
    .lineWidth(0.5)
    .strokeColor("#000")
    .moveTo(from, at)
    .lineTo(from + mm * MM, at);
  for (let i = 0; i <= mm; i += 10) doc.moveTo(from + i * MM, at - 1.5 * MM).lineTo(from + i * MM, at + 1.5 * MM);
  doc.stroke();
  doc
    .font("text")
    .fontSize(LEAST_PT)
    .text(`${mm} mm`, from, at + 2 * MM, { width: (label.w - 2 * EDGE) * MM, height: 10, ellipsis: true, lineBreak: false });
}

function one(doc: PDFKit.PDFDocument, l: LabelText, x: number, y: number, w: number, h: number): void {
  const side = l.code ? Math.min(h - 2 * EDGE, w / 3, 26) : 0;
  const code = l.code ? qrOf(l.code) : undefined;
  if (code) {
    const s = (side * MM) / code.w;
    doc
      .save()
      .translate((x + w - EDGE - side) * MM, (y + EDGE) * MM)
      .scale(s)
      .path(code.d)
      .fill("#000")
      .restore();
  }
  const wide = (w - 2 * EDGE - (side ? side + 1.5 : 0)) * MM;
  const left = (x + EDGE) * MM;
  const bottom = (y + h - EDGE) * MM;
  let at = (y + EDGE) * MM;
  const line = (text: string, size: number, font: "text" | "mono") => {
    if (!text) return;
    doc.font(font).fontSize(size);
    const high = doc.currentLineHeight(true);
    if (at + high > bottom + 1) return;
    // Whatever somebody typed: it stays on its label.
    const lines = Math.max(1, Math.min(2, Math.floor((bottom - at) / high)));
    const need = Math.min(doc.heightOfString(text, { width: wide }), lines * high);
    doc.fillColor("#000").text(text, left, at, { width: wide, height: need, ellipsis: true });
    at += need + 0.6 * MM;
  };
  const big = Math.max(LEAST_PT + 2, Math.min(22, h * 0.55));
  doc.font("mono").fontSize(big);
  // A long name is written as small as it takes, and no smaller than can be read.
  const fits = Math.min(big, Math.max(LEAST_PT, (big * wide) / Math.max(1, doc.widthOfString(l.big))));
  line(l.big, fits, "mono");
  for (const t of l.lines) line(t, LEAST_PT, "text");
}

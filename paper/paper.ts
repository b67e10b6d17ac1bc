import { join } from "node:path";
import PDFDocument from "pdfkit";

/** Points of a millimetre. */
export const MM = 72 / 25.4;
/** A4, points. */
export const PAGE = { w: 210 * MM, h: 297 * MM, edge: 14 * MM };
const FONTS = "node_modules/@fontsource";
const FAMILIES = { text: "atkinson-hyperlegible-next", mono: "atkinson-hyperlegible-mono" };
/** What the first file of a family has (its `unicode.json`); the second has the other Latin letters. */
const FIRST_FILE = /^[\0-\u00ff\u0131\u0152\u0153\u02bb\u02bc\u02c6\u02da\u02dc\u2000-\u206f\u20ac\u2122\u2191\u2193\u2212\u2215\ufeff\ufffd]*$/u;
const MORE = " more";

/** A text in pieces that one file of the family has each. */
function pieces(text: string): { text: string; more: boolean }[] {
  const out: { text: string; more: boolean }[] = [];
  for (const letter of text) {
    const more = !FIRST_FILE.test(letter);
    const last = out.at(-1);
    if (last?.more === more) last.text += letter;
    else out.push({ text: letter, more });
  }
  return out;
}

type Doc = PDFKit.PDFDocument;
type Fragment = (text: string, x: number, y: number, options: object) => void;

/**
 * Lets a document write all letters of both files of a family, wherever it writes: a width is that of its pieces, and a line is drawn piece
 * by piece. `_fragment` is the package's own drawing of one line (pdfkit 0.20.2, pinned); a test looks at what comes of it.
 */
function withAllLetters(doc: Doc): void {
  let family = "text";
  const lines = doc as unknown as { _fragment: Fragment };
  const plain = { font: doc.font.bind(doc), width: doc.widthOfString.bind(doc), fragment: lines._fragment.bind(doc) };
  const each = (text: string, work: (piece: string) => void) => {
    for (const p of pieces(text)) {
      plain.font(`${family}${p.more ? MORE : ""}`);
      work(p.text);
    }
    plain.font(family);
  };
  doc.font = ((name: string, ...rest: [number?]) => {
    family = name;
    return plain.font(name, ...rest);
  }) as Doc["font"];
  doc.widthOfString = (text, options) => {
    if (FIRST_FILE.test(text)) return plain.width(text, options);
    let width = 0;
    each(text, (piece) => {
      width += plain.width(piece, options);
    });
    return width;
  };
  lines._fragment = (text, x, y, options) => {
    if (FIRST_FILE.test(text)) return plain.fragment(text, x, y, options);
    let at = x;
    each(text, (piece) => {
      // Told its width, it asks for none, which would change the letters under it.
      const textWidth = plain.width(piece, options);
      plain.fragment(piece, at, y, { ...options, textWidth });
      at += textWidth;
    });
  };
}

/** In which language it is, and what stands at the foot of each page. */
interface PaperLook {
  language?: string;
  foot?: (page: number, of: number) => string;
}

/** An empty A4 document in the app's own letters; `end` numbers its pages and gives it. */
export function newPaper(
  title: string,
  labelMm?: { w: number; h: number },
  { language = "en", foot = (page, of) => `${title}, page ${page} of ${of}` }: PaperLook = {},
): { doc: PDFKit.PDFDocument; end: () => Promise<Buffer> } {
  const doc = new PDFDocument({
    ...(labelMm ? { size: [labelMm.w * MM, labelMm.h * MM], margin: 0 } : { size: "A4", margin: PAGE.edge }),
    info: { Title: title },
    lang: language,
    bufferPages: true,
  });
  for (const [name, family] of Object.entries(FAMILIES))
    for (const [file, more] of [
      ["latin", ""],
      ["latin-ext", MORE],
    ] as const)
      doc.registerFont(`${name}${more}`, join(process.cwd(), FONTS, family, "files", `${family}-${file}-400-normal.woff`));
  withAllLetters(doc);
  const chunks: Buffer[] = [];
  const ended = new Promise<Buffer>((resolve, reject) => {
    doc.on("data", (c: Buffer) => chunks.push(c));
    doc.on("end", () => resolve(Buffer.concat(chunks)));
    doc.on("error", reject);
  });
  const end = (): Promise<Buffer> => {
    const pages = doc.bufferedPageRange();
    // A label has no foot.
    for (let i = 0; !labelMm && i < pages.count; i++) {
      doc.switchToPage(i);
      doc
        .font("text")
        .fontSize(8)
        .text(foot(i + 1, pages.count), PAGE.edge, PAGE.h - 10 * MM, { lineBreak: false });
    }
    doc.end();
    return ended;
  };
  return { doc, end };
}

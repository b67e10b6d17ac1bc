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

/** Letters of the second file as those of the first that are as wide. */
const asWide = (text: string): string =>
  FIRST_FILE.test(text)
    ? text
    : [...text.normalize("NFD")]
        .filter((c) => !/\p{M}/u.test(c))
        .map((c) => (FIRST_FILE.test(c) ? c : "l"))
        .join("");

type Doc = PDFKit.PDFDocument;
type TextOptions = PDFKit.Mixins.TextOptions;

/** Lets a document write all letters of both files of a family, wherever it writes. */
function withAllLetters(doc: Doc): void {
  let family = "text";
  const plain = { font: doc.font.bind(doc), text: doc.text.bind(doc), width: doc.widthOfString.bind(doc), height: doc.heightOfString.bind(doc) };
  let inMore = false;
  doc.font = ((name: string, ...rest: [number?]) => {
    family = name;
    return plain.font(name, ...rest);
  }) as Doc["font"];
  doc.widthOfString = (text, options) => plain.width(inMore ? text : asWide(text), options);
  doc.heightOfString = (text, options) => plain.height(asWide(text), options);
  doc.text = ((text: string, a?: number | TextOptions, y?: number, b?: TextOptions) => {
    const [x, options] = typeof a === "object" ? [undefined, a] : [a, b];
    const all = pieces(String(text));
    if (!all.some((p) => p.more)) return plain.text(text, x, y, options);
    all.forEach((p, i) => {
      inMore = p.more;
      plain.font(`${family}${p.more ? MORE : ""}`);
      const own = { ...options, continued: i < all.length - 1 || options?.continued === true };
      if (i === 0) plain.text(p.text, x, y, own);
      else plain.text(p.text, own);
    });
    inMore = false;
    return plain.font(family);
  }) as Doc["text"];
}

/** An empty A4 document in the app's own letters; `end` numbers its pages and gives it. */
export function newPaper(title: string): { doc: PDFKit.PDFDocument; end: () => Promise<Buffer> } {
  const doc = new PDFDocument({ size: "A4", margin: PAGE.edge, info: { Title: title }, lang: "en", bufferPages: true });
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

import jsQR from "jsqr";
import { getDocument } from "pdfjs-dist/legacy/build/pdf.mjs";
import sharp from "sharp";
import { describe, expect, it } from "vitest";
import { qrOf } from "./code";
import { LABEL_SHEETS, labelsPdf } from "./labels";
import { newPaper } from "./paper";

async function words(pdf: Buffer): Promise<string> {
  const doc = await getDocument({ data: new Uint8Array(pdf), useSystemFonts: false }).promise;
  const page = await doc.getPage(1);
  const { items } = await page.getTextContent();
  // Blanks at the end of a piece are a place, not a letter.
  return items
    .map((i) => ("str" in i ? i.str : ""))
    .join("")
    .replace(/\s/g, "");
}

describe("paper", () => {
  it("writes Latin letters beyond Latin-1 too, in the middle of a line, at the end, in both families and where no line may break", async () => {
    const { doc, end } = newPaper("Łódź");
    doc.font("text").fontSize(18).text("Werkstatt Łódź, Straße 5");
    doc.font("mono").text("ŻÓŁW", 60, 120, { lineBreak: false });
    doc.font("text").text("Čapek čeká, Ștefan și Győr", 60, 160, { width: 90 });
    expect(doc.heightOfString("Łódź ".repeat(40), { width: 90 })).toBeGreaterThan(doc.heightOfString("Łódź", { width: 90 }));
    const said = await words(await end());
    for (const w of ["WerkstattŁódź,Straße5", "ŻÓŁW", "Čapek", "čeká", "Ștefan", "Győr", "Łódź,page1of1"]) expect(said).toContain(w);
  });
  it("leaves a text of Latin-1 as it is", async () => {
    const { doc, end } = newPaper("x");
    doc.font("text").text("Größe 5 mm · 20 °C – “so”");
    expect(await words(await end())).toContain("Größe5mm·20°C–“so”");
  });
});

/** Pages of a PDF, with their size in mm and the height of the smallest letters in points. */
async function pages(pdf: Buffer) {
  const doc = await getDocument({ data: new Uint8Array(pdf), useSystemFonts: false }).promise;
  const out = [];
  for (let n = 1; n <= doc.numPages; n++) {
    const page = await doc.getPage(n);
    const [, , w = 0, h = 0] = page.view;
    const mm = (x: number) => Math.round((x * 25.4) / 7.2) / 10;
    const { items } = await page.getTextContent();
    const texts = items.flatMap((i) =>
      "str" in i && i.str.trim()
        ? [{ text: i.str, pt: Math.hypot(i.transform[2], i.transform[3]), x: mm(i.transform[4]), y: mm(i.transform[5]) }]
        : [],
    );
    out.push({ w: mm(w), h: mm(h), texts });
  }
  return out;
}

describe("labels", () => {
  const text = {
    big: "FS-1042",
    lines: ["Recording room", "Gannet Lane Choir", "Łódź Systems", "Call 555 0100. Covered two years."],
    code: "FS-1042",
  };
  it.each(LABEL_SHEETS)("$name: at its size, each on its own place, nothing under 8 points, however much somebody typed", async (sheet) => {
    const long = { big: "W".repeat(400), lines: ["long ".repeat(60), "Ω漢字".repeat(20)], code: "x".repeat(120) };
    const list = [...Array.from({ length: 7 }, (_, i) => ({ ...text, big: `FN-${i}` })), long];
    const made = await pages(await labelsPdf("labels", list, sheet));
    const per = sheet.columns * sheet.rows;
    expect(made.length).toBe(Math.ceil((list.length + 1) / per));
    for (const p of made) {
      expect([p.w, p.h]).toEqual([sheet.page.w, sheet.page.h]);
      for (const t of p.texts) {
        expect(t.pt).toBeGreaterThanOrEqual(8 - 1e-6);
        expect(t.x).toBeGreaterThanOrEqual(0);
      }
    }
    // Measured on the page: the second label stands one pitch from where the ruler's does.
    const at = made.flatMap((p, n) => p.texts.filter((t) => t.text === "FN-0").map((t) => ({ n, x: t.x })));
    expect(at.length).toBe(sheet.flag ? 2 : 1);
    const column = 1 % sheet.columns;
    expect(at[0]?.x).toBeCloseTo(sheet.first.x + column * sheet.pitch.x + 2, 0);
    expect(made[0]?.texts.some((t) => /^(20|50) mm$/.test(t.text))).toBe(true);
  });
  it("a code is read back by another package, whatever it says", async () => {
    for (const said of ["FS-1042", "FS-1042 FN-02", "https://imbra.example/job/FS-1042?scan=bag", "Łódź 漢字 ✓"]) {
      const { w, h, d } = qrOf(said);
      const svg = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="-8 -8 ${w + 16} ${h + 16}"><rect x="-8" y="-8" width="100%" height="100%" fill="#fff"/><path d="${d}"/></svg>`;
      const { data, info } = await sharp(Buffer.from(svg)).resize(400).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
      expect(jsQR(new Uint8ClampedArray(data), info.width, info.height)?.data).toBe(said);
    }
  });
});

import { getDocument } from "pdfjs-dist/legacy/build/pdf.mjs";
import { describe, expect, it } from "vitest";
import { labelPaper } from "./label";
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

describe("a label", () => {
  it("says whose machine it is and the shop's own words, on one page however much somebody typed", async () => {
    const job = { number: "FS-1042", title: "Recording room", client: "Gannet Lane Choir" };
    const said = await words(await labelPaper(job, { name: "Łódź Systems", labelWords: "Call 555 0100. Covered two years." }));
    for (const w of ["ŁódźSystems", "FS-1042", "Recordingroom", "GannetLaneChoir", "Call5550100.Coveredtwoyears."]) expect(said).toContain(w);
    const long = await labelPaper(
      { ...job, title: "long ".repeat(60), client: "W".repeat(200) },
      { name: "n ".repeat(100), labelWords: "line\n".repeat(40) },
    );
    const doc = await getDocument({ data: new Uint8Array(long), useSystemFonts: false }).promise;
    expect(doc.numPages).toBe(1);
    const [, , w, h] = (await doc.getPage(1)).view;
    expect([Math.round(((w ?? 0) * 25.4) / 72), Math.round(((h ?? 0) * 25.4) / 72)]).toEqual([90, 50]);
  });
});

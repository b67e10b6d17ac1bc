import { getDocument } from "pdfjs-dist/legacy/build/pdf.mjs";
import { describe, expect, it } from "vitest";
import { buildGraph } from "../../core/assembly";
import { cardsOf, orderOf, turnWords } from "../../core/order";
import { DEMO, demo, demoPlan } from "../../tests/fixtures/demo";
import { runSheetPdf } from "./run-sheet";

interface Run {
  str: string;
  /** Height of its letters, points. */
  height: number;
}

/** The words of each page as pdf.js reads them. */
async function pagesOf(pdf: Buffer): Promise<Run[][]> {
  const doc = await getDocument({ data: new Uint8Array(pdf), verbosity: 0 }).promise;
  const out: Run[][] = [];
  for (let n = 1; n <= doc.numPages; n++) {
    const { items } = await (await doc.getPage(n)).getTextContent();
    out.push(items.flatMap((i) => ("str" in i && i.str.trim() !== "" ? [{ str: i.str, height: i.height }] : [])));
  }
  await doc.destroy();
  return out;
}

const sheet = async (name: (typeof DEMO)[number], unplanned = false) => {
  const { build } = unplanned ? demo(name) : await demoPlan(name);
  const order = orderOf(buildGraph(build, demo(name).types));
  const pages = await pagesOf(await runSheetPdf({ number: "FS-0001", title: "A title", client: "A client", unplanned }, order));
  return {
    order,
    cards: cardsOf(order.steps, order.blocks),
    pages,
    text: pages.map((p) =>
      p
        .map((r) => r.str)
        .join(" ")
        .replace(/\s+/g, " "),
    ),
  };
};

describe("the run sheet on paper, read by pdf.js", () => {
  it.each(DEMO)("%s: every card once and in order, whole on its page, with its turn, cautions and tags; no letter under 7 points", async (name) => {
    const { order, cards, pages, text } = await sheet(name);
    const all = text.join(" ");
    let from = 0;
    for (const [i, card] of cards.entries()) {
      const head = `${i + 1} ${card.title}`;
      const at = all.indexOf(head, from);
      expect([head, at >= 0]).toEqual([head, true]);
      from = at + head.length;
      const page = text.find((t) => t.includes(head)) ?? "";
      const here = page.slice(page.indexOf(head));
      // What belongs to it stands below its name on the same page.
      for (const s of card.steps) {
        const words = card.steps.length > 1 ? s.title : (s.rightWhen ?? s.detail);
        expect([head, words, here.includes(words)]).toEqual([head, words, true]);
        if (s.caution) expect([head, here.includes(s.caution)]).toEqual([head, true]);
        if (s.lead && s.title.startsWith("Plug ")) expect([s.title, here.includes(s.detail.split(/[ .]/)[0] ?? "?")]).toEqual([s.title, true]);
      }
      if (card.turn) expect(page.slice(0, page.indexOf(head)).trimEnd().endsWith(turnWords(card.turn))).toBe(true);
    }
    expect(all).toContain(`Left: ${order.turns} turn`);
    for (const run of pages.flat()) expect([run.str, run.height >= 7]).toEqual([run.str, true]);
  });
  it("of a job that is not planned says that no plug is on it, and sets no support under a card that is nowhere", async () => {
    const { text } = await sheet("fs-1041", true);
    expect(text[0]).toContain("The wiring is not planned yet, so that no plug is on this sheet.");
    expect(text.join(" ")).not.toContain("Set the support");
  });
});

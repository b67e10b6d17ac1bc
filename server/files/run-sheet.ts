import { type Card, cardsOf, type Order, turnWords } from "../../core/order";
import type { EntityManager } from "../../db";
import { buildOfJob, findJob } from "../read/build-of-job";
import { stepsOfJob } from "../read/steps-of-job";
import { MM, newPaper, PAGE } from "./paper";

/** The run sheet of a job: cards in order under the turns of the case, a box to tick for each step. */
export async function runSheet(em: EntityManager, number: string): Promise<Buffer | undefined> {
  const job = await findJob(em, number);
  if (!job) return undefined;
  const order = await stepsOfJob(em, await buildOfJob(em, job));
  return runSheetPdf({ number: job.number, title: job.title, client: job.client }, order);
}

export function runSheetPdf(head: { number: string; title: string; client: string }, order: Order): Promise<Buffer> {
  const { doc, end } = newPaper(`${head.number} run sheet`);
  const cards = cardsOf(order.steps, order.blocks);
  doc.font("text").fontSize(18).text(`${head.number} ${head.title}`);
  doc
    .fontSize(10)
    .text(
      `${head.client}. ${cards.length} cards, ${order.steps.length} steps, ${order.turns} turns of the case, about ${Math.round(order.left.handsOn)} minutes of hands left.`,
    )
    .moveDown(0.6);
  cards.forEach((c, i) => {
    printCard(doc, c, i + 1);
  });
  return end();
}

const room = (doc: PDFKit.PDFDocument, points: number) => {
  if (doc.y + points > PAGE.h - PAGE.edge - 8 * MM) doc.addPage();
};
const BOX = 3.2 * MM;
const LINE = 13;

function printCard(doc: PDFKit.PDFDocument, card: Card, n: number): void {
  room(doc, LINE * (card.turn ? 4 : 3));
  if (card.turn) {
    doc.rect(PAGE.edge, doc.y, PAGE.w - 2 * PAGE.edge, LINE + 2).fill("#ddd");
    doc
      .fillColor("#000")
      .fontSize(10)
      .text(turnWords(card.turn), PAGE.edge + 4, doc.y + 3);
    doc.y += 6;
  }
  doc.fontSize(11).text(`${n}  ${card.title}`, PAGE.edge, doc.y, { continued: false });
  doc.fontSize(8).fillColor("#333");
  const tools = [...new Set(card.steps.flatMap((s) => s.tools))];
  doc.text(
    [`${Math.round(card.minutes.handsOn)} min${card.minutes.unattended > 0 ? ` and ${card.minutes.unattended} by itself` : ""}`, ...tools].join("; "),
    PAGE.edge + 8 * MM,
  );
  for (const caution of new Set(card.steps.flatMap((s) => s.caution ?? []))) doc.text(`Caution. ${caution}`, PAGE.edge + 8 * MM);
  doc.fillColor("#000");
  for (const s of card.steps) {
    const words = card.steps.length > 1 ? s.title : (s.rightWhen ?? s.detail);
    doc.fontSize(9.5);
    const high = doc.heightOfString(words, { width: PAGE.w - 2 * PAGE.edge - 14 * MM });
    room(doc, high + 4);
    const y = doc.y + 2;
    doc
      .lineWidth(0.8)
      .rect(PAGE.edge + 8 * MM, y, BOX, BOX)
      .stroke();
    if (s.done)
      doc
        .moveTo(PAGE.edge + 8 * MM + 1.5, y + BOX / 2)
        .lineTo(PAGE.edge + 8 * MM + BOX / 2, y + BOX - 1.5)
        .lineTo(PAGE.edge + 8 * MM + BOX - 1, y + 1)
        .stroke();
    doc.text(words, PAGE.edge + 14 * MM, y, { width: PAGE.w - 2 * PAGE.edge - 14 * MM });
  }
  doc.moveDown(0.6);
}

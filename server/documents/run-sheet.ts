import { type Card, cardsOf, type Order, turnWords } from "../../core/order";
import type { EntityManager } from "../../db";
import { MM, newPaper, PAGE } from "../../paper/paper";
import { buildOfJob, findJob } from "../build/build-of-job";
import { stepsOfJob } from "../build/steps-of-job";

/** The run sheet of a job: cards in order under the turns of the case, a box to tick for each step. */
export async function runSheet(em: EntityManager, number: string): Promise<Buffer | undefined> {
  const job = await findJob(em, number);
  if (!job) return undefined;
  const b = await buildOfJob(em, job);
  const order = await stepsOfJob(em, b);
  return runSheetPdf({ number: job.number, title: job.title, client: job.client, unplanned: b.build.connections.length === 0 }, order);
}

export function runSheetPdf(head: { number: string; title: string; client: string; unplanned: boolean }, order: Order): Promise<Buffer> {
  const { doc, end } = newPaper(`${head.number} run sheet`);
  const cards = cardsOf(order.steps, order.blocks);
  doc.font("text").fontSize(18).text(`${head.number} ${head.title}`);
  doc
    .fontSize(10)
    .text(
      `${head.client}. ${cards.length} cards, ${order.steps.length} steps. Left: ${order.turns} ${order.turns === 1 ? "turn" : "turns"} of the case, about ${Math.round(order.left.handsOn)} minutes of hands.`,
    );
  if (head.unplanned) doc.text("The wiring is not planned yet, so that no plug is on this sheet. Plan it first, and print again.");
  doc.moveDown(0.6);
  cards.forEach((c, i) => {
    printCard(doc, c, i + 1);
  });
  return end();
}

const BOX = 3.2 * MM;
const LINE = 13;
const EDGE = PAGE.edge + 8 * MM;
const WORDS = EDGE + 6 * MM;
/** Where the words begin beside the tag of a lead. */
const BESIDE_TAG = WORDS + 14 * MM;
const FOOT = PAGE.h - PAGE.edge - 8 * MM;

interface Line {
  tag: string | undefined;
  words: string;
  done: boolean;
  high: number;
}

/** What a step's line says: of one with a lead its tag first, as it is on the lead. What is put into its seat has no lead. */
function linesOf(doc: PDFKit.PDFDocument, card: Card): Line[] {
  doc.fontSize(9.5);
  return card.steps.map((s) => {
    const tag = s.lead && s.kind === "plug" && s.title.startsWith("Plug ") ? /^[A-Z]{2}-\d+/.exec(s.detail)?.[0] : undefined;
    const words = card.steps.length > 1 ? s.title : (s.rightWhen ?? s.detail);
    return { tag, words, done: s.done, high: doc.heightOfString(words, { width: PAGE.w - PAGE.edge - (tag ? BESIDE_TAG : WORDS) }) + 2 };
  });
}

function printCard(doc: PDFKit.PDFDocument, card: Card, n: number): void {
  const about = [
    [
      `${Math.round(card.minutes.handsOn)} min${card.minutes.unattended > 0 ? ` and ${card.minutes.unattended} by itself` : ""}`,
      ...new Set(card.steps.flatMap((s) => s.tools)),
    ].join("; "),
    ...[...new Set(card.steps.flatMap((s) => s.caution ?? []))].map((c) => `Caution. ${c}`),
  ];
  const lines = linesOf(doc, card);
  doc.fontSize(8);
  const aboutHigh = about.reduce((h, t) => h + doc.heightOfString(t, { width: PAGE.w - PAGE.edge - EDGE }), 0);
  const head = (card.turn ? LINE + 6 : 0) + 1.5 * LINE + aboutHigh;
  const whole = head + lines.reduce((h, l) => h + l.high, 0);
  // A card stays together where a page holds it, and its head never stands alone.
  const page = FOOT - PAGE.edge;
  if (doc.y + (whole < page ? whole : head + (lines[0]?.high ?? 0)) > FOOT) doc.addPage();
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
  for (const t of about) doc.text(t, EDGE);
  doc.fillColor("#000");
  for (const l of lines) printLine(doc, l);
  doc.moveDown(0.6);
}

function printLine(doc: PDFKit.PDFDocument, { tag, words, done, high }: Line): void {
  doc.fontSize(9.5);
  if (doc.y + high > FOOT) doc.addPage();
  const y = doc.y + 2;
  doc.lineWidth(0.8).rect(EDGE, y, BOX, BOX).stroke();
  if (done)
    doc
      .moveTo(EDGE + 1.5, y + BOX / 2)
      .lineTo(EDGE + BOX / 2, y + BOX - 1.5)
      .lineTo(EDGE + BOX - 1, y + 1)
      .stroke();
  if (tag) doc.font("mono").text(tag, WORDS, y, { lineBreak: false }).font("text");
  doc.text(words, tag ? BESIDE_TAG : WORDS, y, { width: PAGE.w - PAGE.edge - (tag ? BESIDE_TAG : WORDS) });
}

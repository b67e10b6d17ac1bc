import { type Agreed, type OfferLine, sumsOf } from "../../core/offer";
import type { EntityManager } from "../../db";
import { MM, newPaper, PAGE } from "../../paper/paper";
import { findJob } from "../build/build-of-job";
import { type ShopDefaults, shopDefaults } from "../shop/defaults";
import { offerNow, offersOf } from "./offers";

/** The last offer of a job as a paper; where none was made, what would be offered, marked as a draft. */
export async function offerPdf(em: EntityManager, number: string): Promise<Buffer | undefined> {
  const job = await findJob(em, number);
  if (!job) return undefined;
  const [last] = await offersOf(em, job.id);
  const shop = await shopDefaults(em);
  const head = { number: job.number, title: job.title, client: job.client };
  return offerPaper(head, last?.body ?? (await offerNow(em, job)), shop, last);
}

const RIGHT = PAGE.w - PAGE.edge;
const [EACH, SUM] = [RIGHT - 62 * MM, RIGHT - 30 * MM];
const FOOT = PAGE.h - PAGE.edge - 10 * MM;

export function offerPaper(
  head: { number: string; title: string; client: string },
  a: Agreed,
  shop: Pick<ShopDefaults, "name" | "address" | "letterWords">,
  made?: { count: number; at: string; by: string; acceptedBy: string | null; acceptedOn: string | null },
): Promise<Buffer> {
  const { doc, end } = newPaper(`${head.number} offer${made ? ` ${made.count}` : ""}`);
  const sums = sumsOf(a);
  const money = (n: number) =>
    `${n.toLocaleString("en", { minimumFractionDigits: 2, maximumFractionDigits: 2 })}${a.currency ? ` ${a.currency}` : ""}`;
  if (shop.name) doc.font("text").fontSize(11).text(shop.name);
  if (shop.address) doc.fontSize(9).text(shop.address);
  doc
    .moveDown(0.6)
    .fontSize(18)
    .text(made ? `Offer ${made.count}` : "Draft of an offer");
  doc.fontSize(10).text(`${head.client}: ${head.title}. Job ${head.number}${made ? `, ${made.at.slice(0, 10)}, ${made.by}` : ""}.`);
  if (made?.acceptedBy) doc.text(`Accepted by ${made.acceptedBy} on ${made.acceptedOn ?? ""}.`);
  if (a.machines > 1) doc.text(`${a.machines} such machines.`);
  if (shop.letterWords) doc.moveDown(0.6).fontSize(9.5).text(shop.letterWords);
  const row = (count: string, what: string, each: string, sum: string, bold = false) => {
    doc.fontSize(bold ? 11 : 9.5);
    const high = doc.heightOfString(what, { width: EACH - PAGE.edge - 16 * MM });
    if (doc.y + high > FOOT) doc.addPage();
    const y = doc.y + 3;
    doc.font("mono").text(count, PAGE.edge, y, { width: 12 * MM, align: "right" });
    doc.font("text").text(what, PAGE.edge + 15 * MM, y, { width: EACH - PAGE.edge - 16 * MM });
    const after = doc.y;
    doc.font("mono").text(each, EACH, y, { width: 30 * MM, align: "right" });
    doc.text(sum, SUM, y, { width: 30 * MM, align: "right" }).font("text");
    doc.x = PAGE.edge;
    doc.y = Math.max(after, y + 12);
  };
  const lines = (word: string, list: readonly OfferLine[]) => {
    if (list.length === 0) return;
    doc.moveDown(0.6).fontSize(11).text(word, PAGE.edge);
    for (const l of list)
      row(
        `${l.count} ×`,
        l.what,
        l.own ? "" : l.each === undefined ? "no price yet" : money(l.each),
        l.own ? "yours" : l.each === undefined ? "" : money((Math.round(l.each * 100) * l.count) / 100),
      );
  };
  lines("Parts", a.parts);
  if (a.hours > 0) {
    doc.moveDown(0.6).fontSize(11).text("Work", PAGE.edge);
    row(`${a.hours} h`, "Assembly, cables, first start, checks", a.rate > 0 ? money(a.rate) : "", a.rate > 0 ? money(sums.work) : "");
  }
  lines("Beside the machine", a.beside);
  doc.moveDown(0.5);
  if (a.machines > 1) row("", "One machine", "", money(sums.each));
  row(
    "",
    sums.unpriced > 0 ? `Together, without the ${sums.unpriced} ${sums.unpriced === 1 ? "line" : "lines"} that have no price yet` : "Together",
    "",
    money(sums.total),
    true,
  );
  if (a.due)
    doc
      .moveDown(0.6)
      .fontSize(10)
      .text(`Ready on ${a.due.on}${a.due.hour ? ` at ${a.due.hour}` : ""}, ${a.due.promised ? "promised" : "as wished; not promised"}.`, PAGE.edge);
  if (a.promises.length > 0) {
    doc.moveDown(0.6).fontSize(11).text("Promised of the machine", PAGE.edge);
    doc.fontSize(9.5);
    for (const p of a.promises) doc.text(p.words, PAGE.edge + 15 * MM);
  }
  if (a.words)
    doc
      .moveDown(0.8)
      .fontSize(9.5)
      .text(a.words, PAGE.edge, doc.y, { width: RIGHT - PAGE.edge });
  return end();
}

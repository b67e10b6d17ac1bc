import type { EntityManager } from "../../db";
import { findJob } from "../build/build-of-job";
import { type ShopDefaults, shopDefaults } from "../shop/defaults";
import { MM, newPaper } from "./paper";

/** A label for the machine, mm: as label printers commonly take. */
const LABEL = { w: 90, h: 50 } as const;
const EDGE = 4 * MM;
const WIDE = LABEL.w * MM - 2 * EDGE;

/** The label of a job's machine, with the shop's own words; nothing where there is no such job. */
export async function labelOf(em: EntityManager, number: string): Promise<Buffer | undefined> {
  const job = await findJob(em, number);
  return job ? labelPaper(job, await shopDefaults(em)) : undefined;
}

export function labelPaper(job: { number: string; title: string; client: string }, shop: Pick<ShopDefaults, "name" | "labelWords">): Promise<Buffer> {
  const { doc, end } = newPaper(`${job.number} label`, LABEL);
  // Whatever somebody typed: one label is one page.
  const line = (text: string, size: number, y: number, high: number, font: "text" | "mono" = "text") =>
    text &&
    doc
      .font(font)
      .fontSize(size)
      .text(text, EDGE, y * MM, { width: WIDE, height: high * MM, ellipsis: true });
  line(shop.name, 9, 4, 5);
  line(job.number, 22, 10, 9, "mono");
  line(job.title, 11, 20, 5);
  line(job.client, 9, 26, 5);
  line(shop.labelWords, 8, 33, 14);
  return end();
}

import { z } from "zod";
import { LABEL_KINDS, type LabelKind, labelsOf } from "../../core/handover";
import type { EntityManager } from "../../db";
import { LABEL_SHEETS, type LabelText, labelsPdf, sheetNamed } from "../../paper/labels";
import { buildOfJob, findJob } from "../build/build-of-job";
import { clientPagePathOf } from "../handover/client-page";
import { no, type Result, yes } from "../kernel/result";
import { JobNumber } from "../kernel/text";
import { shopDefaults } from "../shop/defaults";
import { query } from "../unit/action";

/** Where each kind usually goes. */
export const USUAL_SHEET: Record<LabelKind, string> = { leads: "flag-24x60", bag: "roll-62x29", machine: "roll-90x50", box: "a4-70x37" };

async function labels(em: EntityManager, number: string, kind: LabelKind): Promise<LabelText[] | undefined> {
  const job = await findJob(em, number);
  if (!job) return undefined;
  const { name, labelWords, reachAt } = await shopDefaults(em);
  const { graph } = await buildOfJob(em, job);
  // On the machine itself stands what its client may look at, where there is such a page and phones reach it.
  const page = kind === "machine" && reachAt ? await clientPagePathOf(em, number) : null;
  const list = labelsOf(graph, kind, { number: job.number, title: job.title, client: job.client, words: labelWords, shop: name, address: reachAt });
  return page ? list.map((l) => ({ ...l, code: `${reachAt.replace(/\/+$/, "")}${page}` })) : list;
}

/** Labels of a job as PDF, at their size. */
export const labelsAsFile = query({
  name: "handover.labels-file",
  input: z.object({ number: JobNumber, kind: z.enum(LABEL_KINDS), sheet: z.string().max(40).optional() }),
  run: async (em, { number, kind, sheet }): Promise<Result<Buffer>> => {
    const on = sheetNamed(sheet ?? USUAL_SHEET[kind]);
    if (!on) return no(`There is no label sheet ${sheet}. There are: ${LABEL_SHEETS.map((s) => s.name).join(", ")}.`);
    const list = await labels(em, number, kind);
    if (!list) return no(`There is no job ${number}.`);
    if (list.length === 0) return no("There is nothing to print yet: the wiring is not planned.");
    return yes(await labelsPdf(`${number} ${kind}`, list, on));
  },
});

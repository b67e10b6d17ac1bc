import { z } from "zod";
import { boardDrawing, connectionsCsv, readConnections, sheetOf, svgOf } from "../core/sheet";
import { type EntityManager, Plan, type TechnicianRow } from "../db";
import { buildOfJob, findJob } from "./build-of-job";
import { no, type Result, yes } from "./result";
import { wiringPdf } from "./wiring-pdf";
import { fix } from "./work";

export const WIRING_FILES = {
  csv: "text/csv; charset=utf-8",
  json: "application/json; charset=utf-8",
  svg: "image/svg+xml",
  pdf: "application/pdf",
} as const;
export type WiringFile = keyof typeof WIRING_FILES;

/** The wiring of a job as a file: sheet as PDF, connection list as CSV, board plan as SVG, the build with its plan as JSON. */
export async function wiringFile(em: EntityManager, number: string, as: WiringFile): Promise<string | Buffer | undefined> {
  const job = await findJob(em, number);
  if (!job) return undefined;
  const b = await buildOfJob(em, job);
  const title = `${job.number} ${job.title}`;
  const drawing = boardDrawing(b.graph, `${title}, board plan`);
  if (as === "svg") return drawing ? svgOf(drawing) : undefined;
  if (as === "json") return `${JSON.stringify(b.build, null, 1)}\n`;
  const sheet = sheetOf(b.graph);
  if (as === "csv") return connectionsCsv(sheet);
  const plan = await em.findOne(Plan, { job: job.id }, { orderBy: { revision: "desc" } });
  const stale = plan && plan.partsRevision !== job.partsRevision ? " It is stale: a part changed since." : "";
  const words = plan ? `Plan ${plan.revision}, ${plan.status}.${stale}` : "Not planned yet.";
  return wiringPdf({ number: job.number, title: job.title, client: job.client, plan: words }, sheet, drawing);
}

export const TakeConnections = z.object({ number: z.string().min(1).max(40), text: z.string().max(4_000_000) });

/** A connection list read back: each row that can be is fixed, the others stay as they are, each with a sentence. */
export async function takeConnections(
  em: EntityManager,
  by: TechnicianRow,
  t: z.infer<typeof TakeConnections>,
): Promise<Result<{ fixed: number; same: number; left: string[] }>> {
  const job = await findJob(em, t.number);
  if (!job) return no(`There is no job ${t.number}.`);
  const b = await buildOfJob(em, job);
  const read = readConnections(t.text, b.graph);
  if (!read.ok) return no(read.sentence);
  const out = { fixed: 0, same: 0, left: [...read.faults] };
  for (const r of read.rows) {
    const now = b.graph.ofLead.get(r.lead);
    const held = now && now.state !== "planned" && now.port === r.port && (now.place ?? []).join() === (r.place ?? []).join();
    if (held) {
      out.same += 1;
      continue;
    }
    const said = await fix(em.fork() as EntityManager, by, {
      number: t.number,
      lead: r.lead,
      port: r.port,
      ...(r.place ? { place: r.place } : {}),
      fixed: true,
    });
    if (said.ok) out.fixed += 1;
    else out.left.push(`Line ${r.line}: ${said.sentence.replace(" Nothing was changed.", "")}`);
  }
  return yes(out);
}

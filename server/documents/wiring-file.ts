import { asPlugged } from "../../core/assembly";
import { paperDrawing, svgOf } from "../../core/scene";
import { connectionsCsv, sheetOf } from "../../core/sheet";
import { type EntityManager, Observation, Plan } from "../../db";
import { wiringPdf } from "../../paper/wiring-pdf";
import { buildOfJob, findJob } from "../build/build-of-job";

export const WIRING_FILES = {
  csv: "text/csv; charset=utf-8",
  json: "application/json; charset=utf-8",
  svg: "image/svg+xml",
  pdf: "application/pdf",
} as const;
export type WiringFile = keyof typeof WIRING_FILES;

/** The wiring of a job as a file: sheet as PDF, connection list as CSV, the machine as SVG, the build with its plan as JSON. */
export async function wiringFile(
  em: EntityManager,
  number: string,
  as: WiringFile,
  side: "front" | "behind" = "front",
  built = false,
): Promise<string | Buffer | undefined> {
  const job = await findJob(em, number);
  if (!job) return undefined;
  const b = await buildOfJob(em, job);
  const graph = built ? asPlugged(b.graph) : b.graph;
  const title = `${job.number} ${job.title}${built ? ", as built" : ""}`;
  if (as === "svg") return svgOf(paperDrawing(graph, side, `${title}, ${side === "front" ? "front of the tray" : "behind the tray"}`));
  if (as === "json") {
    const seen = await em.find(Observation, { job: job.id, simulated: false }, { orderBy: { line: "asc" }, limit: 1000 });
    const readings = seen.map((o) => ({ line: o.line, value: o.value }));
    return `${JSON.stringify({ ...b.build, ...(readings.length > 0 ? { readings } : {}) }, null, 1)}\n`;
  }
  const sheet = sheetOf(graph);
  if (as === "csv") return connectionsCsv(sheet);
  const plan = await em.findOne(Plan, { job: job.id }, { orderBy: { revision: "desc" } });
  const stale = plan && plan.partsRevision !== job.partsRevision ? " It is stale: a part changed since." : "";
  if (built) {
    const plugged = graph.connections.length;
    const words = `As built: ${plugged === b.graph.connections.length ? `all ${plugged} plugs are in` : `${plugged} of ${b.graph.connections.length} plugs are in`}.`;
    return wiringPdf({ number: job.number, title: job.title, client: job.client, plan: words }, sheet, graph);
  }
  const words = plan ? `Plan ${plan.revision}, ${plan.status}.${stale}` : "Not planned yet.";
  return wiringPdf({ number: job.number, title: job.title, client: job.client, plan: words }, sheet, b.graph);
}

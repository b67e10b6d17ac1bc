import { z } from "zod";
import { asPlugged, type Build } from "../../core/assembly";
import type { Paper } from "../../core/handover";
import { paperDrawing, svgOf } from "../../core/scene";
import { paperPdf } from "../../paper/paper-pdf";
import { type Language, plainNames, saidIn } from "../../paper/said";
import { buildOfJob, findJob } from "../build/build-of-job";
import { no, type Result, yes } from "../kernel/result";
import { JobNumber } from "../kernel/text";
import { query } from "../unit/action";
import { PAPERS, paperOf } from "./papers";

/** A paper in one language, as it is read. */
export interface SaidPaper {
  title: string;
  under: string[];
  sections: { title: string; lead?: string; drawing?: "front" | "behind"; plain?: true; rows: { what: string; says?: string; right?: string }[] }[];
}

const saidPaper = (p: Paper, l: Language): SaidPaper => ({
  title: saidIn(l, p.title),
  under: p.under.map((u) => saidIn(l, u)),
  sections: p.sections.map((s) => ({
    title: saidIn(l, s.title),
    ...(s.lead ? { lead: saidIn(l, s.lead) } : {}),
    ...(s.drawing ? { drawing: s.drawing } : {}),
    ...(s.plain ? { plain: s.plain } : {}),
    rows: s.rows.map((r) => ({
      what: saidIn(l, r.what),
      ...(r.says ? { says: saidIn(l, r.says) } : {}),
      ...(r.right ? { right: saidIn(l, r.right) } : {}),
    })),
  })),
});

const Asked = z.object({ number: JobNumber, kind: z.enum(PAPERS), language: z.enum(["en", "de"]) });

/** A paper of a job on screen. */
export const paper = query({
  name: "handover.paper",
  input: Asked,
  run: async (em, { number, kind, language }): Promise<Result<{ paper: SaidPaper; build: Build }>> => {
    const made = await paperOf(em, number, kind);
    return made ? yes({ paper: saidPaper(made.paper, language), build: made.graph.build }) : no(`There is no job ${number}.`);
  },
});

/** The same as PDF. */
export const paperAsFile = query({
  name: "handover.paper-file",
  input: Asked,
  run: async (em, { number, kind, language }): Promise<Result<Buffer>> => {
    const made = await paperOf(em, number, kind);
    return made ? yes(await paperPdf(made.paper, made.graph, language)) : no(`There is no job ${number}.`);
  },
});

/** The machine in plain words, without leads. */
export const plainDrawing = query({
  name: "handover.plain-drawing",
  input: Asked.omit({ kind: true }),
  run: async (em, { number, language }): Promise<Result<string>> => {
    const job = await findJob(em, number);
    if (!job) return no(`There is no job ${number}.`);
    const { graph } = await buildOfJob(em, job);
    return yes(svgOf(paperDrawing(asPlugged(graph), "front", job.title, undefined, plainNames(language))));
  },
});

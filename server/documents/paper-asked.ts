import { z } from "zod";
import { asPlugged, type Build } from "../../core/assembly";
import { paperDrawing, svgOf } from "../../core/scene";
import { paperPdf } from "../../paper/paper-pdf";
import { plainNames, type SaidPaper, saidPaper } from "../../paper/said";
import { buildOfJob, findJob } from "../build/build-of-job";
import { no, type Result, yes } from "../kernel/result";
import { JobNumber } from "../kernel/text";
import { query } from "../unit/action";
import { PAPERS, paperOf } from "./papers";

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

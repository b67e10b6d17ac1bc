import { z } from "zod";
import type { Build } from "../../core/assembly";
import type { Paper } from "../../core/handover";
import { no, type Result, yes } from "../kernel/result";
import { JobNumber } from "../kernel/text";
import { query } from "../unit/action";
import { paperPdf } from "./paper-pdf";
import { PAPERS, paperOf } from "./papers";
import { type Language, saidIn } from "./said";

/** A paper in one language, as it is read. */
export interface SaidPaper {
  title: string;
  under: string[];
  sections: { title: string; lead?: string; drawing?: "front" | "behind"; rows: { what: string; says?: string; right?: string }[] }[];
}

const saidPaper = (p: Paper, l: Language): SaidPaper => ({
  title: saidIn(l, p.title),
  under: p.under.map((u) => saidIn(l, u)),
  sections: p.sections.map((s) => ({
    title: saidIn(l, s.title),
    ...(s.lead ? { lead: saidIn(l, s.lead) } : {}),
    ...(s.drawing ? { drawing: s.drawing } : {}),
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

import "server-only";
import { createHmac, randomUUID } from "node:crypto";
import { RateLimiterMemory } from "rate-limiter-flexible";
import { z } from "zod";
import { asPlugged } from "../../core/assembly";
import { clientPage, type Paper } from "../../core/handover";
import { paperDrawing, svgOf } from "../../core/scene";
import { ClientPage, type EntityManager, entityManager } from "../../db";
import { plainNames } from "../../paper/said";
import { buildOfJob } from "../build/build-of-job";
import { done, type Result, yes } from "../kernel/result";
import { cookieRules, hashOfToken } from "../kernel/seat";
import { JobNumber } from "../kernel/text";
import { jobAction, query } from "../unit/action";
import { factsOfRecord } from "./facts";

/** What the address says: made of the row by this server's own secret, so that a label can be printed again and a database tells nothing. */
const tokenOf = (id: string): string => createHmac("sha256", cookieRules().password).update(`client-page ${id}`).digest("base64url");

const openPage = (em: EntityManager, job: string) => em.findOne(ClientPage, { job, withdrawnAt: null });

/** A page for the client's eyes is switched on, or withdrawn: then its address is gone for ever. */
export const setClientPage = jobAction({
  name: "handover.client-page",
  permission: "run jobs",
  onClosed: true,
  input: z.object({ number: JobNumber, on: z.boolean() }),
  run: async (unit, { on }): Promise<Result> => {
    const there = await openPage(unit.tx, unit.job.id);
    if (on === (there !== null)) return done();
    if (there) there.withdrawnAt = unit.when.arrived;
    else {
      const id = randomUUID();
      unit.tx.create(ClientPage, { id, job: unit.job, tokenHash: hashOfToken(tokenOf(id)), by: unit.by, at: unit.when.arrived, withdrawnAt: null });
    }
    unit.emit("client-page", { on });
    return done();
  },
});

/** Where the page is, as a path; null: it is off. */
export const clientPageAt = query({
  name: "handover.client-page-at",
  permission: "run jobs",
  input: z.object({ number: JobNumber }),
  run: async (em, { number }): Promise<Result<string | null>> => yes(await clientPagePathOf(em, number)),
});

export async function clientPagePathOf(em: EntityManager, number: string): Promise<string | null> {
  const [row] = await em.execute<{ id: string }[]>(
    `select p."id" from "client_page" p join "job" j on j."id" = p."job_id" where j."number" = ? and p."withdrawn_at" is null`,
    [number],
  );
  return row ? `/m/${tokenOf(row.id)}` : null;
}

/** So often a minute a page is looked at; and an address that is none is tried, by everybody together. */
const looks = new RateLimiterMemory({ points: 60, duration: 60 });
const tries = new RateLimiterMemory({ points: 120, duration: 60 });

export interface ForClient {
  paper: Paper;
  svg: string;
}

/** What whoever has the address sees: the machine, and nothing of anybody. Nothing: there is no such page. */
export async function clientPageOf(token: string): Promise<ForClient | "none" | "too often"> {
  if (!/^[\w-]{43}$/.test(token)) return "none";
  const hash = hashOfToken(token);
  try {
    await looks.consume(hash);
  } catch {
    return "too often";
  }
  const em = await entityManager();
  const row = await em.findOne(ClientPage, { tokenHash: hash, withdrawnAt: null }, { populate: ["job"] });
  if (!row) {
    // Whoever guesses is one of many: all wrong ones are counted together.
    try {
      await tries.consume("wrong");
    } catch {
      return "too often";
    }
    return "none";
  }
  const b = await buildOfJob(em, row.job);
  const graph = asPlugged(b.graph);
  const paper = clientPage(graph, await factsOfRecord(em, row.job, { ...b, graph }));
  return { paper, svg: svgOf(paperDrawing(graph, "front", row.job.title, undefined, plainNames("en"))) };
}

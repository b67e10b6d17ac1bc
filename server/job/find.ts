import { z } from "zod";
import { ClientPage, type EntityManager, Job, JobPart } from "../../db";
import { buildOfJob, findJob } from "../build/build-of-job";
import { type Result, yes } from "../kernel/result";
import { hashOfToken } from "../kernel/seat";
import { JobNumber, line } from "../kernel/text";
import { searchShelf } from "../shelf/search";
import { query } from "../unit/action";

/** Something that answers to words, and where it is. */
export interface Found {
  kind: "lead" | "job" | "serial" | "sent back" | "part" | "part type";
  title: string;
  detail: string;
  href: string;
}

const MOST = 12;
const likeOf = (words: string) => `%${words.replace(/[\\%_]/g, (c) => `\\${c}`)}%`;
const jobHref = (number: string) => `/job/${encodeURIComponent(number)}`;
const partHref = (number: string, part: string) => `${jobHref(number)}/parts?part=${encodeURIComponent(part)}`;

/** Jobs by number, client or title, the newest first; serials that are built in or were sent back; parts of the job that is open; part types. */
export async function findAll(em: EntityManager, words: string, inJob?: string): Promise<Found[]> {
  const like = likeOf(words);
  const jobs = await em.find(
    Job,
    { $or: [{ number: { $ilike: like } }, { client: { $ilike: like } }, { title: { $ilike: like } }] },
    { limit: MOST, orderBy: { createdAt: "desc" }, fields: ["number", "client", "title"] },
  );
  const serials = await em.find(
    JobPart,
    { serial: { $ilike: like } },
    { limit: MOST, populate: ["job"], fields: ["key", "label", "type", "serial", "job.number", "job.title"] },
  );
  const out: Found[] = [
    ...(inJob ? await leadsOf(em, inJob, words) : []),
    ...jobs.map((j): Found => ({ kind: "job", title: `${j.number} ${j.title}`, detail: j.client, href: jobHref(j.number) })),
    ...serials.map(
      (s): Found => ({
        kind: "serial",
        title: s.serial ?? "",
        detail: `${s.label ?? s.type} of ${s.job.number} ${s.job.title}`,
        href: partHref(s.job.number, s.key),
      }),
    ),
  ];
  if (words.length >= 3) out.push(...(await sentBack(em, like, new Set(serials.map((s) => s.serial)))));
  if (inJob) {
    const parts = await em.execute<{ key: string; label: string | null; name: string }[]>(
      `select p."key", p."label", p."body"->>'name' as name from "job_part" p join "job" j on j."id" = p."job_id"
       where j."number" = ? and (p."label" ilike ? or p."key" ilike ? or p."body"->>'name' ilike ?) order by p."position" limit ${MOST}`,
      [inJob, like, like, like],
    );
    out.push(...parts.map((p): Found => ({ kind: "part", title: p.label ?? p.key, detail: p.name, href: partHref(inJob, p.key) })));
  }
  const types = await searchShelf(em, words);
  out.push(
    ...types.rows
      .slice(0, MOST)
      .map((t): Found => ({ kind: "part type", title: `${t.maker} ${t.name}`.trim(), detail: t.kind, href: `/shelf/${encodeURIComponent(t.id)}` })),
  );
  return out;
}

/** The lead of a tag of the job that is open, as it is printed on its label. */
async function leadsOf(em: EntityManager, number: string, words: string): Promise<Found[]> {
  if (!/^[a-z]{2}-?\d{1,3}$/i.test(words)) return [];
  const job = await findJob(em, number);
  if (!job) return [];
  const { graph } = await buildOfJob(em, job);
  const tag = words.toUpperCase().replace(/^([A-Z]{2})-?/, "$1-");
  return [...graph.leads.values()]
    .filter((l) => l.tag === tag)
    .map((l) => {
      const port = graph.ports.get(graph.ofLead.get(l.address)?.port ?? "");
      return {
        kind: "lead",
        title: `${l.tag} ${l.name}`,
        detail: port ? `to ${port.name}` : "no port yet",
        href: `${jobHref(number)}/wiring#${new URLSearchParams({ lead: l.address })}`,
      };
    });
}

/** Serials that a job once had and has no more: dead on arrival, exchanged, corrected. */
async function sentBack(em: EntityManager, like: string, known: ReadonlySet<string | null | undefined>): Promise<Found[]> {
  const rows = await em.execute<{ serial: string; number: string; title: string; name: string }[]>(
    `select distinct on (e."data"->>'serial', j."id") e."data"->>'serial' as serial, e."data"->>'name' as name, j."number", j."title"
     from "log_entry" e join "job" j on j."id" = e."job_id"
     where e."kind" in ('received', 'part-serial', 'replaced') and lower(e."data"->>'serial') like lower(?)
     order by e."data"->>'serial', j."id", e."id" desc limit ${MOST}`,
    [like],
  );
  return rows
    .filter((r) => !known.has(r.serial))
    .map((r) => ({ kind: "sent back", title: r.serial, detail: `was ${r.name} of ${r.number} ${r.title}`, href: `${jobHref(r.number)}/parts` }));
}

/** Where a label of a job leads: its number, or an address of the shop's, and what of the job it is on. */
async function onLabel(em: EntityManager, code: string): Promise<string | undefined> {
  const url = /^https?:\/\/\S+\/job\/([^/?#\s]+)(?:\?scan=([^&#\s]+))?$/.exec(code);
  const said = url ? [decoded(url[1]), decoded(url[2])] : (/^(\S+) (\S+)$/.exec(code)?.slice(1) ?? []);
  const page = /\/m\/([\w-]{43})$/.exec(code)?.[1];
  if (page) {
    const row = await em.findOne(ClientPage, { tokenHash: hashOfToken(page) }, { populate: ["job"] });
    return row ? `${jobHref(row.job.number)}/handover` : undefined;
  }
  const [number = "", what = ""] = said;
  if (!number || (!what && !url)) return undefined;
  const job = await findJob(em, number);
  if (!job) return undefined;
  if (what === "bag") return `${jobHref(job.number)}/handover`;
  return (await leadsOf(em, job.number, what))[0]?.href ?? jobHref(job.number);
}

const decoded = (part: string | undefined): string => {
  try {
    return decodeURIComponent(part ?? "");
  } catch {
    return "";
  }
};

const NotEmpty = line(80).refine((s) => s.length > 0, "type something");
/** A label may say an address. */
const Code = line(300).refine((s) => s.length > 0, "scan something");

export const find = query({
  name: "job.find",
  input: z.object({ text: NotEmpty, inJob: JobNumber.optional() }),
  run: async (em, v) => yes(await findAll(em, v.text, v.inJob)),
});

/** What a code stands for: a job, a serial, a part type; nothing where it stands for none. */
export const scanned = query({
  name: "job.scanned",
  input: z.object({ code: Code }),
  run: async (em, { code }): Promise<Result<{ href?: string; words?: string }>> => {
    const like = code.replace(/[\\%_]/g, (c) => `\\${c}`);
    const label = await onLabel(em, code);
    if (label) return yes({ href: label });
    const job = await em.findOne(Job, { number: { $ilike: like } }, { fields: ["number"] });
    if (job) return yes({ href: jobHref(job.number) });
    const part = await em.findOne(JobPart, { serial: { $ilike: like } }, { populate: ["job"], fields: ["key", "job.number"] });
    if (part) return yes({ href: partHref(part.job.number, part.key) });
    const [type] = await em.execute<{ id: string }[]>(`select "id" from "shelf_type" where lower("id") = lower(?)`, [code]);
    if (type) return yes({ href: `/shelf/${encodeURIComponent(type.id)}` });
    const [gone] = await sentBack(em, like, new Set());
    return yes(gone ? { href: gone.href, words: `${code} is not built in any more: it ${gone.detail}.` } : {});
  },
});

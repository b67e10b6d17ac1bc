import { LRUCache } from "lru-cache";
import { type EntityManager, prepared } from "../../db";
import { viewAtOnce } from "./heads";
import type { JobView } from "./job-view";

/** Jobs whose derived view is kept in this process: each is a megabyte or two. */
const MOST_KEPT = 60;

interface Kept {
  key: string;
  view: Promise<JobView | undefined>;
}
const holder = globalThis as typeof globalThis & { imbraViews?: LRUCache<string, Kept> };

/** Which revision of a job, of the shelf and of the shop's own defaults a view is of, and how far that has seen everything (server/live/since.ts): one question. */
export async function keyOf(em: EntityManager, number: string): Promise<{ key: string; since: string } | undefined> {
  const [row] = await prepared<{ id: string; revision: number; shelf: string; since: string }>(
    em,
    "key of job",
    `select j."id", j."revision", coalesce((select "shelf_revision" || ' ' || md5("defaults"::text) from "shop" where "id" = 1), '0') as "shelf",
     pg_snapshot_xmin(pg_current_snapshot())::text as "since" from "job" j where j."number" = ?`,
    [number],
  );
  return row && { key: `${row.id} ${row.revision} ${row.shelf}`, since: row.since };
}

/** A job's view, derived once for each revision of the job and of the shelf. Whoever comes meanwhile waits for the same. */
export async function keptView(em: EntityManager, number: string, at?: string): Promise<JobView | undefined> {
  holder.imbraViews ??= new LRUCache<string, Kept>({ max: MOST_KEPT });
  const views = holder.imbraViews;
  const key = at ?? (await keyOf(em, number))?.key;
  if (key === undefined) return undefined;
  const kept = views.get(number);
  if (kept?.key === key) return kept.view;
  const view = viewAtOnce(em.fork() as EntityManager, number);
  views.set(number, { key, view });
  // What failed is not kept: the next asks anew.
  view.catch(() => {
    if (views.get(number)?.view === view) views.delete(number);
  });
  return view;
}

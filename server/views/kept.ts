import { LRUCache } from "lru-cache";
import { type EntityManager, Job, Shop } from "../../db";
import { viewAtOnce } from "./heads";
import type { JobView } from "./job-view";

/** Jobs whose derived view is kept in this process: each is a megabyte or two. */
const MOST_KEPT = 60;

interface Kept {
  key: string;
  view: Promise<JobView | undefined>;
}
const holder = globalThis as typeof globalThis & { imbraViews?: LRUCache<string, Kept> };

/** Which revision of a job and of the shelf a view is of; undefined where there is no such job. */
export async function keyOf(em: EntityManager, number: string): Promise<string | undefined> {
  const job = await em.findOne(Job, { number }, { fields: ["id", "revision"], disableIdentityMap: true });
  if (!job) return undefined;
  const shop = await em.findOne(Shop, { id: 1 }, { disableIdentityMap: true });
  return `${job.id} ${job.revision} ${shop?.shelfRevision ?? 0}`;
}

/** A job's view, derived once for each revision of the job and of the shelf. Whoever comes meanwhile waits for the same. */
export async function keptView(em: EntityManager, number: string, at?: string): Promise<JobView | undefined> {
  holder.imbraViews ??= new LRUCache<string, Kept>({ max: MOST_KEPT });
  const views = holder.imbraViews;
  const key = at ?? (await keyOf(em, number));
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

import { z } from "zod";
import { type SetupItem, setupOf } from "../../core/setup";
import { type EntityManager, Shop } from "../../db";
import type { JobBuild } from "./build-of-job";

/** What the shop tests with, that comes off again; names as everybody calls them. */
export const TestPrograms = z.array(z.string().trim().min(1).max(80)).max(20, "at most 20 programs");

/** What was promised of a machine, as stored with its job. */
export const promisesOf = (brief: unknown): { about: string; words: string; value?: number | undefined }[] => {
  const read = z
    .object({ promises: z.array(z.object({ about: z.string(), words: z.string(), value: z.number().optional() })).default([]) })
    .safeParse(brief ?? {});
  if (!read.success) return [];
  // What a mail says twice is promised once.
  const same = (w: string) => w.trim().toLowerCase().replace(/\s+/g, " ");
  const all = read.data.promises;
  return all.filter((p, i) => all.findIndex((q) => q.about === p.about && same(q.words) === same(p.words)) === i);
};

/** All that is set up in a job's machine after it starts. */
export async function setupOfJob(em: EntityManager, b: JobBuild): Promise<SetupItem[]> {
  const shop = await em.findOne(Shop, { id: 1 });
  const programs = TestPrograms.safeParse((shop?.defaults as { testPrograms?: unknown } | undefined)?.testPrograms ?? []).data ?? [];
  return setupOf(b.graph, { promises: promisesOf(b.job.brief), testPrograms: programs });
}

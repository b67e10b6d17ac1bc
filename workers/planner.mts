// A planner: takes plans that are asked for, and keeps the heads of jobs ready for lists. Any number of them, on any machine that
// reaches the database of DATABASE_URL: npm run planner.
import { randomUUID } from "node:crypto";
import { constants, hostname, setPriority } from "node:os";
import { type EntityManager, entityManager, Job } from "../db";
import { buildOfJob } from "../server/build/build-of-job";
import { listen } from "../server/live/channel";
import { forgetAttempts } from "../server/people/attempts";
import { planInThread, threadsFrom } from "../server/plan/plan-thread";
import { forgetOld } from "../server/planner/runs";
import { workOnce } from "../server/planner/work";
import { renewHeads } from "../server/views/heads";

const name = `${hostname()} ${process.pid} ${randomUUID().slice(0, 8)}`;
/** Looked for without being told, so that nothing is forgotten when news were lost. */
const LOOK_MS = 3000;
const AFTER_FAULT_MS = 1000;
const WARM_S = 2;
const BETWEEN_HEADS_MS = 500;
/** What is heard within so long is asked for at once. */
const GATHER_MS = 100;
/** So many heads at a time. */
const HEADS = 10;
const TIDY_MS = 6 * 3_600_000;

// Pages and entries come first. Where a priority is not to be had, nothing is lost.
try {
  setPriority(constants.priority.PRIORITY_BELOW_NORMAL);
} catch {}

// Whoever started this is gone: so is this.
process.on("disconnect", () => process.exit(0));
for (const out of [process.stdout, process.stderr]) out.on("error", () => {});

let ending = false;
let wakePlans = () => {};
let wakeHeads = () => {};

/** Does `work` again and again: at once while there is some, else when woken or after a while. */
async function keep(work: (em: () => EntityManager) => Promise<boolean>, sleep: (wake: () => void) => void): Promise<void> {
  while (!ending) {
    try {
      const em = await entityManager();
      if (await work(() => em.fork() as EntityManager)) continue;
      await new Promise<void>((resolve) => {
        const timer = setTimeout(resolve, LOOK_MS);
        sleep(() => {
          clearTimeout(timer);
          resolve();
        });
      });
    } catch (e) {
      // The database's own words stand at the end of what the driver says.
      console.error(e instanceof Error ? e.message.trim().split("\n").at(-1) : e);
      await new Promise((resolve) => setTimeout(resolve, AFTER_FAULT_MS));
    }
  }
}

threadsFrom(new URL("./plan-thread.mjs", import.meta.url));
/** Jobs that moved since heads were last renewed, and when those of all jobs were last looked at: with many, that takes as long as an entry. */
const moved = new Set<string>();
let lookedAtAll = Number.NEGATIVE_INFINITY;
listen((n) => {
  if ("run" in n || "again" in n) wakePlans();
  if ("shelf" in n || "again" in n) lookedAtAll = Number.NEGATIVE_INFINITY;
  if ("revision" in n) moved.add(n.job);
  if ("revision" in n || "shelf" in n || "again" in n) wakeHeads();
});
/** Renews heads that are behind: of the jobs that moved, and now and then whichever there are. True while there may be more. */
async function keepHeads(em: () => EntityManager): Promise<boolean> {
  await new Promise((resolve) => setTimeout(resolve, GATHER_MS));
  const all = performance.now() - lookedAtAll >= LOOK_MS;
  if (all) lookedAtAll = performance.now();
  const among = [...moved];
  moved.clear();
  if ((await renewHeads(em(), HEADS, all ? undefined : among)) === 0) return moved.size > 0;
  // There may be more than were taken.
  lookedAtAll = Number.NEGATIVE_INFINITY;
  // Whoever works comes first: lists may be a moment behind.
  await new Promise((resolve) => setTimeout(resolve, BETWEEN_HEADS_MS));
  return true;
}
for (const signal of ["SIGTERM", "SIGINT"] as const)
  process.once(signal, () => {
    // A run in the middle is taken again by another planner.
    ending = true;
    process.exit(0);
  });

/** The first plan of a cold process takes twice as long: it is made of the newest job, and thrown away. Not so where IMBRA_WARM is "no". */
async function warmUp(): Promise<void> {
  const em = await entityManager();
  const [job] = await em.find(Job, {}, { orderBy: { createdAt: "desc" }, limit: 1 });
  if (job) await planInThread((await buildOfJob(em, job)).build, { deadlineS: WARM_S });
}
if (process.env.IMBRA_WARM !== "no") await warmUp().catch(() => undefined);
const tidy = () =>
  entityManager()
    .then(async (em) => {
      await forgetOld(em);
      await forgetAttempts(em);
    })
    .catch(() => undefined);
await tidy();
setInterval(tidy, TIDY_MS).unref();

console.log(`Planner ${name} works.`);
await Promise.all([
  keep(
    (em) => workOnce(em, name, planInThread),
    (wake) => {
      wakePlans = wake;
    },
  ),
  keep(keepHeads, (wake) => {
    wakeHeads = wake;
  }),
]);

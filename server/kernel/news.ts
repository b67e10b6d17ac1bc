import { afterCommit, type EntityManager, entityManager } from "../../db";

/**
 * News are told after the commit that they are of, and what comes within a few hundredths of a second in one statement of its own: a
 * notification inside a transaction holds one lock of the whole database until the disk has written (PostgreSQL manual, NOTIFY). Listeners
 * look now and then for what they missed, so that a server that dies in between keeps nobody waiting for long.
 */
const GATHER_MS = 30;

const jobs = new Map<string, number>();
const heads = new Set<string>();
let shelf = -1;
let timer: NodeJS.Timeout | undefined;

async function tell(): Promise<void> {
  timer = undefined;
  const said = [...[...jobs].map(([job, revision]) => JSON.stringify({ job, revision })), ...[...heads].map((head) => JSON.stringify({ head }))];
  jobs.clear();
  heads.clear();
  const em = await entityManager();
  // The shelf counts its own changes, by whatever they come.
  const [row] = await em.execute<{ now: number }[]>(`select "shelf_revision" as "now" from "shop" where "id" = 1`);
  if (row && row.now !== shelf) said.push(JSON.stringify({ shelf: row.now }));
  shelf = row?.now ?? shelf;
  if (said.length > 0) await em.execute(`select pg_notify('imbra', t) from jsonb_array_elements_text(?::jsonb) t`, [JSON.stringify(said)]);
}

function soon(): void {
  // Whoever does not hear of it looks for it: a fault here stops nobody.
  timer ??= setTimeout(() => void tell().catch(() => undefined), GATHER_MS);
  timer.unref();
}

/** A job is at this revision once the transaction is stored. */
export const tellJob = (tx: EntityManager, job: string, revision: number): void =>
  afterCommit(tx, () => {
    jobs.set(job, Math.max(revision, jobs.get(job) ?? 0));
    soon();
  });

/** What lists show of a job is another. */
export function tellHead(job: string): void {
  heads.add(job);
  soon();
}

/** Something of the shop was changed: perhaps the shelf. */
export const tellShop = (): void => soon();

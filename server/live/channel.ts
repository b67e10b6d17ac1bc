import { LRUCache } from "lru-cache";
import pg from "pg";

/** What changed, in few words: whoever looks on asks for the rest. */
export type News =
  | { job: string; revision: number }
  | { head: string }
  | { shelf: number }
  | { run: string; job: string }
  /** News may have been missed: ask for everything. */
  | { again: true };

type Hear = (news: News) => void;

const FIRST_TRY_MS = 250;
const LAST_TRY_MS = 5000;
/** The connection is asked so often whether it is one still; no answer for so long is none. */
const ASK_MS = 5000;
const PATIENCE_MS = 4000;
/** As long as a transaction may last, and what it wrote be found again. */
const TOLD_MS = 60_000;

interface Channel {
  hearers: Set<Hear>;
  client?: pg.Client | undefined;
  /** The database tells this process what changes. */
  hears: boolean;
  tries: number;
  /** What was heard of late: it is not missed. */
  told: LRUCache<string, true>;
  /** Called once the database tells. */
  waiting: Set<() => void>;
  /** Called when the process ends, so that open streams do not hold it. */
  endings: Set<() => void>;
}
const holder = globalThis as typeof globalThis & { imbraChannel?: Channel };

function channel(): Channel {
  if (!holder.imbraChannel) {
    const made: Channel = {
      hearers: new Set(),
      tries: 0,
      told: new LRUCache({ max: 5000, ttl: TOLD_MS }),
      hears: false,
      waiting: new Set(),
      endings: new Set(),
    };
    holder.imbraChannel = made;
    const end = () => {
      for (const ending of [...made.endings]) ending();
    };
    process.once("SIGTERM", end);
    process.once("SIGINT", end);
  }
  return holder.imbraChannel;
}

const parsed = (payload: string | undefined): News | undefined => {
  try {
    return JSON.parse(payload ?? "") as News;
  } catch {
    return undefined;
  }
};

const hearAll = (c: Channel, news: News): void => {
  for (const hear of [...c.hearers]) hear(news);
};

/** More than this was written: everybody asks for everything. */
const MOST_MISSED = 300;

/** What was written since a mark as it would have been told, and the mark from which to look the next time. */
async function missedSince(client: pg.Client, mark: string): Promise<{ mark: string; news: News[] }> {
  const since = `xmin::text::bigint >= ($1::bigint & 4294967295)`;
  const asked = await client.query<{ mark: string; job: string | null; revision: number | null; head: string | null; shelf: number | null }>(
    `with "now" as (select pg_snapshot_xmin(pg_current_snapshot())::text as "mark")
     select "mark", null as "job", null::int as "revision", null as "head", null::int as "shelf" from "now"
     ${
       mark === ""
         ? ""
         : `union all (select null, "number", "revision", null, null from "job" where ${since} limit ${MOST_MISSED})
            union all (select null, null, null, j."number", null from "job_head" h join "job" j on j."id" = h."job_id" where h.${since} limit ${MOST_MISSED})
            union all (select null, null, null, null, "shelf_revision" from "shop" where ${since})`
     }`,
    mark === "" ? [] : [mark],
  );
  const [first, ...rows] = asked.rows;
  const news = rows.map(
    (r): News => (r.job !== null ? { job: r.job, revision: r.revision ?? 0 } : r.head !== null ? { head: r.head } : { shelf: r.shelf ?? 0 }),
  );
  return { mark: first?.mark ?? mark, news: news.length >= MOST_MISSED ? [{ again: true }] : news };
}

/** One connection a process listens; lost, it is made again, and everybody is told that news may have been missed. */
async function connect(c: Channel): Promise<void> {
  const client = new pg.Client({ connectionString: process.env.DATABASE_URL, keepAlive: true, application_name: "imbra news" });
  c.client = client;
  let lost = false;
  const again = () => {
    if (lost) return;
    lost = true;
    clearInterval(asking);
    if (c.client === client) {
      c.client = undefined;
      c.hears = false;
    }
    client.end().catch(() => undefined);
    if (c.hearers.size === 0) return;
    const wait = Math.min(LAST_TRY_MS, FIRST_TRY_MS * 2 ** c.tries++);
    setTimeout(() => {
      if (!c.client && c.hearers.size > 0) void connect(c);
    }, wait).unref();
  };
  /** What was written since this transaction is looked for: news are told after a commit, and who tells them may die in between. */
  let mark = "";
  const asking = setInterval(() => {
    if (!c.hears || c.client !== client) return;
    const late = setTimeout(again, PATIENCE_MS);
    missedSince(client, mark).then(
      (missed) => {
        clearTimeout(late);
        mark = missed.mark;
        for (const news of missed.news) if (!c.told.has(JSON.stringify(news))) hearAll(c, news);
      },
      () => {
        clearTimeout(late);
        again();
      },
    );
  }, ASK_MS).unref();
  client.on("error", again);
  client.on("end", again);
  client.on("notification", (m) => {
    const news = parsed(m.payload);
    if (!news) return;
    c.told.set(JSON.stringify(news), true);
    hearAll(c, news);
  });
  try {
    await client.connect();
    await client.query("listen imbra");
    ({ mark } = await missedSince(client, ""));
    const missed = c.tries > 0;
    c.tries = 0;
    c.hears = true;
    for (const go of c.waiting) go();
    c.waiting.clear();
    if (missed) for (const hear of [...c.hearers]) hear({ again: true });
  } catch {
    again();
  }
}

/** Hears of every change, of this process or another, until the function it gives is called. */
export function listen(hear: Hear): () => void {
  const c = channel();
  c.hearers.add(hear);
  if (!c.client) void connect(c);
  return () => {
    c.hearers.delete(hear);
  };
}

/** Would this process hear of a change now? While it does not, nobody may believe that nothing changes. */
export const hears = (): boolean => channel().hears;

/** Resolves once this process hears: what is asked of the database after that and what is heard leave nothing out. */
export const hearing = (): Promise<void> =>
  new Promise((resolve) => {
    const c = channel();
    if (c.hears) resolve();
    else c.waiting.add(resolve);
  });

/** Calls `end` when this process is asked to stop; the function it gives takes that back. */
export function whenEnding(end: () => void): () => void {
  const c = channel();
  c.endings.add(end);
  return () => {
    c.endings.delete(end);
  };
}

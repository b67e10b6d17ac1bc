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

interface Channel {
  hearers: Set<Hear>;
  client?: pg.Client | undefined;
  /** The database tells this process what changes. */
  hears: boolean;
  tries: number;
  /** Called once the database tells. */
  waiting: Set<() => void>;
  /** Called when the process ends, so that open streams do not hold it. */
  endings: Set<() => void>;
}
const holder = globalThis as typeof globalThis & { imbraChannel?: Channel };

function channel(): Channel {
  if (!holder.imbraChannel) {
    const made: Channel = { hearers: new Set(), tries: 0, hears: false, waiting: new Set(), endings: new Set() };
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
  const asking = setInterval(() => {
    if (!c.hears || c.client !== client) return;
    const late = setTimeout(again, PATIENCE_MS);
    client.query("select 1").then(
      () => clearTimeout(late),
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
    if (news) for (const hear of [...c.hearers]) hear(news);
  });
  try {
    await client.connect();
    await client.query("listen imbra");
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

import { type ChildProcess, spawnSync } from "node:child_process";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import pg from "pg";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type Entry, splitOf } from "../../features/device/entries";
import { asSent, type Store, sendAll } from "../../features/device/send-all";
import type { Result } from "../../server/kernel/result";
import { TRIAL } from "../cases";
import { TEMPLATES } from "../fixtures/own-database";
import { freePort, killed, secondServer } from "../fixtures/second-server";
import { signedIn } from "../fixtures/signed-in";

// A server and a database of its own, all of which this file may kill; in the trial on a disk that takes 20 ms to write.
const folder = mkdtempSync(join(tmpdir(), "imbra-lost-"));
spawnSync("chmod", ["755", folder]);
const script = join(folder, "cluster.mjs");
writeFileSync(
  script,
  `import { startCluster } from ${JSON.stringify(join(process.cwd(), "scripts/cluster.mjs"))};
const c = await startCluster(${JSON.stringify(folder)}, { name: "pg-lost", port: 54700, commitDelayMs: ${TRIAL ? 20 : 0} });
if (process.argv.includes("stop")) c.stop();
console.log("URL " + c.url);
process.exit(0);`,
);
const cluster = (what: "start" | "stop") => {
  const r = spawnSync(process.execPath, [script, what], { encoding: "utf8", timeout: 90_000 });
  const url = /URL (\S+)/.exec(r.stdout)?.[1];
  if (!url) throw new Error(`the cluster did not ${what}: ${r.stdout} ${r.stderr}`);
  return url;
};

let url = "";
let port = 0;
let server: ChildProcess | undefined;

const startServer = async () => {
  server = await secondServer(port, { DATABASE_URL: url });
};

beforeAll(async () => {
  url = cluster("start");
  const from = Object.assign(new URL(process.env.IMBRA_TEST_CLUSTER ?? ""), { pathname: `/${TEMPLATES.today}` });
  const copied = spawnSync("bash", ["-c", 'set -o pipefail; pg_dump --no-owner "$0" | psql -q -v ON_ERROR_STOP=1 "$1"', from.href, url], {
    encoding: "utf8",
  });
  if (copied.status !== 0) throw new Error(copied.stderr);
  port = await freePort();
  await startServer();
}, 180_000);
afterAll(async () => {
  await killed(server);
  cluster("stop");
  rmSync(folder, { recursive: true, force: true });
}, 90_000);

const BENCHES = TRIAL ? 10 : 4;
const EACH = TRIAL ? 50 : 40;
const JOBS = ["FS-1041", "FS-1042", "FS-1043", "FS-1044", "FS-1045"];

/** A tablet: what it keeps survives a reload, its clock may be wrong, its sign-in may be lost. */
class Tablet {
  list: Entry[] = [];
  cookie = "";
  made = new Map<string, number>();
  constructor(
    readonly n: number,
    readonly clockWrongMs: number,
    readonly person: string,
  ) {}

  readonly store: Store = {
    all: async () => this.list,
    took: async (id, revision) => {
      this.list = this.list.map((e) => (e.id === id ? { ...e, sent: { revision, atMs: 0 } } : e));
    },
    split: async (id) => {
      this.list = this.list.flatMap((e) => (e.id === id ? splitOf(e) : [e]));
    },
    setAside: async (id, aside) => {
      this.list = this.list.map((e) => (e.id === id && aside ? { ...e, aside } : e));
    },
  };

  press(i: number): void {
    const key = `bench-${this.n}-${i}`;
    this.made.set(key, Date.now());
    const text = `bench ${this.n}, entry ${i}`;
    const number = JOBS[this.n % JOBS.length] ?? "";
    const skip = (step: string) => ({ said: { kind: "note" as const, number, step, text, as: "skip" as const }, words: text });
    this.list.push({
      id: i,
      key,
      // Every fifth says two things at once.
      said: i % 5 === 0 ? { kind: "card", number, items: [skip("standoffs"), skip("shield")] } : { ...skip("standoffs").said, as: "note" },
      by: { id: this.person, name: "" },
      madeAtMs: Date.now() + this.clockWrongMs,
      words: text,
    });
  }

  async signIn(): Promise<void> {
    const client = new pg.Client({ connectionString: url });
    await client.connect();
    // Its cookies are lost: the device is another one to the server, and the same person says who they are.
    this.cookie = await signedIn(client, this.person).finally(() => client.end());
  }

  async send(): Promise<void> {
    const out = await sendAll(this.store, async (e): Promise<Result> => {
      const r = await fetch(`http://127.0.0.1:${port}/entries`, {
        method: "POST",
        headers: { "Content-Type": "application/json", cookie: this.cookie },
        body: JSON.stringify(asSent(e, Date.now() + this.clockWrongMs)),
        signal: AbortSignal.timeout(10_000),
      });
      if (!r.ok) throw new Error(String(r.status));
      return (await r.json()) as Result;
    });
    if (out.stopped === "who") await this.signIn().catch(() => undefined);
  }

  /** What storage gives back after a reload. */
  reload(): void {
    this.list = JSON.parse(JSON.stringify(this.list)) as Entry[];
  }
}

describe(`${BENCHES * (EACH + 1)} entries of ${BENCHES} benches`, () => {
  it("through a killed server, a database that was away, a reload, a lost sign-in and a wrong clock: each is there once, in its bench's order", async () => {
    const client = new pg.Client({ connectionString: url });
    await client.connect();
    const people = (await client.query<{ id: string }>("select id from person where role <> 'reader' order by name")).rows.map((r) => r.id);
    await client.end();
    const tablets = Array.from(
      { length: BENCHES },
      (_, n) => new Tablet(n, n === 3 ? 3_600_000 : n === 4 ? -3_600_000 : 0, people[n % people.length] ?? ""),
    );
    let over = false;
    const sending = tablets.map(async (t) => {
      while (!over || t.list.some((e) => !e.sent && !e.aside)) {
        await t.send();
        await new Promise((resolve) => setTimeout(resolve, 40));
      }
    });
    for (let i = 0; i < EACH; i++) {
      for (const t of tablets) t.press(i);
      if (i === 10) {
        await killed(server);
        await startServer();
      }
      if (i === 20) {
        cluster("stop");
        for (const t of tablets) t.press(1000 + i);
        await new Promise((resolve) => setTimeout(resolve, 1500));
        cluster("start");
      }
      if (i === 30) for (const t of tablets) t.reload();
      if (i === 35) for (const t of tablets) t.cookie = "";
      await new Promise((resolve) => setTimeout(resolve, 60));
    }
    over = true;
    await Promise.all(sending);
    expect(tablets.flatMap((t) => t.list.filter((e) => e.aside))).toEqual([]);
    const after = new pg.Client({ connectionString: url });
    await after.connect();
    const rows = (
      await after.query<{ key: string; happened: Date; by: string }>(
        `select entry_key as key, happened_at as happened, by_id as by from log_entry where entry_key like 'bench-%' order by id`,
      )
    ).rows;
    await after.end();
    for (const t of tablets) {
      const mine = rows.filter((r) => r.key.startsWith(`bench-${t.n}-`));
      expect(mine.map((r) => r.key)).toEqual([...t.made.keys()]);
      expect(new Set(mine.map((r) => r.by))).toEqual(new Set([t.person]));
      // A busy machine takes its time between reading a clock and being asked; a wrong clock is an hour off.
      for (const r of mine) expect(Math.abs(new Date(r.happened).getTime() - (t.made.get(r.key) ?? 0))).toBeLessThan(1_200_000);
    }
    expect(rows.length).toBe(BENCHES * (EACH + 1));
  }, 240_000);
});

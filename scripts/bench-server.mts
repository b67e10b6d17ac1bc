import type { ChildProcess } from "node:child_process";
import { Agent, request } from "node:http";
import { MikroORM } from "@mikro-orm/postgresql";
import pg from "pg";
import { type EntityManager, ormConfig } from "../db";
import { viewAtOnce } from "../server/views/heads";
import { keptView } from "../server/views/kept";
import { signedIn } from "../tests/fixtures/signed-in";
import { startServer } from "./processes.mjs";

// The server under the load of a shop: ratios within one run, since the machines are noisy.

const base = process.env.IMBRA_URL ?? "";
const url = process.env.DATABASE_URL ?? "";
const pool = new pg.Pool({ connectionString: url, max: 10 });
const sql = (text: string, values: unknown[] = []) => pool.query(text, values);
const person = (await sql("select id from person where role = 'technician' order by name limit 1")).rows[0].id as string;
const cookie = await signedIn(pool, person);
const at = (list: readonly number[], share: number) =>
  [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(list.length * share))] ?? 0;
const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
const ms = (n: number) => `${n.toFixed(1)} ms`;

async function page(path: string, from = base): Promise<number> {
  const t = performance.now();
  const r = await fetch(`${from}${path}`, { headers: { cookie } });
  await r.text();
  return performance.now() - t;
}
/** Medians of several pages asked turn about, the first rounds only to warm up. */
async function pages(paths: readonly string[], rounds = 40): Promise<number[]> {
  const times: number[][] = paths.map(() => []);
  for (let i = 0; i < rounds + 10; i++)
    for (const [n, p] of paths.entries())
      if (i >= 10) times[n]?.push(await page(p));
      else await page(p);
  return times.map((t) => at(t, 0.5));
}

/** Jobs as copies of one that was handed over, with its head. */
async function jobs(wanted: number): Promise<void> {
  const have = Number((await sql("select count(*) from job")).rows[0].count);
  const from = Number((await sql("select coalesce(max(substring(number from '^FS-([0-9]+)$')::int), 0) as n from job")).rows[0].n);
  const more = wanted - have;
  if (more <= 0) return;
  await sql(
    `with made as (insert into job (number, client, title, purpose, stage, technician_id, due_on, policy, settings, wishes, aside, parts_revision, revision, version, created_at)
       select 'FS-' || ($1::int + n), j.client, j.title, j.purpose, case when n % 250 = 0 then 'planning' else 'handed-over' end, j.technician_id, current_date + (n % 30), j.policy, j.settings, j.wishes, j.aside, 1, 1, 1, now() - make_interval(mins => n)
       from job j, generate_series(1, $2::int) n where j.number = 'FS-1046' returning id)
     insert into job_head select id, 1, 'Handed over', 0, 0, 30, 30, 0, 28, 28 from made`,
    [from, more],
  );
  await sql("analyze");
}

await jobs(100);
const [benches100 = 0, empty100 = 0] = await pages(["/", "/no-such-page"]);
await jobs(10_000);
const [benches10000 = 0, empty = 0, list = 0, found = 0] = await pages(["/", "/no-such-page", "/jobs", "/jobs?q=fs-104&page=1"]);
console.log(
  `Benches, median of 40, warm: 100 jobs ${ms(benches100)} (${(benches100 / empty100).toFixed(1)} times a page without content), 10,000 jobs ${ms(benches10000)} (${(benches10000 / empty).toFixed(1)} times): ${(benches10000 / benches100).toFixed(2)} times as long; all jobs ${ms(list)}, narrowed by words ${ms(found)}`,
);

const orm = await MikroORM.init(ormConfig(url));
const em = () => orm.em.fork() as EntityManager;
for (const job of ["FS-1041", "FS-1043", "FS-1045"]) {
  const kept: number[] = [];
  const anew: number[] = [];
  for (let i = 0; i < 30; i++) {
    let t = performance.now();
    await viewAtOnce(em(), job);
    if (i >= 5) anew.push(performance.now() - t);
    t = performance.now();
    await keptView(em(), job);
    if (i >= 5) kept.push(performance.now() - t);
  }
  console.log(
    `${job}'s view, median of 25: derived anew ${ms(at(anew, 0.5))}, kept ${ms(at(kept, 0.5))}: ${(at(anew, 0.5) / at(kept, 0.5)).toFixed(1)} times quicker`,
  );
}
await orm.close();

const BENCHES = 50;
const SECONDS = 60;
const WARM_SECONDS = 15;
const targets = (await sql(`select number from job where stage <> 'handed-over' order by created_at desc limit ${BENCHES}`)).rows.map(
  (r) => r.number as string,
);
const [job] = (await sql("select id from job where number = 'FS-1042'")).rows;
/** Each bench sends one entry a second; a bare insert of the same row at the same pace beside it. */
async function paced(work: (n: number, i: number) => Promise<unknown>, seconds = SECONDS): Promise<number[]> {
  const times: number[] = [];
  await Promise.all(
    Array.from({ length: BENCHES }, async (_, n) => {
      await wait((n * 1000) / BENCHES);
      for (let i = 0; i < seconds; i++) {
        const t = performance.now();
        await work(n, i);
        const took = performance.now() - t;
        times.push(took);
        await wait(Math.max(0, 1000 - took));
      }
    }),
  );
  return times;
}
const key = Date.now().toString(36);
const agent = new Agent({ keepAlive: true });
/** Sent by node's own client, which costs this process little more than the driver does: the server is measured, not the sender. */
const send = (body: unknown): Promise<{ ok: boolean; sentence?: string }> =>
  new Promise((resolve, reject) => {
    const text = JSON.stringify(body);
    const headers = { cookie, "Content-Type": "application/json", "Content-Length": Buffer.byteLength(text) };
    const r = request(`${base}/entries`, { agent, method: "POST", headers }, (answer) => {
      let said = "";
      answer.setEncoding("utf8");
      answer.on("data", (part: string) => (said += part));
      answer.on("end", () => resolve(JSON.parse(said)));
    });
    // A kept connection that the server has just closed: sent again, as browsers do. An entry sent twice is kept once.
    r.on("error", (e: NodeJS.ErrnoException) => (r.reusedSocket && e.code === "ECONNRESET" ? send(body).then(resolve, reject) : reject(e)));
    r.end(text);
  });
const entered = (made: string) => async (n: number, i: number) => {
  const said = await send({
    action: "bench.note",
    input: { number: targets[n % targets.length], text: `bench ${n}, entry ${i}`, kind: "note" },
    entry: { key: `${made}-${n}-${i}` },
  });
  if (!said.ok) throw new Error(said.sentence);
};
/** A plug in, and out again: of the seven open jobs of the demo, so that seven benches are at each of them. */
const links = (
  await sql(
    `select j.number, c.lead, c.port, c.place from connection c join job j on j.id = c.job_id where j.stage <> 'handed-over' and j.stage <> 'waiting' order by c.port desc, c.lead`,
  )
).rows as { number: string; lead: string; port: string; place: number[] | null }[];
const byJob = [...new Set(links.map((l) => l.number))].map((number) => links.filter((l) => l.number === number));
const plugged = (made: string) => async (n: number, i: number) => {
  const list = byJob[n % byJob.length] ?? [];
  const l = list[Math.floor(n / byJob.length) % list.length];
  if (!l) throw new Error("nothing is planned");
  const input = { number: l.number, lead: l.lead, port: l.port, ...(l.place ? { place: l.place } : {}), state: i % 2 ? "plugged" : "planned" };
  const said = await send({ action: "bench.plug", input, entry: { key: `${made}-${n}-${i}` } });
  if (!said.ok) throw new Error(said.sentence);
};
/** A step ticked, and undone again, at the same seven jobs: builds that differ, so that nothing known of one helps with another. */
const ticked = (made: string) => async (n: number, i: number) => {
  const number = byJob[n % byJob.length]?.[0]?.number;
  const said = await send({
    action: "bench.step",
    input: { number, step: "standoffs", done: i % 2 === 0 },
    entry: { key: `${made}-${n}-${i}` },
  });
  if (!said.ok) throw new Error(said.sentence);
};
// A server that has just started takes the first entries slowly: that is told apart.
const first = await paced(entered(`first-${key}`), WARM_SECONDS);
const sent = await paced(entered(key));
const bare = await paced((n, i) =>
  sql(`insert into log_entry (job_id, by_id, kind, data, entry_key) values ($1, $2, 'note', $3, $4)`, [
    job.id,
    person,
    { text: `bare ${n}, ${i}` },
    `bare-${key}-${n}-${i}`,
  ]),
);
const plugs = await paced(plugged(`plug-${key}`), 20);
const ticks = await paced(ticked(`tick-${key}`), 20);
const there = Number((await sql("select count(*) from log_entry where entry_key like $1", [`${key}-%`])).rows[0].count);
console.log(
  `${BENCHES} benches, an entry a second each: in the first ${WARM_SECONDS} s of the server p95 ${ms(at(first, 0.95))}; then for ${SECONDS} s p50 ${ms(at(sent, 0.5))}, p95 ${ms(at(sent, 0.95))}; a bare insert of the same row at the same pace p50 ${ms(at(bare, 0.5))}, p95 ${ms(at(bare, 0.95))}: p95 ${(at(sent, 0.95) / at(bare, 0.95)).toFixed(1)} times; ${there} of ${BENCHES * SECONDS} kept`,
);

console.log(
  `The same with plugs for 20 s: p50 ${ms(at(plugs, 0.5))}, p95 ${ms(at(plugs, 0.95))}; with ticks of steps p50 ${ms(at(ticks, 0.5))}, p95 ${ms(at(ticks, 0.95))}`,
);
agent.destroy();

// Pages while ten plans are made, against pages while nothing is.
async function visits(seconds: number): Promise<number[]> {
  const times: number[] = [];
  const until = performance.now() + seconds * 1000;
  for (let i = 0; performance.now() < until; i++) times.push(await page(["/", "/job/FS-1042/parts", "/job/FS-1044/order", "/shelf"][i % 4] ?? "/"));
  return times;
}
await visits(3);
const idle = await visits(10);
const open = (await sql("select number from job where number in ('FS-1041','FS-1042','FS-1043','FS-1044','FS-1045','FS-1047','FS-1048')")).rows.map(
  (r) => r.number as string,
);
const planning = [...open, ...open]
  .slice(0, 10)
  .map((n) => fetch(`${base}/files/job/${n}/plan`, { method: "POST", headers: { cookie } }).then((r) => r.text()));
const busy = await visits(10);
await Promise.all(planning);
console.log(
  `Pages, p95: idle ${ms(at(idle, 0.95))} (${idle.length} pages), while ten plans were asked for ${ms(at(busy, 0.95))} (${busy.length}): ${(at(busy, 0.95) / at(idle, 0.95)).toFixed(1)} times`,
);

// A change on one server, heard on another.
const port = Number(new URL(base).port) + 1;
const { child: second, ready }: { child: ChildProcess; ready: Promise<boolean> } = startServer(process.cwd(), process.env, {
  host: "127.0.0.1",
  port,
});
if (!(await ready)) throw new Error("the second server did not start");
const other = `http://127.0.0.1:${port}`;
await page("/job/FS-1042/order", other);
const news = await fetch(`${other}/live?job=FS-1042`, { headers: { cookie } });
if (!news.ok) throw new Error(`the stream answered ${news.status}`);
const reader = news.body?.pipeThrough(new TextDecoderStream()).getReader();
// It beats once it hears.
while (!(await reader?.read())?.value?.includes("beat"));
const heard: number[] = [];
const shown: number[] = [];
for (let i = 0; i < 25; i++) {
  const t = performance.now();
  await fetch(`${base}/entries`, {
    method: "POST",
    headers: { cookie, "Content-Type": "application/json" },
    body: JSON.stringify({
      action: "bench.note",
      input: { number: "FS-1042", text: `heard ${i}`, kind: "note" },
      entry: { key: `${key}-heard-${i}` },
    }),
  });
  for (;;) {
    const { value, done } = (await reader?.read()) ?? { done: true };
    if (done) throw new Error("the stream ended");
    if (value?.includes('"revision"')) break;
  }
  heard.push(performance.now() - t);
  await page("/job/FS-1042/order", other);
  shown.push(performance.now() - t);
}
await reader?.cancel();
console.log(
  `A change on one server: heard on another after ${ms(at(heard, 0.5))} (p95 ${ms(at(heard, 0.95))}), its page there with it after ${ms(at(shown, 0.5))} (p95 ${ms(at(shown, 0.95))})`,
);
second.kill("SIGTERM");
await pool.end();

import { Agent, request } from "node:http";
import pg from "pg";
import { signedIn } from "../tests/fixtures/signed-in";

// Entries of fifty benches as they come in, answered beside the framework (scripts/server.mjs) and by its route handler, turn about.

const base = new URL(process.env.IMBRA_URL ?? "");
const pool = new pg.Pool({ connectionString: process.env.DATABASE_URL, max: 4 });
const BENCHES = 50;
const SECONDS = 20;
const at = (list: readonly number[], share: number) =>
  [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(list.length * share))] ?? 0;
const wait = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

const people = (await pool.query<{ id: string }>("select id from person where role <> 'reader' order by name")).rows.map((r) => r.id);
const jobs = (
  await pool.query<{ number: string }>("select number from job where stage not in ('handed-over', 'cancelled', 'waiting') order by number")
).rows.map((r) => r.number);
const cookies = await Promise.all(Array.from({ length: BENCHES }, (_, i) => signedIn(pool, people[i % people.length] ?? "")));
const agent = new Agent({ keepAlive: true, maxSockets: 200 });

function send(path: string, cookie: string, body: unknown): Promise<number> {
  const text = JSON.stringify(body);
  const began = performance.now();
  return new Promise((resolve, reject) => {
    const r = request(
      {
        agent,
        host: base.hostname,
        port: base.port,
        path,
        method: "POST",
        headers: { cookie, "Content-Type": "application/json", "Content-Length": Buffer.byteLength(text) },
      },
      (a) => {
        let said = "";
        a.on("data", (d) => (said += d));
        a.on("end", () => (said.includes('"ok":true') ? resolve(performance.now() - began) : reject(new Error(said.slice(0, 300)))));
      },
    );
    r.on("error", reject);
    r.end(text);
  });
}
let n = 0;
const stepOf = new Map<string, boolean>();
const KINDS = {
  note: (number: string, i: number) => ({ action: "bench.note", input: { number, text: `bench ${i} says ${n}`, kind: "note" } }),
  tick: (number: string, i: number) => {
    const done = !(stepOf.get(`${number} ${i}`) ?? false);
    stepOf.set(`${number} ${i}`, done);
    return { action: "bench.step", input: { number, step: "standoffs", done } };
  },
};
async function paced(path: string, kind: keyof typeof KINDS, seconds: number): Promise<number[]> {
  const times: number[] = [];
  await Promise.all(
    cookies.map(async (cookie, i) => {
      const number = jobs[i % jobs.length] ?? "";
      await wait((i / BENCHES) * 1000);
      for (let s = 0; s < seconds; s++) {
        const began = performance.now();
        times.push(await send(path, cookie, { ...KINDS[kind](number, i), entry: { key: `b-${++n}-${Date.now()}` } }));
        await wait(Math.max(0, 1000 - (performance.now() - began)));
      }
    }),
  );
  return times;
}
const PATHS = { "beside the framework": "/entries", "by a route handler": "/entries?framework" };
for (const kind of ["tick", "note"] as const) {
  for (const path of Object.values(PATHS)) await paced(path, kind, 10);
  const all: Record<string, number[]> = {};
  for (let round = 0; round < 2; round++)
    for (const [name, path] of Object.entries(PATHS)) all[name] = [...(all[name] ?? []), ...(await paced(path, kind, SECONDS / 2))];
  for (const [name, times] of Object.entries(all))
    console.log(
      `${BENCHES} benches, a ${kind} each second, ${name}: p50 ${at(times, 0.5).toFixed(1)} ms, p95 ${at(times, 0.95).toFixed(1)} ms, of ${times.length}`,
    );
}
await pool.end();
agent.destroy();

import { createServer, request, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { afterAll, beforeAll, describe, expect, it, vi } from "vitest";
import { LogEntry } from "../../db";
import { answerEntry, bringsEntry } from "../../server/entries/answer-entry";
import { planJob } from "../../server/plan/plan-job";
import { signedIn } from "../fixtures/signed-in";
import { jobOf, make, testDatabase } from "./setup";

const NUMBER = "FS-1041";
const db = testDatabase(async (d) => {
  const r = await planJob(d.em(), NUMBER, await d.by(), make);
  if (!r.ok) throw new Error(r.sentence);
});

// Entries as a bench sends them, over HTTP, to what answers them beside the framework.

let server: Server;
let port: number;
beforeAll(async () => {
  vi.stubEnv("IMBRA_SECRET", "a secret of thirty-two characters");
  server = createServer((req, res) => {
    if (bringsEntry(req)) void answerEntry(req, res);
    else res.writeHead(404).end();
  });
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  port = (server.address() as AddressInfo).port;
});
afterAll(() => {
  vi.unstubAllEnvs();
  server.close();
});

interface Said {
  status: number;
  text: string;
  ok?: boolean;
  sentence?: string;
  later?: string;
  revision?: number;
}
const post = (body: string, headers: Record<string, string> = {}, path = "/entries"): Promise<Said> =>
  new Promise((resolve, reject) => {
    const r = request(
      { host: "127.0.0.1", port, path, method: "POST", headers: { "Content-Length": Buffer.byteLength(body), ...headers } },
      (answer) => {
        let text = "";
        answer.setEncoding("utf8");
        answer.on("data", (d: string) => (text += d));
        answer.on("end", () => resolve({ status: answer.statusCode ?? 0, text, ...(text.startsWith("{") ? JSON.parse(text) : {}) }));
      },
    );
    r.on("error", reject);
    r.end(body);
  });

const asking = { query: (sql: string, values: unknown[]) => db.em().execute(sql.replace(/\$\d+/g, "?"), values) };
const comeIn = async () => signedIn(asking, (await db.by()).id);
let n = 0;
const note = (cookie: string, text = "a note", key = `entry-${++n}`) =>
  post(JSON.stringify({ action: "bench.note", input: { number: NUMBER, text, kind: "note" }, entry: { key } }), { cookie });
const logged = async () => db.em().count(LogEntry, { job: (await jobOf(db.em(), NUMBER)).id });
const revision = async () => (await jobOf(db.em(), NUMBER)).revision;
const head = async () => {
  const [row] = await db
    .em()
    .execute<{ revision: number }[]>(`select h."revision" from "job_head" h join "job" j on j."id" = h."job_id" where j."number" = ?`, [NUMBER]);
  return row?.revision;
};

describe("an entry beside the framework", () => {
  it("is judged like every other request: by the name it asks for, where it comes from, how long it is and what it is", async () => {
    const before = await logged();
    const cookie = await comeIn();
    const good = JSON.stringify({ action: "bench.note", input: { number: NUMBER, text: "x", kind: "note" }, entry: { key: "judged" } });
    expect((await post(good, { cookie, host: "elsewhere.example" })).status).toBe(421);
    expect((await post(good, { cookie, origin: "http://elsewhere.example" })).status).toBe(403);
    expect((await post(good, { cookie, "sec-fetch-site": "cross-site" })).status).toBe(403);
    expect((await post("x".repeat(70_000), { cookie })).status).toBe(413);
    for (const bad of ["", "no JSON", "[]", '{"action":"job.cancel","input":{},"entry":{"key":"k"}}', '{"action":"__proto__","input":{},"entry":{}}'])
      expect([bad, (await post(bad, { cookie })).status]).toEqual([bad, 400]);
    expect(await post(good)).toMatchObject({ status: 200, ok: false, later: "who" });
    expect(await post(good, { cookie: "imbra=made-up" })).toMatchObject({ status: 200, ok: false, later: "who" });
    expect((await post(good, { cookie }, "/elsewhere")).status).toBe(404);
    expect(await logged()).toBe(before);
  });

  it("is kept once, however often it is sent, one after the other or at once, and raises the revision once", async () => {
    const cookie = await comeIn();
    const before = [await logged(), await revision()] as const;
    const first = await note(cookie, "sent often", "often");
    expect(first).toMatchObject({ ok: true, revision: before[1] + 1 });
    expect(await note(cookie, "sent often", "often")).toMatchObject({ ok: true, revision: before[1] + 1 });
    const many = await Promise.all(Array.from({ length: 8 }, () => note(cookie, "sent at once", "at-once")));
    expect(many.map((m) => m.ok)).toEqual(many.map(() => true));
    expect([await logged(), await revision()]).toEqual([before[0] + 2, before[1] + 2]);
  });

  it("loses none of many that tell something of one job at the same time, and none waits for the head to be derived anew", async () => {
    const cookie = await comeIn();
    await db.em().execute(`update "job_head" h set "revision" = j."revision" from "job" j where j."id" = h."job_id"`);
    const before = [await logged(), await revision()] as const;
    const said = await Promise.all(Array.from({ length: 24 }, (_, i) => note(cookie, `all at once ${i}`)));
    expect(said.map((s) => s.sentence ?? "kept")).toEqual(said.map(() => "kept"));
    expect(new Set(said.map((s) => s.revision)).size).toBe(24);
    expect([await logged(), await revision(), await head()]).toEqual([before[0] + 24, before[1] + 24, before[1] + 24]);
  });

  it("is refused at once when the sign-in ended, or its person left or may no more, though it was good a moment ago", async () => {
    const change: Record<string, [string, string]> = {
      "the sign-in ended": [`update "session" set "ended_at" = now() where "token_hash" = ?`, ""],
      "somebody left": [`update "person" set "active" = false where "id" = ?`, `update "person" set "active" = true where "id" = ?`],
      "a reader now": [`update "person" set "role" = 'reader' where "id" = ?`, `update "person" set "role" = 'technician' where "id" = ?`],
    };
    for (const [what, [now, after]] of Object.entries(change)) {
      const cookie = await comeIn();
      const me = (await db.by()).id;
      expect([what, (await note(cookie)).ok]).toEqual([what, true]);
      const [session] = await db.em().execute<{ h: string }[]>(`select "token_hash" as h from "session" order by "started_at" desc limit 1`);
      const was = (await db.em().execute<{ role: string }[]>(`select "role" from "person" where "id" = ?`, [me]))[0]?.role;
      await db.em().execute(now, [now.includes("session") ? session?.h : me]);
      const before = await logged();
      for (const action of ["bench.note", "bench.step"]) {
        const input = action === "bench.note" ? { number: NUMBER, text: "late", kind: "note" } : { number: NUMBER, step: "standoffs", done: true };
        const said = await post(JSON.stringify({ action, input, entry: { key: `late-${what}-${action}` } }), { cookie });
        expect([what, action, said.ok]).toEqual([what, action, false]);
      }
      expect([what, await logged()]).toEqual([what, before]);
      if (after) await db.em().execute(after.replace("technician", was ?? ""), [me]);
    }
  });

  it("is locked out with the time that the shop sets now, not a moment ago", async () => {
    const cookie = await comeIn();
    expect((await note(cookie)).ok).toBe(true);
    await db.em().execute(`update "session" set "acted_at" = now() - interval '3 hours'`);
    expect(await note(cookie)).toMatchObject({
      ok: false,
      later: "who",
      sentence: expect.stringContaining("Nobody touched this bench for 15 minutes"),
    });
    await db.em().execute(`update "shop" set "bench_lock_minutes" = 0`);
    expect((await note(cookie)).ok).toBe(true);
    await db.em().execute(`update "shop" set "bench_lock_minutes" = 15`);
  });
});

import { randomBytes } from "node:crypto";
import { readdirSync, readFileSync } from "node:fs";
import { request } from "node:http";
import { join } from "node:path";
import pg from "pg";
import sharp from "sharp";
import { beforeAll, describe, expect, it } from "vitest";
import type { Question } from "../../server/views/asked";
import { signedIn } from "../fixtures/signed-in";
import { base } from "./seat";

// Every page, every file route and every action that the built application has, asked for by nobody and by each role.

const ROLES = ["nobody", "reader", "technician", "lead"] as const;
type Who = (typeof ROLES)[number];
type Said = "in" | "sign in" | "nothing" | "refused";
const ALL: Record<Who, Said> = { nobody: "sign in", reader: "in", technician: "in", lead: "in" };
const LEADS: Record<Who, Said> = { nobody: "sign in", reader: "nothing", technician: "nothing", lead: "in" };
const ANYBODY: Record<Who, Said> = { nobody: "in", reader: "in", technician: "in", lead: "in" };
const RECORDS: Record<Who, Said> = { nobody: "sign in", reader: "refused", technician: "in", lead: "in" };

/** Pages by their folder under app, without groups. */
const PAGES: Record<string, Record<Who, Said>> = {
  "/": ALL,
  "/jobs": ALL,
  "/intake": ALL,
  "/shelf": ALL,
  "/shelf/import": ALL,
  "/shelf/new": ALL,
  "/shop": ALL,
  "/shelf/[id]": ALL,
  "/job/[number]": ALL,
  "/job/[number]/parts": ALL,
  "/job/[number]/wiring": ALL,
  "/job/[number]/order": ALL,
  "/job/[number]/bench": ALL,
  "/job/[number]/receipt": ALL,
  "/job/[number]/first-boot": ALL,
  "/job/[number]/simulated": ALL,
  "/job/[number]/faults": ALL,
  "/job/[number]/handover": ALL,
  "/job/[number]/paper": ALL,
  // Whoever has an address of a machine; of this there is none.
  "/m/[token]": { nobody: "nothing", reader: "nothing", technician: "nothing", lead: "nothing" },
  "/you": ALL,
  "/people": LEADS,
  "/sign-in": ANYBODY,
  // A shop that has a lead sends on from here.
  "/first": { nobody: "sign in", reader: "sign in", technician: "sign in", lead: "sign in" },
};

/** Routes by method and path. */
const ROUTES: Record<string, Record<Who, Said>> = {
  "GET /files/shelf": ALL,
  "GET /files/job/[number]/[file]": ALL,
  "GET /files/job/[number]/plan": ALL,
  "POST /files/job/[number]/plan": RECORDS,
  "GET /data/benches": ALL,
  "GET /data/job/[number]/[slice]": ALL,
  // Each question is asked below; there is none of this name.
  "POST /data/ask/[question]": { nobody: "nothing", reader: "nothing", technician: "nothing", lead: "nothing" },
  "POST /entries": RECORDS,
  "POST /files/archive": { nobody: "sign in", reader: "refused", technician: "refused", lead: "in" },
  "POST /photos": RECORDS,
  // A machine brings a token, not a sign-in: without one it is told so.
  "POST /machine": { nobody: "sign in", reader: "sign in", technician: "sign in", lead: "sign in" },
  "GET /files/shelf/[id]": ALL,
  "GET /photos/[id]": { nobody: "sign in", reader: "nothing", technician: "nothing", lead: "nothing" },
  "GET /live": ALL,
  "GET /live/ping": ALL,
  "POST /live/turn": ALL,
  // The service worker is code, the same for all.
  "GET /sw/[path]": ANYBODY,
};

const L: Who[] = ["lead"];
const TL: Who[] = ["technician", "lead"];
const RTL: Who[] = ["reader", "technician", "lead"];
/** Anybody may, for themselves; all the same it changes something. */
const LOOKS_AND_CHANGES = ["ownPasswordAction", "endSessionAction"];
/** Actions by the name of their function: who may. Anybody: those of coming in and going out. */
const ACTIONS: Record<string, readonly Who[] | "anybody"> = {
  signInAction: "anybody",
  signOutAction: "anybody",
  firstLeadAction: "anybody",
  takeOverAction: "anybody",
  addPersonAction: L,
  changePersonAction: L,
  newPasswordAction: L,
  benchLockAction: L,
  ownPasswordAction: RTL,
  endSessionAction: RTL,
  ownPinAction: TL,
  plugAction: TL,
  importAction: TL,
  closeFaultAction: TL,
  actOnFaultAction: TL,
  huntSimulatedAction: TL,
  anotherModelAction: TL,
  moveRightAction: TL,
  observeAction: TL,
  settingAction: TL,
  soakAction: TL,
  setUpAction: TL,
  proveAction: TL,
  reportAction: TL,
  lendAction: TL,
  giveBackAction: TL,
  keepSecretAction: TL,
  showSecretAction: TL,
  leaveAloneAction: TL,
  lookedAtAction: TL,
  notDoneAction: TL,
  letMachineInAction: TL,
  shutMachineOutAction: TL,
  keepStreamAction: TL,
  nameColumnAction: TL,
  beginSimulatedAction: TL,
  onSimulatedAction: TL,
  readSimulatedAction: TL,
  endSimulatedAction: TL,
  handOverAction: TL,
  prepareAction: TL,
  clientPageAction: TL,
  comeBackAction: TL,
  reopenAction: TL,
  newJobAction: TL,
  setAsideAction: TL,
  takeBackAction: TL,
  detailsAction: TL,
  parkAction: TL,
  goOnAction: TL,
  cancelAction: L,
  addPartAction: TL,
  removePartAction: TL,
  placePartAction: TL,
  changePartAction: TL,
  wishesAction: TL,
  keepTrialAction: TL,
  receiveAction: TL,
  benchTestAction: TL,
  replacementAction: TL,
  refuseAction: TL,
  confirmAction: TL,
  briefAction: TL,
  buyAction: TL,
  offerAction: TL,
  acceptOfferAction: TL,
  defaultsAction: L,
  tipAction: TL,
  mergeAction: TL,
  soakLogAction: TL,
  tapsAction: TL,
  stillSoAction: TL,
  withdrawTipAction: L,
  factsAction: TL,
  anotherCableAction: TL,
  measurePartAction: TL,
  saveTypeAction: TL,
  stockAction: TL,
  takeFileAction: TL,
  planAction: TL,
  stopPlanAction: TL,
  fixAction: TL,
  leadThroughAction: TL,
  takeConnectionsAction: TL,
  orderMoreAction: TL,
  schoolsAction: TL,
  pullAction: TL,
  letGoAction: TL,
};

/** What a screen may ask and changes nothing, by name: who may. */
const QUESTIONS: Record<Question, readonly Who[]> = {
  "job.find": RTL,
  "job.scanned": RTL,
  "job.read-list": RTL,
  "job.read-mail": RTL,
  "machine.streams": RTL,
  "machine.simulated": RTL,
  "parts.matters": RTL,
  "order.undo": RTL,
  "order.try-pull": RTL,
  "order.compare": RTL,
  "order.now": RTL,
  "parts.alternatives": RTL,
  "parts.try-wiring": RTL,
  "wiring.place-costs": RTL,
  "wiring.plan-changes": RTL,
  "shelf.search": RTL,
  "shelf.judge-file": TL,
};

const filesUnder = (folder: string, name: RegExp): string[] =>
  readdirSync(folder, { withFileTypes: true }).flatMap((f) =>
    f.isDirectory() ? filesUnder(join(folder, f.name), name) : name.test(f.name) ? [join(folder, f.name)] : [],
  );
const addressOf = (file: string) =>
  `/${file
    .split("/")
    .slice(1, -1)
    .filter((p) => !p.startsWith("("))
    .join("/")}`;
const filled = (address: string) =>
  address
    .replace("[number]", "FS-1042")
    .replace("photos/[id]", "photos/00000000-0000-4000-8000-000000000000")
    .replace("[id]", "knotwick-split-2")
    .replace("[slice]", "bench")
    .replace("[question]", "no.such")
    .replace("[file]", "wiring.csv")
    .replace("[path]", "sw.js");

/** Seats that are not simply somebody's. */
type Seat = "left alone" | "lead by PIN";
const cookies = new Map<Who | Seat, string>([["nobody", ""]]);
beforeAll(async () => {
  const client = new pg.Client({ connectionString: process.env.DATABASE_URL ?? "" });
  await client.connect();
  for (const role of ROLES.slice(1)) {
    const [person] = (await client.query<{ id: string }>(`select id from person where role = $1 order by name limit 1`, [role])).rows;
    cookies.set(role, await signedIn(client, person?.id ?? ""));
  }
  // A technician's seat that nobody touched for hours, and one at which somebody else works now, by PIN.
  const [person] = (await client.query<{ id: string }>(`select id from person where role = 'technician' order by name limit 1`)).rows;
  const [lead] = (await client.query<{ id: string }>(`select id from person where role = 'lead' limit 1`)).rows;
  cookies.set("left alone", await signedIn(client, person?.id ?? ""));
  await client.query(
    `update "session" set acted_at = now() - interval '3 hours' where id = (select id from "session" where person_id = $1 order by started_at desc limit 1)`,
    [person?.id],
  );
  cookies.set("lead by PIN", await signedIn(client, lead?.id ?? ""));
  await client.query(
    `update "session" set by_pin = true where id = (select id from "session" where person_id = $1 order by started_at desc limit 1)`,
    [lead?.id],
  );
  await client.end();
});

const ask = (who: Who | Seat, path: string, init: RequestInit = {}) =>
  fetch(`${base()}${path}`, { redirect: "manual", ...init, headers: { cookie: cookies.get(who) ?? "", ...init.headers } });

/** What an answer comes to: a page that is streamed sends away from within. */
async function said(r: Response): Promise<Said> {
  if (r.status === 401) return "sign in";
  if (r.status === 307 || r.status === 303) return (r.headers.get("location") ?? "").includes("/sign-in") ? "sign in" : "in";
  if (r.status === 404) return "nothing";
  const text = r.headers.get("content-type")?.startsWith("text/event-stream") ? "" : await r.text();
  if (/NEXT_REDIRECT;[a-z]+;\/sign-in/.test(text)) return "sign in";
  return /may not do this/.test(text) ? "refused" : r.status < 400 ? "in" : "nothing";
}

describe("the walk", () => {
  it("every page that there is stands in the table, and opens for whom it should", async () => {
    const there = [...new Set(filesUnder("app", /^page\.tsx$/).map(addressOf))].sort();
    expect(Object.keys(PAGES).sort()).toEqual(there);
    for (const [address, wanted] of Object.entries(PAGES))
      for (const who of ROLES) expect([address, who, await said(await ask(who, filled(address)))]).toEqual([address, who, wanted[who]]);
  });

  it("every route that there is stands in the table, and answers whom it should", async () => {
    const there = filesUnder("app", /^route\.ts$/)
      .flatMap((f) => {
        const text = readFileSync(f, "utf8");
        return ["GET", "POST", "PUT", "PATCH", "DELETE"]
          .filter((m) => new RegExp(`export (async )?(function|const) (\\{[^}]*)?${m}\\b|[{,] ${m} [},]`).test(text))
          .map((m) => `${m} ${addressOf(f)}`);
      })
      .sort();
    expect(Object.keys(ROUTES).sort()).toEqual(there);
    const picture = await sharp({ create: { width: 20, height: 20, channels: 3, background: "#284" } })
      .jpeg()
      .toBuffer();
    for (const [route, wanted] of Object.entries(ROUTES))
      for (const who of ROLES) {
        const [method = "", address = ""] = route.split(" ");
        const body =
          address === "/entries"
            ? {
                body: JSON.stringify({
                  action: "bench.note",
                  input: { number: "FS-1042", text: "walked", kind: "note" },
                  entry: { key: `walk-${who}-${Date.now()}` },
                }),
              }
            : address === "/photos"
              ? { body: new Uint8Array(picture) }
              : {};
        const about = new URLSearchParams({ number: "FS-1042", entry: JSON.stringify({ key: `walk-photo-${who}-${Date.now()}` }) });
        const path = address === "/photos" ? `${address}?${about}` : filled(address);
        const ended = new AbortController();
        const r = await ask(who, path, { method, ...body, signal: ended.signal });
        let verdict = await said(r);
        // Entries are answered with 200 and a result: nobody's are kept, and ask for the person.
        if (["/entries", "/photos"].includes(address) && verdict === "in" && who === "nobody") verdict = "sign in";
        expect([route, who, verdict]).toEqual([route, who, wanted[who]]);
        ended.abort();
      }
    const nobody = await ask("nobody", "/entries", {
      method: "POST",
      body: JSON.stringify({ action: "bench.note", input: {}, entry: { key: "walk-x" } }),
    });
    expect(await nobody.json()).toMatchObject({ ok: false, later: "who" });
  });

  it("every action that the build lets a browser call stands in the table, and is refused to whom it should be", async () => {
    const manifest = JSON.parse(readFileSync(".next/server/server-reference-manifest.json", "utf8")) as {
      node: Record<string, { exportedName?: string; filename?: string; workers: Record<string, { exportedName?: string }> }>;
    };
    const actions = Object.entries(manifest.node).map(([id, a]) => ({ id, name: a.exportedName ?? "" }));
    expect(actions.map((a) => a.name).sort()).toEqual(Object.keys(ACTIONS).sort());
    for (const { id, name } of actions) {
      const may = ACTIONS[name];
      for (const who of ROLES) {
        // An input that none of them understands: whoever may is told that, and nothing is changed.
        const r = await ask(who, "/sign-in", {
          method: "POST",
          headers: { "Next-Action": id, "Content-Type": "text/plain;charset=UTF-8", origin: base(), accept: "text/x-component" },
          body: JSON.stringify([{ walked: true }]),
        });
        const text = await r.text();
        const verdict = /may not do this/.test(text) ? "refused" : /not signed in any more/.test(text) ? "sign in" : "in";
        const wanted = may === "anybody" || may?.includes(who) ? "in" : who === "nobody" ? "sign in" : "refused";
        expect([name, who, r.status, verdict]).toEqual([name, who, 200, wanted]);
      }
      for (const seat of ["left alone", "lead by PIN"] as const) {
        const r = await ask(seat, "/sign-in", {
          method: "POST",
          headers: { "Next-Action": id, "Content-Type": "text/plain;charset=UTF-8", origin: base(), accept: "text/x-component" },
          body: JSON.stringify([{ walked: true }]),
        });
        const text = await r.text();
        const verdict = /Nobody touched this bench/.test(text) ? "locked" : /A PIN is not enough/.test(text) ? "password" : "in";
        const locked = may !== "anybody" && (!may?.includes("reader") || LOOKS_AND_CHANGES.includes(name)) ? "locked" : "in";
        const wanted = seat === "left alone" ? locked : may === L ? "password" : "in";
        expect([name, seat, verdict]).toEqual([name, seat, wanted]);
      }
    }
  });
  it("every question that a screen may ask stands in the table, and is refused to whom it should be", async () => {
    for (const [name, may] of Object.entries(QUESTIONS))
      for (const who of ROLES) {
        const put = (body: string) => ask(who, `/data/ask/${name}`, { method: "POST", headers: { "Content-Type": "application/json" }, body });
        const r = await put(JSON.stringify({ walked: true }));
        const text = await r.text();
        const verdict = /may not do this/.test(text) ? "refused" : /not signed in any more/.test(text) ? "sign in" : "in";
        expect([name, who, r.status, verdict]).toEqual([name, who, 200, may.includes(who) ? "in" : who === "nobody" ? "sign in" : "refused"]);
        expect([name, (await put("{")).status]).toEqual([name, 400]);
      }
    const long = await ask("reader", "/data/ask/job.find", { method: "POST", body: "x".repeat(5_000_001) });
    expect(long.status).toBe(413);
  });

  it("a slice is JSON with a tag; asked with its tag nothing is sent; nobody and another's tag get nothing of it", async () => {
    const path = "/data/job/FS-1042/bench";
    const first = await ask("reader", path);
    const tag = first.headers.get("etag") ?? "";
    expect([first.status, first.headers.get("cache-control"), ((await first.json()) as { head: { number: string } }).head.number]).toEqual([
      200,
      "no-store",
      "FS-1042",
    ]);
    const again = await ask("technician", path, { headers: { "if-none-match": tag } });
    expect([again.status, await again.text(), again.headers.get("etag")]).toEqual([304, "", tag]);
    expect((await ask("nobody", path, { headers: { "if-none-match": tag } })).status).toBe(401);
    expect((await ask("reader", "/data/job/FS-1042/order", { headers: { "if-none-match": tag } })).status).toBe(200);
    for (const odd of ["/data/job/FS-1042/no-such", "/data/job/FS-9999/bench", "/data/job/%00/bench", "/data/job/FS-1042/constructor"])
      expect([odd, (await ask("reader", odd)).status]).toEqual([odd, 404]);
    await ask("technician", "/entries", {
      method: "POST",
      body: JSON.stringify({
        action: "bench.note",
        input: { number: "FS-1042", text: "moved", kind: "note" },
        entry: { key: `walk-slice-${Date.now()}` },
      }),
    });
    expect((await ask("reader", path, { headers: { "if-none-match": tag } })).status).toBe(200);
  });

  it("a photo of nearly as much as may be arrives whole; what is larger is a sentence", async () => {
    // Noise is what no packing makes smaller: 20 MB and more of it.
    const side = 2700;
    const raw = randomBytes(side * side * 3);
    const picture = await sharp(raw, { raw: { width: side, height: side, channels: 3 } })
      .png({ compressionLevel: 0 })
      .toBuffer();
    expect(picture.length).toBeGreaterThan(20_000_000);
    const send = async (body: Buffer, key: string) => {
      const about = new URLSearchParams({ number: "FS-1042", entry: JSON.stringify({ key }) });
      const r = await ask("technician", `/photos?${about}`, { method: "POST", headers: { "Content-Type": "image/png" }, body: new Uint8Array(body) });
      return (await r.json()) as { ok: boolean; sentence?: string };
    };
    expect(await send(picture, "walk-large")).toMatchObject({ ok: true });
    expect(await send(Buffer.alloc(25_500_000), "walk-too-large")).toMatchObject({
      ok: false,
      sentence: expect.stringContaining("larger than 25 MB"),
    });
  });

  it("one sign-in listens in so many places and no more; another still may", async () => {
    const ended = new AbortController();
    const streams = await Promise.all(Array.from({ length: 16 }, () => ask("technician", "/live", { signal: ended.signal })));
    expect(streams.filter((r) => r.status === 200).length).toBe(12);
    expect(streams.filter((r) => r.status === 429).length).toBe(4);
    expect((await ask("lead", "/live", { signal: ended.signal })).status).toBe(200);
    ended.abort();
  });

  it("capitals in an id, odd methods and odd marks are no fault of the server", async () => {
    for (const path of [
      "/shelf/KNOTWICK-SPLIT-2",
      "/job/fs-1042/parts",
      "/job/FS-1042/PARTS",
      "/job/%20/parts",
      "/photos/NOT-AN-ID",
      "/live?since=0&job=x",
      "/files/job/fs-1042/wiring.csv",
      "/shelf?kind=%F0%9F%94%8C",
      `/jobs?q=${"x".repeat(5000)}`,
      "/jobs?page=-1",
      "/jobs?page=1e9",
    ]) {
      const ended = new AbortController();
      const r = await ask("technician", path, { signal: ended.signal });
      expect([path, r.status < 500]).toEqual([path, true]);
      ended.abort();
    }
    const at = new URL(base());
    for (const method of ["PROPFIND", "OPTIONS", "PUT", "DELETE", "PATCH", "HEAD", "SEARCH"])
      for (const path of ["/", "/entries", "/photos", "/live", "/job/FS-1042/bench"]) {
        const status = await new Promise<number>((resolve, reject) => {
          const r = request({ host: at.hostname, port: at.port, method, path, headers: { cookie: cookies.get("technician") ?? "" } }, (a) => {
            a.resume();
            a.destroy();
            resolve(a.statusCode ?? 0);
          });
          r.on("error", reject);
          r.end();
        });
        expect([method, path, status < 500]).toEqual([method, path, true]);
      }
  });

  it("a seat that was left alone sends no entry and no photo of its own, and gives away no turn", async () => {
    const entry = { action: "bench.note", input: { number: "FS-1042", text: "left alone", kind: "note" }, entry: { key: "walk-alone" } };
    const sent = await ask("left alone", "/entries", { method: "POST", body: JSON.stringify(entry) });
    expect(await sent.json()).toMatchObject({ ok: false, later: "who" });
    expect((await ask("left alone", "/live/turn?touched=1", { method: "POST" })).status).toBe(423);
    expect((await ask("left alone", "/job/FS-1042/bench")).status).toBe(200);
  });
});

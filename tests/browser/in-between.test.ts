import type { ChildProcess } from "node:child_process";
import { type Server as HttpServer, createServer as httpServer, request } from "node:http";
import { connect, type Server, type Socket, createServer as tcpServer } from "node:net";
import type { Browser, Page } from "playwright-core";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { TRIAL } from "../cases";
import { freePort, killed, secondServer } from "../fixtures/second-server";
import { base, launch, rested, signIn, sit } from "./page";

let browser: Browser;
const servers: ChildProcess[] = [];
beforeAll(async () => {
  browser = await launch();
});
afterAll(async () => {
  for (const s of servers) await killed(s);
  await browser.close();
});

/** What lies between a server and its database: cut, and joined again. */
function cable(to: URL) {
  const open = new Set<Socket>();
  let cut = false;
  const server: Server = tcpServer((near) => {
    if (cut) return near.destroy();
    const far = connect(Number(to.port), to.hostname);
    for (const [a, b] of [
      [near, far],
      [far, near],
    ] as const) {
      open.add(a);
      a.on("error", () => b.destroy());
      a.on("close", () => {
        open.delete(a);
        b.destroy();
      });
      a.pipe(b);
    }
  });
  return {
    server,
    cut: () => {
      cut = true;
      for (const s of open) s.destroy();
    },
    join: () => {
      cut = false;
    },
  };
}
const listening = (s: Server | HttpServer, port: number) => new Promise<void>((resolve) => s.listen(port, "127.0.0.1", resolve));

describe.runIf(TRIAL)("a database that is away for a while", () => {
  it("leaves the screen as it is and says since when; a page asked for meanwhile comes by itself when it is back", async () => {
    const url = new URL(process.env.DATABASE_URL ?? "");
    const between = cable(new URL(url));
    const [port, dbPort] = [await freePort(), await freePort()];
    await listening(between.server, dbPort);
    const own = new URL(url);
    own.hostname = "127.0.0.1";
    own.port = String(dbPort);
    servers.push(await secondServer(port, { DATABASE_URL: own.href }));
    const at = `http://127.0.0.1:${port}`;
    const context = await browser.newContext({ locale: "en-GB", viewport: { width: 1280, height: 800 } });
    const page = await context.newPage();
    await signIn(page, "Runa Thistlewood", at);
    await page.goto(`${at}/job/FS-1044/parts`);
    await page.waitForLoadState("networkidle");
    const other = await context.newPage();
    between.cut();
    await page.getByText(/No answer from the server since \d\d:\d\d/).waitFor({ timeout: 40_000 });
    await page.getByRole("region", { name: "Parts list" }).waitFor();
    // No page was kept of this one: it cannot be shown.
    await other.goto(`${at}/jobs?q=away`);
    await other.getByRole("heading", { name: "This page cannot be shown now." }).waitFor({ timeout: 40_000 });
    await other.getByRole("button", { name: "Try again now" }).click();
    await other.getByRole("heading", { name: "This page cannot be shown now." }).waitFor();
    between.join();
    await other.getByRole("heading", { name: "This page cannot be shown now." }).waitFor({ state: "detached", timeout: 40_000 });
    await page.getByText(/No answer from the server since/).waitFor({ state: "detached", timeout: 40_000 });
    expect(new URL(other.url()).pathname).toBe("/jobs");
    await context.close();
    between.server.close();
  });
});

describe.runIf(TRIAL)("a reverse proxy in front, as the docs describe it", () => {
  it("cookies are for TLS only, ticks come through at once, other names, other pages' posts and broken addresses are refused", async () => {
    const [port, front] = [await freePort(), await freePort()];
    servers.push(await secondServer(port, { IMBRA_PROXY: "1", IMBRA_TLS: "1" }));
    const proxy = httpServer((asked, answer) => {
      const headers = { ...asked.headers, "x-forwarded-for": "203.0.113.7", "x-forwarded-proto": "https" };
      const inner = request({ host: "127.0.0.1", port, method: asked.method, path: asked.url, headers }, (r) => {
        answer.writeHead(r.statusCode ?? 502, r.headers);
        r.pipe(answer);
      });
      inner.on("error", () => answer.destroy());
      answer.on("close", () => inner.destroy());
      asked.pipe(inner);
    });
    await listening(proxy, front);
    // Browsers take `localhost` for a safe place, as if it had TLS.
    const at = `http://localhost:${front}`;
    const screens = await Promise.all(
      ["Runa Thistlewood", "Ebo Larkmoor"].map(async (who) => {
        const context = await browser.newContext({ locale: "en-GB", viewport: { width: 1280, height: 800 } });
        const page = await context.newPage();
        await signIn(page, who, at);
        return { context, page };
      }),
    );
    const [desk, bench] = screens;
    if (!desk || !bench) throw new Error("two screens");
    const cookies = await desk.context.cookies();
    expect(cookies.filter((c) => c.httpOnly).map((c) => c.secure)).not.toContain(false);
    expect(cookies.some((c) => c.httpOnly)).toBe(true);
    await desk.page.goto(`${at}/job/FS-1044/wiring`);
    await desk.page.waitForLoadState("networkidle");
    await bench.page.goto(`${at}/job/FS-1044/bench`);
    await bench.page.waitForLoadState("networkidle");
    const told = () => desk.page.getByRole("link", { name: /^Bench \d/ }).textContent();
    const before = await told();
    await bench.page.getByRole("button", { name: /^Done/ }).click();
    await expect.poll(told, { timeout: 10_000 }).not.toBe(before);
    const raw = (method: string, path: string, headers: Record<string, string>) =>
      new Promise<number>((resolve, reject) => {
        const r = request({ host: "127.0.0.1", port: front, method, path, headers }, (a) => {
          a.resume();
          resolve(a.statusCode ?? 0);
        });
        r.on("error", reject);
        r.end();
      });
    expect(await raw("GET", "/sign-in", { host: "elsewhere.test" })).toBe(421);
    expect(await raw("POST", "/entries", { host: `localhost:${front}`, origin: "https://elsewhere.test" })).toBe(403);
    expect(await raw("GET", "/sign-in", { host: `localhost:${front}` })).toBe(200);
    for (const broken of ["/job/%E0%A4%A", "/shelf/%", "/files/job/%zz/wiring.csv"])
      expect([broken, await raw("GET", broken, { host: `localhost:${front}` })]).toEqual([broken, 400]);
    for (const s of screens) await s.context.close();
    proxy.close();
    proxy.closeAllConnections();
  });
});

/** Every refresh of this stage is lost from now on; how many were. */
async function losesRefreshes(page: Page, stage: string): Promise<() => number> {
  let lost = 0;
  await page.route(
    (u) => u.pathname.startsWith("/data/job/") || u.pathname.endsWith(`/${stage}`),
    async (route) => {
      const { pathname } = new URL(route.request().url());
      if (!pathname.startsWith("/data/") && route.request().headers().rsc !== "1") return route.continue();
      lost += 1;
      await route.abort("connectionreset");
    },
  );
  return () => lost;
}

describe("what is said after a page was made and before it hears", () => {
  it.runIf(TRIAL)("is on the page all the same", async () => {
    const { page, context } = await sit(browser, "Ebo Larkmoor");
    let open = () => {};
    const held = new Promise<void>((resolve) => {
      open = resolve;
    });
    await page.route("**/live?*", async (route) => {
      await held;
      await route.continue();
    });
    await page.goto(`${base()}/job/FS-1042/wiring`);
    await page.getByRole("button", { name: "Log" }).click();
    const said = await page.request.post(`${base()}/entries`, {
      headers: { Origin: base() },
      data: { action: "bench.note", input: { number: "FS-1042", text: "Said in between.", kind: "note" }, entry: { key: "in-between" } },
    });
    expect(await said.json()).toMatchObject({ ok: true });
    // Nothing else happens: only the first line of the stream can tell.
    await page.waitForTimeout(500);
    expect(await page.getByText("Said in between.").count()).toBe(0);
    open();
    await page.getByText("Said in between.").waitFor({ timeout: 10_000 });
    await context.close();
  });
  it.runIf(TRIAL)("comes when it can be had where the very first refresh is lost: the page stays, and what is on it", async () => {
    const { page, context } = await sit(browser, "Ebo Larkmoor");
    await page.goto(`${base()}/job/FS-1042/wiring`);
    await page.waitForLoadState("networkidle");
    await page.getByRole("button", { name: "Log" }).click();
    await page.evaluate(() => Object.assign(window, { stays: true }));
    const lost = await losesRefreshes(page, "wiring");
    await page.request.post(`${base()}/entries`, {
      headers: { Origin: base() },
      data: { action: "bench.note", input: { number: "FS-1042", text: "The first one lost.", kind: "note" }, entry: { key: "first-lost" } },
    });
    await expect.poll(lost, { timeout: 20_000 }).toBeGreaterThan(1);
    expect(await page.evaluate(() => "stays" in window)).toBe(true);
    await page.unrouteAll();
    await page.getByText("The first one lost.").waitFor({ timeout: 15_000 });
    expect(await page.evaluate(() => "stays" in window)).toBe(true);
    await context.close();
  });
  it("is there when the page is come back to, however old what was kept of it is", async () => {
    const { page, context } = await sit(browser, "Ebo Larkmoor");
    await page.goto(`${base()}/job/FS-1042/wiring`);
    await page.waitForLoadState("networkidle");
    await page.getByRole("link", { name: "Benches", exact: true }).first().click();
    await page.waitForURL(`${base()}/`);
    await page.waitForLoadState("networkidle");
    // Nothing of the job is listened to here but its head.
    const said = await page.request.post(`${base()}/entries`, {
      headers: { Origin: base() },
      data: { action: "bench.note", input: { number: "FS-1042", text: "While it was left.", kind: "note" }, entry: { key: "while-left" } },
    });
    expect(await said.json()).toMatchObject({ ok: true });
    await page.goBack();
    await page.waitForURL(/wiring/);
    await page.getByRole("button", { name: "Log" }).click();
    await page.getByText("While it was left.").waitFor({ timeout: 20_000 });
    await context.close();
  });
  it("holds up no press at the bench while it is waited for", async () => {
    const { page, context } = await sit(browser, "Mirel Quist", { width: 1024, height: 768 });
    await page.goto(`${base()}/job/FS-1044/bench`);
    await page.waitForLoadState("networkidle");
    const card = async () => Number(/card (\d+) of/.exec((await page.getByText(/card \d+ of/).textContent()) ?? "")?.[1]);
    const at = await card();
    const lost = await losesRefreshes(page, "bench");
    await page.request.post(`${base()}/entries`, {
      headers: { Origin: base() },
      data: { action: "bench.note", input: { number: "FS-1044", text: "Meanwhile.", kind: "note" }, entry: { key: "meanwhile" } },
    });
    await expect.poll(lost, { timeout: 20_000 }).toBeGreaterThan(0);
    for (let n = 1; n <= 3; n++) {
      await page.getByRole("button", { name: /^Done/ }).click();
      await expect.poll(card, { timeout: 2000 }).toBe(at + n);
      await rested(page);
    }
    await page.unrouteAll();
    await page.getByText("all sent").waitFor({ timeout: 20_000 });
    expect(await card()).toBe(at + 3);
    await context.close();
  });
});

describe("a server that is killed while somebody works", () => {
  it("loses no tick: what was pressed meanwhile is kept on the tablet, also over a reload, and sent in order when it is back", async () => {
    const port = await freePort();
    let server = await secondServer(port);
    servers.push(server);
    const context = await browser.newContext({ locale: "en-GB", viewport: { width: 1024, height: 768 } });
    const page = await context.newPage();
    const base = `http://127.0.0.1:${port}`;
    await signIn(page, "Ebo Larkmoor", base);
    await page.goto(`${base}/job/FS-1044/bench`);
    await page.waitForLoadState("networkidle");
    const stepNow = async () => Number(/card (\d+) of/.exec((await page.getByText(/card \d+ of/).textContent()) ?? "")?.[1]);
    const at = await stepNow();
    await killed(server);
    for (let n = 1; n <= 3; n++) {
      await page.getByRole("button", { name: /^Done/ }).click();
      await expect.poll(stepNow).toBe(at + n);
      await rested(page);
    }
    await page.getByText(/No network\. \d+ entries are kept on this tablet and will be sent in order\. Go on working\./).waitFor();
    await page.getByText(/^\d+ to send$/).waitFor();
    server = await secondServer(port);
    servers.push(server);
    // The tablet is started anew before everything was sent.
    await page.goto(`${base}/job/FS-1044/bench`);
    await page.getByText("all sent").waitFor({ timeout: 20_000 });
    await expect.poll(stepNow, { timeout: 20_000 }).toBe(at + 3);
    await page.goto(`${base}/job/FS-1044/order`);
    await page.getByRole("button", { name: "Log" }).click();
    const log = (await page.getByRole("region", { name: "Log" }).textContent()) ?? "";
    expect(log.match(/Ebo Larkmoor/g)?.length ?? 0).toBeGreaterThanOrEqual(3);
    await context.close();
  });
  it("asked to stop, it stops within seconds though screens listen", async () => {
    const port = await freePort();
    const server = await secondServer(port);
    servers.push(server);
    const context = await browser.newContext({ locale: "en-GB" });
    const page = await context.newPage();
    await signIn(page, "Ebo Larkmoor", `http://127.0.0.1:${port}`);
    const cookie = (await context.cookies()).map((c) => `${c.name}=${c.value}`).join("; ");
    const streams = await Promise.all(
      Array.from({ length: 3 }, async () => {
        const r = await fetch(`http://127.0.0.1:${port}/live`, { headers: { cookie } });
        const reader = r.body?.getReader();
        const first = new TextDecoder().decode((await reader?.read())?.value);
        return { status: r.status, first, reader };
      }),
    );
    expect(streams.map((s) => [s.status, s.first.startsWith("retry:")])).toEqual(streams.map(() => [200, true]));
    const gone = new Promise<unknown>((resolve) => server.once("exit", (code, signal) => resolve(signal ?? code)));
    server.kill("SIGTERM");
    // By itself, with the code of who asked: nobody has to kill it, though streams are open.
    expect(await gone).toBe(143);
    for (const s of streams) await s.reader?.cancel().catch(() => undefined);
    await context.close();
  });
});

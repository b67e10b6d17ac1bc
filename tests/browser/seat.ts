import pg from "pg";
import { type Browser, type BrowserContext, chromium, type Page, type Request } from "playwright-core";
import { demoPerson } from "../fixtures/demo-people";
import { signedIn } from "../fixtures/signed-in";

export { demoPerson } from "../fixtures/demo-people";

const ARGS = [
  "--headless",
  "--no-sandbox",
  "--disable-gpu",
  "--disable-quic",
  "--no-first-run",
  "--disable-background-networking",
  "--disable-component-update",
  "--disable-sync",
];

export const base = (): string => {
  const url = process.env.IMBRA_URL;
  if (!url) throw new Error("IMBRA_URL is not set: run npm test, which starts the application");
  return url;
};

/**
 * Waiting for a page: until it says itself that it has its keys, and what it has asked for is there, but for the live stream. No silence
 * is waited for: what comes later by itself is waited for by who looks for it. Says what is open where a page never comes to rest.
 */
function waitsByRequests(page: Page): void {
  const open = new Set<Request>();
  page.on("request", (r) => {
    if (r.resourceType() === "eventsource") return;
    // A new document: what the one before has asked for is no longer waited for.
    if (r.isNavigationRequest()) open.clear();
    open.add(r);
  });
  const ended = (r: Request) => open.delete(r);
  page.on("requestfinished", ended);
  page.on("requestfailed", ended);
  const plain = page.waitForLoadState.bind(page);
  page.waitForLoadState = async (state, options) => {
    if (state !== "networkidle") return plain(state, options);
    const end = Date.now() + (options?.timeout ?? 90_000);
    await plain("load", options);
    await page.waitForSelector("html[data-ready]", { state: "attached", timeout: 30_000 }).catch(() => undefined);
    await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
    while (open.size > 0) {
      if (Date.now() > end) throw new Error(`${page.url()} does not rest. Open: ${[...open].map((r) => `${r.method()} ${r.url()}`).join(", ")}`);
      await new Promise((r) => setTimeout(r, 25));
    }
  };
}

export async function launch(): Promise<Browser> {
  const browser = await chromium.launch({ executablePath: "/usr/bin/chromium-headless-shell", args: ARGS });
  const plain = browser.newContext.bind(browser);
  browser.newContext = async (options) => {
    const context = await plain(options);
    context.on("page", waitsByRequests);
    return context;
  };
  return browser;
}

export interface Seat {
  context: BrowserContext;
  page: Page;
  errors: string[];
}

/** What the database answers, for what no screen shows. */
export async function asked(sql: string): Promise<unknown[]> {
  const client = new pg.Client({ connectionString: process.env.DATABASE_URL });
  await client.connect();
  try {
    return (await client.query(sql)).rows;
  } finally {
    await client.end();
  }
}

/** The cookie of somebody who signed in a moment ago, as the door makes it: the door has tests of its own. */
async function cookieOf(who: string): Promise<{ name: string; value: string; url: string }> {
  const client = new pg.Client({ connectionString: process.env.DATABASE_URL });
  await client.connect();
  try {
    const { rows } = await client.query<{ id: string }>(`select "id" from "person" where "name" = $1`, [who]);
    const [name = "", ...value] = (await signedIn(client, rows[0]?.id ?? "")).split("=");
    return { name, value: value.join("="), url: base() };
  } finally {
    await client.end();
  }
}

/** A person at a screen: signed in, no page open yet, with every console error kept. */
export async function sit(browser: Browser, who: string, size = { width: 1280, height: 800 }): Promise<Seat> {
  const context = await browser.newContext({ locale: "en-GB", viewport: size });
  const page = await context.newPage();
  // Test machines stall for tens of seconds at times.
  page.setDefaultTimeout(90_000);
  // A press before the page has its keys goes nowhere: every visit waits for them, where the page has any; so does every reload.
  const ready = () => page.waitForSelector("html[data-ready]", { state: "attached", timeout: 30_000 }).catch(() => undefined);
  const [visit, again] = [page.goto.bind(page), page.reload.bind(page)];
  page.goto = async (...to) => {
    const answer = await visit(...to);
    await ready();
    return answer;
  };
  page.reload = async (...how) => {
    const answer = await again(...how);
    await ready();
    return answer;
  };
  const errors: string[] = [];
  page.on("pageerror", (e) => errors.push(e.message));
  page.on("console", (m) => {
    if (m.type() === "error" && !m.text().includes("ERR_INTERNET_DISCONNECTED")) errors.push(`${m.text()} ${m.location().url}`);
  });
  await context.addCookies([await cookieOf(who)]);
  return { context, page, errors };
}

/** Signs in by name and password, and waits for the first page. */
export async function signIn(page: Page, who: string, at = base()): Promise<void> {
  await page.goto(`${at}/sign-in`);
  await page.getByLabel("Name").fill(who);
  await page.getByLabel("Password").fill(demoPerson(who).password);
  await page.getByRole("button", { name: "Sign in" }).click();
  await page.waitForURL((u) => !u.pathname.startsWith("/sign-in"));
  await page.waitForSelector("html[data-ready]", { state: "attached", timeout: 30_000 }).catch(() => undefined);
}

/** A build file read in through the screen; the number of the job it became. */
export async function readIn(page: Page, file: string): Promise<string> {
  await page.goto(base());
  await page.getByRole("button", { name: "From a build file" }).click();
  await page.locator('input[type="file"]').setInputFiles(file);
  await page.waitForFunction(() => [...document.querySelectorAll("textarea")].some((t) => t.value.includes("imbra-build")));
  await page.getByRole("button", { name: "Read and store" }).click();
  await page.waitForURL(/\/job\/FS-\d+\/parts/);
  return /FS-\d+/.exec(page.url())?.[0] ?? "";
}

/** ms from choosing a lead to the frame in which its route is drawn, for the first `most` leads with `words` in them, least first. */
export const routeTimes = (page: Page, words: string, most: number): Promise<number[]> =>
  page.evaluate(
    async ([words, most]) => {
      const rows = [...document.querySelectorAll<HTMLElement>('[role="option"]')].filter((r) => r.textContent?.includes(words)).slice(0, most);
      const out: number[] = [];
      for (const r of rows) {
        const t = performance.now();
        r.click();
        await new Promise((d) => requestAnimationFrame(() => setTimeout(d, 0)));
        out.push(performance.now() - t);
        await new Promise((d) => setTimeout(d, 60));
      }
      return out.sort((a, b) => a - b);
    },
    [words, most] as const,
  );

import { AxeBuilder } from "@axe-core/playwright";
import { type Browser, type BrowserContext, chromium, type Page } from "playwright-core";
import { expect } from "vitest";

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

export const launch = (): Promise<Browser> => chromium.launch({ executablePath: "/usr/bin/chromium", args: ARGS });

export interface Seat {
  context: BrowserContext;
  page: Page;
  errors: string[];
}

/** A person at a screen: chosen by name, with every console error kept. */
export async function sit(browser: Browser, who: string, size = { width: 1280, height: 800 }): Promise<Seat> {
  const context = await browser.newContext({ viewport: size });
  const page = await context.newPage();
  // Test machines stall for tens of seconds at times.
  page.setDefaultTimeout(90_000);
  // A press before the page has its keys goes nowhere: every visit waits for them, where the page has any.
  const visit = page.goto.bind(page);
  page.goto = async (...to) => {
    const answer = await visit(...to);
    await page.waitForSelector("html[data-ready]", { state: "attached", timeout: 30_000 }).catch(() => undefined);
    return answer;
  };
  const errors: string[] = [];
  page.on("pageerror", (e) => errors.push(e.message));
  page.on("console", (m) => {
    if (m.type() === "error" && !m.text().includes("ERR_INTERNET_DISCONNECTED")) errors.push(m.text());
  });
  await page.goto(base());
  const saved = page.waitForResponse((r) => r.request().method() === "POST");
  await page.getByLabel("Who you are").selectOption({ label: who });
  await saved;
  await page.waitForLoadState("networkidle");
  return { context, page, errors };
}

/** axe without exceptions; `only` narrows to rules that something changed since concerns. */
export async function accessible(page: Page, only?: string[]): Promise<void> {
  const axe = new AxeBuilder({ page: page as never });
  const { violations } = await (only ? axe.withRules(only) : axe).analyze();
  expect(
    violations.map(
      (v) =>
        `${v.id}: ${v.nodes
          .map((n) => n.target.join(" "))
          .slice(0, 3)
          .join(", ")}`,
    ),
  ).toEqual([]);
}

/** A page in light with every rule, then in dark, where only colours differ. */
export async function bothThemes(seat: Seat, path: string): Promise<void> {
  for (const theme of ["light", "dark"]) {
    await seat.context.addCookies([{ name: "theme", value: theme, url: base() }]);
    await seat.page.goto(`${base()}${path}`);
    await seat.page.waitForLoadState("networkidle");
    await accessible(seat.page, theme === "dark" ? ["color-contrast"] : undefined);
  }
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

/** A build file read in and planned for the first time, its wiring open; the number of its job. */
export async function plannedIn(page: Page, file: string): Promise<string> {
  const job = await readIn(page, file);
  await page.goto(`${base()}/job/${job}/wiring`);
  await page.waitForLoadState("networkidle");
  await page.getByRole("button", { name: "Plan the wiring" }).click();
  await page.getByText(/Plan 1, proved in/).waitFor({ timeout: 150_000 });
  return job;
}

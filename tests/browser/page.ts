import { AxeBuilder } from "@axe-core/playwright";
import type { Page } from "playwright-core";
import { expect } from "vitest";
import { base, readIn } from "./seat";

export { base, demoPerson, launch, readIn, type Seat, signIn, sit } from "./seat";

/** axe without exceptions; `only` narrows to rules that something changed since concerns. */
export async function accessible(page: Page, only?: string[]): Promise<void> {
  // No page has frames of others: axe runs in the page itself, and tells only of what is wrong, which is four times as fast.
  const axe = new AxeBuilder({ page: page as never }).setLegacyMode(true).options({ resultTypes: ["violations"] });
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

/** Phone, desk at 150 % of 1280 by 800, small desk, desk, large desk. */
export const WIDTHS = [
  [390, 844],
  [853, 533],
  [1024, 768],
  [1280, 800],
  [1920, 1080],
] as const;

/**
 * What is open now, with axe on every width: in light with every rule; in dark, where only colours differ, with those about colours. Nothing
 * is loaded anew, and nothing may be wider than the window, so that nobody scrolls sideways. Widths and theme are as before afterwards.
 */
export async function everywhere(page: Page): Promise<void> {
  const was = page.viewportSize();
  for (const [width, height] of WIDTHS) {
    await page.setViewportSize({ width, height });
    await accessible(page);
    expect([page.url(), width, await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth)]).toEqual([page.url(), width, 0]);
    await page.emulateMedia({ colorScheme: "dark" });
    await accessible(page, ["color-contrast"]);
    await page.emulateMedia({ colorScheme: "light" });
  }
  if (was) await page.setViewportSize(was);
}

/** Tab until the focus is on something with these words. */
export async function tabTo(page: Page, words: RegExp, most = 250): Promise<void> {
  for (let i = 0; i < most; i++) {
    const here = await page.evaluate(() => {
      const e = document.activeElement;
      return `${e?.getAttribute("aria-label") ?? ""} ${e?.textContent ?? ""}`.slice(0, 300);
    });
    if (words.test(here)) return;
    await page.keyboard.press("Tab");
  }
  throw new Error(`Tab never came to ${words}`);
}

/** The page's clock put half a second on: the bench takes no press sooner than that after another. */
export const rested = (page: Page): Promise<void> =>
  page.evaluate(() => {
    const w = window as unknown as { ahead?: number };
    if (w.ahead === undefined) {
      const now = Date.now.bind(Date);
      Date.now = () => now() + (w.ahead ?? 0);
    }
    w.ahead = (w.ahead ?? 0) + 520;
  });

/** A build file read in and planned for the first time, its wiring open; the number of its job. */
export async function plannedIn(page: Page, file: string): Promise<string> {
  const job = await readIn(page, file);
  await page.goto(`${base()}/job/${job}/wiring`);
  await page.waitForLoadState("networkidle");
  await page.getByRole("button", { name: "Plan the wiring" }).click();
  await page.getByText(/^Plan \d+(, proved| is proved)/).waitFor({ timeout: 150_000 });
  return job;
}

/** The number of the plan that stands in the wiring screen's foot. A machine that is busy stores a first plan before the proved one. */
const planNumber = async (page: Page): Promise<number> =>
  Number(/Plan (\d+)/.exec((await page.getByRole("region", { name: "Inspector" }).textContent()) ?? "")?.[1] ?? 0);

/** Plans again by a key of the screen, and waits until a later plan than the one before is proved; its number, and how it ended. */
export async function plansAgain(page: Page, name: string): Promise<{ number: number; said: string }> {
  const before = await planNumber(page);
  await page.getByRole("button", { name, exact: true }).click();
  const ended = page.getByText(/^Plan \d+(, proved in| is proved as it stands,) .*wanted ends? free\./);
  await expect.poll(async () => ((await ended.count()) > 0 ? planNumber(page) : 0), { timeout: 150_000, interval: 200 }).toBeGreaterThan(before);
  return { number: await planNumber(page), said: (await ended.first().textContent()) ?? "" };
}

/** A scanner types a code faster than any hand, its Enter last; from within the page, so that a busy machine does not tear it apart. */
export const scan = (page: Page, code: string): Promise<void> =>
  page.evaluate((text) => {
    for (const key of [...text, "Enter"])
      (document.activeElement ?? document.body).dispatchEvent(new KeyboardEvent("keydown", { key, bubbles: true, cancelable: true }));
  }, code);

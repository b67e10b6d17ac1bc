import { AxeBuilder } from "@axe-core/playwright";
import type { Page } from "playwright-core";
import { expect } from "vitest";
import { base, readIn, type Seat } from "./seat";

export { base, demoPerson, launch, readIn, type Seat, signIn, sit } from "./seat";

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

/** A build file read in and planned for the first time, its wiring open; the number of its job. */
export async function plannedIn(page: Page, file: string): Promise<string> {
  const job = await readIn(page, file);
  await page.goto(`${base()}/job/${job}/wiring`);
  await page.waitForLoadState("networkidle");
  await page.getByRole("button", { name: "Plan the wiring" }).click();
  await page.getByText(/^Plan \d+(, proved| is proved)/).waitFor({ timeout: 150_000 });
  return job;
}

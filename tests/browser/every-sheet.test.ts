import type { Browser } from "playwright-core";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { TRIAL } from "../cases";
import { base, everywhere, launch, type Seat, sit } from "./page";

let browser: Browser;
let seat: Seat;
beforeAll(async () => {
  browser = await launch();
  seat = await sit(browser, "Runa Thistlewood");
});
afterAll(async () => {
  await browser.close();
});

/** For every change a sheet of each kind; all in the trial. */
const SHEETS = [
  ["/", "From a build file"],
  ["/job/FS-1047/parts", "Try another in its place"],
  ["/job/FS-1047/wiring", /Note/],
  ["/job/FS-1047/wiring", "How we wire"],
  ["/job/FS-1044/bench", "Differs"],
  ["/job/FS-1044/bench", /card \d+ of/],
  ["/job/FS-1044/bench", /Who works here/],
  ["/people", "Add somebody"],
] as const;
const MORE_SHEETS = [
  ["/job/FS-1047/parts", "Add parts"],
  ["/job/FS-1047/wiring", "Log"],
  ["/job/FS-1047/wiring", "Files"],
  ["/job/FS-1047/wiring", "Change the job"],
  ["/job/FS-1044/bench", "Problem"],
  ["/job/FS-1044/bench", "Skip"],
  ["/job/FS-1044/bench", "Entries of this tablet"],
  ["/people", /^New password for/],
] as const;

describe("every sheet and panel, on each width, light and dark", () => {
  // Each key that opens something: what it opens is looked at on each width.
  it.each(TRIAL ? [...SHEETS, ...MORE_SHEETS] : SHEETS)("%s, %s pressed, passes axe and goes off to no side", async (path, key) => {
    const { page, errors } = seat;
    await page.setViewportSize({ width: 1280, height: 800 });
    await page.goto(`${base()}${path}`);
    await page.waitForLoadState("networkidle");
    await page.getByRole("button", { name: key }).first().click();
    await everywhere(page);
    expect(errors).toEqual([]);
  });
  it.each([
    ["Control+k", "Find, or do something"],
    ["?", "Keys"],
  ])("the sheet that %s opens passes axe and goes off to no side", async (key, name) => {
    const { page } = seat;
    await page.goto(`${base()}/job/FS-1044/wiring`);
    await page.waitForLoadState("networkidle");
    await page.keyboard.press(key);
    await page.getByRole("dialog", { name }).waitFor();
    await everywhere(page);
  });
});

import type { Browser } from "playwright-core";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { TRIAL } from "../cases";
import { accessible, base, everywhere, launch, type Seat, signIn, sit } from "./page";

let browser: Browser;
let seat: Seat;
beforeAll(async () => {
  browser = await launch();
  seat = await sit(browser, "Runa Thistlewood");
});
afterAll(async () => {
  await browser.close();
});

const STAGES = ["parts", "wiring", "order", "bench", "first-boot", "handover", "faults"] as const;
/** A page of each kind; in the trial each of a second job too, at another stage. */
const PAGES = [
  "/",
  "/jobs",
  "/intake",
  "/shelf",
  "/shelf/import",
  "/shelf/knotwick-split-2",
  "/shelf/tarnbrook-heron-t40",
  "/shelf/brindlecote-harbour",
  "/people",
  "/you",
  ...STAGES.map((s) => `/job/${s === "order" || s === "bench" ? "FS-1044" : "FS-1047"}/${s}`),
  "/job/FS-1048/receipt",
  "/job/FS-1047/parts?show=power",
  "/job/FS-1047/parts?show=air",
  "/job/FS-1047/parts?show=order",
  ...(TRIAL ? STAGES.filter((s) => s !== "order" && s !== "bench").map((s) => `/job/FS-1044/${s}`) : []),
];

describe("every screen, on each width, light and dark", () => {
  it.each(PAGES)("%s passes axe, and nothing goes off to the side", async (path) => {
    const { page, errors } = seat;
    await page.goto(`${base()}${path}`);
    await page.waitForLoadState("networkidle");
    await everywhere(page);
    expect(errors).toEqual([]);
  });
  it("the findings stand beside what they are about, whatever the width, and pass axe", async () => {
    const { page } = seat;
    for (const w of [390, 1024, 1280]) {
      await page.setViewportSize({ width: w, height: 800 });
      await page.goto(`${base()}/job/FS-1047/wiring`);
      await page.waitForLoadState("networkidle");
      await page.getByRole("button", { name: /Warn/ }).click();
      await accessible(page);
      const [panel, stage] = await Promise.all([page.getByRole("region", { name: "Findings" }).boundingBox(), page.locator("main").boundingBox()]);
      if (!panel || !stage) throw new Error("no findings");
      const over =
        panel.x < stage.x + stage.width && stage.x < panel.x + panel.width && panel.y < stage.y + stage.height && stage.y < panel.y + panel.height;
      expect([w, over]).toEqual([w, false]);
    }
    await page.setViewportSize({ width: 1280, height: 800 });
  });
});

describe.runIf(TRIAL)("the look at every width itself", () => {
  it.each([
    ["a word that is pale on the largest width alone", "@media (min-width: 1900px) { h1 { color: #c8cac2 !important } }", "1920"],
    ["a ground that is grey on one width alone", "@media (min-width: 1000px) and (max-width: 1100px) { main p { background: #3a3d39 } }", "1024"],
    ["a word that is dark in the dark alone", "@media (prefers-color-scheme: dark) { h1 { color: #333 !important } }", "390"],
    ["something that stands out at the side on a phone", "@media (max-width: 400px) { body { min-width: 500px } }", "390"],
  ])("finds %s", async (_, style, width) => {
    const { page } = seat;
    await page.goto(`${base()}/you`);
    await page.waitForLoadState("networkidle");
    await page.addStyleTag({ content: style });
    const found = await everywhere(page).then(
      () => "nothing",
      (e: Error) => e.message,
    );
    expect(found).not.toBe("nothing");
    expect(page.viewportSize()?.width).toBe(Number(width));
    await page.emulateMedia({ colorScheme: null });
    await page.setViewportSize({ width: 1280, height: 800 });
  });
});

describe("light and dark", () => {
  it("follow the system until somebody chooses, and then stay so", async () => {
    const context = await browser.newContext({ locale: "en-GB", colorScheme: "dark", viewport: { width: 1280, height: 800 } });
    const page = await context.newPage();
    const ground = () => page.evaluate(() => getComputedStyle(document.body).backgroundColor);
    await signIn(page, "Ebo Larkmoor");
    expect(await ground()).toBe("rgb(21, 25, 23)");
    await page.emulateMedia({ colorScheme: "light" });
    expect(await ground()).toBe("rgb(230, 232, 223)");
    await page.getByRole("button", { name: "Light or dark" }).click();
    await page.getByRole("menuitem", { name: /^Dark/ }).click();
    await expect.poll(ground).toBe("rgb(21, 25, 23)");
    await page.reload();
    expect(await ground()).toBe("rgb(21, 25, 23)");
    await context.close();
  });
});

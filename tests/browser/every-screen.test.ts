import type { Browser, Page } from "playwright-core";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { accessible, base, launch, type Seat, scan, signIn, sit } from "./page";

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
const PAGES = [
  "/",
  "/jobs",
  "/intake",
  "/shelf",
  "/shelf/knotwick-split-2",
  "/people",
  "/you",
  ...STAGES.map((s) => `/job/FS-1044/${s}`),
  "/job/FS-1044/receipt",
];
/** Nothing is wider than the window, so that nobody scrolls sideways. */
const sideways = (page: Page) => page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);

describe("every screen, on every width", () => {
  // 853 by 533 is 1280 by 800 at 150 %.
  for (const [w, h] of [
    [390, 844],
    [853, 533],
    [1024, 768],
    [1920, 1080],
  ] as const)
    it(`${w} by ${h} passes axe, and nothing goes off to the side`, async () => {
      const { page, errors } = seat;
      await page.setViewportSize({ width: w, height: h });
      for (const p of PAGES) {
        await page.goto(`${base()}${p}`);
        await page.waitForLoadState("networkidle");
        await accessible(page);
        expect([p, await sideways(page)]).toEqual([p, 0]);
      }
      expect(errors).toEqual([]);
    }, 300_000);
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
  }, 120_000);
});

describe("a scan", () => {
  it("is heard on every screen and opens what it stands for, without pressing anything", async () => {
    const { page } = seat;
    for (const p of PAGES.filter((x) => !x.endsWith("receipt"))) {
      await page.goto(`${base()}${p}`);
      await page.waitForLoadState("networkidle");
      if (p === "/intake") await page.getByRole("heading", { level: 1 }).first().click();
      await scan(page, "FS-1045");
      await page.waitForURL(/\/job\/FS-1045\//);
    }
    // A lead of the job that is open: the wiring chooses it, the bench says whether it is the right one.
    await page.goto(`${base()}/job/FS-1044/wiring`);
    await page.waitForLoadState("networkidle");
    await scan(page, "FN-02");
    await page.getByText("Scanned: FN-02").waitFor();
    await page.goto(`${base()}/job/FS-1044/bench`);
    await page.waitForLoadState("networkidle");
    await scan(page, "FN-02");
    await page.getByText(/^(Right|Wrong) lead: /).waitFor();
    await scan(page, "QQ-9999");
    await page.getByText("QQ-9999 is no job, serial or part type here, and no lead of this job.").waitFor();
  }, 180_000);
  it("with the palette open goes into its field; with a sheet open it is heard all the same", async () => {
    const { page } = seat;
    await page.goto(`${base()}/`);
    await page.waitForLoadState("networkidle");
    await page.keyboard.press("Control+k");
    await page.getByRole("dialog", { name: "Find, or do something" }).waitFor();
    await page.keyboard.type("FS-1041", { delay: 4 });
    await page.getByRole("option", { name: /FS-1041 Quiet workstation/ }).waitFor();
    await accessible(page);
    await page.keyboard.press("Enter");
    await page.waitForURL(/\/job\/FS-1041\//);
    await page.keyboard.press("?");
    await page.getByRole("dialog", { name: "Keys" }).waitFor();
    await accessible(page);
    await page.getByRole("dialog").getByRole("button", { name: "Close" }).focus();
    await scan(page, "FS-1042");
    await page.waitForURL(/\/job\/FS-1042\//);
  }, 60_000);
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
  }, 60_000);
});

describe("the palette", () => {
  it("does what can be done here, by keyboard alone", async () => {
    const { page } = seat;
    await page.goto(`${base()}/job/FS-1043/parts`);
    await page.waitForLoadState("networkidle");
    const run = async (words: string) => {
      await page.keyboard.press("Control+k");
      await page.keyboard.type(words, { delay: 15 });
      await page
        .getByRole("option", { name: new RegExp(words, "i") })
        .first()
        .waitFor();
      await page.waitForTimeout(400);
      await page.keyboard.press("Enter");
    };
    await run("Hand over");
    await page.waitForURL(/FS-1043\/handover/);
    await run("Change the job");
    const sheet = page.getByRole("dialog", { name: "FS-1043, the job" });
    await accessible(page);
    await sheet.getByLabel("Client").fill("Dome of the North");
    await page.keyboard.press("Enter");
    await sheet.getByText("Changed.").waitFor();
    await page.keyboard.press("Escape");
    await page.getByText("Dome of the North").first().waitFor();
    await run("New job");
    await page.waitForURL(/\/intake/);
  }, 60_000);
  it("a job's own address leads to where its work is", async () => {
    const { page } = seat;
    await page.goto(`${base()}/job/FS-1044`);
    expect(page.url()).toMatch(/FS-1044\/bench$/);
    await page.goto(`${base()}/job/FS-1041`);
    expect(page.url()).toMatch(/FS-1041\/wiring$/);
  });
});

describe("what is chosen", () => {
  it("is kept by back, by a reload and in a second tab; focus stays where the hand is", async () => {
    const { page, context } = seat;
    await page.goto(`${base()}/job/FS-1044/wiring`);
    await page.waitForLoadState("networkidle");
    await page.getByRole("listbox", { name: "Leads" }).focus();
    for (let i = 0; i < 4; i++) await page.keyboard.press("ArrowDown");
    // As hands press: quicker than this is a scan.
    await page.waitForTimeout(150);
    await page.keyboard.press("3");
    await page.waitForTimeout(150);
    await page.keyboard.press("+");
    await expect.poll(() => page.url()).toMatch(/#lead=.+&loom=fans&zoom=region$/);
    const inspector = async (p: Page) => (await p.getByRole("region", { name: "Inspector" }).textContent())?.slice(0, 60);
    const was = await inspector(page);
    await page.reload();
    await page.waitForLoadState("networkidle");
    await expect.poll(() => inspector(page)).toBe(was);
    await page.keyboard.press("g");
    await page.keyboard.press("1");
    await page.waitForURL(/parts/);
    await page.goBack();
    await page.waitForURL(/wiring/);
    await expect.poll(() => inspector(page)).toBe(was);
    const other = await context.newPage();
    await other.goto(page.url());
    await expect.poll(() => inspector(other)).toBe(was);
    await other.close();
  }, 90_000);
  it("after an action the focus is near what was pressed, on no screen on the page itself", async () => {
    const { page } = seat;
    await page.goto(`${base()}/shelf?q=knotwick-split-2`);
    await page.waitForLoadState("networkidle");
    const more = page.getByRole("button", { name: /^One .* more$/ }).first();
    await more.focus();
    await page.keyboard.press("Enter");
    await page
      .getByText(/in stock\.$/)
      .first()
      .waitFor();
    expect(await page.evaluate(() => document.activeElement?.getAttribute("aria-label"))).toMatch(/^One .* more$/);
    // What had the focus goes away with what it did.
    await page.goto(`${base()}/job/FS-1047/wiring`);
    await page.waitForLoadState("networkidle");
    await page.getByRole("button", { name: /Warn/ }).click();
    await page
      .getByRole("button", { name: /^Set aside: / })
      .first()
      .click();
    await page.keyboard.type("the client wants it so");
    await page.keyboard.press("Tab");
    await page.keyboard.press("Enter");
    await page
      .getByText(/Set aside by Runa Thistlewood/)
      .first()
      .waitFor();
    await expect.poll(() => page.evaluate(() => document.activeElement?.tagName)).not.toBe("BODY");
  }, 90_000);
  it("Ctrl+Z takes back the last entry of one's own, at the bench and at the desk", async () => {
    const { page } = seat;
    await page.setViewportSize({ width: 1024, height: 768 });
    await page.goto(`${base()}/job/FS-1045/wiring`);
    await page.waitForLoadState("networkidle");
    await page.keyboard.press("Control+z");
    await page.getByText(/You have done nothing to this job that can be taken back/).waitFor();
    await page.goto(`${base()}/job/FS-1044/bench`);
    await page.waitForLoadState("networkidle");
    const stepNow = async () => Number(/step (\d+) of/.exec((await page.getByText(/step \d+ of/).textContent()) ?? "")?.[1]);
    const at = await stepNow();
    await page.getByRole("button", { name: "Done", exact: true }).click();
    await expect.poll(stepNow).toBe(at + 1);
    await page.getByText("all sent").waitFor();
    await page.locator("h1").click();
    await page.keyboard.press("Control+z");
    await expect.poll(stepNow, { timeout: 20_000 }).toBe(at);
    await page.setViewportSize({ width: 1280, height: 800 });
  }, 60_000);
});

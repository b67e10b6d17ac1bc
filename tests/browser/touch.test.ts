import type { Browser, BrowserContext, CDPSession, Page } from "playwright-core";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { accessible, base, launch, signIn } from "./page";

let browser: Browser;
let context: BrowserContext;
let page: Page;
let fingers: CDPSession;
beforeAll(async () => {
  browser = await launch();
  context = await browser.newContext({ locale: "en-GB", viewport: { width: 1280, height: 800 }, hasTouch: true });
  page = await context.newPage();
  await signIn(page, "Mirel Quist");
  fingers = await context.newCDPSession(page);
});
afterAll(async () => {
  await browser.close();
});

/** Two fingers round a point, `from` to `to` px apart. */
async function pinch(x: number, y: number, from: number, to: number) {
  const at = (d: number) => [
    { x: x - d / 2, y },
    { x: x + d / 2, y },
  ];
  await fingers.send("Input.dispatchTouchEvent", { type: "touchStart", touchPoints: at(from) });
  for (let i = 1; i <= 8; i++) await fingers.send("Input.dispatchTouchEvent", { type: "touchMove", touchPoints: at(from + ((to - from) * i) / 8) });
  await fingers.send("Input.dispatchTouchEvent", { type: "touchEnd", touchPoints: [] });
}

describe("the wiring by touch", () => {
  it("a finger on several ports asks in rows; the row chosen is the port chosen", async () => {
    await page.goto(`${base()}/job/FS-1044/wiring`);
    await page.waitForLoadState("networkidle");
    const svg = page.getByRole("group", { name: /^Front of the tray, rear/ });
    const at = await svg
      .locator("g", { has: page.locator("title", { hasText: /^SYS_FAN1:/ }) })
      .last()
      .boundingBox();
    if (!at) throw new Error("no SYS_FAN1 on the plan");
    await page.touchscreen.tap(at.x + at.width / 2, at.y + at.height / 2);
    const ask = page.getByRole("dialog", { name: "Which one?" });
    await ask.waitFor();
    const rows = await ask.getByRole("list").getByRole("button").allTextContents();
    expect(rows.length).toBeGreaterThan(2);
    expect(rows[0]).toContain("SYS_FAN1");
    for (const box of await ask
      .getByRole("list")
      .getByRole("button")
      .evaluateAll((list) => list.slice(0, -1).map((b) => b.getBoundingClientRect().height)))
      expect(box).toBeGreaterThanOrEqual(48);
    await accessible(page);
    await ask.getByRole("button", { name: /SYS_FAN1/ }).tap();
    await ask.waitFor({ state: "detached" });
    expect(await page.getByRole("region", { name: "Inspector" }).textContent()).toContain("SYS_FAN1");
  });
  it("let go chooses nothing", async () => {
    // Without what is chosen in the address.
    await page.goto(page.url().replace(/[?#].*/, ""));
    await page.waitForLoadState("networkidle");
    const svg = page.getByRole("group", { name: /^Front of the tray, rear/ });
    const at = await svg
      .locator("g", { has: page.locator("title", { hasText: /^SYS_FAN1:/ }) })
      .last()
      .boundingBox();
    if (!at) throw new Error("no SYS_FAN1 on the plan");
    await page.touchscreen.tap(at.x + 4, at.y + 4);
    await page.getByRole("dialog", { name: "Which one?" }).getByRole("button", { name: "Let go" }).tap();
    expect(await page.getByRole("listbox", { name: "Leads" }).getByRole("option", { selected: true }).count()).toBe(0);
  });
  it("a mouse is exact and is never asked", async () => {
    const svg = page.getByRole("group", { name: /^Front of the tray, rear/ });
    const at = await svg
      .locator("g", { has: page.locator("title", { hasText: /^SYS_FAN1:/ }) })
      .last()
      .boundingBox();
    await page.mouse.click((at?.x ?? 0) + (at?.width ?? 0) / 2, (at?.y ?? 0) + (at?.height ?? 0) / 2);
    expect(await page.getByRole("dialog", { name: "Which one?" }).count()).toBe(0);
  });
  it("two fingers spread zoom by name, closed they go back; one finger drags the drawing", async () => {
    const pressed = () => page.getByRole("toolbar", { name: "Looms and zoom" }).locator('[aria-pressed="true"]').allTextContents();
    expect(await pressed()).toEqual(["Whole"]);
    const plan = await page.getByRole("region", { name: "Plan" }).boundingBox();
    if (!plan) throw new Error("no plan");
    const [x, y] = [plan.x + plan.width / 2, plan.y + 300];
    await pinch(x, y, 80, 130);
    await expect.poll(pressed).toEqual(["Region"]);
    const scroll = () => page.getByRole("group", { name: "Drawing of the machine" }).evaluate((e) => [e.scrollLeft, e.scrollTop]);
    const before = await scroll();
    await fingers.send("Input.dispatchTouchEvent", { type: "touchStart", touchPoints: [{ x, y }] });
    for (let i = 1; i <= 10; i++)
      await fingers.send("Input.dispatchTouchEvent", { type: "touchMove", touchPoints: [{ x: x + i * 12, y: y + i * 12 }] });
    await fingers.send("Input.dispatchTouchEvent", { type: "touchEnd", touchPoints: [] });
    await expect.poll(scroll).not.toEqual(before);
    await pinch(x, y, 130, 80);
    await expect.poll(pressed).toEqual(["Whole"]);
  });
  it("tapping a lead in the list, then a key, places nothing by accident", async () => {
    await page.reload();
    await page.waitForLoadState("networkidle");
    await page.getByRole("listbox", { name: "Leads" }).getByRole("option").nth(2).tap();
    expect(await page.getByRole("listbox", { name: "Leads" }).getByRole("option", { selected: true }).count()).toBe(1);
    expect(await page.getByRole("region", { name: "Why here" }).isVisible()).toBe(true);
  });
});

describe("the bench by touch", () => {
  it("Done by a tap ticks one step; keys change sides for the left hand and stay there", async () => {
    await page.setViewportSize({ width: 1024, height: 768 });
    await page.goto(`${base()}/job/FS-1042/bench`);
    const stepNow = async () => Number(/card (\d+) of/.exec((await page.getByText(/card \d+ of/).textContent()) ?? "")?.[1]);
    await page.getByText(/card \d+ of/).waitFor();
    await page.waitForLoadState("networkidle");
    const at = await stepNow();
    await page.getByRole("button", { name: /^Done/ }).tap();
    await expect.poll(stepNow).toBe(at + 1);
    await page.getByText("all sent").waitFor();
    const left = async (name: string) => (await page.getByRole("button", { name: new RegExp(`^${name}`) }).boundingBox())?.x ?? -1;
    expect(await left("Done")).toBeGreaterThan(await left("Differs"));
    await page.getByRole("button", { name: /card \d+ of/ }).tap();
    await page.getByRole("button", { name: "Keys for the left hand" }).tap();
    await page.getByRole("dialog").getByRole("button", { name: "Close", exact: true }).tap();
    expect(await left("Done")).toBeLessThan(await left("Differs"));
    await page.reload();
    await page.getByText(/card \d+ of/).waitFor();
    await expect.poll(async () => (await left("Done")) < (await left("Differs"))).toBe(true);
  });
  it("every target is at least 80 by 80 px, 12 apart, in the keys and the sheet", async () => {
    const keys = await page.locator("footer .key-bench").evaluateAll((list) => list.map((b) => b.getBoundingClientRect().toJSON() as DOMRect));
    expect(keys.length).toBeGreaterThanOrEqual(5);
    const sorted = keys.sort((a, b) => a.x - b.x);
    for (const [i, k] of sorted.entries()) {
      expect(Math.min(k.width, k.height)).toBeGreaterThanOrEqual(80);
      const next = sorted[i + 1];
      if (next) expect(next.x - (k.x + k.width)).toBeGreaterThanOrEqual(12);
    }
  });
});

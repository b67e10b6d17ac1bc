import type { Browser } from "playwright-core";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { accessible, base, launch, type Seat, sit } from "./page";

let browser: Browser;
let seat: Seat;
beforeAll(async () => {
  browser = await launch();
  seat = await sit(browser, "Mirel Quist", { width: 1024, height: 768 });
  await seat.page.goto(`${base()}/job/FS-1042/bench`);
});
afterAll(async () => {
  await browser.close();
});

const stepNow = async () => Number(/step (\d+) of/.exec((await seat.page.getByText(/step \d+ of \d+/).textContent()) ?? "")?.[1]);

describe("the bench, at arm's length", () => {
  it("keeps every key at 80 by 80 px or more with 12 between, and every word at 24 px or more", async () => {
    const { page } = seat;
    const keys = await page.locator("footer button, footer a").evaluateAll((list) => list.map((k) => k.getBoundingClientRect().toJSON() as DOMRect));
    for (const k of keys) expect([k.width >= 80, k.height >= 80]).toEqual([true, true]);
    for (let i = 1; i < keys.length; i++) expect((keys[i]?.left ?? 0) - (keys[i - 1]?.right ?? 0)).toBeGreaterThanOrEqual(11.5);
    const small = await page.evaluate(() =>
      [...document.querySelectorAll("main *")]
        .filter(
          (e) =>
            [...e.childNodes].some((n) => n.nodeType === 3 && n.textContent?.trim()) &&
            Number.parseFloat(getComputedStyle(e).fontSize) < 24 &&
            !e.closest(".sr-only") &&
            // What a pointer is told of a shape is no word on the screen.
            e.tagName !== "title",
        )
        .map((e) => e.textContent?.slice(0, 40)),
    );
    expect(small).toEqual([]);
    const action = await page.getByRole("heading", { level: 1 }).evaluate((e) => Number.parseFloat(getComputedStyle(e).fontSize));
    expect(action).toBe(40);
  });

  it("nothing is cut off at 1024 by 768", async () => {
    const { page } = seat;
    expect(
      await page.evaluate(
        () => document.documentElement.scrollHeight <= window.innerHeight && document.documentElement.scrollWidth <= window.innerWidth,
      ),
    ).toBe(true);
    expect(await page.getByRole("button", { name: "Done" }).isVisible()).toBe(true);
  });

  it("looking back and ahead ticks nothing; Done then returns", async () => {
    const { page } = seat;
    const at = await stepNow();
    await page.getByRole("button", { name: "Look back" }).click();
    expect(await stepNow()).toBe(at - 1);
    expect(await page.getByRole("button", { name: "Undo" }).isVisible()).toBe(true);
    await page.getByRole("button", { name: `Return to step ${at}` }).click();
    expect(await stepNow()).toBe(at);
    await page.getByRole("button", { name: "Look ahead" }).click();
    expect(await stepNow()).toBe(at + 1);
    await page.getByRole("button", { name: `Return to step ${at}` }).click();
    expect(await stepNow()).toBe(at);
  });

  it("says on demand what a press of the button would do now", async () => {
    const { page } = seat;
    await page.getByRole("button", { name: "If I press" }).click();
    const sheet = page.getByRole("dialog", { name: "If you press the button now" });
    expect(await sheet.textContent()).toMatch(/If you press now: nothing/);
    await accessible(page);
    await sheet.getByRole("button", { name: "Close" }).click();
  });

  it("skips with a reason, which stays in the log, and leaves the step open", async () => {
    const { page } = seat;
    const at = await stepNow();
    await page.getByRole("button", { name: "Skip" }).click();
    await page.getByRole("dialog").getByRole("textbox").fill("waiting for the long driver");
    await page.getByRole("button", { name: "Skip it" }).click();
    await page.getByText(new RegExp(`step ${at + 1} of`)).waitFor();
    await page.getByText("all sent").waitFor();
    await page.goto(`${base()}/job/FS-1042/order`);
    await page.getByRole("button", { name: "Log" }).click();
    expect(await page.getByRole("region", { name: "Log" }).textContent()).toContain("waiting for the long driver");
  });

  it("a plug that is really elsewhere is recorded so, beside what was planned", async () => {
    const { page } = seat;
    await page.goto(`${base()}/job/FS-1044/bench`);
    await page.getByRole("button", { name: /step \d+ of/ }).click();
    await page
      .getByRole("dialog", { name: "All steps" })
      .getByRole("button", { name: /into CPU_FAN/ })
      .click();
    await page.getByRole("button", { name: "Differs" }).click();
    const other = page.getByRole("dialog", { name: "Where is it really?" }).getByRole("button").filter({ hasText: "SYS_FAN1" }).first();
    await other.click();
    await page.getByText("all sent").waitFor();
    await page.goto(`${base()}/job/FS-1044/wiring`);
    await page.getByRole("option", { name: /SYS_FAN1, not as planned/ }).waitFor();
  });

  it("a double tap on Done ticks one step", async () => {
    const { page } = seat;
    await page.goto(`${base()}/job/FS-1042/bench`);
    const at = await stepNow();
    await page.getByRole("button", { name: "Done", exact: true }).dblclick();
    await page.waitForTimeout(900);
    await page.getByText("all sent").waitFor();
    expect(await stepNow()).toBe(at + 1);
  });
});

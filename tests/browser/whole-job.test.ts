import { readdirSync } from "node:fs";
import type { Browser, Page } from "playwright-core";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { TRIAL } from "../cases";
import { base, launch, readIn as read, rested, type Seat, sit, tabTo } from "./page";
import { plannedJob } from "./stored";

let browser: Browser;
let seat: Seat;
beforeAll(async () => {
  browser = await launch();
  seat = await sit(browser, "Tansy Okoru");
});
afterAll(async () => {
  await browser.close();
});

describe("one job by keyboard alone, from the file to the first boot", () => {
  it("is read in, planned, wired, ticked, started and logged without a pointer", async () => {
    const { page } = seat;
    const number = await read(page, "examples/fs-1046.json");
    await page.waitForLoadState("networkidle");
    await page.keyboard.press("g");
    await page.keyboard.press("2");
    await page.waitForURL(/\/wiring/);
    await tabTo(page, /^\s*Plan the wiring$/);
    await page.keyboard.press("Enter");
    await page.getByText(/^Plan \d+(, proved| is proved)/).waitFor({ timeout: 150_000 });
    await page.keyboard.press("g");
    await page.keyboard.press("4");
    await page.waitForURL(/\/bench/);
    await page.waitForLoadState("networkidle");
    const total = Number(/of (\d+)/.exec((await page.getByText(/card 1 of \d+/).textContent()) ?? "")?.[1]);
    for (let n = 1; n <= total; n++) {
      await page.getByText(new RegExp(`card ${n} of ${total}`)).waitFor();
      await rested(page);
      await page.keyboard.press("Space");
    }
    await page.getByText("Every step is done.").waitFor({ timeout: 20_000 });
    await page.getByText("all sent").waitFor({ timeout: 20_000 });
    await tabTo(page, /^\s*First boot$/);
    await page.keyboard.press("Enter");
    await page.waitForURL(/\/first-boot/);
    await page.getByText("If you press now: it starts, all fans turn; not working: Front USB-C.").waitFor();
    await tabTo(page, /^\s*All of Before the button as expected/);
    await page.keyboard.press("Enter");
    await page.getByText(/1 line of Before the button recorded as expected/).waitFor();
    await page.goto(`${base()}/job/${number}/handover`);
    const [, left] = /(\d+) lines of first boot nobody has seen/.exec((await page.locator("main").textContent()) ?? "") ?? [];
    expect(Number(left)).toBeGreaterThan(10);
  });
});

describe("two people on one job", () => {
  // With the sheet that asks, in alone.test.ts, for every change.
  it.runIf(TRIAL)("two benches with two facts: the second is asked to look, and the first stays", async () => {
    const one = await sit(browser, "Ebo Larkmoor", { width: 1024, height: 768 });
    const two = await sit(browser, "Mirel Quist", { width: 1024, height: 768 });
    const number = await plannedJob("examples/fs-1041.json");
    const open = async (p: Page) => {
      await p.goto(`${base()}/job/${number}/bench`);
      await p.waitForLoadState("networkidle");
      await p.getByRole("button", { name: /card \d+ of/ }).click();
      await p
        .getByRole("dialog", { name: "All cards" })
        .getByRole("button", { name: /Plug Rear fan into|Plug the rear edge/ })
        .click();
      await p.getByRole("dialog").waitFor({ state: "detached" });
    };
    await open(one.page);
    await open(two.page);
    // Both look at the same step with the same place on the screen. One finds the plug elsewhere; the other does too, but in a third port.
    const differs = async (p: Page, label: RegExp) => {
      await p.getByRole("button", { name: "Differs" }).click();
      await p.getByRole("dialog", { name: "What is really there?" }).getByRole("button").filter({ hasText: label }).first().click();
    };
    // The second hears nothing of the first's entry before it makes its own.
    await two.context.setOffline(true);
    await differs(one.page, /SYS_FAN3/);
    await one.page.getByText("all sent").waitFor();
    await differs(two.page, /SYS_FAN4/);
    await two.context.setOffline(false);
    await two.page.getByText("1 to look at").waitFor({ timeout: 30_000 });
    await two.page.getByRole("button", { name: /Entries of this tablet/ }).click();
    await two.page
      .getByRole("region", { name: "To look at" })
      .getByText(/is in SYS_FAN3 \(Ebo Larkmoor, \d\d:\d\d\) and in SYS_FAN4 \(Mirel Quist, \d\d:\d\d\)\. Look at the plug, then choose\./)
      .waitFor();
    await one.page.goto(`${base()}/job/${number}/wiring`);
    expect(await one.page.getByRole("option", { name: /Rear fan.*SYS_FAN3, not as planned/ }).count()).toBe(1);
    await one.context.close();
    await two.context.close();
  });

  it("what one ticks the other sees without doing anything", async () => {
    const desk = await sit(browser, "Runa Thistlewood");
    const bench = await sit(browser, "Ebo Larkmoor", { width: 1024, height: 768 });
    await desk.page.goto(`${base()}/job/FS-1042/bench`);
    const stepOf = async (p: Page) => Number(/card (\d+) of/.exec((await p.getByText(/card \d+ of/).textContent()) ?? "")?.[1]);
    await desk.page.waitForLoadState("networkidle");
    await bench.page.goto(`${base()}/job/FS-1042/bench`);
    await bench.page.waitForLoadState("networkidle");
    const at = await stepOf(desk.page);
    await bench.page.getByRole("button", { name: /^Done/ }).click();
    await bench.page.getByText("all sent").waitFor();
    await expect.poll(() => stepOf(desk.page), { timeout: 20_000 }).toBe(at + 1);
    await desk.context.close();
    await bench.context.close();
  });
});

/** Three for every change, as unlike as they come; all in the trial. */
const EXAMPLES = readdirSync("examples").filter(
  (f) => f.endsWith(".json") && (TRIAL || ["fs-1043.json", "fs-1045.json", "fs-1047.json"].includes(f)),
);

describe("examples", () => {
  it.each(EXAMPLES)("%s is planned and shown on every screen", async (file) => {
    const { page } = seat;
    const number = await plannedJob(`examples/${file}`);
    // What a page is made of is made by the server; the two with drawings are opened too.
    for (const stage of ["parts", "order", "first-boot", "faults", "handover", "receipt"]) {
      const r = await page.request.get(`${base()}/job/${number}/${stage}`);
      const made = await r.text();
      expect([stage, r.status(), made.includes("data-dgst"), made.includes(`<main`)]).toEqual([stage, 200, false, true]);
    }
    for (const stage of ["wiring", "bench"]) {
      const r = await page.goto(`${base()}/job/${number}/${stage}`);
      expect([stage, r?.status()]).toEqual([stage, 200]);
      expect(await page.getByText("Something went wrong").count()).toBe(0);
    }
    expect(seat.errors).toEqual([]);
  });
});

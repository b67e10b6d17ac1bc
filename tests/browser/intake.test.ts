import { readFileSync } from "node:fs";
import type { Browser, Page } from "playwright-core";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { accessible, base, launch, type Seat, sit } from "./page";

let browser: Browser;
let desk: Seat;
beforeAll(async () => {
  browser = await launch();
  desk = await sit(browser, "Runa Thistlewood");
});
afterAll(async () => browser.close());

const paste = async (page: Page, text: string) => {
  await page.goto(`${base()}/intake`);
  await page.waitForLoadState("networkidle");
  const anew = page.getByRole("button", { name: "Begin anew" });
  if ((await anew.count()) > 0) await anew.click();
  await page.getByLabel(/Pasted/).fill(text);
  await page.getByRole("button", { name: "Read the list" }).click();
};

describe("a mail of a client", () => {
  it("is read line by line and judged before anything is pressed; who writes, by when and for how much stand in the form", async () => {
    const { page } = desk;
    await paste(page, readFileSync("examples/mails/studio.txt", "utf8"));
    await page.getByRole("heading", { name: /^17 parts: 9 known, 8 new; total 89\.90 of 2,000\.00\.$/ }).waitFor();
    expect(await page.getByLabel("Client", { exact: true }).inputValue()).toBe("Berit Okonski");
    expect(await page.getByLabel("Telephone").inputValue()).toBe("0171 555 2233");
    expect(await page.getByLabel("At what hour").inputValue()).toBe("15:00");
    expect(await page.getByLabel("Budget", { exact: true }).inputValue()).toBe("2000");
    await page.getByText(/does not fit beside the drive cage/).waitFor();
    await accessible(page);
  });
  it("is corrected in place: not a part, how many, another type found; a reload loses nothing", async () => {
    const { page } = desk;
    await page.getByLabel(/^Line 18, Whirrow 140 long lead: how many/).fill("0");
    await page.getByLabel(/^Line 21, .*what it is/).selectOption("talk");
    await page.getByRole("button", { name: /^Line 12, .*find another part type/ }).click();
    const find = page.getByRole("dialog", { name: "Which part type is it?" });
    await find.getByLabel("Find a part type").fill("wren t30");
    await find.getByRole("button", { name: "It is Wren T30" }).click();
    await page.getByRole("heading", { name: /^14 parts: 9 known, 5 new/ }).waitFor();
    await page.reload();
    await page.waitForLoadState("networkidle");
    await page.getByRole("heading", { name: /^14 parts: 9 known, 5 new/ }).waitFor();
    await page.getByLabel("The machine, in two or three words").fill("Sound studio");
  });
  it("twelve unknown parts become a planned build: what matters is asked, the worst first, and answered with one press", async () => {
    const { page } = desk;
    const unknown = [
      "Motherboard: Stellan Gorge B9 ATX",
      "CPU: Marrow 9 65W",
      "CPU cooler: Nordlicht N9",
      "RAM: 2x16GB Tolliver DDR5-5600",
      "Graphics card: Borealis X5 180W",
      "SSD: Ferry Onyx 1TB NVMe",
      "Hard disk: Ferry Deep 4TB",
      "Power supply: Quern P7 750W",
      "Case: Vantage Airbox 9 ATX",
      "2x Case fan Drift 120 mm",
      "Fan hub Drift H6",
      "LED strip Onyx blue",
    ];
    await paste(page, unknown.map((u) => `- ${u}`).join("\n"));
    await page.getByRole("heading", { name: /^14 parts: 0 known, 14 new\.$/ }).waitFor();
    let actions = 2;
    await page.getByLabel("Client", { exact: true }).fill("Tidewrack Rowing Club");
    await page.getByLabel("The machine, in two or three words").fill("Boat house");
    await page.getByRole("button", { name: "Make the job" }).click();
    actions += 3;
    await page.waitForURL(/\/job\/FS-\d+\/parts\?show=matters/);
    await page.getByRole("heading", { name: /^\d+ of \d+ assumed values decide something$/ }).waitFor({ timeout: 90_000 });
    // What the list says is there at once; counted is what the wiring says, too.
    await page.getByText(/^The worst that may turn out stands first/).waitFor({ timeout: 90_000 });
    await accessible(page);
    const questions = page
      .getByRole("region", { name: "What matters" })
      .getByRole("listitem")
      .filter({ has: page.getByRole("heading") });
    const before = await questions.count();
    await questions
      .first()
      .getByRole("button", { name: /As assumed|^Yes/i })
      .first()
      .click();
    actions += 1;
    await page.getByText(/^As it was assumed: nothing else changes\./).waitFor();
    await expect.poll(() => questions.count(), { timeout: 90_000 }).toBe(before - 1);
    await page.getByRole("link", { name: /Wiring/ }).click();
    await page.getByRole("button", { name: "Plan the wiring" }).click();
    actions += 2;
    // A slow machine shows a first plan before its proof, and may replace it.
    await page.getByText(/^Plan \d+(, proved| is proved)/).waitFor({ timeout: 200_000 });
    expect(actions).toBeLessThanOrEqual(60);
    expect(desk.errors).toEqual([]);
  });
});

import type { Browser } from "playwright-core";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { accessible, base, launch, type Seat, sit } from "./page";
import { plannedJob } from "./stored";

let browser: Browser;
let desk: Seat;
let job = "";
beforeAll(async () => {
  browser = await launch();
  desk = await sit(browser, "Tansy Okoru");
  job = await plannedJob("examples/fs-1046.json");
  await desk.page.goto(`${base()}/job/${job}/wiring`);
  await desk.page.waitForLoadState("networkidle");
});
afterAll(async () => {
  await browser.close();
});

describe("findings", () => {
  it("a warning is set aside with a reason, then shows it with the name, here and at handover", async () => {
    const { page } = desk;
    await page.getByRole("button", { name: /Warn/ }).click();
    const panel = page.getByRole("region", { name: "Findings" });
    const mine = panel.getByRole("listitem").filter({ hasText: "front USB-C" });
    await mine.getByRole("button", { name: /^Set aside/ }).click();
    await mine.getByLabel(/Why it may stay/).fill("no");
    expect(await mine.getByRole("button", { name: "Set aside", exact: true }).isDisabled()).toBe(true);
    await mine.getByLabel(/Why it may stay/).fill("The client has nothing with that plug.");
    await accessible(page);
    await mine.getByRole("button", { name: "Set aside", exact: true }).click();
    await panel.getByText("Set aside. The reason and your name stay on record.").waitFor();
    await mine.getByText(/Set aside by Tansy Okoru, .+ was a warning: The client has nothing with that plug\./).waitFor();
    await accessible(page);
    await page.goto(`${base()}/job/${job}/handover`);
    await page.getByRole("heading", { name: "What was set aside, by whom and why" }).waitFor();
    await page.getByText("The client has nothing with that plug.").waitFor();
    expect(desk.errors).toEqual([]);
  });
});

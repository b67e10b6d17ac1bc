import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Browser } from "playwright-core";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { usbShort } from "../fixtures/short";
import { accessible, base, launch, readIn, type Seat, sit } from "./page";

let browser: Browser;
let desk: Seat;
const folder = mkdtempSync(join(tmpdir(), "imbra-"));
beforeAll(async () => {
  browser = await launch();
  desk = await sit(browser, "Tansy Okoru");
});
afterAll(async () => {
  await browser.close();
});

describe("what stays free, and the way out", () => {
  it("says the fewest things that would let it in; one press orders them and plans again", async () => {
    const { page } = desk;
    const file = join(folder, "short.json");
    // By hand: 2 halves of one header; a hub takes one and gives six. One hub in stock: 7 places for 8 devices.
    writeFileSync(file, JSON.stringify(usbShort(8, { mayOrder: false }).build));
    const job = await readIn(page, file);
    await page.goto(`${base()}/job/${job}/wiring`);
    await page.waitForLoadState("networkidle");
    await page.getByRole("button", { name: "Plan the wiring" }).click();
    // Jobs of other tests may have taken the hub from stock; then it takes two. Exact counts stand in the database tests.
    const ways = page.getByRole("region", { name: /wanted ends? stays? free$/ });
    await ways.waitFor({ timeout: 150_000 });
    expect(await ways.getByRole("listitem").allInnerTexts()).toEqual([expect.stringMatching(/^[12] more Internal USB 2 hub$/)]);
    if (process.env.IMBRA_PICTURE) await page.screenshot({ path: process.env.IMBRA_PICTURE });
    await accessible(page);
    await ways.getByRole("button", { name: "Order it and plan again" }).click();
    await page.getByText(/^Plan \d+(, proved in| is proved as it stands,) .+, 0 wanted ends free\./).waitFor({ timeout: 150_000 });
    await ways.waitFor({ state: "detached" });
    await page.goto(`${base()}/job/${job}/parts`);
    await page.getByRole("button", { name: "Order list" }).click();
    await page.getByText("Internal USB 2 hub").first().waitFor();
  });
});

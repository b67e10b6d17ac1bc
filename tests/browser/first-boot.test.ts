import type { Browser } from "playwright-core";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { accessible, base, launch, type Seat, sit } from "./page";

let browser: Browser;
let desk: Seat;
beforeAll(async () => {
  browser = await launch();
  desk = await sit(browser, "Runa Thistlewood");
});
afterAll(async () => browser.close());

describe("after the button", () => {
  it("one sheet in the order in which one looks, some fourteen rows in sight, with what the first seconds bring beside it", async () => {
    const { page } = desk;
    await page.setViewportSize({ width: 1280, height: 800 });
    await page.goto(`${base()}/job/FS-1045/first-boot`);
    await page.waitForLoadState("networkidle");
    const headings = await page.getByRole("group", { name: "Lines of the sheet" }).getByRole("heading", { level: 2 }).allTextContents();
    expect(headings).toEqual(["Before the button", "First ten seconds", "Firmware screen", "Settings", "System", "Front ports", "Soak"]);
    await page.getByRole("button", { name: /^First ten seconds/ }).click();
    const inSight = await page.getByRole("group", { name: "Lines of the sheet" }).evaluate((box) => {
      const b = box.getBoundingClientRect();
      return [...box.querySelectorAll("li")].filter((r) => r.getBoundingClientRect().top >= b.top && r.getBoundingClientRect().bottom <= b.bottom + 1)
        .length;
    });
    expect(inSight).toBeGreaterThanOrEqual(12);
    await page.getByRole("region", { name: "The first seconds" }).getByText("Every fan and pump turns, loud: full speed.").waitFor();
    await accessible(page);
  });
  it("a setting is written down with before and after; otherwise than wanted stays open; a curve is a chart and a table", async () => {
    const { page } = desk;
    await page.getByRole("button", { name: /^Settings/ }).click();
    await page.getByRole("button", { name: "Memory profile: write it down" }).click();
    const sheet = page.getByRole("dialog", { name: "Memory profile" });
    await sheet.getByLabel("Before", { exact: true }).fill("4800");
    await sheet.getByLabel("Now, MT/s").fill("4800");
    await sheet.getByRole("button", { name: "It is set" }).click();
    await page.getByText("otherwise than wanted").waitFor();
    await page.getByRole("button", { name: "Start order: as wanted" }).click();
    await page.getByText("Start order: as wanted.").waitFor();
    await page.getByRole("button", { name: /^Fan curve of SYS_FAN3: write/ }).click();
    await page.getByRole("dialog", { name: "Fan curve of SYS_FAN3" }).getByRole("cell", { name: "100 %" }).waitFor();
    await accessible(page);
    await page.keyboard.press("Escape");
  });
  it("a soak is typed where nobody logged, fills in the line of full load, and asks for the next round of curves", async () => {
    const { page } = desk;
    await page.getByRole("button", { name: /^Soak/ }).click();
    await page.getByRole("button", { name: "Type what was read" }).click();
    const sheet = page.getByRole("dialog", { name: "A soak, typed" });
    await sheet.getByLabel("Minutes under load").fill("120");
    await sheet.getByLabel("Highest of the CPU, °C").fill("64");
    await sheet.getByRole("button", { name: "Keep it" }).click();
    await page.getByText("It held", { exact: true }).waitFor();
    await page.reload();
    await page.getByRole("button", { name: /^Fan curve of SYS_FAN3: write/ }).click();
    await page
      .getByText(/64 °C was measured: room to be quieter\./)
      .first()
      .waitFor();
    await page.keyboard.press("Escape");
  });
  it("what the client was promised stands as a line to be proved; not tested says why, and the hand-over knows of all of it", async () => {
    const { page } = desk;
    await page.goto(`${base()}/job/FS-1045/parts?show=client`);
    await page.waitForLoadState("networkidle");
    const wish = page.getByRole("region", { name: "What the client wants" });
    await wish.getByLabel("About").selectOption("installed");
    await wish.getByLabel("What is promised").fill("the rink's song player installed");
    await wish
      .locator("form", { has: page.getByLabel("What is promised") })
      .getByRole("button")
      .click();
    await page.getByText("the rink's song player installed").first().waitFor();
    // A number is promised where there is one: what is measured is held against it.
    await wish.getByLabel("About").selectOption("program");
    await wish.getByLabel("What is promised").fill("the rink race");
    await wish.getByLabel("At least, frames a second").fill("60");
    await wish
      .locator("form", { has: page.getByLabel("What is promised") })
      .getByRole("button")
      .click();
    await page.getByText(/at least 60 frames a second, /).waitFor();
    await page.goto(`${base()}/job/FS-1045/first-boot#group=Proof`);
    await page.getByRole("button", { name: "What came of: the rink race" }).click();
    await page
      .getByRole("dialog")
      .locator('input[type="file"]')
      .setInputFiles({ name: "race.csv", mimeType: "text/csv", buffer: Buffer.from(`frame time ms\n${Array(400).fill("20").join("\n")}\n`) });
    await page.getByText(/400 frames in/).waitFor();
    await page.getByRole("button", { name: "That was measured" }).click();
    await page.getByText("Measured 50, promised at least 60.").waitFor();
    await page.getByRole("button", { name: /^What came of: the rink's song player/ }).click();
    const sheet = page.getByRole("dialog");
    await sheet.getByRole("button", { name: "Not tested" }).click();
    await sheet.getByText(/Write why/).waitFor();
    await sheet.getByLabel(/^Why/).fill("the client brings it on Friday");
    await sheet.getByRole("button", { name: "Not tested" }).click();
    await page.getByText("the client brings it on Friday").waitFor();
    await page.goto(`${base()}/job/FS-1045/handover`);
    const keeps = page.getByRole("list", { name: "What keeps it here" });
    await keeps.getByText(/settings and things of the system not as wanted/).waitFor();
    await keeps.getByText(/start drive is still on it and comes off before it leaves/).waitFor();
    const label = await page.request.get(`${base()}/files/job/FS-1045/machine-labels.pdf`);
    expect([label.status(), (await label.body()).subarray(0, 5).toString()]).toEqual([200, "%PDF-"]);
    await page.getByRole("link", { name: "Label for the machine" }).waitFor();
    expect(desk.errors).toEqual([]);
  });
});

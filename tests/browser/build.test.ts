import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Browser, Page } from "playwright-core";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { TRIAL } from "../cases";
import { accessible, accessibleCard, base, launch, readIn, rested, type Seat, signIn, sit } from "./page";
import { plannedJob } from "./stored";

// Whole machines from the first card to the last, as hands build them.

let browser: Browser;
let desk: Seat;
const BENCH = { width: 1024, height: 768 };
beforeAll(async () => {
  browser = await launch();
  desk = await sit(browser, "Runa Thistlewood");
});
afterAll(async () => {
  await browser.close();
});

const title = async (page: Page) => (await page.getByRole("heading", { level: 1 }).textContent()) ?? "";
const over = (page: Page) => page.getByText("Every step is done.");
/** Presses `press` until the machine is built or `until` holds; how often. */
async function build(page: Page, press: () => Promise<void>, until: (title: string) => boolean = () => false): Promise<number> {
  for (let n = 0; n < 60; n++) {
    const was = await title(page);
    if (until(was) || (await over(page).count()) > 0) return n;
    await press();
    await expect.poll(() => title(page), { timeout: 20_000 }).not.toBe(was);
    await rested(page);
  }
  throw new Error(`sixty presses, and it stands at: ${await title(page)}`);
}

describe("a whole build", () => {
  it.runIf(TRIAL)(
    "FS-1044 by keyboard alone",
    async () => {
      const job = await plannedJob("examples/fs-1044.json");
      const { page, context, errors } = await sit(browser, "Ebo Larkmoor", BENCH);
      await page.goto(`${base()}/job/${job}/bench`);
      await page.waitForLoadState("networkidle");
      let i = 0;
      const presses = await build(page, () => page.keyboard.press(i++ % 2 === 0 ? "Space" : "Enter"));
      // 27 cards: the supply slides in over what is plugged before it, so that edges are worked at twice.
      expect(presses).toBeLessThanOrEqual(27);
      await page.getByText("all sent").waitFor({ timeout: 30_000 });
      await page.reload();
      await over(page).waitFor();
      expect(errors).toEqual([]);
      await context.close();
    },
    240_000,
  );

  it("FS-1042 by touch, in at most 20 presses of Done; every kind of card passes axe at the bench's size", async () => {
    const job = await plannedJob("examples/fs-1042.json");
    const context = await browser.newContext({ locale: "en-GB", viewport: BENCH, hasTouch: true });
    const page = await context.newPage();
    await signIn(page, "Mirel Quist");
    await page.goto(`${base()}/job/${job}/bench`);
    await page.waitForLoadState("networkidle");
    const presses = await build(page, async () => {
      await accessibleCard(page);
      await page.getByRole("button", { name: /^Done/ }).tap();
    });
    expect(presses).toBeLessThanOrEqual(20);
    await page.getByText("all sent").waitFor({ timeout: 30_000 });
    await context.close();
  }, 300_000);

  it("FS-1046 with its shield forgotten and found late: what comes out is said, taken out, and the machine is finished", async () => {
    const job = await plannedJob("examples/fs-1046.json");
    const { page, context } = await sit(browser, "Tansy Okoru", BENCH);
    await page.goto(`${base()}/job/${job}/bench`);
    await page.waitForLoadState("networkidle");
    const press = () => page.getByRole("button", { name: /^Done/ }).click();
    // Ticked with the rest of its card; the board and its plugs go in over it.
    await build(page, press, (t) => /^Dress the /.test(t));
    await page.getByText("all sent").waitFor({ timeout: 30_000 });
    await page.getByRole("button", { name: /card \d+ of/ }).click();
    await page
      .getByRole("dialog", { name: "All cards" })
      .getByRole("button", { name: /tray ready/ })
      .click();
    await page.getByRole("button", { name: "Undo" }).click();
    const sheet = page.getByRole("dialog", { name: "Take it out again?" });
    await sheet.getByRole("button", { name: /I\/O shield/ }).click();
    await sheet.getByText(/steps come out again: \d+ leads, \d+ screws; about \d+/).waitFor();
    await accessible(page);
    await sheet.getByRole("button", { name: "It is out again" }).click();
    await page.getByText("all sent").waitFor({ timeout: 30_000 });
    // The shield comes first now, then everything that stood on it again.
    await expect.poll(() => title(page), { timeout: 20_000 }).toMatch(/I\/O shield|tray ready/);
    await build(page, press);
    await page.getByText("all sent").waitFor({ timeout: 30_000 });
    await desk.page.goto(`${base()}/job/${job}/order`);
    await desk.page.getByRole("heading", { name: "Every step is done." }).waitFor();
    await context.close();
  }, 300_000);

  it.runIf(TRIAL)(
    "a colleague takes over where the hands were, with what was skipped and why",
    async () => {
      const job = await plannedJob("examples/fs-1044.json");
      const one = await sit(browser, "Ebo Larkmoor", BENCH);
      await one.page.goto(`${base()}/job/${job}/bench`);
      await one.page.waitForLoadState("networkidle");
      const done = () => one.page.getByRole("button", { name: /^Done/ }).click();
      await build(one.page, done, (t) => /^Bench test/.test(t));
      await one.page.getByRole("button", { name: "Skip" }).click();
      await one.page.getByRole("dialog").getByRole("button", { name: "A part is missing" }).click();
      await expect.poll(() => title(one.page)).not.toMatch(/^Bench test/);
      await one.page.getByText("all sent").waitFor();
      const at = await title(one.page);
      await one.page.getByRole("button", { name: /card \d+ of/ }).click();
      await one.page.getByRole("button", { name: "Pause or hand over" }).click();
      const paused = one.page.getByRole("dialog", { name: "Paused" });
      await paused.getByText(/skipped, A part is missing/).waitFor();
      await accessible(one.page);
      await paused.getByRole("button", { name: "Somebody else goes on" }).click();
      await one.page.getByRole("dialog", { name: "Who works here?" }).waitFor();
      await one.context.close();
      const two = await sit(browser, "Mirel Quist", BENCH);
      await two.page.goto(`${base()}/job/${job}/bench`);
      await two.page.waitForLoadState("networkidle");
      expect(await title(two.page)).toBe(at);
      await two.page.getByRole("button", { name: /card \d+ of/ }).click();
      await two.page.getByRole("dialog", { name: "All cards" }).getByText("skipped: A part is missing").waitFor();
      await two.context.close();
    },
    240_000,
  );
});

describe("photos", () => {
  it("taken without a network is kept on the tablet, sent when there is one, and stands at the desk and in the record", async () => {
    const job = await plannedJob("examples/fs-1044.json");
    const { page, context } = await sit(browser, "Ebo Larkmoor", BENCH);
    await page.goto(`${base()}/job/${job}/bench`);
    await page.waitForLoadState("networkidle");
    const input = page.getByLabel("Take a photo of this card");
    await context.setOffline(true);
    const shot = await page.screenshot();
    await input.setInputFiles({ name: "card.png", mimeType: "image/png", buffer: shot });
    await page.getByText("Photo kept. It is sent by itself.").waitFor();
    await page.getByRole("img", { name: "Waits to be sent" }).waitFor();
    await context.setOffline(false);
    const sent = page.getByRole("list", { name: "Photos of this card" }).getByRole("img", { name: "By Ebo Larkmoor" });
    await sent.waitFor({ timeout: 40_000 });
    await expect.poll(() => sent.evaluate((e) => (e as HTMLImageElement).naturalWidth)).toBe(1024);
    // What is no photo, and what is too large, is a sentence; the work goes on.
    await input.setInputFiles({ name: "list.txt", mimeType: "text/plain", buffer: Buffer.from("no photo") });
    await page.getByText(/^list\.txt is no photo that Imbra reads/).waitFor();
    const large = join(mkdtempSync(join(tmpdir(), "imbra-")), "large.jpg");
    writeFileSync(large, Buffer.alloc(80_000_000));
    await input.setInputFiles(large);
    await page.getByText(/^large\.jpg has 80 MB; a photo may have 25 MB/).waitFor();
    // A file that only says that it is one is refused by the server, and can be dropped.
    await input.setInputFiles({ name: "false.jpg", mimeType: "image/jpeg", buffer: Buffer.from("not a picture at all") });
    await page.getByText(/This file is no photo that Imbra reads/).waitFor({ timeout: 30_000 });
    await page.getByRole("button", { name: "Drop it" }).click();
    await accessible(page);
    await desk.page.goto(`${base()}/job/${job}/handover`);
    await desk.page.getByRole("img", { name: /by Ebo Larkmoor$/ }).waitFor();
    await accessible(desk.page);
    const nobody = await browser.newContext();
    const address = (await sent.getAttribute("src")) ?? "";
    expect((await nobody.request.get(`${base()}${address}`)).status()).toBe(401);
    await nobody.close();
    await context.close();
  }, 240_000);

  it.runIf(TRIAL)(
    "hang on a part too: kept here first, stored under the part, and shown in its record",
    async () => {
      const { page, context } = desk;
      const job = await readIn(page, "examples/fs-1044.json");
      await page.goto(`${base()}/job/${job}/parts`);
      await page.waitForLoadState("networkidle");
      await page
        .getByRole("region", { name: "Parts list" })
        .getByRole("button", { name: /Rear fan/ })
        .click();
      const photos = page.getByRole("region", { name: "Photos of this part" });
      await context.setOffline(true);
      await photos.getByLabel("Add a photo").setInputFiles({ name: "fan.png", mimeType: "image/png", buffer: await page.screenshot() });
      await photos.getByText("Kept here, and sent by itself.").waitFor();
      await photos.getByRole("img", { name: "Waits to be sent" }).waitFor();
      await context.setOffline(false);
      await photos.getByRole("img", { name: /^By Runa Thistlewood/ }).waitFor({ timeout: 40_000 });
      await photos.getByLabel("Add a photo").setInputFiles({ name: "list.txt", mimeType: "text/plain", buffer: Buffer.from("no photo") });
      await photos.getByText(/^list\.txt is no photo that Imbra reads/).waitFor();
      await accessible(page);
      await page.goto(`${base()}/job/${job}/handover`);
      await page.getByRole("img", { name: /by Runa Thistlewood$/ }).waitFor();
    },
    120_000,
  );
});

/** A job of its own, built up to the card of its fans. */
async function atTheFans() {
  const job = await plannedJob("examples/fs-1041.json");
  const { page, context } = await sit(browser, "Mirel Quist", BENCH);
  await page.goto(`${base()}/job/${job}/bench`);
  await page.waitForLoadState("networkidle");
  await build(
    page,
    () => page.getByRole("button", { name: /^Done/ }).click(),
    (t) => /^Fit the fans/.test(t),
  );
  return { job, page, context };
}

describe("what is really built", () => {
  it("a fan at another place and one that is given up are said at the bench; air, checks and order follow", async () => {
    const { job, page, context } = await atTheFans();
    const differs = async (fan: RegExp, how: RegExp) => {
      await page.getByRole("button", { name: "Differs" }).click();
      const sheet = page.getByRole("dialog", { name: "What is really there?" });
      await sheet.getByRole("button", { name: fan }).click();
      await accessible(page);
      await sheet.getByRole("button", { name: how }).click();
      await page.getByText("all sent").waitFor({ timeout: 20_000 });
    };
    await differs(/Rear fan/, /^blowing in$/);
    await differs(/Front fan bottom/, /given up/);
    await expect.poll(() => title(page), { timeout: 20_000 }).toMatch(/Fit the fans: 3/);
    await desk.page.goto(`${base()}/job/${job}/parts`);
    await desk.page.getByRole("button", { name: "Log" }).click();
    const log = desk.page.getByRole("region", { name: "Log" });
    await log.getByText(/Rear fan: blowing in\./).waitFor();
    await log.getByText(/Front fan bottom removed from the parts\./).waitFor();
    await context.close();
  }, 240_000);
  it("a hand-measured millimetre stands beside the predicted one and is offered to the shelf; another part is said at the bench", async () => {
    const { job, page, context } = await atTheFans();
    const sheet = page.getByRole("dialog", { name: "What is really there?" });
    await page.getByRole("button", { name: "Differs" }).click();
    await sheet.getByRole("button", { name: /Front fan middle/ }).click();
    await sheet.getByRole("button", { name: /measured by hand/ }).click();
    await sheet.getByRole("button", { name: /^Thickness/ }).click();
    for (const digit of ["2", "8"]) await sheet.getByRole("button", { name: digit, exact: true }).click();
    await sheet.getByText("3 mm more.").waitFor();
    await accessible(page);
    await sheet.getByRole("button", { name: "Measured", exact: true }).click();
    await page.getByText("all sent").waitFor({ timeout: 20_000 });
    await page.getByRole("button", { name: "Differs" }).click();
    await sheet.getByRole("button", { name: /Front fan top/ }).click();
    await sheet.getByRole("button", { name: "another part, or another size" }).click();
    const other = sheet.getByRole("listitem").first();
    const name = (await other.textContent()) ?? "";
    await accessible(page);
    await other.getByRole("button").click();
    await page.getByText("all sent").waitFor({ timeout: 20_000 });
    await context.close();
    const { page: d } = desk;
    await d.goto(`${base()}/job/${job}/parts`);
    await d.getByRole("button", { name: "Log" }).click();
    const log = d.getByRole("region", { name: "Log" });
    await log.getByText("Front fan middle: thickness measured, 28 mm; 25 mm before.").waitFor();
    await log.getByText(new RegExp(`Front fan top: .* replaced by ${name}\\.`)).waitFor();
    await d.keyboard.press("Escape");
    await d
      .getByRole("region", { name: "Parts list" })
      .getByRole("button", { name: /Front fan middle/ })
      .click();
    await d.getByRole("region", { name: "Measured by hand" }).getByText("28 mm").waitFor();
    await accessible(d);
    await d.getByRole("link", { name: "Correct the shelf" }).click();
    await d.getByRole("region", { name: "Measured by hand" }).getByRole("button", { name: "Put 28 mm in" }).first().click();
    expect(await d.getByLabel("Thickness, mm").inputValue()).toBe("28");
    expect(await d.getByLabel("Why (stays with the revision)").inputValue()).toContain(`measured at ${job}: 28 mm`);
    await accessible(d);
    await d.getByRole("button", { name: "Save revision 2" }).click();
    await d.getByText(/^Saved as revision 2\./).waitFor();
    await d.getByRole("region", { name: "Measured by hand" }).waitFor({ state: "detached" });
  }, 240_000);
});

describe("the order at the desk", () => {
  it("a card is chosen by arrow keys, pulled by a key, refused with its reason; schools stand side by side", async () => {
    const { page } = desk;
    const job = await plannedJob("examples/fs-1041.json");
    await page.goto(`${base()}/job/${job}/order`);
    await page.waitForLoadState("networkidle");
    const list = page.getByRole("listbox", { name: "Cards in order" });
    await list.focus();
    await page.keyboard.press("Home");
    await expect.poll(() => list.getByRole("option", { selected: true }).textContent()).toMatch(/^1/);
    await page.keyboard.press("ArrowDown");
    await expect.poll(() => list.getByRole("option", { selected: true }).textContent()).toMatch(/^2/);
    // The board cannot come before its standoffs.
    await list.getByRole("option", { name: /Lay the board into the case/ }).click();
    await list.focus();
    await page.keyboard.press("Alt+ArrowUp");
    await page.getByText(/^Not possible\. /).waitFor();
    // One edge may come before another.
    await list
      .getByRole("option", { name: /Plug the front edge/ })
      .first()
      .click();
    await page.getByRole("button", { name: "Earlier", exact: true }).click();
    await page.getByText(/comes before “.*” now\.|departs from the shop's way|turned once more/).waitFor();
    await page.getByRole("button", { name: "Ways to work, side by side" }).click();
    await page.getByText("tied before the first start").waitFor();
    await page
      .getByRole("button", { name: /What would it cost/ })
      .first()
      .click();
    await page
      .getByText(/Nothing has to come out|come out again/)
      .first()
      .waitFor();
    await page.getByRole("button", { name: "With a part missing or some minutes left" }).click();
    await page.getByLabel("Minutes left").fill("20");
    await page.getByRole("button", { name: "What can be done now" }).click();
    await page.getByText(/^Stop after “|^Nothing fits/).waitFor();
    await accessible(page);
    const sheet = await page.request.get(`${base()}/files/job/${job}/run-sheet.pdf`);
    expect(sheet.headers()["content-type"]).toBe("application/pdf");
    expect((await sheet.body()).length).toBeGreaterThan(5000);
  }, 240_000);
});

import { readFileSync } from "node:fs";
import type { Browser } from "playwright-core";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { asked, base, demoPerson, launch, rested, type Seat, sit } from "./page";
import { plannedJob } from "./stored";

let browser: Browser;
let desk: Seat;
beforeAll(async () => {
  browser = await launch();
  desk = await sit(browser, "Runa Thistlewood");
});
afterAll(async () => {
  await browser.close();
});

describe("one job, from its parts to its first boot, through the real interface", () => {
  it("Benches says whether the week holds and what each bench does next", async () => {
    const { page } = desk;
    await page.goto(base());
    expect(await page.getByRole("heading", { level: 1 }).textContent()).toMatch(/All promises stand|In danger/);
    expect(await page.getByText("18 leads, none planned. Plan the wiring").isVisible()).toBe(true);
  });

  it("the wiring is planned with a press, in a thread of the server, and says so", async () => {
    const { page } = desk;
    await page.goto(`${base()}/job/FS-1041/wiring`);
    await page.getByRole("button", { name: "Plan the wiring" }).click();
    await page
      .getByText(/Plan \d+(, proved in| is proved as it stands).+ s.*: \d+ connections, \d+ moved, 0 wanted ends free\./)
      .waitFor({ timeout: 150_000 });
    expect(await page.getByRole("option").count()).toBeGreaterThan(30);
  });

  it("a lead chosen shows its route, its pins and why it is there", async () => {
    const { page } = desk;
    await page.getByRole("option", { name: /FP-01 Power switch/ }).click();
    expect(await page.getByRole("region", { name: "Why here" }).textContent()).toMatch(/Pins 6 and 8: power switch/);
    expect(await page.getByRole("img", { name: /front-panel block, 2×5, pins 6 and 8 chosen, position 10 blank/ }).isVisible()).toBe(true);
  });

  it("by keyboard alone: a fan is taken, placed on another header and fixed there; planning again keeps it", async () => {
    const { page } = desk;
    await page.goto(`${base()}/job/FS-1041/wiring`);
    await page.getByRole("listbox", { name: "Leads" }).focus();
    for (let i = 0; i < 60; i++) {
      await page.keyboard.press("ArrowDown");
      if (await page.getByRole("option", { name: /Rear fan/, selected: true }).count()) break;
    }
    await page.keyboard.press("Enter");
    const options = page.getByRole("region", { name: "Where it could go" }).getByRole("listitem");
    await options.first().waitFor();
    // Enter takes, the arrows choose, Enter places.
    for (let i = 0; i < 8; i++) {
      const now = await page.evaluate(() => document.activeElement?.textContent ?? "");
      if (now.includes("SYS_FAN4")) break;
      await page.keyboard.press("ArrowDown");
    }
    await page.keyboard.press("Enter");
    await page.getByText(/is fixed in SYS_FAN4/).waitFor();
    await page.getByRole("button", { name: "Plan again" }).click();
    await page.getByText(/^Plan \d+(, proved| is proved)/).waitFor({ timeout: 150_000 });
    await page.getByRole("option", { name: /Rear fan.*SYS_FAN4, fixed/ }).waitFor();
  });

  it("a wrong pairing is never on offer: front audio has one place to go", async () => {
    const { page } = desk;
    await page.getByRole("option", { name: /Front audio/ }).click();
    await page.getByRole("button", { name: "Take it, to place it elsewhere" }).click();
    const names = await page.getByRole("region", { name: "Where it could go" }).getByRole("listitem").allTextContents();
    expect(names).toHaveLength(1);
    expect(names[0]).toContain("AUDIO1");
    await page.keyboard.press("Escape");
  });

  it("the bench ticks every step by keyboard, refuses a scan as a tick, and loses nothing without a network", async () => {
    const bench = await sit(browser, "Ebo Larkmoor", { width: 1024, height: 768 });
    const { page, context } = bench;
    await page.goto(`${base()}/job/FS-1041/bench`);
    await page.getByText(/card 1 of \d+/).waitFor();
    const total = Number(/card 1 of (\d+)/.exec((await page.getByText(/card 1 of \d+/).textContent()) ?? "")?.[1]);
    // A scanner types fast and ends with Enter: that names a lead and ticks nothing.
    await page.evaluate(() => {
      for (const key of ["F", "N", "-", "0", "9", "Enter"]) window.dispatchEvent(new KeyboardEvent("keydown", { key, bubbles: true }));
    });
    await page.getByText(/Wrong lead: that is FN-09|Right lead/).waitFor();
    expect(await page.getByText(/card 1 of/).isVisible()).toBe(true);
    await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
    await context.setOffline(true);
    await page.keyboard.press("Space");
    await page.getByText(/^\d+ to send$/).waitFor();
    await page.getByText(/card 2 of/).waitFor();
    await rested(page);
    await page.keyboard.press("Space");
    await page.getByText(/No network\. \d+ entries are kept on this tablet/).waitFor();
    await context.setOffline(false);
    await page.getByText("all sent").waitFor({ timeout: 20_000 });
    for (let n = 3; n <= total; n++) {
      await page.getByText(new RegExp(`card ${n} of ${total}`)).waitFor();
      await rested(page);
      await page.keyboard.press("Enter");
    }
    await page.getByText("Every step is done.").waitFor({ timeout: 20_000 });
    await page.getByText("all sent").waitFor({ timeout: 20_000 });
    expect(bench.errors.filter((e) => !/Failed to fetch|network/i.test(e))).toEqual([]);
    await context.close();
  });

  it("the first boot is expected beside seen; a mismatch opens a fault; the suspects share a plug", async () => {
    const { page } = desk;
    await page.goto(`${base()}/job/FS-1041/first-boot`);
    expect(await page.getByText("If you press now: it starts, all fans turn.").isVisible()).toBe(true);
    await page.getByRole("button", { name: "All of Before the button as expected" }).click();
    await page.getByText(/1 line of Before the button recorded as expected/).waitFor();
    for (const fan of ["Front fan top", "Front fan middle", "Front fan bottom"]) {
      await page
        .getByRole("group", { name: `${fan}: seen` })
        .getByRole("button", { name: "still" })
        .click();
      await page.getByText("Not as expected: a fault is open with this observation.").waitFor();
    }
    await page.getByRole("button", { name: /The other \d+ of First ten seconds as expected/ }).click();
    await page.getByText(/lines of First ten seconds recorded as expected/).waitFor();
    await page.goto(`${base()}/job/FS-1041/faults`);
    expect(
      await page
        .getByText(/Press FN-\d+ in .* home/)
        .first()
        .isVisible(),
    ).toBe(true);
    expect(
      await page
        .getByText(/It alone explains all 3/)
        .first()
        .isVisible(),
    ).toBe(true);
    await page.getByRole("button", { name: "That was it" }).click();
    await page.getByText("No fault is open.").first().waitFor();
  });

  it("who did what stands in the log", async () => {
    const { page } = desk;
    await page.getByRole("button", { name: "Log" }).click();
    const log = page.getByRole("region", { name: "Log" });
    expect(await log.textContent()).toMatch(/Runa Thistlewood.*that was it/s);
    expect(await log.textContent()).toContain("Fault 1 opened");
    await page.keyboard.press("Escape");
  });

  it("a changed part marks the plan stale", async () => {
    const { page } = desk;
    const job = await plannedJob("examples/fs-1048.json");
    await page.goto(`${base()}/job/${job}/parts`);
    await page.getByRole("button", { name: /Halcyra 75/ }).click();
    await page.getByRole("button", { name: "Try another in its place" }).click();
    const sheet = page.getByRole("dialog", { name: /What if/ });
    await sheet.getByRole("button", { name: /^Halcyra 220/ }).click();
    await sheet.getByRole("button", { name: "Keep Halcyra 220" }).click();
    await sheet.waitFor({ state: "detached" });
    await page.goto(`${base()}/job/${job}/wiring`);
    expect(await page.getByText("A part changed after this plan was made: it is stale.").isVisible()).toBe(true);
    expect(await page.getByRole("button", { name: "Plan the wiring again" }).isVisible()).toBe(true);
  });
});

describe("bad input and nobody signed in", () => {
  it("a bad file is answered with sentences and stores nothing; a good one becomes a job", async () => {
    const { page } = desk;
    await page.goto(base());
    const before = await asked(`select count(*) as jobs from "job"`);
    await page.getByRole("button", { name: "From a build file" }).click();
    await page.getByLabel("Text of the build file").fill('{"format":"imbra-build","version":1,"name":"x","parts":[{"id":"a","type":"ghost"}]}');
    await page.getByRole("button", { name: "Read and store" }).click();
    await page.getByText("Nothing was stored. Correct the file and read it again.").waitFor();
    expect(await page.getByText(/parts\[0\]\.type: neither this file nor the shelf/).isVisible()).toBe(true);
    expect(await asked(`select count(*) as jobs from "job"`)).toEqual(before);
    await page.getByLabel("Text of the build file").fill(readFileSync("examples/fs-1048.json", "utf8"));
    await page.getByRole("button", { name: "Read and store" }).click();
    await page.waitForURL(/\/job\/FS-10[4-9]\d\/parts/);
  });
  it("a page asked for without a sign-in leads to it, and back to the page", async () => {
    const context = await browser.newContext({ locale: "en-GB" });
    const page = await context.newPage();
    await page.goto(`${base()}/job/FS-1042/wiring`);
    await page.waitForURL(/sign-in\?to=/);
    await page.getByLabel("Name").fill("Mirel Quist");
    await page.getByLabel("Password").fill(demoPerson("Mirel Quist").password);
    await page.getByRole("button", { name: "Sign in" }).click();
    await page.waitForURL(/FS-1042\/wiring/);
    await context.close();
  });
  it("an address that leads nowhere says where to go", async () => {
    const { page } = desk;
    const r = await page.goto(`${base()}/job/FS-9999/wiring`);
    expect(r?.status()).toBe(404);
    expect(await page.getByText("There is nothing at this address.").isVisible()).toBe(true);
  });
});

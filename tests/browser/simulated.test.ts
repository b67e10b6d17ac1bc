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

const number = "FS-1045";
/** What hands press from the button to a soak that is judged. */
let presses = 0;
const press = async (name: string | RegExp) => {
  presses++;
  await desk.page.getByRole("button", { name }).click();
};

describe("the simulated machine", () => {
  it("stands beside the job: dark, then fans and lights, then a screen that says what is in it", async () => {
    const { page } = desk;
    await page.goto(`${base()}/job/${number}/simulated`);
    await page.getByRole("heading", { name: "None stands here" }).waitFor();
    await press("Begin");
    await page.getByRole("img", { name: /^The open machine, 0 of \d+ fans turn, 0 parts are lit$/ }).waitFor();
    await press("Press the power button");
    await page.getByText("Nothing happens: the supply is off at its switch.").first().waitFor();
    await press("Supply's switch: off");
    await page.getByRole("button", { name: "Supply's switch: on" }).waitFor();
    await press("Press the power button");
    await page.getByRole("img", { name: /^The open machine, ([1-9]\d*) of \1 fans turn, [1-9]\d* parts are lit$/ }).waitFor();
    await accessible(page);
    await press("600 times");
    await page.getByRole("group", { name: "The monitor" }).getByText("Memory 32 GB").waitFor();
  });
  it("warms up under load, and hands go in only when it is off", async () => {
    const { page } = desk;
    await page.getByLabel("At what").selectOption({ label: "the monitor's cable" });
    await page.getByLabel("At what").selectOption({ index: 1 });
    await page.getByRole("button", { name: "Seat it anew, 3 min" }).click();
    await page.getByText("Off first, and the supply's switch too: then hands go in.").first().waitFor();
    await press("Full load");
    const cpu = page.getByRole("row", { name: /^CPU \d/ });
    await expect.poll(async () => Number.parseFloat((await cpu.textContent())?.slice(3) ?? "0"), { timeout: 60_000 }).toBeGreaterThan(55);
    await press("Read it into the sheet");
    await page.getByText(/\d+ lines of the sheet filled in/).waitFor();
  });
  it("first boot reads from it as from a machine: logging, a curve with what was worked out, a log that is judged and marked", async () => {
    const { page } = desk;
    await page.waitForTimeout(6000);
    await page.goto(`${base()}/job/${number}/first-boot`);
    await press(/^Soak/);
    const stream = page.getByRole("list", { name: "Readings as they come" });
    await stream.getByText(/^Logging: \d+ readings this minute$/).waitFor();
    await stream.getByText("Simulated", { exact: true }).waitFor();
    await page.getByRole("button", { name: "Curve so far" }).click();
    await page.getByText("Simulated: no machine read this").waitFor();
    await page.getByText("between the dashes: worked out, ±8 K").waitFor();
    await accessible(page);
    await page.keyboard.press("Escape");
    await expect
      .poll(async () => Number(/(\d+) minutes so far/.exec((await stream.textContent()) ?? "")?.[1] ?? 0), { timeout: 60_000 })
      .toBeGreaterThan(32);
    await press("Keep it as the soak's log");
    await page.getByText(/^Kept as a log: /).waitFor();
    await page.getByText("Simulated", { exact: true }).first().waitFor();
    // A stand-in that held says nothing of the machine: the soak is still open.
    await page.getByRole("button", { name: /^Soak.*1 to see$/ }).waitFor();
    expect(presses).toBeLessThanOrEqual(10);
    expect(desk.errors).toEqual([]);
  });
  it("is put away and says what was hidden in it; then nothing more comes", async () => {
    const { page } = desk;
    await page.goto(`${base()}/job/${number}/simulated`);
    await page.getByRole("button", { name: "Put it away" }).click();
    await page.getByText("Put away.").waitFor();
    await page.getByRole("heading", { name: "None stands here" }).waitFor();
    await page.getByLabel("Hidden in it").selectOption("1");
    await page.getByRole("button", { name: "Begin" }).click();
    await page.getByRole("button", { name: "Put it away" }).click();
    await page.getByText(/^Put away\. Hidden was: .+: .+\.$/).waitFor();
  });
});

describe("beside the system", () => {
  it("a thing is lent and out again, a secret shown once, minutes run; time that is short says what still fits", async () => {
    const { page } = desk;
    await page.goto(`${base()}/job/${number}/first-boot`);
    await page.getByRole("button", { name: /^System \d/ }).click();
    const keep = async (key: string, label: string, words: string) => {
      await page.getByRole("button", { name: key }).click();
      const sheet = page.getByRole("dialog");
      await sheet.getByLabel(label, { exact: true }).fill(words);
      await sheet.getByRole("button", { name: "Keep it" }).click();
      await sheet.waitFor({ state: "hidden" });
    };
    await keep("Lend something", "What", "Start drive 7");
    await page.getByText("On loan: Start drive 7").waitFor();
    await page.getByRole("button", { name: "It is out again" }).click();
    await page.getByText("Start drive 7 is out again.").waitFor();
    await keep("It runs by itself", "What", "Updates of the rink");
    await page.getByText(/^Runs by itself: Updates of the rink, about 30 min more$/).waitFor();
    await page.getByRole("button", { name: "Looked at" }).click();
    await keep("Seal a secret", "The secret", "under the ice 4");
    await page.getByRole("button", { name: "Show it once" }).click();
    await page.getByRole("dialog").getByRole("button", { name: "Show it", exact: true }).click();
    await page.getByText("under the ice 4").waitFor();
    await accessible(page);
    await page.keyboard.press("Escape");
    await page.getByText("shown to Runa Thistlewood, not kept any more").waitFor();
    expect(await page.content()).not.toContain("under the ice 4");
    await page.getByRole("button", { name: "Time is short" }).click();
    const sheet = page.getByRole("dialog", { name: "Time is short" });
    await sheet.getByLabel("Minutes until the client is here").fill("10");
    await sheet.getByRole("region", { name: "Said as not done" }).getByText("A soak, cut short at half an hour").waitFor();
    await accessible(page);
    await page.keyboard.press("Escape");
    expect(desk.errors).toEqual([]);
  });
});

import type { Browser } from "playwright-core";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type Build, isDone, readBuildText } from "../../core/assembly";
import { hiddenIn } from "../../simulator/machine";
import { accessible, asked, base, launch, rested, type Seat, sit } from "./page";

let browser: Browser;
let desk: Seat;
beforeAll(async () => {
  browser = await launch();
  desk = await sit(browser, "Runa Thistlewood");
});
afterAll(async () => browser.close());

const number = "FS-1045";

/** The number of an exercise that hides such a fault in the job as it is recorded. */
async function exerciseWith(which: readonly RegExp[]): Promise<{ exercise: number; hidden: string[] }> {
  const r = await desk.page.request.get(`${base()}/files/job/${number}/wiring.json`);
  const read = readBuildText(await r.text(), []);
  if (!read.ok) throw new Error(read.faults.join(" "));
  const build: Build = { ...read.build, connections: read.build.connections.filter(isDone), accessories: [] };
  for (let exercise = 1; exercise < 3000; exercise++) {
    const hidden = Object.entries(hiddenIn(build, which.length, exercise)).map(([element, mode]) => `${element}=${mode}`);
    if (hidden.length === which.length && which.every((w) => hidden.some((h) => w.test(h)))) return { exercise, hidden };
  }
  throw new Error(`no exercise hides ${which.join()}`);
}

async function begin(...which: RegExp[]): Promise<string[]> {
  const { page } = desk;
  const { exercise, hidden } = await exerciseWith(which);
  await page.goto(`${base()}/job/${number}/simulated`);
  const away = page.getByRole("button", { name: "Put it away" });
  await page.getByRole("button", { name: /^(Put it away|Begin)$/ }).waitFor();
  if (await away.isVisible()) {
    await away.click();
    await page.getByText(/^Put away\./).waitFor();
  }
  await page.getByLabel("Hidden in it").selectOption(String(which.length));
  await page.getByLabel(/^Number of the exercise/).fill(String(exercise));
  await page.getByRole("button", { name: "Begin" }).click();
  await away.waitFor();
  return hidden;
}

/** The simulated machine is looked at; what it showed. */
async function look(what: string | RegExp): Promise<string> {
  const { page } = desk;
  await page.goto(`${base()}/job/${number}/faults`);
  await page.getByRole("button", { name: "Something else was seen" }).click();
  const label = await page
    .getByRole("option", { name: what, exact: typeof what === "string" })
    .first()
    .textContent();
  await page.getByLabel("What was looked at").selectOption({ label: label ?? "" });
  await page.getByRole("button", { name: "Look at the simulated machine" }).click();
  const said = page.getByText(/^The simulated machine, .+ It counts in the exercise\.$/);
  await said.waitFor();
  return /: (.+?)\. It counts/.exec((await said.textContent()) ?? "")?.[1] ?? "";
}

/** Follows the advice, key by key, until nothing is open; how many actions it took. */
async function follow(most: number): Promise<number> {
  const { page } = desk;
  const next = page.getByRole("region", { name: "Next action" });
  for (let n = 0; n < most; n++) {
    if (await next.getByText("No fault is open.").isVisible()) return n;
    const before = await page.getByRole("region", { name: "Seen, done and cleared" }).textContent();
    await next.getByRole("button", { name: "Do it on the simulated machine" }).click();
    await expect
      .poll(async () => (await page.getByRole("region", { name: "Seen, done and cleared" }).textContent()) !== before, { timeout: 30_000 })
      .toBe(true);
  }
  throw new Error(`after ${most} actions: ${await next.textContent()}`);
}

describe("a fault is found by following the advice, on the simulated machine", () => {
  it("a dead supply: the cause is named, what was cleared stays cleared, and its line says so", async () => {
    const { page } = desk;
    await begin(/^supply=dead$/);
    expect(await look("Standby light on the board")).toBe("dark");
    await page.getByText("Fault 1", { exact: true }).first().waitFor();
    await accessible(page);
    expect(await follow(20)).toBeLessThanOrEqual(12);
    const closed = page.getByRole("region", { name: "Seen, done and cleared" });
    await closed.getByText(/Simulated: Standby light on the board: dark.*850 M, swapped/).waitFor();
    // It was an exercise: nothing of it is in the record of the machine itself.
    expect(await asked(`select 1 from part_return r join job j on j.id = r.job_id where j.number = '${number}'`)).toEqual([]);
    expect(await asked(`select causes, minutes from fault f join job j on j.id = f.job_id where j.number = '${number}'`)).toEqual([
      { causes: null, minutes: null },
    ]);
    await page.goto(`${base()}/job/${number}/first-boot`);
    await page.getByRole("group", { name: "Standby light on the board: seen" }).getByRole("button", { name: "lit", pressed: true }).waitFor();
  });
  it("three dark fans of a hub without power are one fault", async () => {
    const { page } = desk;
    await begin(/^supply\/sata\/1:plug-\d@hub-fan:power=(loose|out)$/);
    for (const fan of ["Front fan 1", "Front fan 2", "Front fan 3"]) expect(await look(fan)).toBe("still");
    const next = page.getByRole("region", { name: "Next action" });
    await next.getByText(/Front fan 1: still.*Front fan 2: still.*Front fan 3: still/).waitFor();
    expect(await follow(12)).toBeLessThanOrEqual(8);
  });
  it("a dark ring and a dead fan are two faults, side by side, and neither silences the other", async () => {
    const { page } = desk;
    const hidden = await begin(/^ring-\d=dark$/, /^fan-front-\d=(dead|still)$/);
    const of = (what: string) => hidden.find((h) => h.startsWith(what))?.match(/\d/)?.[0] ?? "";
    expect(await look(`Front ring ${of("ring")}`)).toBe("dark");
    // Something else works: what both lean on is cleared.
    expect(await look("Rear fan")).toBe("turns");
    expect(await look(`Front fan ${of("fan")}`)).toBe("still");
    await page.getByRole("navigation", { name: "Open faults" }).getByRole("button").nth(1).waitFor();
    await accessible(page);
    await follow(24);
  });
  it("a profile that is off is set right: by hand, without any machine to ask", async () => {
    const { page } = desk;
    await page.goto(`${base()}/job/${number}/faults`);
    await page.getByRole("button", { name: "Something else was seen" }).click();
    await page.getByLabel("What was looked at").selectOption({ label: "Memory speed with its profile on" });
    await page.getByLabel(/^Memory speed with its profile on read/).fill("4800");
    await page.getByRole("button", { name: "Record", exact: true }).click();
    const next = page.getByRole("region", { name: "Next action" });
    await next.getByText(/switch the memory's profile on/).waitFor();
    await next.getByRole("button", { name: "Why this and not that" }).click();
    await next.getByRole("columnheader", { name: "to a repair" }).waitFor();
    await next.getByRole("button", { name: "That was it" }).click();
    await next.getByText("No fault is open.").waitFor();
  });
  it("a fault of the machine itself is nothing that a stand-in does, and its line says what it was", async () => {
    const { page } = desk;
    await page.goto(`${base()}/job/${number}/first-boot`);
    await page.getByRole("group", { name: "Front fan 2: seen" }).getByRole("button", { name: "still" }).click();
    await page.getByText(/^seen still: fault \d+ is open/).waitFor();
    await page.goto(`${base()}/job/${number}/faults`);
    const next = page.getByRole("region", { name: "Next action" });
    await next.getByText("Front fan 2: still, expected turns").waitFor();
    expect(await next.getByRole("button", { name: "Do it on the simulated machine" }).count()).toBe(0);
    await page.getByRole("button", { name: /^Close fault \d+ with a finding$/ }).click();
    await page.getByLabel(/^What fault \d+ was$/).fill("a lead under a screw");
    await page.getByRole("button", { name: "Close", exact: true }).click();
    await next.getByText("No fault is open.").waitFor();
    await page.goto(`${base()}/job/${number}/first-boot`);
    await page.getByText(/^Fault \d+, closed: a lead under a screw\.$/).waitFor();
  });
  it("a dead supply gives way to another model: its leads are planned anew, plugged, and the first boot goes on", async () => {
    const { page } = desk;
    await page.goto(`${base()}/job/${number}/first-boot`);
    await page.getByRole("group", { name: "Standby light on the board: seen" }).getByRole("button", { name: "dark" }).click();
    await page.getByText(/^seen dark: fault \d+ is open/).waitFor();
    await page.goto(`${base()}/job/${number}/faults`);
    const next = page.getByRole("region", { name: "Next action" });
    // What the advice says, with nothing changing, until the supply itself is up.
    const model = next.getByRole("button", { name: "Another model goes in" });
    for (let n = 0; n < 12; n++) {
      await next
        .getByRole("group", { name: "What came of it" })
        .or(next.getByRole("group", { name: /: seen$/ }))
        .waitFor();
      if ((await model.count()) > 0) break;
      const before = await next.textContent();
      const spare = ((await next.locator("p.text-verdict").first().textContent()) ?? "").includes("a spare supply");
      await (spare ? next.getByRole("button", { name: "Now it works" }) : next.getByRole("button", { name: /^(Nothing changed|dark)$/ })).click();
      await expect.poll(() => next.textContent(), { timeout: 30_000 }).not.toBe(before);
    }
    await model.click();
    await page.getByLabel("Which one").selectOption("mossgate-1000m");
    await page.getByLabel("Its serial").fill("SP-1000-7");
    await accessible(page);
    await page.getByRole("button", { name: "It goes in" }).click();
    await page.getByText(/is in its place on record, and the fault is closed\. Plan \d+ keeps what is plugged/).waitFor({ timeout: 60_000 });
    await page.goto(`${base()}/job/${number}/bench`);
    await page.waitForLoadState("networkidle");
    const over = page.getByText("Every step is done.");
    const card = () => page.locator("main").textContent();
    for (let n = 0; n < 30 && (await over.count()) === 0; n++) {
      await rested(page);
      const was = await card();
      await page.keyboard.press("Space");
      await expect.poll(card, { timeout: 20_000 }).not.toBe(was);
    }
    await over.waitFor({ timeout: 20_000 });
    await page.getByText("all sent").waitFor({ timeout: 20_000 });
    await page.goto(`${base()}/job/${number}/first-boot`);
    await page.getByText(/^If you press now: it starts/).waitFor();
    await page.getByRole("group", { name: "Standby light on the board: seen" }).getByRole("button", { name: "lit" }).click();
    await page.getByText(/^Fault \d+, closed: .*replaced by .*1000/).waitFor();
  });
  it("puts it away", async () => {
    const { page } = desk;
    await page.goto(`${base()}/job/${number}/simulated`);
    await page.getByRole("button", { name: "Put it away" }).click();
    await page.getByText(/^Put away\. Hidden was: .+, put right; .+, put right\.$/).waitFor();
    expect(desk.errors).toEqual([]);
  });
});

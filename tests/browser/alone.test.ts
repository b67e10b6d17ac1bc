import type { Browser, Page } from "playwright-core";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { accessible, base, demoPerson, launch, type Seat, scan, sit } from "./page";
import { plannedJob } from "./stored";

let browser: Browser;
let desk: Seat;
let one: Seat;
let two: Seat;
/** A job of this file's own. */
let job = "";
const BENCH = { width: 1024, height: 768 };
beforeAll(async () => {
  browser = await launch();
  desk = await sit(browser, "Runa Thistlewood");
  one = await sit(browser, "Ebo Larkmoor", BENCH);
  await one.page.clock.install();
  two = await sit(browser, "Tansy Okoru", BENCH);
  job = await plannedJob("examples/fs-1044.json");
});
afterAll(async () => {
  await browser.close();
});

const stepNow = async (page: Page) => Number(/card (\d+) of/.exec((await page.getByText(/card \d+ of \d+/).textContent()) ?? "")?.[1]);
const press = async (page: Page) => {
  await page.getByRole("button", { name: /^Done/ }).click();
  await page.waitForTimeout(600);
};
const openBench = async (page: Page) => {
  await page.goto(`${base()}/job/${job}/bench`);
  await page.waitForLoadState("networkidle");
};

describe("what one person does, others see", () => {
  it("a tick at the bench is on the desk's screen by itself, and what is half typed there stays", async () => {
    await openBench(one.page);
    await desk.page.goto(`${base()}/job/${job}/wiring`);
    await desk.page.waitForLoadState("networkidle");
    const field = desk.page.getByPlaceholder("Find by name, tag, port or serial");
    await field.fill("FN-");
    const bench = () => desk.page.getByRole("link", { name: /^Bench \d/ }).textContent();
    const before = await bench();
    await one.page.getByRole("button", { name: /^Done/ }).click();
    await expect.poll(bench, { timeout: 10_000 }).not.toBe(before);
    expect(await field.inputValue()).toBe("FN-");
    expect(await field.evaluate((e) => e === document.activeElement)).toBe(true);
    await one.page.getByText("all sent").waitFor();
  });
  it("a screen that hears nothing stays, says since when, and catches up by itself", async () => {
    const bench = () => desk.page.getByRole("link", { name: /^Bench \d/ }).textContent();
    // A card is many entries: all of them are on the desk's screen before it is cut off.
    let before = await bench();
    for (let still = 0; still < 3; ) {
      await desk.page.waitForTimeout(700);
      const now = await bench();
      still = now === before ? still + 1 : 0;
      before = now;
    }
    await desk.context.setOffline(true);
    await desk.page.getByText(/No answer from the server since \d\d:\d\d\. What you see is as it was then/).waitFor({ timeout: 20_000 });
    await press(one.page);
    await one.page.getByText("all sent").waitFor();
    expect(await desk.page.getByRole("link", { name: /^Bench \d/ }).textContent()).toBe(before);
    await accessible(desk.page);
    await desk.context.setOffline(false);
    await desk.page.getByText(/No answer from the server since/).waitFor({ state: "detached", timeout: 20_000 });
    await expect.poll(() => desk.page.getByRole("link", { name: /^Bench \d/ }).textContent(), { timeout: 20_000 }).not.toBe(before);
  });
  it("a refresh lost after the server said that it can be had leaves the page as it is, and is asked for again", async () => {
    const bench = () => desk.page.getByRole("link", { name: /^Bench \d/ }).textContent();
    const before = await bench();
    await desk.page.evaluate(() => Object.assign(window, { mark: "this very page" }));
    let lost = 0;
    // The stage and what stands around it, twice each.
    await desk.page.route(/\/data\/job\//, (route) => (lost++ < 4 ? route.abort() : route.fallback()));
    await press(one.page);
    await expect.poll(bench, { timeout: 20_000 }).not.toBe(before);
    expect(lost).toBeGreaterThan(4);
    expect(await desk.page.evaluate(() => (window as unknown as { mark?: string }).mark)).toBe("this very page");
    await desk.page.unroute(/\/data\/job\//);
    await one.page.getByText("all sent").waitFor();
  });
});

describe("a bench without a network", () => {
  it("goes on for longer than any time-out, opens again at the right step, and sends all in order", async () => {
    const { page, context } = one;
    const at = await stepNow(page);
    // A lead of the last card that plugs anything: not of the one in front.
    const slice = (await (await desk.page.request.get(`${base()}/data/job/${job}/bench`)).json()) as {
      steps: { lead?: string; done: boolean }[];
      leads: { address: string; tag: string }[];
    };
    const last = slice.steps.filter((s) => s.lead && !s.done && s.lead.includes(":") && !s.lead.endsWith(":seat")).at(-1)?.lead;
    const tag = slice.leads.find((l) => l.address === last)?.tag ?? "";
    // The page has to have been kept once.
    await page.waitForFunction(async () => (await (await caches.open("pages")).keys()).some((r) => r.url.endsWith("/bench")), undefined, {
      timeout: 30_000,
    });
    await context.setOffline(true);
    for (let i = 1; i <= 3; i++) await press(page);
    await page.getByText(/^\d+ to send$/).waitFor();
    // Ten minutes pass: longer than any time-out of a server, of the live stream or of a request, shorter than the bench's lock.
    await page.clock.fastForward("10:00");
    expect(await stepNow(page)).toBe(at + 3);
    await page.reload();
    await expect.poll(() => stepNow(page), { timeout: 20_000 }).toBe(at + 3);
    await press(page);
    await page.getByText(/No network\. \d+ entries are kept on this tablet and will be sent in order\. Go on working\./).waitFor();
    // A scan is answered all the same, and after a while that entries wait is said again.
    await scan(page, tag);
    await page.getByText(new RegExp(`^Wrong lead: that is ${tag}`)).waitFor();
    await page.clock.fastForward(11_000);
    await page.getByText(/No network\. \d+ entries are kept/).waitFor();
    await context.setOffline(false);
    await page.getByText("all sent").waitFor({ timeout: 30_000 });
    expect(await stepNow(page)).toBe(at + 4);
  });
  it("opens again with what a colleague did while it was open, to the last press, however old its page is", async () => {
    const { page, context } = one;
    await openBench(page);
    await openBench(two.page);
    const at = await stepNow(page);
    await press(two.page);
    await expect.poll(() => stepNow(page), { timeout: 20_000 }).toBe(at + 1);
    const kept = () =>
      page.evaluate(async () => (await (await (await caches.open("pages")).match(window.location.href))?.text())?.replaceAll("<!-- -->", "") ?? "");
    // The page that is kept is older than that: the device knows it all the same.
    expect(await kept()).not.toContain(`card ${at + 1} of`);
    await context.setOffline(true);
    await page.reload();
    await expect.poll(() => stepNow(page), { timeout: 20_000 }).toBe(at + 1);
    await context.setOffline(false);
    await page.getByText(/No answer from the server since/).waitFor({ state: "detached", timeout: 20_000 });
    // And once more: what is had without the page is kept, too.
    await press(two.page);
    await expect.poll(() => stepNow(page), { timeout: 20_000 }).toBe(at + 2);
    await context.setOffline(true);
    await page.reload();
    await expect.poll(() => stepNow(page), { timeout: 20_000 }).toBe(at + 2);
    expect(await kept()).not.toContain(`card ${at + 2} of`);
    await context.setOffline(false);
    await page.getByText(/No answer from the server since/).waitFor({ state: "detached", timeout: 20_000 });
  });
  it("whose sign-in is lost keeps its entries, asks for the person, and sends them", async () => {
    const { page, context } = one;
    await openBench(page);
    const at = await stepNow(page);
    await context.clearCookies();
    await press(page);
    await page
      .getByRole("button", { name: /Who are you\?|Sign in/ })
      .first()
      .waitFor({ timeout: 20_000 });
    expect(await stepNow(page)).toBe(at + 1);
    await page.getByRole("button", { name: /Who works here/ }).click();
    const sheet = page.getByRole("dialog", { name: "Sign in at this tablet" });
    await accessible(page);
    await sheet.getByLabel("Password").fill(demoPerson("Ebo Larkmoor").password);
    await sheet.getByRole("button", { name: "Sign in" }).click();
    await sheet.waitFor({ state: "detached" });
    await page.getByText("all sent").waitFor({ timeout: 20_000 });
    expect(await stepNow(page)).toBe(at + 1);
  });
  it("that says otherwise than another: the entry is set aside with both facts, nothing behind it waits, and a person chooses", async () => {
    job = await plannedJob("examples/fs-1042.json");
    await openBench(one.page);
    await openBench(two.page);
    // To the next fan that could go elsewhere too, on both.
    const title = (page: Page) => page.getByRole("heading", { level: 1 }).textContent();
    for (let i = 0; i < 33 && !/^Plug the .* edge/.test((await title(one.page)) ?? ""); i++) await press(one.page);
    await one.page.getByText("all sent").waitFor();
    const wanted = await title(one.page);
    await expect.poll(() => title(two.page), { timeout: 20_000 }).toBe(wanted);
    await one.context.setOffline(true);
    await press(one.page);
    await press(one.page);
    // Meanwhile the other says that it is somewhere else.
    await two.page.getByRole("button", { name: "Differs" }).click();
    await two.page
      .getByRole("dialog")
      .getByRole("button", { name: /into (SYS|CPU)_FAN/ })
      .first()
      .click();
    const elsewhere = two.page.getByRole("dialog").locator("li button");
    const recorded = two.page.waitForResponse((r) => r.url().endsWith("/entries"));
    await elsewhere.first().click();
    await recorded;
    await one.context.setOffline(false);
    await one.page.getByText("1 to look at").waitFor({ timeout: 30_000 });
    await one.page.getByRole("button", { name: /Entries of this tablet/ }).click();
    const aside = one.page.getByRole("region", { name: "To look at" });
    await aside.getByText(/is in .* \(Tansy Okoru, \d\d:\d\d\) and in .* \(Ebo Larkmoor, \d\d:\d\d\)\. Look at the plug, then choose\./).waitFor();
    await accessible(one.page);
    await aside.getByRole("button", { name: /^It is in .*you/ }).click();
    await one.page.getByText("Nothing. The server has all that was pressed here.").waitFor({ timeout: 20_000 });
    await aside.waitFor({ state: "detached", timeout: 20_000 });
    await one.page.getByRole("button", { name: "Close", exact: true }).click();
    await one.page.getByText("all sent").waitFor();
  });
});

describe("handing over", () => {
  it("asks for what is open or a reason, closes the job, and opens it again", async () => {
    const { page } = desk;
    await page.goto(`${base()}/job/${job}/handover`);
    await page.getByRole("list", { name: "What keeps it here" }).waitFor();
    await page.getByRole("button", { name: "Hand over as it is" }).click();
    await page.getByText(/^Something is missing: .* Nothing was changed\. Finish it, or write why it goes as it is\.$/).waitFor();
    await page.getByLabel("Why it goes like this").fill("The client takes it as it is.");
    await page.getByRole("button", { name: "Hand over as it is" }).click();
    await page.getByText(/This job was handed over and is closed/).waitFor();
    await accessible(page);
    await openBench(two.page);
    await page.getByLabel("Why it is opened again").fill("It came back.");
    await page.getByRole("button", { name: "Open it again" }).click();
    await page.getByRole("button", { name: "Hand over as it is" }).waitFor();
  });
  it("nothing of it put an error into a console", () => {
    const own = (seat: Seat) => seat.errors.filter((e) => !/Failed to (load resource|fetch)|ERR_|NetworkError/.test(e));
    expect([own(desk), own(one), own(two)]).toEqual([[], [], []]);
  });
});

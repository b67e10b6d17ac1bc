import pg from "pg";
import type { Browser, Page } from "playwright-core";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { accessible, base, demoPerson, launch, rested, signIn, sit } from "./page";

let browser: Browser;
beforeAll(async () => {
  browser = await launch();
});
afterAll(async () => {
  await browser.close();
});

const asked = async <T extends object>(sql: string, values: unknown[] = []): Promise<T[]> => {
  const client = new pg.Client({ connectionString: process.env.DATABASE_URL ?? "" });
  await client.connect();
  return client
    .query<T>(sql, values)
    .then((r) => r.rows)
    .finally(() => client.end());
};
const stepNow = async (page: Page) => Number(/card (\d+) of/.exec((await page.getByText(/card \d+ of/).textContent()) ?? "")?.[1]);
const typePin = async (page: Page, pin: string) => {
  for (const d of pin) await page.getByRole("dialog").getByRole("button", { name: d, exact: true }).click();
};

describe("signing in", () => {
  it("what was typed stays where it was refused; signed out, pages and what was kept of them are gone", async () => {
    const context = await browser.newContext({ locale: "en-GB", viewport: { width: 1280, height: 800 } });
    const page = await context.newPage();
    await page.goto(`${base()}/sign-in`);
    await page.waitForSelector("html[data-ready]", { state: "attached" });
    await accessible(page);
    await page.getByLabel("Name").fill("Mirel Quist");
    await page.getByLabel("Password").fill("wrong words");
    await page.getByRole("button", { name: "Sign in" }).click();
    await page.getByText("Name and password do not belong together.").waitFor();
    expect(await page.getByLabel("Name").inputValue()).toBe("Mirel Quist");
    await signIn(page, "Mirel Quist");
    const keptJobs = () =>
      page.evaluate(
        () =>
          new Promise<number>((told) => {
            const opened = indexedDB.open("imbra-slices");
            opened.onsuccess = () => {
              const has = opened.result.objectStoreNames.contains("kept");
              const asked = has ? opened.result.transaction("kept").objectStore("kept").count() : undefined;
              if (asked) asked.onsuccess = () => told(asked.result);
              else told(-1);
              opened.result.close();
            };
          }),
      );
    await page.goto(`${base()}/job/FS-1044/bench`);
    await expect.poll(keptJobs).toBe(1);
    await page.goto(base());
    await page.getByRole("button", { name: "Signed in as Mirel Quist" }).click();
    await page.getByRole("menuitem", { name: "Sign out" }).click();
    await page.waitForURL(/sign-in/);
    await page.waitForLoadState("networkidle");
    await page.waitForTimeout(500);
    expect(await keptJobs()).toBe(0);
    await page.goto(`${base()}/job/FS-1042/wiring`);
    await page.waitForURL(/sign-in\?to=/);
    // An address to come back to is one of this shop's, whatever is written there.
    await page.goto(`${base()}/sign-in?to=//evil.example`);
    await signIn(page, "Mirel Quist");
    expect(new URL(page.url()).host).toBe(new URL(base()).host);
    await context.close();
  });

  it("a sign-in that is ended in the middle of work: the page stays, what is half typed too, and one signs in on it", async () => {
    const seat = await sit(browser, "Tansy Okoru");
    const { page } = seat;
    await page.goto(`${base()}/job/FS-1043/handover`);
    await page.getByLabel("Who takes it").fill("half a sentence");
    await asked(`update session set ended_at = now() where person_id = (select id from person where name = 'Tansy Okoru')`);
    await page.getByRole("button", { name: /Hand over/ }).click();
    await page.getByText(/You are not signed in any more\. Nothing was changed\./).waitFor();
    await page.getByText("You are not signed in any more. What you see").waitFor();
    await page.getByRole("button", { name: "Sign in" }).click();
    const sheet = page.getByRole("dialog", { name: "Sign in" });
    await sheet.getByLabel("Name").fill("Tansy Okoru");
    await sheet.getByLabel("Password").fill(demoPerson("Tansy Okoru").password);
    await sheet.getByRole("button", { name: "Sign in" }).click();
    await sheet.waitFor({ state: "detached" });
    await page.getByText("What you see and have typed stays").waitFor({ state: "detached" });
    expect(await page.getByLabel("Who takes it").inputValue()).toBe("half a sentence");
    await seat.context.close();
  });

  it("a role that is taken away meanwhile: a sentence, and nothing is changed", async () => {
    const seat = await sit(browser, "Mirel Quist");
    await seat.page.goto(`${base()}/shelf?q=knotwick-split-2`);
    const stock = () => asked(`select "id", "stock" from "shelf_type" order by "id"`);
    const before = await stock();
    await asked(`update person set role = 'reader' where name = 'Mirel Quist'`);
    await seat.page
      .getByRole("button", { name: /^One .* more$/ })
      .first()
      .click();
    await seat.page.getByText(/Mirel Quist is a reader and may not do this/).waitFor();
    expect(await stock()).toEqual(before);
    await asked(`update person set role = 'technician' where name = 'Mirel Quist'`);
    await seat.context.close();
  });
});

describe("a shared bench", () => {
  it("changes its person by PIN; entries are of whoever made them, also those that waited without a network", async () => {
    const { page, context } = await sit(browser, "Ebo Larkmoor", { width: 1024, height: 768 });
    await page.goto(`${base()}/job/FS-1044/bench`);
    await page.waitForLoadState("networkidle");
    const at = await stepNow(page);
    const done = async () => {
      const was = await stepNow(page);
      await page.getByRole("button", { name: /^Done/ }).click();
      await expect.poll(() => stepNow(page)).toBe(was + 1);
      await rested(page);
    };
    await context.setOffline(true);
    await done();
    await page.getByText(/^\d+ to send$/).waitFor();
    // Taken back while it waits: by an entry behind it, and done again. Nothing is dropped.
    await page.locator("h1").click();
    await page.keyboard.press("Control+z");
    await expect.poll(() => stepNow(page)).toBe(at);
    await page.getByText(/^\d+ to send$/).waitFor();
    await done();
    await page.getByText(/^\d+ to send$/).waitFor();
    // Without a network nobody can prove who they are.
    await page.getByRole("button", { name: /Who works here/ }).click();
    await page.getByRole("dialog").getByRole("button", { name: "Mirel Quist" }).click();
    await typePin(page, "4196");
    await page.getByRole("button", { name: "It is me" }).click();
    await page.getByText(/No network: a change of person needs the server/).waitFor();
    await page.getByRole("button", { name: "Close", exact: true }).click();
    await context.setOffline(false);
    await page.getByText("all sent").waitFor({ timeout: 30_000 });
    await page.getByRole("button", { name: /Who works here/ }).click();
    await accessible(page);
    await page.getByRole("dialog").getByRole("button", { name: "Mirel Quist" }).click();
    await accessible(page);
    const keys = await page
      .getByRole("group", { name: "Digits" })
      .getByRole("button")
      .evaluateAll((list) => list.map((b) => b.getBoundingClientRect()).map((r) => Math.min(r.width, r.height)));
    expect(Math.min(...keys)).toBeGreaterThanOrEqual(80);
    await typePin(page, "4196");
    await page.getByRole("button", { name: "It is me" }).click();
    await page.getByRole("button", { name: "Who works here: Mirel Quist" }).waitFor();
    await done();
    await page.getByText("all sent").waitFor();
    const by = await asked<{ name: string }>(
      `select p.name from log_entry e join person p on p.id = e.by_id join job j on j.id = e.job_id where j.number = 'FS-1044' order by e.id desc limit 40`,
    );
    // The last card is hers, what waited before it is his.
    const names = by.map((r) => r.name);
    expect(names[0]).toBe("Mirel Quist");
    expect(names.find((n) => n !== "Mirel Quist")).toBe("Ebo Larkmoor");
    expect(await stepNow(page)).toBe(at + 2);
    await context.close();
  });

  it("that nobody touched asks who it is before the next entry; the screen stays, and what was pressed is kept", async () => {
    const { page, context } = await sit(browser, "Ebo Larkmoor", { width: 1024, height: 768 });
    await page.goto(`${base()}/you`);
    // A tablet that lay there since yesterday is theirs who has just signed in.
    await page.evaluate(() => localStorage.setItem("imbra-touched", String(Date.now() - 20 * 3_600_000)));
    await context.clearCookies();
    await signIn(page, "Ebo Larkmoor");
    await page.goto(`${base()}/job/FS-1044/bench`);
    await page.waitForLoadState("networkidle");
    await page.getByRole("button", { name: "Who works here: Ebo Larkmoor" }).waitFor();
    const at = await stepNow(page);
    // A quarter of an hour goes by, here and at the server.
    await page.evaluate(() => localStorage.setItem("imbra-touched", String(Date.now() - 16 * 60_000)));
    await asked(
      `update session set acted_at = now() - interval '17 minutes' where person_id = (select id from person where name = 'Ebo Larkmoor') and ended_at is null`,
    );
    await page.getByRole("button", { name: "Who works here: Who are you?" }).waitFor({ timeout: 15_000 });
    expect(await page.getByRole("heading", { level: 1 }).isVisible()).toBe(true);
    // What seals entries went with the turn; without a network the work goes on, and waits without a name.
    expect(await page.evaluate(() => JSON.parse(localStorage.getItem("imbra-worker") ?? "{}").turn)).toBeUndefined();
    await context.setOffline(true);
    await page.getByRole("button", { name: /^Done/ }).click();
    await page.getByText(/^Kept on this tablet without a name\./).waitFor();
    expect(await page.getByRole("dialog").count()).toBe(0);
    expect(await stepNow(page)).toBe(at + 1);
    await context.setOffline(false);
    await rested(page);
    await page.getByRole("button", { name: /^Done/ }).click();
    const sheet = page.getByRole("dialog", { name: "Who works here?" });
    await sheet.getByText(/Nobody touched this bench for 15 minutes/).waitFor();
    expect((await asked<{ n: number }>(`select count(*)::int as n from log_entry where at > now() - interval '3 seconds'`))[0]?.n).toBe(0);
    await sheet.getByRole("button", { name: "Tansy Okoru" }).click();
    await typePin(page, "6038");
    await page.getByRole("button", { name: "It is me" }).click();
    await page.getByRole("button", { name: "Who works here: Tansy Okoru" }).waitFor();
    await page.getByText("all sent").waitFor();
    expect(await stepNow(page)).toBe(at + 2);
    const [last] = await asked<{ name: string }>(`select p.name from log_entry e join person p on p.id = e.by_id order by e.id desc limit 1`);
    expect(last?.name).toBe("Tansy Okoru");
    await context.close();
  });
  it("a desk that was left alone says so, changes nothing until somebody is there, and keeps no page for who comes along", async () => {
    const { page, context } = await sit(browser, "Runa Thistlewood");
    await page.goto(`${base()}/people`);
    await page.waitForLoadState("networkidle");
    await page.evaluate(async () => (await caches.open("pages")).put("/people", new Response("for a lead")));
    await page.evaluate(() => localStorage.setItem("imbra-touched", String(Date.now() - 16 * 60_000)));
    await asked(
      `update session set acted_at = now() - interval '17 minutes' where person_id = (select id from person where name = 'Runa Thistlewood') and ended_at is null`,
    );
    await page.getByText("Nobody was here for 15 minutes.", { exact: false }).waitFor({ timeout: 15_000 });
    await accessible(page);
    await expect.poll(() => page.evaluate(async () => (await (await caches.open("pages")).keys()).length)).toBe(0);
    await page.getByRole("button", { name: "Set it" }).click();
    await page.getByText(/Nobody touched this bench for 15 minutes/).waitFor();
    await page.getByRole("button", { name: "Who is here?" }).click();
    await accessible(page);
    await page.getByLabel("PIN").fill(demoPerson("Runa Thistlewood").pin ?? "");
    await page.getByRole("button", { name: "It is me" }).click();
    await page.getByText("Nobody was here for 15 minutes.", { exact: false }).waitFor({ state: "detached" });
    await page.getByRole("button", { name: "Set it" }).click();
    await page.getByText("That holds from the next entry on.").waitFor();
    await context.close();
  });
});

describe("people and oneself", () => {
  it("are kept by a lead, by keyboard alone, and pass axe", async () => {
    const { page, context } = await sit(browser, "Runa Thistlewood");
    await page.goto(`${base()}/people`);
    await accessible(page);
    await page.getByRole("button", { name: "Add somebody" }).focus();
    await page.keyboard.press("Enter");
    await accessible(page);
    await page.keyboard.type("Hale Brindlow");
    await page.keyboard.press("Tab");
    await page.keyboard.press("Tab");
    await page.keyboard.type("rain on the long roof");
    await page.keyboard.press("Enter");
    await page.getByText("Hale Brindlow can sign in now.").waitFor();
    await page.getByLabel("Role of Hale Brindlow").selectOption("reader");
    await page.getByText("Hale Brindlow is a reader now.").waitFor();
    await page.getByLabel("Role of Runa Thistlewood").selectOption("technician");
    await page.getByText(/Runa Thistlewood is the last lead\. Nothing was changed\./).waitFor();
    await page.goto(`${base()}/you`);
    await accessible(page);
    expect(await page.getByText("this device").count()).toBe(1);
    await context.close();
  });
});

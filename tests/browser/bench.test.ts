import type { Browser, Request } from "playwright-core";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { accessible, base, launch, rested, type Seat, scan, sit } from "./page";
import { plannedJob } from "./stored";

let browser: Browser;
let seat: Seat;
/** A job of this file's own, its first card done. */
let job = "";
beforeAll(async () => {
  browser = await launch();
  job = await plannedJob("examples/fs-1042.json");
  seat = await sit(browser, "Mirel Quist", { width: 1024, height: 768 });
  await seat.page.goto(`${base()}/job/${job}/bench`);
  await seat.page.getByRole("button", { name: /^Done/ }).click();
  await seat.page.getByText(/card 2 of/).waitFor();
  await seat.page.getByText("all sent").waitFor();
});
afterAll(async () => {
  await browser.close();
});

const stepNow = async () => Number(/card (\d+) of/.exec((await seat.page.getByText(/card \d+ of \d+/).textContent()) ?? "")?.[1]);

describe("the bench, at arm's length", () => {
  it("keeps every key at 80 by 80 px or more with 12 between, and every word at 24 px or more", async () => {
    const { page } = seat;
    const keys = await page.locator("footer button, footer a").evaluateAll((list) => list.map((k) => k.getBoundingClientRect().toJSON() as DOMRect));
    for (const k of keys) expect([k.width >= 80, k.height >= 80]).toEqual([true, true]);
    for (let i = 1; i < keys.length; i++) expect((keys[i]?.left ?? 0) - (keys[i - 1]?.right ?? 0)).toBeGreaterThanOrEqual(11.5);
    const small = await page.evaluate(() =>
      [...document.querySelectorAll("main *")]
        .filter(
          (e) =>
            [...e.childNodes].some((n) => n.nodeType === 3 && n.textContent?.trim()) &&
            Number.parseFloat(getComputedStyle(e).fontSize) < 24 &&
            !e.closest(".sr-only") &&
            // What a pointer is told of a shape is no word on the screen.
            e.tagName !== "title",
        )
        .map((e) => e.textContent?.slice(0, 40)),
    );
    expect(small).toEqual([]);
    const action = await page.getByRole("heading", { level: 1 }).evaluate((e) => Number.parseFloat(getComputedStyle(e).fontSize));
    expect(action).toBe(40);
  });

  it("nothing is cut off at 1024 by 768", async () => {
    const { page } = seat;
    expect(
      await page.evaluate(
        () => document.documentElement.scrollHeight <= window.innerHeight && document.documentElement.scrollWidth <= window.innerWidth,
      ),
    ).toBe(true);
    expect(await page.getByRole("button", { name: "Done" }).isVisible()).toBe(true);
  });

  it("looking back and ahead ticks nothing; Done then returns", async () => {
    const { page } = seat;
    const at = await stepNow();
    await page.getByRole("button", { name: "Look back" }).click();
    expect(await stepNow()).toBe(at - 1);
    expect(await page.getByRole("button", { name: "Undo" }).isVisible()).toBe(true);
    await page.getByRole("button", { name: `Return to card ${at}` }).click();
    expect(await stepNow()).toBe(at);
    await page.getByRole("button", { name: "Look ahead" }).click();
    expect(await stepNow()).toBe(at + 1);
    await page.getByRole("button", { name: `Return to card ${at}` }).click();
    expect(await stepNow()).toBe(at);
  });

  it("takes what was pressed before it was known what this tablet keeps, once, and not what a colleague has done by then", async () => {
    const { page, context } = seat;
    const at = await stepNow();
    const slow = await context.newPage();
    // Whichever tab of the tablet sends it; one that is on its way while its tab goes elsewhere is sent again by another, and is the same.
    const sent = new Set<string>();
    const sends = (r: Request) => r.url().endsWith("/entries") && sent.add((r.postDataJSON() as { entry: { key: string } }).entry.key);
    context.on("request", sends);
    // A busy tablet takes its time to open its store: here until it is let.
    await slow.addInitScript(() => {
      const open = IDBFactory.prototype.open;
      const said = Object.getOwnPropertyDescriptor(IDBRequest.prototype, "onsuccess");
      const w = window as unknown as { let: () => void };
      const opens = new Promise<void>((now) => {
        w.let = now;
      });
      IDBFactory.prototype.open = function (...of) {
        const request = open.apply(this, of);
        const set = (f: (e: Event) => void) => said?.set?.call(request, (e: Event) => void opens.then(() => f.call(request, e)));
        Object.defineProperty(request, "onsuccess", { set });
        return request;
      };
    });
    const opens = async (card: number) => {
      await slow.goto(`${base()}/job/${job}/bench`);
      await slow.waitForSelector("html[data-ready]", { state: "attached" });
      await slow.getByText(`card ${card} of`).waitFor();
      await slow.keyboard.press("Enter");
      await slow.getByText("Heard. It counts as soon as").waitFor();
    };
    const lets = async () => {
      await slow.evaluate(() => (window as unknown as { let: () => void }).let());
      await slow.getByText("Heard. It counts as soon as").waitFor({ state: "hidden" });
    };
    await opens(at);
    await rested(slow);
    await slow.getByRole("button", { name: /^Done/ }).click();
    await lets();
    await slow.getByText(`card ${at + 1} of`).waitFor();
    await expect.poll(stepNow).toBe(at + 1);
    await expect.poll(() => sent.size).toBe(1);
    await opens(at + 1);
    await page.getByRole("button", { name: /^Done/ }).click();
    await slow.getByText(`card ${at + 2} of`).waitFor();
    await lets();
    await slow.waitForLoadState("networkidle");
    await slow.getByText(`card ${at + 2} of`).waitFor();
    expect(sent.size).toBe(2);
    context.off("request", sends);
    await slow.close();
  });

  it("says so where the tablet cannot keep what is pressed, counts nothing then, and goes on once there is room", async () => {
    const { context } = seat;
    const at = await stepNow();
    const full = await context.newPage();
    await full.addInitScript(() => {
      const add = IDBObjectStore.prototype.add;
      const w = window as unknown as { full: boolean };
      w.full = true;
      IDBObjectStore.prototype.add = function (...of) {
        if (w.full) throw new DOMException("no room", "QuotaExceededError");
        return add.apply(this, of);
      };
    });
    await full.goto(`${base()}/job/${job}/bench`);
    await full.waitForLoadState("networkidle");
    const done = full.getByRole("button", { name: /^Done/ });
    const cannot = full.getByText(/^This tablet cannot keep entries: .* Nothing was recorded\./);
    await done.click();
    await cannot.waitFor();
    await full.getByText(`card ${at} of`).waitFor();
    await full.evaluate(() => {
      (window as unknown as { full: boolean }).full = false;
    });
    await rested(full);
    await done.click();
    await full.getByText(`card ${at + 1} of`).waitFor();
    await full.getByText("all sent").waitFor();
    await cannot.waitFor({ state: "detached" });
    // A store that cannot even be read, and then can.
    await full.addInitScript(() => {
      const open = IDBFactory.prototype.open;
      IDBFactory.prototype.open = () => {
        throw new DOMException("off", "UnknownError");
      };
      Object.assign(window, { full: false, on: () => Object.assign(IDBFactory.prototype, { open }) });
    });
    await full.reload();
    await cannot.waitFor();
    await full.keyboard.press("Enter");
    expect(await full.getByText(/^Heard\./).count()).toBe(0);
    await full.evaluate(() => (window as unknown as { on: () => void }).on());
    await cannot.waitFor({ state: "detached" });
    await full.getByText(`card ${at + 1} of`).waitFor();
    await rested(full);
    await done.click();
    await full.getByText(`card ${at + 2} of`).waitFor();
    await full.getByText("all sent").waitFor();
    await expect.poll(stepNow).toBe(at + 2);
    await full.close();
  });

  it("takes the next press the moment the card has turned, and none is lost", async () => {
    const { page } = seat;
    const at = await stepNow();
    await rested(page);
    // Each press comes with the first frame of the next card: then the store has written, and not everything has heard of it.
    const turned = await page.evaluate(
      () =>
        new Promise<number>((done) => {
          const w = window as unknown as { ahead: number };
          const heading = () => document.querySelector("header")?.textContent?.match(/card (\d+) of/)?.[1];
          let was = heading();
          let turns = 0;
          const press = () => {
            w.ahead += 520;
            window.dispatchEvent(new KeyboardEvent("keydown", { key: "Enter", bubbles: true }));
          };
          const end = (watching: MutationObserver) => {
            watching.disconnect();
            done(turns);
          };
          const watching = new MutationObserver(() => {
            if (heading() === was) return;
            was = heading();
            turns += 1;
            clearTimeout(stuck);
            stuck = setTimeout(() => end(watching), 10_000);
            if (turns === 4) end(watching);
            else setTimeout(press);
          });
          let stuck = setTimeout(() => end(watching), 10_000);
          watching.observe(document.body, { subtree: true, childList: true, characterData: true });
          press();
        }),
    );
    expect([turned, await stepNow()]).toEqual([4, at + 4]);
    await page.getByText("all sent").waitFor({ timeout: 20_000 });
  });

  it("the scan of a tag ticks it on a card of many plugs, and only there; a tap takes it back", async () => {
    const { page } = seat;
    const title = () => page.getByRole("heading", { level: 1 }).textContent();
    for (let n = 0; n < 25 && !/^Plug the .* edge: /.test((await title()) ?? ""); n++) await page.keyboard.press("ArrowRight");
    const rows = page.getByRole("group", { name: "What is on this card" }).getByRole("listitem").getByRole("button");
    const tag = /^[A-Z]{2}-\d+/.exec((await rows.nth(1).textContent()) ?? "")?.[0] ?? "";
    // Looked at ahead, nothing is ticked.
    await scan(page, tag);
    await page.getByText(new RegExp(`^Right lead: ${tag}`)).waitFor();
    expect(await rows.nth(1).getAttribute("aria-pressed")).toBe("false");
    await page.keyboard.press("Space");
    await rested(page);
    for (let n = 0; n < 25 && !/^Plug the .* edge: /.test((await title()) ?? ""); n++) {
      const was = await title();
      await page.getByRole("button", { name: /^Done/ }).click();
      await expect.poll(title).not.toBe(was);
      await rested(page);
    }
    await scan(page, tag);
    await page.getByText(`${tag} is ticked: into`, { exact: false }).waitFor();
    await expect.poll(() => rows.nth(1).getAttribute("aria-pressed")).toBe("true");
    await scan(page, tag);
    await page.getByText(`${tag} is in already.`).waitFor();
    await rows.nth(1).click();
    await expect.poll(() => rows.nth(1).getAttribute("aria-pressed")).toBe("false");
    await page.getByText("all sent").waitFor({ timeout: 20_000 });
  });

  it("counts what was pressed as to be sent while the tablet's store still writes it, and takes no second press for it", async () => {
    const { page } = seat;
    const at = await stepNow();
    await rested(page);
    // Another hand on the store: nobody else can write while its transaction lives.
    await page.evaluate(() => {
      const w = window as unknown as { letGo?: boolean };
      return new Promise<void>((held) => {
        const opened = indexedDB.open("imbra-bench");
        opened.onsuccess = () => {
          const store = opened.result.transaction("entries", "readwrite").objectStore("entries");
          const stay = () => {
            held();
            if (w.letGo) opened.result.close();
            else store.count().onsuccess = stay;
          };
          store.count().onsuccess = stay;
        };
      });
    });
    await page.getByRole("button", { name: /^Done/ }).click();
    await page.getByText("1 to send").waitFor();
    await rested(page);
    await page.getByRole("button", { name: /^Done/ }).click();
    expect([await stepNow(), await page.getByText("all sent").count(), await page.getByText("2 to send").count()]).toEqual([at, 0, 0]);
    await page.evaluate(() => {
      (window as unknown as { letGo?: boolean }).letGo = true;
    });
    await expect.poll(stepNow).toBe(at + 1);
    await page.getByText("all sent").waitFor({ timeout: 20_000 });
  });

  it("says on demand what a press of the button would do now", async () => {
    const { page } = seat;
    await page.getByRole("button", { name: /card \d+ of/ }).click();
    await page.getByRole("button", { name: "If I press" }).click();
    const sheet = page.getByRole("dialog", { name: "If you press the button now" });
    expect(await sheet.textContent()).toMatch(/If you press now: nothing/);
    await accessible(page);
    await sheet.getByRole("button", { name: "Close", exact: true }).click();
  });

  it("a double tap on Done does one card", async () => {
    const { page } = seat;
    await page.goto(`${base()}/job/${job}/bench`);
    const at = await stepNow();
    await page.getByRole("button", { name: /^Done/ }).dblclick();
    await page.waitForTimeout(900);
    await page.getByText("all sent").waitFor();
    expect(await stepNow()).toBe(at + 1);
  });

  it("skips with a reason, which stays in the log and on the list over a reload, and the work goes on with what does not need it", async () => {
    const { page } = seat;
    const title = () => page.getByRole("heading", { level: 1 }).textContent();
    const skipped = (await title()) ?? "";
    await page.getByRole("button", { name: "Skip" }).click();
    await page.getByRole("dialog").getByRole("textbox").fill("waiting for the long driver");
    await page.getByRole("button", { name: "Skip it" }).click();
    await expect.poll(title).not.toBe(skipped);
    await page.getByText("all sent").waitFor();
    const next = await title();
    await page.reload();
    await expect.poll(title).toBe(next);
    await page.getByRole("button", { name: /card \d+ of/ }).click();
    await page
      .getByRole("dialog", { name: "All cards" })
      .getByRole("button", { name: /skipped: waiting for the long driver/ })
      .click();
    expect(await title()).toBe(skipped);
    await page.getByText("Skipped before: waiting for the long driver").waitFor();
    await page.goto(`${base()}/job/${job}/order`);
    await page.getByRole("button", { name: "Log" }).click();
    expect(await page.getByRole("region", { name: "Log" }).textContent()).toContain("waiting for the long driver");
  });

  it("a plug that is really elsewhere is recorded so, beside what was planned", async () => {
    const { page } = seat;
    await page.goto(`${base()}/job/${job}/bench`);
    await page.getByRole("button", { name: /card \d+ of/ }).click();
    await page
      .getByRole("dialog", { name: "All cards" })
      .getByRole("button", { name: /Plug the front edge/ })
      .click();
    await page.getByRole("button", { name: "Differs" }).click();
    const where = page.getByRole("dialog", { name: "What is really there?" });
    await where.getByRole("button", { name: /Rear fan into/ }).click();
    const other = where
      .getByRole("button")
      .filter({ hasText: /^SYS_FAN/ })
      .first();
    await other.click();
    await page.getByText("all sent").waitFor();
    await page.goto(`${base()}/job/${job}/wiring`);
    await page.getByRole("option", { name: /Rear fan.*not as planned/ }).waitFor();
  });
});

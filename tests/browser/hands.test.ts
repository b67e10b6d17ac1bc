import type { Browser, Page } from "playwright-core";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { TRIAL } from "../cases";
import { accessible, base, launch, type Seat, scan, sit, tabTo } from "./page";

let browser: Browser;
let seat: Seat;
beforeAll(async () => {
  browser = await launch();
  seat = await sit(browser, "Runa Thistlewood");
});
afterAll(async () => {
  await browser.close();
});

const STAGES = ["parts", "wiring", "order", "bench", "first-boot", "handover", "faults"] as const;
const PAGES = ["/", "/jobs", "/intake", "/shelf", "/shelf/knotwick-split-2", "/people", "/you", ...STAGES.map((s) => `/job/FS-1044/${s}`)];
const open = async (page: Page, path: string) => {
  await page.goto(`${base()}${path}`);
  await page.waitForLoadState("networkidle");
};

/** What can be reached by Tab and is seen: names that tell one from another. */
const reachable = (page: Page) =>
  page.evaluate(() => {
    const all = [...document.querySelectorAll<HTMLElement>("a[href], button, input, select, textarea, summary, [tabindex]")];
    const seen = all.filter((e) => {
      const box = e.getBoundingClientRect();
      const off = (e as HTMLButtonElement).disabled || e.tabIndex < 0 || e.closest("[inert]") !== null;
      // Of radio keys of one name only the chosen one is on the way; a toolbar hands the focus on to one of its keys.
      return (
        !off &&
        box.width > 0 &&
        box.height > 0 &&
        e.checkVisibility({ visibilityProperty: true }) &&
        (e as HTMLInputElement).type !== "radio" &&
        e.role !== "toolbar"
      );
    });
    for (const [i, e] of seen.entries()) e.dataset.walk = String(i);
    return seen.map((e) => `${e.tagName} ${e.getAttribute("aria-label") ?? (e.textContent?.trim().slice(0, 40) || e.outerHTML.slice(0, 150))}`);
  });

describe("each stage by keyboard alone", () => {
  it.each(
    TRIAL ? [...STAGES, "receipt", "parts?show=power", "parts?show=air", "parts?show=order"] : ["wiring", "bench", "handover", "parts?show=air"],
  )("%s: Tab comes to all that can be pressed, and shows where it is", async (stage) => {
    const { page } = seat;
    await open(page, `/job/FS-1047/${stage}`);
    const all = await reachable(page);
    const came = new Set<string>();
    const unseen: string[] = [];
    for (let i = 0; i < all.length * 2 + 20 && came.size < all.length; i++) {
      await page.keyboard.press("Tab");
      const at = await page.evaluate(() => {
        const e = document.activeElement as HTMLElement | null;
        if (!e || e === document.body) return null;
        const style = getComputedStyle(e);
        const box = e.getBoundingClientRect();
        const marked = (style.outlineStyle !== "none" && Number.parseFloat(style.outlineWidth) > 0) || style.boxShadow !== "none";
        const inView = box.bottom > 0 && box.right > 0 && box.top < window.innerHeight && box.left < window.innerWidth;
        return {
          walk: e.dataset.walk,
          what: `${e.tagName} ${e.getAttribute("aria-label") ?? (e.textContent?.trim().slice(0, 40) || e.outerHTML.slice(0, 150))}`,
          shows: marked && inView,
        };
      });
      if (at?.walk) came.add(at.walk);
      if (at && !at.shows) unseen.push(at.what);
    }
    expect(all.filter((_, i) => !came.has(String(i)))).toEqual([]);
    expect(unseen).toEqual([]);
  });
  /** Where the focus is, in words; "BODY" where it is lost. */
  const focused = (page: Page) =>
    page.evaluate(() => {
      const e = document.activeElement;
      return !e || e === document.body ? "BODY" : `${e.getAttribute("aria-label") ?? ""} ${e.textContent ?? ""}`.trim().slice(0, 60);
    });
  it("parts: a part is chosen, and what is known of it stands beside", async () => {
    const { page } = seat;
    await open(page, "/job/FS-1047/parts");
    await tabTo(page, /rear fan/i);
    await page.keyboard.press("Enter");
    await page
      .getByRole("region", { name: "Parts list" })
      .getByRole("button", { pressed: true, name: /rear fan/i })
      .waitFor();
    expect(await focused(page)).toMatch(/rear fan/i);
    await tabTo(page, /^\s*Fit$/);
    await page.keyboard.press("ArrowRight");
    // The toolbar hands the focus on a moment later.
    await expect.poll(() => focused(page)).toBe("Power");
    await page.keyboard.press("Enter");
    await page.waitForURL(/show=power/);
    expect(await focused(page)).toBe("Power");
  });
  it("receipt: a part is ticked as arrived", async () => {
    const { page } = seat;
    await open(page, "/job/FS-1048/receipt");
    await tabTo(page, /^\s*(Arrived|Correct it)$/);
    await page.keyboard.press("Enter");
    await expect.poll(() => focused(page)).not.toBe("BODY");
  });
  it("first boot: a line is seen, a group as expected, and the focus stays at hand", async () => {
    const { page } = seat;
    await open(page, "/job/FS-1047/first-boot");
    await tabTo(page, /\d to see$/);
    await page.keyboard.press("Enter");
    expect(await focused(page)).toMatch(/to see$/);
    await tabTo(page, /^\s*(All of .* as expected|The other .* as expected)/);
    await page.keyboard.press("Enter");
    await page.getByText(/recorded as expected\./).waitFor();
    await expect.poll(() => focused(page)).not.toBe("BODY");
  });
  it("faults: an action is tried, and a fault closed with its finding", async () => {
    const { page } = seat;
    await open(page, "/job/FS-1047/faults");
    await tabTo(page, /^\s*\d?Nothing changed/);
    await page.keyboard.press("Enter");
    await page.getByText(/Recorded\. The next action is up\./).waitFor();
    await expect.poll(() => focused(page)).not.toBe("BODY");
    await tabTo(page, /^\s*Close fault \d+ with a finding/);
    await page.keyboard.press("Enter");
    await tabTo(page, /^\s*What fault \d+ was/);
    await page.keyboard.type("A splitter without current.");
    await page.keyboard.press("Enter");
    await page.getByText("No fault is open.", { exact: true }).waitFor();
    await page.getByText("A splitter without current.").first().waitFor();
    await expect.poll(() => focused(page)).not.toBe("BODY");
  });
  it("order leads to the bench, the bench ticks and takes back", async () => {
    const { page } = seat;
    await open(page, "/job/FS-1042/order");
    await tabTo(page, /^\s*Go to the bench/);
    await page.keyboard.press("Enter");
    await page.waitForURL(/\/bench/);
    await page.waitForLoadState("networkidle");
    const stepNow = async () => Number(/card (\d+) of/.exec((await page.getByText(/card \d+ of/).textContent()) ?? "")?.[1]);
    const at = await stepNow();
    await tabTo(page, /^\s*Done/);
    await page.keyboard.press("Enter");
    await expect.poll(stepNow).toBe(at + 1);
    expect(await focused(page)).toMatch(/^Done/);
    await page.getByText("all sent").waitFor();
    await page.keyboard.press("Control+z");
    await expect.poll(stepNow, { timeout: 20_000 }).toBe(at);
  });
  it("handover: refused without a reason, given one, and taken back", async () => {
    const { page } = seat;
    await open(page, "/job/FS-1042/handover");
    await tabTo(page, /^\s*Hand over as it is/);
    await page.keyboard.press("Enter");
    await page.getByText(/^Something is missing: /).waitFor();
    await expect.poll(() => focused(page)).not.toBe("BODY");
    await tabTo(page, /^\s*Why it goes like this/);
    await page.keyboard.type("The client waits for it.");
    await tabTo(page, /^\s*Hand over as it is/);
    await page.keyboard.press("Enter");
    await page.getByText(/This job was handed over and is closed/).waitFor();
    await expect.poll(() => focused(page)).not.toBe("BODY");
    await tabTo(page, /^\s*Why it is opened again/);
    await page.keyboard.type("It came back.");
    await tabTo(page, /^\s*Open it again/);
    await page.keyboard.press("Enter");
    await page.getByRole("button", { name: "Hand over as it is" }).waitFor();
    await expect.poll(() => focused(page)).not.toBe("BODY");
  });
});

describe("back, a reload and a second tab", () => {
  // What is chosen on each stage, and what then stands in the address.
  const choose: Record<string, { press: string | RegExp; kept: RegExp } | undefined> = {
    parts: { press: /rear fan/i, kept: /#part=/ },
    "first-boot": { press: /^Firmware screen/, kept: /#group=Firmware/ },
  };
  it.each(TRIAL ? [...STAGES, "receipt"] : ["parts", "wiring", "bench"])("%s is the same again", async (stage) => {
    const { page, context, errors } = seat;
    await open(page, `/job/FS-1047/${stage}`);
    const c = choose[stage];
    if (c) {
      await page.locator("main").getByRole("button", { name: c.press }).first().click();
      await expect.poll(() => page.url()).toMatch(c.kept);
    }
    // Clocks of a page move on by themselves.
    const words = async (p: Page) => ((await p.locator("main").first().textContent()) ?? "").replace(/\d\d:\d\d/g, "");
    const was = await words(page);
    await page.reload();
    await page.waitForLoadState("networkidle");
    await expect.poll(() => words(page)).toBe(was);
    await page.goto(`${base()}/`);
    await page.goBack();
    await page.waitForURL(new RegExp(stage));
    await expect.poll(() => words(page)).toBe(was);
    const other = await context.newPage();
    await other.goto(page.url());
    await expect.poll(() => words(other)).toBe(was);
    await other.close();
    expect(errors).toEqual([]);
  });
});

describe("a scan", () => {
  it("is heard on every screen and opens what it stands for, without pressing anything", async () => {
    const { page } = seat;
    for (const p of PAGES.filter((x) => !x.endsWith("receipt"))) {
      await page.goto(`${base()}${p}`);
      await page.waitForLoadState("networkidle");
      if (p === "/intake") await page.getByRole("heading", { level: 1 }).first().click();
      await scan(page, "FS-1045");
      await page.waitForURL(/\/job\/FS-1045\//);
    }
    // A lead of the job that is open: the wiring chooses it, the bench says whether it is the right one.
    await page.goto(`${base()}/job/FS-1044/wiring`);
    await page.waitForLoadState("networkidle");
    await scan(page, "FN-02");
    await page.getByText("Scanned: FN-02").waitFor();
    await page.goto(`${base()}/job/FS-1044/bench`);
    await page.waitForLoadState("networkidle");
    await scan(page, "FN-02");
    await page.getByText(/^(Right|Wrong) lead: /).waitFor();
    await scan(page, "QQ-9999");
    await page.getByText("QQ-9999 is no job, serial or part type here, and no lead of this job.").waitFor();
  });
  it("with the palette open goes into its field; with a sheet open it is heard all the same", async () => {
    const { page } = seat;
    await page.goto(`${base()}/`);
    await page.waitForLoadState("networkidle");
    await page.keyboard.press("Control+k");
    await page.getByRole("dialog", { name: "Find, or do something" }).waitFor();
    await page.keyboard.type("FS-1041", { delay: 4 });
    await page.getByRole("option", { name: /FS-1041 Quiet workstation/ }).waitFor();
    await page.keyboard.press("Enter");
    await page.waitForURL(/\/job\/FS-1041\//);
    await page.keyboard.press("?");
    await page.getByRole("dialog", { name: "Keys" }).waitFor();
    await accessible(page);
    await page.getByRole("dialog").getByRole("button", { name: "Close", exact: true }).focus();
    await scan(page, "FS-1042");
    await page.waitForURL(/\/job\/FS-1042\//);
  });
});

describe("the palette", () => {
  it("does what can be done here, by keyboard alone", async () => {
    const { page } = seat;
    await page.goto(`${base()}/job/FS-1043/parts`);
    await page.waitForLoadState("networkidle");
    const run = async (words: string) => {
      await page.keyboard.press("Control+k");
      await page.keyboard.type(words, { delay: 15 });
      await page
        .getByRole("option", { name: new RegExp(words, "i") })
        .first()
        .waitFor();
      await page.waitForTimeout(400);
      await page.keyboard.press("Enter");
    };
    await run("Hand over");
    await page.waitForURL(/FS-1043\/handover/);
    await run("Change the job");
    const sheet = page.getByRole("dialog", { name: "FS-1043, the job" });
    await accessible(page);
    await sheet.getByLabel("Client").fill("Dome of the North");
    await page.keyboard.press("Enter");
    await sheet.getByText("Changed.").waitFor();
    await page.keyboard.press("Escape");
    await page.getByText("Dome of the North").first().waitFor();
    await run("New job");
    await page.waitForURL(/\/intake/);
  });
  it("a job's own address leads to where its work is", async () => {
    const { page } = seat;
    await page.goto(`${base()}/job/FS-1044`);
    expect(page.url()).toMatch(/FS-1044\/bench$/);
    await page.goto(`${base()}/job/FS-1041`);
    expect(page.url()).toMatch(/FS-1041\/wiring$/);
  });
});

describe("what is chosen", () => {
  it("is kept by back, by a reload and in a second tab; focus stays where the hand is", async () => {
    const { page, context } = seat;
    await page.goto(`${base()}/job/FS-1044/wiring`);
    await page.waitForLoadState("networkidle");
    await page.getByRole("listbox", { name: "Leads" }).focus();
    for (let i = 0; i < 4; i++) await page.keyboard.press("ArrowDown");
    // As hands press: quicker than this is a scan.
    await page.waitForTimeout(150);
    await page.keyboard.press("3");
    await page.waitForTimeout(150);
    await page.keyboard.press("+");
    await expect.poll(() => page.url()).toMatch(/#lead=.+&loom=fans&zoom=region$/);
    const inspector = async (p: Page) => (await p.getByRole("region", { name: "Inspector" }).textContent())?.slice(0, 60);
    const was = await inspector(page);
    await page.reload();
    await page.waitForLoadState("networkidle");
    await expect.poll(() => inspector(page)).toBe(was);
    await page.keyboard.press("g");
    await page.keyboard.press("1");
    await page.waitForURL(/parts/);
    await page.goBack();
    await page.waitForURL(/wiring/);
    await expect.poll(() => inspector(page)).toBe(was);
    const other = await context.newPage();
    await other.goto(page.url());
    await expect.poll(() => inspector(other)).toBe(was);
    await other.close();
  });
  it("after an action the focus is near what was pressed, on no screen on the page itself", async () => {
    const { page } = seat;
    await page.goto(`${base()}/shelf?q=knotwick-split-2`);
    await page.waitForLoadState("networkidle");
    const more = page.getByRole("button", { name: /^One .* more$/ }).first();
    await more.focus();
    await page.keyboard.press("Enter");
    await page
      .getByText(/in stock\.$/)
      .first()
      .waitFor();
    expect(await page.evaluate(() => document.activeElement?.getAttribute("aria-label"))).toMatch(/^One .* more$/);
    // What had the focus goes away with what it did.
    await page.goto(`${base()}/job/FS-1047/wiring`);
    await page.waitForLoadState("networkidle");
    await page.getByRole("button", { name: /Warn/ }).click();
    await page
      .getByRole("button", { name: /^Accept: / })
      .first()
      .click();
    await page.keyboard.type("the client wants it so");
    await page.keyboard.press("Tab");
    await page.keyboard.press("Enter");
    await page
      .getByText(/Accepted by Runa Thistlewood/)
      .first()
      .waitFor();
    await expect.poll(() => page.evaluate(() => document.activeElement?.tagName)).not.toBe("BODY");
  });
  it("Ctrl+Z takes back the last entry of one's own, at the bench and at the desk", async () => {
    const { page } = seat;
    await page.setViewportSize({ width: 1024, height: 768 });
    await page.goto(`${base()}/job/FS-1045/wiring`);
    await page.waitForLoadState("networkidle");
    await page.keyboard.press("Control+z");
    await page.getByText(/You have done nothing to this job that can be taken back/).waitFor();
    await page.goto(`${base()}/job/FS-1044/bench`);
    await page.waitForLoadState("networkidle");
    const stepNow = async () => Number(/card (\d+) of/.exec((await page.getByText(/card \d+ of/).textContent()) ?? "")?.[1]);
    const at = await stepNow();
    await page.getByRole("button", { name: /^Done/ }).click();
    await expect.poll(stepNow).toBe(at + 1);
    await page.getByText("all sent").waitFor();
    await page.locator("h1").click();
    await page.keyboard.press("Control+z");
    await expect.poll(stepNow, { timeout: 20_000 }).toBe(at);
    await page.setViewportSize({ width: 1280, height: 800 });
  });
});

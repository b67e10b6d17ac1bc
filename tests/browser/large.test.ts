import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Browser, Page } from "playwright-core";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { TRIAL } from "../cases";
import { generated } from "../fixtures/generated";
import { accessible, base, launch, readIn, type Seat, scan, sit } from "./page";
import { routeTimes } from "./seat";

/** Bounds are loose, since test machines are noisy; docs/benchmarks.md says what was measured. */
const MOST_TASK_MS = 1000;
const MOST_ROUTE_MS = 400;

/** A task of the browser as its trace tells it; `tdur` is what it took of the processor, µs. */
interface Traced {
  name: string;
  ph: string;
  pid: number;
  tid: number;
  tdur?: number;
  args?: { name?: string };
}

/**
 * Watches what a page's own thread does, until the function it gives is asked for the longest task. Counted is the processor's time: by
 * the wall a task is as long as whatever else the machine does meanwhile, and beside it a planner works on the same cores.
 */
async function tasksOf(page: Page): Promise<() => Promise<{ tasks: number; ms: number }>> {
  const session = await page.context().newCDPSession(page);
  const seen: Traced[] = [];
  session.on("Tracing.dataCollected", ({ value }) => seen.push(...(value as unknown as Traced[])));
  await session.send("Tracing.start", { transferMode: "ReportEvents", traceConfig: { includedCategories: ["toplevel"] } });
  return async () => {
    const done = new Promise((resolve) => session.once("Tracing.tracingComplete", resolve));
    await session.send("Tracing.end");
    await done;
    const own = new Set(seen.filter((e) => e.name === "thread_name" && e.args?.name === "CrRendererMain").map((e) => `${e.pid} ${e.tid}`));
    const took = seen.filter((e) => e.ph === "X" && own.has(`${e.pid} ${e.tid}`)).flatMap((e) => e.tdur ?? []);
    return { tasks: took.length, ms: took.reduce((most, us) => Math.max(most, us), 0) / 1000 };
  };
}

let browser: Browser;
let desk: Seat;
const folder = mkdtempSync(join(tmpdir(), "imbra-"));
/** A generated build read in through the screen, its wiring open. */
async function openLarge(leads: number, seed: number): Promise<void> {
  const file = join(folder, `${leads}.json`);
  writeFileSync(file, JSON.stringify(generated(leads, seed).build));
  const job = await readIn(desk.page, file);
  await desk.page.goto(`${base()}/job/${job}/wiring`);
  await desk.page.waitForLoadState("networkidle");
}
beforeAll(async () => {
  browser = await launch();
  desk = await sit(browser, "Tansy Okoru");
});
afterAll(async () => {
  await browser.close();
});

describe("large builds", () => {
  it.runIf(TRIAL)("shows a first plan soon, not yet proved; proving it can be stopped, and the plan stays", async () => {
    const { page } = desk;
    // Twice as large as any build for a client: no machine proves it before it is shown.
    await openLarge(240, 1);
    const longest = await tasksOf(page);
    await page.getByRole("button", { name: "Plan the wiring" }).click();
    await page.getByRole("progressbar", { name: "Planning" }).waitFor();
    await page
      .getByText(/^Plan 1, not yet proved: \d+ connections\. (Best down to|Nothing of it) .+ Looking for a better one\.$/)
      .waitFor({ timeout: 240_000 });
    await page.getByText(/^Piece \d+ of \d+, looking at: .+$/).waitFor({ timeout: 30_000 });
    const { tasks, ms } = await longest();
    expect(tasks).toBeGreaterThan(100);
    expect(ms).toBeLessThan(MOST_TASK_MS);
    await accessible(page);
    await page.getByRole("button", { name: "Cancel" }).click();
    await page.getByText(/^Stopped\. Plan 1 stays, not yet proved: \d+ connections/).waitFor();
    await page.getByRole("link", { name: "Go to the bench" }).waitFor();
  });
  it("goes on to the proof of many leads: at once, as it stands, or by a better one in its place", async () => {
    const { page } = desk;
    await openLarge(TRIAL ? 120 : 80, 2);
    await page.getByRole("button", { name: "Plan the wiring" }).click();
    await page.getByText(/^Plan \d+(, proved in .+| is proved as it stands.+)$/).waitFor({ timeout: 240_000 });
  });
  it("is readable: no word over another, and one loom shows only its own leads", async () => {
    const { page } = desk;
    const clashes = () =>
      page.evaluate(() => {
        const all = [...document.querySelectorAll("svg[role=group] text")].map((t) => ({ words: t.textContent, box: t.getBoundingClientRect() }));
        // Lines of one label touch: what laps less than a part of a line is none.
        return all.flatMap((a, i) =>
          all.slice(i + 1).flatMap((b) => {
            const w = Math.min(a.box.right, b.box.right) - Math.max(a.box.left, b.box.left);
            const h = Math.min(a.box.bottom, b.box.bottom) - Math.max(a.box.top, b.box.top);
            return w > 3 && h > 5 ? [`${a.words} over ${b.words}`] : [];
          }),
        );
      });
    const drawn = () => page.locator("svg[role=group] [data-lead]").count();
    expect(await clashes()).toEqual([]);
    expect(await drawn()).toBeGreaterThan(5);
    await page.getByRole("button", { name: "Data" }).click();
    await expect.poll(() => page.url()).toContain("loom=data");
    const tags = await page.getByRole("listbox", { name: "Leads" }).getByRole("option").allTextContents();
    expect(tags.every((t) => t.startsWith("DT-"))).toBe(true);
    // The drawing follows the list: on a slow machine a moment later.
    await expect.poll(drawn).toBeLessThanOrEqual(tags.length);
    expect(await clashes()).toEqual([]);
    await page.getByRole("button", { name: "Data" }).click();
  });
  it("finds a lead by name, port or scan; filters and groups", async () => {
    const { page } = desk;
    const list = page.getByRole("listbox", { name: "Leads" });
    const count = () => list.getByRole("option").count();
    const all = await count();
    await page.keyboard.press("/");
    await page.keyboard.type("drive 3");
    await expect.poll(count).toBeLessThan(all);
    await page.keyboard.press("Escape");
    await expect.poll(count).toBe(all);
    await page.getByLabel("Group leads").selectOption("port");
    await list.getByRole("group", { name: "board" }).first().waitFor();
    await page.getByLabel("Show leads").selectOption("wrong");
    await expect.poll(count).toBe(0);
    await page.getByText(`0 of ${all} leads`).waitFor();
    await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
    // A scanner types faster than any hand; its digits must not switch looms, nor its Enter take the lead.
    await scan(page, "FN-12");
    await page.getByText(/^Scanned: FN-12, /).waitFor();
    await expect.poll(count).toBe(all);
    expect(await list.getByRole("option", { selected: true }).textContent()).toContain("FN-12");
    expect(await page.getByRole("button", { name: "Let go" }).count()).toBe(0);
    await scan(page, "NO-SUCH");
    await page.getByText("NO-SUCH is no job, serial or part type here, and no lead of this job.").waitFor();
    await accessible(page);
  });
  // By the wall, as who waits for it: not for a machine that does other things meanwhile.
  it.runIf(TRIAL)("shows the route of a chosen lead at once", async () => {
    const { page } = desk;
    await page.getByLabel("Group leads").selectOption("loom");
    const times = await routeTimes(page, "FN-", 12);
    expect(times.length).toBe(12);
    expect(times[6]).toBeLessThan(MOST_ROUTE_MS);
    expect(desk.errors).toEqual([]);
  });
});

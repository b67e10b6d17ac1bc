import { mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Browser, Page } from "playwright-core";
import { base, launch, readIn, routeTimes, sit } from "../tests/browser/seat";
import { generated } from "../tests/fixtures/generated";

// What a person waits for, in Chromium, on a server that has just started: no probes in the page while a plan is made,
// since asking a page for its words is work of its main thread too.

const folder = mkdtempSync(join(tmpdir(), "imbra-bench-"));
const wait = (ms: number) => new Promise((r) => setTimeout(r, ms));
const seconds = (ms: number | undefined) => (ms === undefined ? "never" : `${(ms / 1000).toFixed(1)} s`);

interface TraceEvent {
  name: string;
  ph: string;
  pid: number;
  tid: number;
  ts: number;
  dur?: number;
  args?: { name?: string };
}

/** The main threads' tasks while `work` ran, longest first, ms; frames drawn count as tasks. */
async function tasks(browser: Browser, page: Page, work: () => Promise<void>): Promise<number[]> {
  const path = join(folder, "trace.json");
  await browser.startTracing(page, { path, categories: ["toplevel", "devtools.timeline", "disabled-by-default-devtools.timeline"] });
  await work();
  await browser.stopTracing();
  const { traceEvents } = JSON.parse(readFileSync(path, "utf8")) as { traceEvents: TraceEvent[] };
  const main = new Set(traceEvents.filter((e) => e.name === "thread_name" && e.args?.name === "CrRendererMain").map((e) => `${e.pid}:${e.tid}`));
  const own = traceEvents.filter((e) => e.ph === "X" && e.dur !== undefined && /RunTask/.test(e.name) && main.has(`${e.pid}:${e.tid}`));
  if (own.length === 0) throw new Error("the trace names no task of a page");
  return own.map((e) => (e.dur ?? 0) / 1000).sort((a, b) => b - a);
}

const told = (list: readonly number[]) => {
  const long = list.filter((ms) => ms >= 50);
  return `longest task of the main thread ${(list[0] ?? 0).toFixed(0)} ms${long.length > 0 ? `, ${long.length} of 50 ms or more` : ""}`;
};

interface Said {
  at: number;
  words: string;
}

async function planning(browser: Browser, page: Page, leads: number, seed: number): Promise<void> {
  const file = join(folder, `${leads}-${seed}.json`);
  writeFileSync(file, JSON.stringify(generated(leads, seed).build));
  const job = await readIn(page, file);
  await page.goto(`${base()}/job/${job}/wiring`);
  await page.waitForLoadState("networkidle");
  await wait(1500);
  const list = await tasks(browser, page, async () => {
    await page.evaluate(() => {
      const status = document.querySelector('[aria-label="Inspector"] [role="status"]');
      const from = performance.now();
      const w = window as unknown as { said: Said[] };
      w.said = [];
      if (status)
        new MutationObserver(() => w.said.push({ at: performance.now() - from, words: status.textContent ?? "" })).observe(status, {
          childList: true,
          characterData: true,
          subtree: true,
        });
      [...document.querySelectorAll("button")].find((b) => b.textContent === "Plan the wiring")?.click();
    });
    for (let i = 0; i < 70; i++) {
      await wait(1000);
      const last = await page.evaluate(() => (window as unknown as { said: Said[] }).said.at(-1)?.words ?? "");
      if (/^Plan \d+(, proved| is proved|.* replaces| stays)/.test(last)) break;
    }
    await wait(500);
  });
  const said = await page.evaluate(() => (window as unknown as { said: Said[] }).said);
  const count = await page.getByRole("option").count();
  const first = said.find((s) => /^Plan 1,/.test(s.words));
  const proof = said.find((s) => /^Plan \d+(, proved| is proved)/.test(s.words));
  console.log(
    `  generated ${leads}/${seed}, ${count} leads: first plan after ${seconds(first?.at)}${first === proof ? ", proved" : `, proof after ${seconds(proof?.at)}`}; ${told(list)}`,
  );
  await routes(page, `generated ${leads}/${seed}`);
  await handling(browser, page, `generated ${leads}/${seed}`);
}

/** Looms, zoom and turning the sheet, each pressed and looked at; and leads chosen one after the other. */
async function handling(browser: Browser, page: Page, name: string): Promise<void> {
  const keys = page.getByRole("toolbar", { name: "Looms and zoom" }).getByRole("button");
  const rest = () => wait(350);
  const of: [string, () => Promise<void>][] = [
    [
      "looms and zoom",
      async () => {
        for (const key of await keys.all()) {
          await key.click();
          await rest();
        }
      },
    ],
    [
      "the sheet turned and turned back",
      async () => {
        const turn = page.getByRole("button", { name: /^Look (behind the tray|at the front)$/ });
        for (let n = 0; n < 2 && (await turn.count()) > 0; n++) {
          await turn.click();
          await rest();
        }
      },
    ],
    [
      "ten leads chosen",
      async () => {
        const rows = page.locator('[role="option"]');
        for (let n = 0; n < 10; n++) {
          await rows.nth((n * 7) % (await rows.count())).click();
          await rest();
        }
      },
    ],
  ];
  await keys.first().click();
  await rest();
  for (const [what, work] of of) console.log(`  ${name}, ${what}: ${told(await tasks(browser, page, work))}`);
}

/** Every lead chosen in turn: until the frame with its route has been drawn. */
async function routes(page: Page, name: string): Promise<void> {
  const times = await routeTimes(page, "", 120);
  console.log(
    `  ${name}: a chosen lead's route drawn after ${times[times.length >> 1]?.toFixed(0)} ms (median of ${times.length}), slowest ${times.at(-1)?.toFixed(0)} ms`,
  );
}

async function partKept(browser: Browser, page: Page): Promise<void> {
  await page.goto(`${base()}/job/FS-1043/parts`);
  await page.waitForLoadState("networkidle");
  const list = page.getByRole("region", { name: "Parts list" });
  for (const [was, other] of [
    ["Coldwharf", "Coldwharf tower 120"],
    ["Coldwharf tower 120", "Coldwharf twin quiet"],
  ] as const) {
    await list
      .getByRole("button", { name: new RegExp(was) })
      .first()
      .click();
    await page.getByRole("button", { name: "Try another in its place" }).click();
    const sheet = page.getByRole("dialog", { name: /What if/ });
    await sheet.getByRole("button", { name: new RegExp(`^${other}`) }).click();
    const keep = sheet.getByRole("button", { name: `Keep ${other}` });
    await keep.waitFor();
    await wait(500);
    const long = await tasks(browser, page, async () => {
      await keep.click();
      await wait(3000);
    });
    if ((await list.getByRole("button", { name: new RegExp(other) }).count()) === 0) throw new Error(`${other} was not kept`);
    console.log(`  FS-1043, ${other} kept, all judged again: ${told(long)}`);
  }
}

const browser = await launch();
const { page } = await sit(browser, "Tansy Okoru");
console.log("In Chromium, one pass on a server that has just started");
await planning(browser, page, 120, 2);
await planning(browser, page, 120, 1);
await page.goto(`${base()}/job/FS-1043/wiring`);
await page.waitForLoadState("networkidle");
await routes(page, "FS-1043");
await handling(browser, page, "FS-1043");
await partKept(browser, page);
await browser.close();

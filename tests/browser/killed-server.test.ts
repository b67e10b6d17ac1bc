import type { ChildProcess } from "node:child_process";
import type { Browser } from "playwright-core";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { launch, rested, signIn } from "./page";
import { freePort, killed, secondServer } from "./second-server";

let browser: Browser;
let server: ChildProcess | undefined;
let port = 0;
beforeAll(async () => {
  browser = await launch();
  port = await freePort();
});
afterAll(async () => {
  await killed(server);
  await browser.close();
});

describe("a server that is killed while somebody works", () => {
  it("loses no tick: what was pressed meanwhile is kept on the tablet, also over a reload, and sent in order when it is back", async () => {
    server = await secondServer(port);
    const context = await browser.newContext({ locale: "en-GB", viewport: { width: 1024, height: 768 } });
    const page = await context.newPage();
    const base = `http://127.0.0.1:${port}`;
    await signIn(page, "Ebo Larkmoor", base);
    await page.goto(`${base}/job/FS-1044/bench`);
    await page.waitForLoadState("networkidle");
    const stepNow = async () => Number(/card (\d+) of/.exec((await page.getByText(/card \d+ of/).textContent()) ?? "")?.[1]);
    const at = await stepNow();
    await killed(server);
    for (let n = 1; n <= 3; n++) {
      await page.getByRole("button", { name: /^Done/ }).click();
      await expect.poll(stepNow).toBe(at + n);
      await rested(page);
    }
    await page.getByText(/No network\. \d+ entries are kept on this tablet and will be sent in order\. Go on working\./).waitFor();
    await page.getByText(/^\d+ to send$/).waitFor();
    server = await secondServer(port);
    // The tablet is started anew before everything was sent.
    await page.goto(`${base}/job/FS-1044/bench`);
    await page.getByText("all sent").waitFor({ timeout: 20_000 });
    await expect.poll(stepNow, { timeout: 20_000 }).toBe(at + 3);
    await page.goto(`${base}/job/FS-1044/order`);
    await page.getByRole("button", { name: "Log" }).click();
    const log = (await page.getByRole("region", { name: "Log" }).textContent()) ?? "";
    expect(log.match(/Ebo Larkmoor/g)?.length ?? 0).toBeGreaterThanOrEqual(3);
    await context.close();
  });
  it("asked to stop, it stops within seconds though screens listen", async () => {
    await killed(server);
    server = await secondServer(port);
    const stream = await fetch(`http://127.0.0.1:${port}/live`);
    const reader = stream.body?.getReader();
    await reader?.read();
    const asked = Date.now();
    const gone = new Promise((resolve) => server?.once("exit", resolve));
    server?.kill("SIGTERM");
    await gone;
    expect(Date.now() - asked).toBeLessThan(8000);
  }, 90_000);
});

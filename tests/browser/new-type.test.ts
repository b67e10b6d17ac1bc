import type { Browser, Page } from "playwright-core";
import sharp from "sharp";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { accessible, base, launch, type Seat, sit } from "./page";

let browser: Browser;
let desk: Seat;
beforeAll(async () => {
  browser = await launch();
  desk = await sit(browser, "Runa Thistlewood");
});
afterAll(async () => browser.close());

/** Counts what a person does: presses, and fields that are filled. */
function acting(page: Page) {
  let n = 0;
  return {
    press: async (name: RegExp | string) => {
      n++;
      await page.getByRole("button", { name }).first().click();
    },
    fill: async (label: string | RegExp, value: string) => {
      n++;
      await page.getByLabel(label, { exact: typeof label === "string" }).fill(value);
    },
    count: () => n,
  };
}
const ports = (page: Page) => page.getByRole("group", { name: /to scale/ }).getByRole("button");

describe("a part type that the shelf lacks", () => {
  it("a board with fourteen headers is counted in at most thirty actions, drawn as one counts, and stands on the shelf", async () => {
    const { page } = desk;
    await page.goto(`${base()}/shelf`);
    const who = acting(page);
    await page.getByRole("link", { name: "New part type" }).click();
    await page.getByRole("heading", { level: 1 }).or(page.getByText("new part type")).first().waitFor();
    await page.waitForLoadState("networkidle");
    await who.fill("Maker", "Stellan");
    await who.fill("Name", "Gorge B7");
    const before = await ports(page).count();
    await who.press("One more: case fan headers");
    await who.press("One more: case fan headers");
    await who.press(/^One more like the last: case fan headers/);
    expect(await ports(page).count()).toBe(before + 3);
    // Fourteen: seven fan headers with pump and second CPU fan, three of USB 2, two of USB 3, two for lights.
    await who.fill("case fan headers", "5");
    await who.fill("USB 2 headers", "3");
    await who.fill("USB 3 headers", "2");
    await who.fill("5 V light headers", "2");
    await who.fill("12 V light headers", "0");
    await who.fill("SATA ports", "6");
    await who.fill("CPU socket", "own-1");
    expect(
      await ports(page)
        .filter({ has: page.locator("title", { hasText: /^SYS_FAN/ }) })
        .count(),
    ).toBe(5);
    // A name in place, and a place by arrows.
    await ports(page)
      .filter({ has: page.locator("title", { hasText: /^SYS_FAN1$/ }) })
      .focus();
    await who.fill("As printed", "CHA_FAN1");
    const moved = page.getByRole("button", { name: /^CHA_FAN1, 14 mm/ });
    await moved.focus();
    await page.keyboard.press("ArrowRight");
    await page.getByRole("button", { name: /^CHA_FAN1, 15 mm/ }).waitFor();
    await accessible(page);
    // A reload loses nothing.
    await page.reload();
    await page.getByRole("button", { name: /^CHA_FAN1, 15 mm/ }).waitFor();
    await who.press("All that is grey is so, too");
    await who.press("Put it on the shelf");
    await page.waitForURL(/\/shelf\/stellan-gorge-b7$/);
    expect(who.count() + 3).toBeLessThanOrEqual(30);
    await page.getByRole("heading", { name: "Gorge B7" }).waitFor();
    expect(desk.errors).toEqual([]);
  });
  it("the manual's own list fills it in, and what was not understood stays in view", async () => {
    const { page } = desk;
    await page.goto(`${base()}/shelf/new?kind=board`);
    await page.waitForLoadState("networkidle");
    await page.getByText("The manual's own list").click();
    await page
      .getByLabel(/Headers or cables/)
      .fill("CHA_FAN1/2/3: 4-pin chassis fan headers\n2 x USB 2.0 headers (USB_12, USB_34)\nA lithium battery");
    await page.getByRole("button", { name: "Take it over" }).click();
    await page.getByText("2 of 3 lines understood.").waitFor();
    await page.getByRole("list", { name: "Lines not understood" }).getByText("A lithium battery").waitFor();
    expect(await page.getByLabel("case fan headers", { exact: true }).inputValue()).toBe("3");
    await page.getByRole("button", { name: /^USB_34, / }).waitFor();
    await accessible(page);
  });
  it("the shop's own photo lies under the drawing: four holes tapped take the perspective out, and a port goes where one presses", async () => {
    const { page } = desk;
    await page.goto(`${base()}/shelf/stellan-gorge-b7`);
    await page.waitForLoadState("networkidle");
    await page.getByRole("button", { name: "Photo", exact: true }).click();
    const picture = await sharp({ create: { width: 900, height: 1100, channels: 3, background: "#345" } })
      .jpeg()
      .toBuffer();
    await page.locator('input[type="file"]').setInputFiles({ name: "board.txt", mimeType: "text/plain", buffer: Buffer.from("no photo") });
    await page.getByText(/board\.txt is no photo that Imbra reads/).waitFor();
    await page.locator('input[type="file"]').setInputFiles({ name: "board.jpg", mimeType: "image/jpeg", buffer: picture });
    const photo = page.getByRole("img", { name: "Gorge B7, as photographed" });
    await photo.waitFor();
    const box = async () => {
      const b = await photo.boundingBox();
      if (!b) throw new Error("no photo");
      return b;
    };
    // The board fills the photo at 3 px a millimetre from (50, 50) on: each hole is tapped where it is then.
    const scale = (await box()).width / 900;
    for (let i = 0; i < 4; i++) {
      const said = await page.getByLabel("Next tap is").locator("option:checked").textContent();
      const at = /\((\d+), (\d+) mm\)/.exec(said ?? "");
      if (!at) throw new Error(said ?? "nothing to tap");
      await photo.click({ position: { x: (50 + 3 * Number(at[1])) * scale, y: (50 + 3 * Number(at[2])) * scale }, force: true });
      await page.getByRole("list", { name: "Points tapped" }).getByRole("listitem").nth(i).waitFor();
    }
    await page.getByText(/^Flat; 4 points, 0\.\d mm off on the whole/).waitFor();
    await page.locator("foreignObject img").waitFor({ state: "attached" });
    await accessible(page);
    await page.getByRole("button", { name: /^CPU_FAN, / }).focus();
    const board = page
      .getByRole("group", { name: /to scale/ })
      .locator("rect")
      .first();
    const b = await board.boundingBox();
    if (!b) throw new Error("no board");
    await board.click({ position: { x: b.width * 0.4, y: b.height * 0.6 }, force: true });
    await page.getByRole("button", { name: /^CPU_FAN, 9[78] mm from the left, 18[234] mm from the top/ }).waitFor();
    await page.getByRole("button", { name: /^Save revision/ }).click();
    await page.getByText(/^Saved as revision 2\./).waitFor();
    expect(desk.errors).toEqual([]);
  });
  it("a tip stands at the type, and what is partly assumed can be told to be one that the shelf has", async () => {
    const { page } = desk;
    await page.goto(`${base()}/shelf/new?kind=fan`);
    await page.waitForLoadState("networkidle");
    await page.getByLabel("Maker", { exact: true }).fill("Stellan");
    await page.getByLabel("Name", { exact: true }).fill("Breeze 120");
    await page.getByRole("button", { name: "Put it on the shelf" }).click();
    await page.waitForURL(/\/shelf\/stellan-breeze-120$/);
    await page.waitForLoadState("networkidle");
    await page.getByLabel(/A tip at Breeze 120/).fill("Its corners are soft.");
    await page.getByRole("region", { name: "Tips" }).getByRole("button", { name: "Keep it" }).click();
    await page.getByRole("button", { name: "Still so: Its corners are soft." }).click();
    await page.getByText(/still so: Runa Thistlewood/).waitFor();
    await page.goto(`${base()}/shelf?only=provisional`);
    await page.getByRole("link", { name: "Stellan Breeze 120" }).click();
    await page.waitForURL(/stellan-breeze-120/);
    await page.waitForLoadState("networkidle");
    await page.getByRole("region", { name: "It is another" }).getByLabel("Which part type it is").fill("whirrow-120");
    await page.getByRole("button", { name: "It is Whirrow 120", exact: true }).click();
    await page.waitForURL(/\/shelf\/whirrow-120$/);
    await page.goto(`${base()}/shelf/stellan-breeze-120`);
    await page
      .getByText(/There is no|not found|nothing here/i)
      .first()
      .waitFor();
    expect(desk.errors.filter((e) => !/404/.test(e))).toEqual([]);
  });
});

describe("the shop", () => {
  it("sets once what every new job begins with, and what is to be remembered at the bench", async () => {
    const { page } = desk;
    await page.goto(`${base()}/shop`);
    await page.waitForLoadState("networkidle");
    await page.getByLabel("Name of the shop").fill("Fernhill Systems");
    await page.getByLabel("An hour of work costs").fill("64");
    await page.getByLabel("Currency, as written").fill("EUR");
    await page.getByLabel("At each").selectOption("cooler");
    await page.getByLabel("What to remember").fill("Is the film off?");
    await page.getByRole("button", { name: "Add", exact: true }).click();
    await accessible(page);
    await page.getByRole("button", { name: "Keep it" }).click();
    await page.getByText(/^Kept\./).waitFor();
  });
  it("an offer adds up at its rate, is accepted by somebody on a day, and what is otherwise since is said", async () => {
    const { page } = desk;
    await page.goto(`${base()}/job/FS-1042/parts?show=order`);
    await page.waitForLoadState("networkidle");
    await page
      .getByRole("button", { name: /^Price and supplier of / })
      .first()
      .click();
    const sheet = page.getByRole("dialog");
    await sheet.getByLabel("Price of one").fill("189.90");
    await sheet.getByLabel("Supplier").fill("Northgate");
    await accessible(page);
    await sheet.getByRole("button", { name: "Keep it" }).click();
    await sheet.waitFor({ state: "detached" });
    await page.getByText(/from Northgate/).waitFor();
    await page.getByRole("button", { name: "Offer", exact: true }).click();
    await page.getByLabel("Hours of work").fill("2.5");
    await page.getByRole("button", { name: "Offer it" }).click();
    await page.getByRole("heading", { name: /^Offer 1: 349\.90 EUR$/ }).waitFor();
    await accessible(page);
    await page.getByLabel("Accepted by").fill("The client");
    await page.getByLabel("On", { exact: true }).fill(new Date().toISOString().slice(0, 10));
    await page.getByRole("button", { name: "The client said yes" }).click();
    await page.getByRole("heading", { name: /, accepted$/ }).waitFor();
    await page.getByRole("button", { name: "Client", exact: true }).click();
    await page.getByLabel("What is promised").fill("Quiet at the desk, 28 dB(A)");
    await page.getByRole("button", { name: "Promise it" }).click();
    await page.getByText("Quiet at the desk, 28 dB(A)").waitFor();
    await page.getByRole("button", { name: "One more monitor" }).click();
    await page.getByRole("button", { name: "Keep what is wanted" }).click();
    await page.getByText("Kept.", { exact: true }).waitFor();
    await accessible(page);
    await page.getByRole("button", { name: "Offer", exact: true }).click();
    await page.getByText(/^Promised since: Quiet at the desk/).waitFor();
    const pdf = await page.request.get(`${base()}/files/job/FS-1042/offer.pdf`);
    expect([pdf.status(), pdf.headers()["content-type"]]).toEqual([200, "application/pdf"]);
  });
});

describe("a soak by its readings", () => {
  it("a log is chosen, judged at once, and stays with its curve and table; one that is none is told in a sentence", async () => {
    const { page } = desk;
    await page.goto(`${base()}/job/FS-1045/first-boot`);
    await page.waitForLoadState("networkidle");
    const panel = page.getByRole("region", { name: "Soak" });
    const give = (name: string, text: string) =>
      panel.getByLabel("A log of readings").setInputFiles({ name, mimeType: "text/csv", buffer: Buffer.from(text) });
    await give("none.csv", "a,b\nc,d\ne,f\ng,h");
    await panel.getByText(/^none\.csv: No column of the log holds a time/).waitFor();
    const rows = Array.from({ length: 1400 }, (_, i) => `${i * 2};${(61 + Math.sin(i / 50)).toFixed(1).replace(".", ",")};4800;lots`);
    await give("two-hours.csv", `Time [s];CPU Package [°C];CPU Clock [MHz];Mood\n${rows.join("\n")}`);
    await panel.getByText(/^It held\./).waitFor();
    await panel.getByText("Not understood: Mood.").waitFor();
    await panel.getByRole("button", { name: "Curve and table" }).first().click();
    const sheet = page.getByRole("dialog", { name: /^two-hours\.csv: it held/ });
    await sheet.getByRole("img", { name: /^CPU Package \[°C\] over/ }).waitFor();
    await accessible(page);
    await sheet.getByRole("button", { name: "Close" }).click();
    expect(desk.errors.filter((e) => !/404/.test(e))).toEqual([]);
  });
});

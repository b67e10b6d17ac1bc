import type { Browser } from "playwright-core";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { accessible, asked, base, launch, readIn, type Seat, sit } from "./page";

let browser: Browser;
let desk: Seat;
beforeAll(async () => {
  browser = await launch();
  desk = await sit(browser, "Runa Thistlewood");
});
afterAll(async () => {
  await browser.close();
});

describe("a job whose parts are still on a list", () => {
  it("is made in under a minute: who, what, a pasted list; what is not understood is kept aside or named", async () => {
    const { page } = desk;
    const started = Date.now();
    await page.goto(base());
    await page.getByRole("link", { name: "New job" }).click();
    await page.getByLabel("Client", { exact: true }).fill("Cooperage Lane Bakery");
    await page.getByLabel("The machine, in two or three words").fill("Oven planner");
    await page
      .getByLabel(/Pasted/)
      .fill(
        "Harbour mid tower\nHeron T40\nQuillane 8-core\nColdwharf tower\n2 x 16 GB 6000\nMossgate 650 M\nSwift 1 TB NVMe\n3 x Whirrow 140\nGranite 9000\nWhirrow long",
      );
    await page.getByRole("button", { name: "Read the list" }).click();
    await page.getByRole("heading", { name: "12 parts, all of them known." }).waitFor();
    // Two answer to it as well: the difference is asked.
    await page.getByText(/^Whirrow 120 long lead or Whirrow 140 long lead/).waitFor();
    await page.getByLabel(/^Line 10, .*which part type/).selectOption("whirrow-140-long");
    await page.getByText(/^Whirrow 120 long lead or/).waitFor({ state: "detached" });
    await page.getByRole("button", { name: "Make the job" }).click();
    await page.waitForURL(/\/job\/FS-\d+\/parts/);
    expect(Date.now() - started).toBeLessThan(60_000);
    await page.getByRole("heading", { name: "12 parts" }).waitFor();
    await page.getByRole("button", { name: "Order list" }).click();
  });
  it("is judged completely before anything is opened: fit, with the section to scale and the millimetres", async () => {
    const { page } = desk;
    await page.getByRole("button", { name: "Fit", exact: true }).click();
    await page.getByRole("heading", { name: /clearances fit|All fits/ }).waitFor();
    expect(await page.getByRole("img", { name: /from the side/ }).isVisible()).toBe(true);
    await page.getByRole("button", { name: "Front", exact: true }).click();
    await page.getByRole("img", { name: /from the front, tray to the left; Coldwharf tower/ }).waitFor();
    await page.getByRole("button", { name: /Cooler height/ }).click();
    await page
      .getByText(/158 of 168 mm, 10 mm to spare/)
      .first()
      .waitFor();
  });
  it("power: every moment with draw, load, efficiency, mains and heat, beside the curve", async () => {
    const { page } = desk;
    await page.getByRole("button", { name: "Power", exact: true }).click();
    await page.getByRole("img", { name: /Efficiency of class gold at 230 V/ }).waitFor();
    const table = page.getByRole("table", { name: /Draw, load, efficiency/ });
    expect(await table.getByRole("row").count()).toBe(5);
    expect(await table.textContent()).toMatch(/Peak.*W.*%.*%.*W.*W/);
    await page.getByLabel("What may come").fill("A graphics card");
    await page.getByLabel("Watts more").fill("600");
    await page.getByRole("button", { name: "Record", exact: true }).click();
    await page.getByText(/A graphics card draws 600 W more: \d+ W (would be left|too little)\./).waitFor();
    // A part pressed in the list shows what is known of it, wherever one was.
    await page
      .getByRole("region", { name: "Parts list" })
      .getByRole("button", { name: /Coldwharf tower/ })
      .click();
    await page.getByRole("heading", { name: /Coldwharf tower/ }).waitFor();
    expect(await page.getByRole("button", { name: "Fit", exact: true }).getAttribute("aria-pressed")).toBe("true");
  });
  it("air: arrows, sums, sign and noise; a fan turned round is said to work against its neighbours", async () => {
    const { page } = desk;
    await page.getByRole("button", { name: "Air", exact: true }).click();
    await page.getByRole("img", { name: /Air in Harbour mid tower/ }).waitFor();
    const turn = page.getByRole("button", { name: /blows in; turn it round/ });
    await turn.nth(1).click();
    await page.getByText(/its neighbours at the front blow in/).waitFor();
    await page
      .getByRole("button", { name: /blows out; turn it round/ })
      .first()
      .click();
    await page.getByText(/its neighbours at the front blow in/).waitFor({ state: "detached" });
  });
  it("what-if: another part side by side, better and worse; dropped it changes nothing, kept it does", async () => {
    const { page } = desk;
    await page.getByRole("button", { name: "Fit", exact: true }).click();
    const cooler = page.getByRole("region", { name: "Parts list" }).getByRole("button", { name: /Coldwharf tower/ });
    await cooler.click();
    await page.getByRole("button", { name: "Try another in its place" }).click();
    const sheet = page.getByRole("dialog", { name: /What if/ });
    await sheet.getByText(/on the shelf makes? it better.*\. Nothing is changed until you keep it\./).waitFor({ timeout: 20_000 });
    await sheet.getByRole("button", { name: /Coldwharf twin quiet/ }).click();
    expect(await sheet.getByRole("heading", { name: "Worse" }).isVisible()).toBe(true);
    await accessible(page);
    await sheet.getByRole("button", { name: "Drop the copy" }).click();
    expect(await cooler.count()).toBe(1);
    await page.getByRole("button", { name: "Try another in its place" }).click();
    await sheet.getByRole("button", { name: /^Coldwharf tower 120/ }).click();
    // A second part in the same copy, both wirings planned beside each other; then only the first is kept.
    await sheet.getByRole("button", { name: "Change another part too" }).click();
    const chip = sheet.getByRole("button", { name: /becomes Coldwharf tower 120 in the copy/ });
    await chip.waitFor();
    await sheet.getByText(/with what else is changed in the copy/).waitFor({ timeout: 20_000 });
    await sheet.getByRole("button", { name: "Keep all 2 changes" }).waitFor();
    await sheet.getByRole("button", { name: "Plan both wirings" }).click();
    await sheet.getByRole("heading", { name: "Wiring" }).waitFor({ timeout: 150_000 });
    await accessible(page);
    await chip.click();
    await sheet.getByLabel("In place of").selectOption("cooler");
    await sheet.getByText(/on the shelf makes? it better.*\. Nothing is changed until you keep it\./).waitFor({ timeout: 20_000 });
    await sheet.getByRole("button", { name: /^Coldwharf tower 120/ }).click();
    await sheet.getByRole("button", { name: "Keep Coldwharf tower 120" }).click();
    await sheet.waitFor({ state: "detached" });
    await page
      .getByRole("region", { name: "Parts list" })
      .getByRole("button", { name: /Coldwharf tower 120/ })
      .waitFor();
  });
  it("parts are found on the shelf and join; a stop is shown with its remedy", async () => {
    const { page } = desk;
    await page.getByRole("button", { name: "Add parts" }).click();
    const sheet = page.getByRole("dialog", { name: "Add parts from the shelf" });
    await sheet.getByLabel("Find a part type").fill("halcyra 575");
    await sheet.getByRole("button", { name: "Add Halcyra 575" }).click();
    await sheet.getByText("Halcyra 575 added.").waitFor();
    await sheet.getByRole("button", { name: "Close", exact: true }).click();
    await page.getByRole("button", { name: /Stop/ }).first().click();
    const findings = page.getByRole("region", { name: "Findings" });
    await findings.getByText(/The machine draws \d+ W of 650 W at peak \(\d+ %\)\. It shuts down under load\. Choose a larger supply\./).waitFor();
    await page.keyboard.press("Escape");
    expect(desk.errors).toEqual([]);
  });
});

describe("a CSV file", () => {
  /** How much there is of whatever a list could become. */
  const stored = () =>
    asked(`select (select count(*) from "job") as jobs, (select count(*) from "job_part") as parts, (select count(*) from "log_entry") as entries`);
  const csv = (text: string | Buffer, name = "list.csv") => ({ name, mimeType: "text/csv", buffer: Buffer.from(text as string) });
  it("its columns are named on screen; wrong encoding and too many rows are a sentence and nothing is stored", async () => {
    const { page } = desk;
    await page.goto(`${base()}/intake`);
    await page.waitForLoadState("networkidle");
    const before = await stored();
    const input = page.locator('input[type="file"]');
    await input.setInputFiles(csv("Position;Article;Pieces;S/N\n1;Heron T40;1;AB-1\n2;Whirrow 120;3;\n3;Nobody knows;1;AB-1\n"));
    await page.getByText("2 of 3 lines understood.").waitFor();
    await page.getByText("Line 4: serial AB-1 is on line 2 already.").waitFor();
    await page
      .getByRole("group", { name: /Columns of/ })
      .getByRole("combobox")
      .first()
      .selectOption({ label: "Position" });
    await page.getByText("0 of 3 lines understood.").waitFor();
    await page
      .getByRole("group", { name: /Columns of/ })
      .getByRole("combobox")
      .first()
      .selectOption({ label: "Article" });
    await page.getByText("2 of 3 lines understood.").waitFor();
    await input.setInputFiles({ name: "old.csv", mimeType: "text/csv", buffer: Buffer.from([0x4d, 0xfc, 0x6c, 0x6c, 0x2c, 0x31]) });
    await page.getByText("The file is not UTF-8 text. Nothing was read. Save it again as CSV UTF-8.").waitFor();
    await input.setInputFiles(csv(Array.from({ length: 100_000 }, (_, i) => `p${i},1`).join("\n")));
    await page.getByText("100000 rows; at most 2000. Nothing was read. Split the list.").waitFor();
    expect(await stored()).toEqual(before);
  });
  it("a picture of 60 MB in its place is refused before it is read", async () => {
    const { page } = desk;
    await page.goto(`${base()}/intake`);
    await page.waitForLoadState("networkidle");
    await page.evaluate(() => {
      const input = document.querySelector('input[type="file"]') as HTMLInputElement;
      const data = new DataTransfer();
      data.items.add(new File([new Uint8Array(60_000_000)], "photo.png", { type: "image/png" }));
      input.files = data.files;
      input.dispatchEvent(new Event("change", { bubbles: true }));
    });
    await page.getByText(/The file has 60\.0 MB; at most 4\. Nothing was read\. Is it a parts list\?/).waitFor();
  });
});

describe("intake in full", () => {
  it("the client's own parts, serials of the list and schools that differ reach the job", async () => {
    const { page } = desk;
    await page.goto(`${base()}/intake`);
    await page.waitForLoadState("networkidle");
    await page.getByLabel("Client", { exact: true }).fill("Ropewalk Studio");
    await page.getByLabel("The machine, in two or three words").fill("Old case, new heart");
    await page.getByText("Done otherwise than usual").click();
    await page.getByLabel("Case fans").selectOption({ label: "a header for each while there are some" });
    await page.locator('input[type="file"]').setInputFiles({
      name: "own.csv",
      mimeType: "text/csv",
      buffer: Buffer.from("Article,Count,Serial\nOldgate,1,OWN-1\nHeron T40,1,NEW-1\nWhirrow long,1,ASIDE-1\nNobody knows,1,ASIDE-2\n"),
    });
    await page.getByText("2 of 4 lines understood.").waitFor();
    await page.getByLabel("What line 4 means").selectOption({ label: "Whirrow 120 long lead" });
    await page.getByRole("checkbox", { name: "client's own" }).first().check();
    await accessible(page);
    await page.getByRole("button", { name: "Make the job" }).click();
    await page.waitForURL(/\/job\/FS-\d+\/parts/);
    const list = page.getByRole("region", { name: "Parts list" });
    await list.getByRole("button", { name: /NEW-1/ }).waitFor();
    // A line that was cleared up by hand keeps its serial; one that was not keeps it in its words.
    await list.getByRole("button", { name: /ASIDE-1/ }).waitFor();
    await page.getByRole("button", { name: "Order list" }).click();
    await page.getByText("Line 5: Nobody knows, serial ASIDE-2").waitFor();
    await page.getByRole("button", { name: "Fit", exact: true }).click();
    await list.getByRole("button", { name: /OWN-1/ }).click();
    expect(await page.getByLabel("The client's own, used again").isChecked()).toBe(true);
    expect(desk.errors).toEqual([]);
  });
});

describe("the shelf", () => {
  it("goes out as a file and comes in again: judged row by row, taken over with one press", async () => {
    const { page } = desk;
    const csv = await (await page.request.get(`${base()}/files/shelf?as=csv&q=whirrow`)).text();
    expect(csv.split("\r\n")[0]).toMatch(/^id,kind,maker,name,revision,stock,like,/);
    await page.goto(`${base()}/shelf`);
    await page.getByRole("link", { name: "Take part types from a file" }).click();
    await page.waitForURL(/shelf\/import/);
    await page.waitForLoadState("networkidle");
    const file = (text: string) =>
      page.locator('input[type="file"]').setInputFiles({ name: "fans.csv", mimeType: "text/csv", buffer: Buffer.from(text) });
    await file(csv);
    await page.getByRole("button", { name: "Nothing to take over" }).waitFor();
    await file("id,like,name,ratings.noiseDb\nwhirrow-120-hush,whirrow-120,Whirrow 120 hush,11\nghost,,,5\nwhirrow-140,,,loud");
    await page.getByText("1 new").waitFor();
    expect(await page.getByRole("row", { name: /ghost/ }).textContent()).toContain("Name one that it is like");
    expect(await page.getByRole("row", { name: /whirrow-140/ }).textContent()).toContain('"loud" is not a number');
    await accessible(page);
    await page.getByRole("button", { name: "Take over 1" }).click();
    await page.getByText("1 new, 0 with a new revision, 0 stock only.").waitFor();
    await page.goto(`${base()}/shelf/whirrow-120-hush`);
    await page.getByRole("heading", { name: "Whirrow 120 hush" }).waitFor();
    expect(desk.errors).toEqual([]);
  });
  it("a case: a tie point is added behind the tray, moved by keys in the mirrored view, and saved", async () => {
    const { page } = desk;
    await page.goto(`${base()}/shelf/brindlecote-desk`);
    await page.waitForLoadState("networkidle");
    await page.getByRole("button", { name: "Places", exact: true }).click();
    const ties = page.getByRole("region", { name: "Tie points" });
    await ties.getByRole("button", { name: "Add a tie point" }).click();
    await ties.getByLabel("Side of the tray").selectOption("rear");
    await page.getByRole("button", { name: "Tray, rear" }).click();
    const before = Number(await ties.getByLabel("x, mm").inputValue());
    await page.getByRole("button", { name: /^tie point \d+, / }).focus();
    await page.keyboard.press("Shift+ArrowRight");
    // Seen from behind, right is towards the rear of the case.
    expect(Number(await ties.getByLabel("x, mm").inputValue())).toBe(before - 10);
    await accessible(page);
    await page.getByRole("button", { name: "Save revision 2" }).click();
    await page.getByText(/Saved as revision 2/).waitFor();
    expect(desk.errors).toEqual([]);
  });

  it("finds by words, narrows by kind, counts stock", async () => {
    const { page } = desk;
    await page.goto(`${base()}/shelf`);
    await page.waitForLoadState("networkidle");
    await page.getByLabel("Find a part type").fill("light hub");
    await page.getByRole("link", { name: /Light hub, 4 ports/ }).waitFor();
    await page.getByRole("button", { name: /One Light hub, 4 ports more/ }).click();
    await page.getByText("Light hub, 4 ports: 1 in stock.").waitFor();
    await page.getByRole("link", { name: "Board", exact: true }).click();
    await page.getByText("Nothing on the shelf has these words.").waitFor();
  });
  it("a board's header is moved by pointer and by keys on its drawing; saved, it is the next revision, and the jobs that have it are told", async () => {
    const { page } = desk;
    await page.goto(`${base()}/shelf/tarnbrook-wren-t20`);
    await page.waitForLoadState("networkidle");
    await page.getByRole("button", { name: /^Ports,/ }).click();
    const header = page.getByRole("button", { name: /^SYS_FAN1, 36 mm from the left, 150 mm from the top/ });
    const box = await header.boundingBox();
    if (!box) throw new Error("no header on the drawing");
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    await page.mouse.down();
    await page.mouse.move(box.x + box.width / 2 + 60, box.y + box.height / 2 + 5, { steps: 4 });
    await page.mouse.up();
    const moved = page.getByRole("button", { name: /^SYS_FAN1, \d+ mm from the left/ });
    expect(await moved.getAttribute("aria-label")).not.toContain("14 mm from the left");
    await moved.focus();
    await page.keyboard.press("Shift+ArrowRight");
    await page.keyboard.press("ArrowUp");
    expect(Number(await page.getByLabel("x, mm").inputValue())).toBeGreaterThan(40);
    await page.getByLabel("Why (stays with the revision)").fill("Measured on the part");
    await page.getByRole("button", { name: "Save revision 2" }).click();
    await page.getByText("Measured on the part").first().waitFor();
    await page
      .getByText(/with revision 1/)
      .first()
      .waitFor();
    expect(await page.getByText(", revision 2").isVisible()).toBe(true);
  });
  it("says what is not right while it is typed, and saves a similar one under its own id", async () => {
    const { page } = desk;
    await page.goto(`${base()}/shelf/whirrow-140-slow`);
    await page.waitForLoadState("networkidle");
    await page.getByLabel("Size, mm").fill("-5");
    await page.getByText("body.widthMm: -5 is too small; at least 0.").waitFor();
    expect(await page.getByRole("button", { name: "Save revision 2" }).isDisabled()).toBe(true);
    await page.getByLabel("Size, mm").fill("140");
    await page.getByLabel(/^Id/).fill("whirrow-140-whisper");
    await page.getByLabel("Name", { exact: true }).fill("Whirrow 140 whisper");
    await page.getByLabel("Noise, dB(A)").fill("9");
    await page.getByRole("button", { name: "Save as a new part type" }).click();
    await page.waitForURL(/whirrow-140-whisper/);
    await page.getByRole("heading", { name: "Whirrow 140 whisper" }).waitFor();
    expect(desk.errors).toEqual([]);
  });
});

describe("receipt at the bench", () => {
  it("a scan is the serial of the part in front; the test before assembly passes or starts a return that Benches shows", async () => {
    const bench = await sit(browser, "Ebo Larkmoor", { width: 1024, height: 768 });
    const { page } = bench;
    await page.goto(`${base()}/job/FS-1043/receipt`);
    await page.waitForLoadState("networkidle");
    const scan = (serial: string) =>
      page.evaluate((s) => {
        for (const key of [...s, "Enter"]) window.dispatchEvent(new KeyboardEvent("keydown", { key, bubbles: true }));
      }, serial);
    const front = () => page.getByRole("region", { name: "The part in front" }).getByRole("heading", { level: 2 }).textContent();
    const first = await front();
    await scan("ZX-000-1");
    await page.getByText(`${first} arrived, serial ZX-000-1.`).waitFor();
    await expect.poll(front, { timeout: 15_000 }).not.toBe(first);
    await scan("ZX-000-1");
    await page.getByText(/Serial ZX-000-1 is already on/).waitFor();
    await page
      .getByRole("list", { name: "Parts" })
      .getByRole("button", { name: /Mossgate 1200 M/ })
      .click();
    await page.getByLabel("Supplier").fill("Quayside Components");
    await page.getByLabel("Covered until").fill("2028-11-23");
    await page.getByLabel("Price").fill("219.90");
    await page.getByRole("button", { name: "Arrived", exact: true }).click();
    await page.getByText("Mossgate 1200 M arrived.").waitFor();
    await page
      .getByRole("list", { name: "Parts" })
      .getByRole("button", { name: /Mossgate 1200 M/ })
      .click();
    await page.getByText("On the shelf: Mossgate 650 M.").waitFor();
    expect(await page.getByLabel("Covered until").inputValue()).toBe("2028-11-23");
    await expect.poll(() => page.getByLabel("Price").inputValue(), { timeout: 15_000 }).toBe("219.9");
    await page.getByLabel(/known-good spare/).fill("the rig's board");
    await page.getByRole("button", { name: "Dead: send it back" }).click();
    await page.getByText(/goes back\. The job waits until/).waitFor();
    await accessible(page);
    await page.goto(base());
    await page
      .getByText(/a replacement Mossgate 1200 M/)
      .first()
      .waitFor();
    await page.goto(`${base()}/job/FS-1043/receipt`);
    await page.waitForLoadState("networkidle");
    await page
      .getByRole("list", { name: "Parts" })
      .getByRole("button", { name: /Mossgate 1200 M/ })
      .click();
    await page.getByRole("button", { name: "Its replacement is here" }).click();
    await page.getByText("The replacement is here. Scan its serial, then test it.").waitFor();
    expect(bench.errors).toEqual([]);
    await bench.context.close();
  });
});

describe("where things hang", () => {
  it("a radiator is refused where fans hang, by their name, and hangs elsewhere once they are gone, its fans with it", async () => {
    const { page } = desk;
    const job = await readIn(page, "examples/fs-1041.json");
    const list = page.getByRole("region", { name: "Parts list" });
    const choose = (name: RegExp) => list.getByRole("button", { name }).first().click();
    const radiator = page.getByLabel("Where its radiator hangs, its fans with it");
    const at = () => radiator.evaluate((e) => (e as HTMLSelectElement).selectedOptions[0]?.textContent);
    await choose(/Coldwharf 360/);
    expect(await at()).toBe("at the top");
    await radiator.selectOption({ label: "at the front" });
    await page.getByText(/^A mount at the front already holds .+\. Move that first\. Nothing was changed\.$/).waitFor();
    await expect.poll(at).toBe("at the top");
    for (const fan of ["top", "middle", "bottom"]) {
      await choose(new RegExp(`Front fan ${fan}`));
      await page.getByLabel(/^Where it hangs/).selectOption("");
      await expect.poll(() => page.getByLabel(/^Where it hangs/).inputValue()).toBe("");
    }
    await choose(/Coldwharf 360/);
    await radiator.selectOption({ label: "at the front" });
    await expect.poll(at).toBe("at the front");
    await page.reload();
    await choose(/Coldwharf 360/);
    expect(await at()).toBe("at the front");
    await page.goto(`${base()}/job/${job}/parts`);
    await choose(/Radiator fan/);
    expect(await page.getByLabel(/^Where it hangs/).evaluate((e) => (e as HTMLSelectElement).selectedOptions[0]?.textContent)).toMatch(/front/);
  });
});

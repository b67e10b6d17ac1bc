import type { Browser } from "playwright-core";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { opened } from "../../archive";
import { accessible, asked, base, launch, type Seat, sit } from "./page";

let browser: Browser;
let lead: Seat;
beforeAll(async () => {
  browser = await launch();
  lead = await sit(browser, "Runa Thistlewood");
});
afterAll(async () => browser.close());

const number = "FS-1045";
const at = `/job/${number}/handover`;

describe("out of the door", () => {
  it("begins with what is missing, each with the way there; what is done on the page goes from the list", async () => {
    const { page } = lead;
    await page.goto(`${base()}${at}`);
    const missing = page.getByRole("list", { name: "What keeps it here" });
    await missing.getByText(/No soak of this machine held/).waitFor();
    await accessible(page);
    await missing.getByText("Say whether it is collected or travels.").waitFor();
    await page.getByLabel("It travels with a carrier").check();
    await missing.getByText(/Foam fills the machine/).waitFor();
    await missing.getByText("Say whether it is collected or travels.").waitFor({ state: "detached" });
    await page.getByLabel(/^Foam fills the machine/).check();
    await missing.getByText(/Foam fills the machine/).waitFor({ state: "detached" });
    await page.getByLabel("Take it: Front").setInputFiles({ name: "front.png", mimeType: "image/png", buffer: await page.screenshot() });
    await missing.getByText(/^No photo yet: open/).waitFor({ timeout: 40_000 });
    await missing.getByRole("link", { name: "To First boot" }).first().click();
    await page.waitForURL(/\/first-boot/);
  });
  it("sold against built: each difference takes the client's word, who and when", async () => {
    const { page } = lead;
    await page.goto(`${base()}${at}`);
    const sold = page.getByRole("region", { name: "Sold against built" });
    await sold.getByText(/2 of \d+ lines differ/).waitFor();
    await sold.getByRole("button", { name: "Their word on Swift 1 TB NVMe" }).click();
    await page.getByLabel("What the client said of Swift 1 TB NVMe").fill("the larger one at the same price");
    await accessible(page);
    await sold.getByRole("button", { name: "Keep" }).click();
    await sold.getByText(/the larger one at the same price/).waitFor();
    await page.getByText(/^1 difference from what was sold without a word/).waitFor();
  });
  it("papers are on screen in two languages and as PDF; labels and the archive come as files", async () => {
    const { page } = lead;
    await page.goto(`${base()}${at}`);
    await page.getByRole("link", { name: "For the client" }).click();
    await page.getByRole("heading", { name: "What was not tested" }).waitFor();
    await accessible(page);
    await page.getByRole("link", { name: "Deutsch" }).click();
    await page.getByRole("heading", { name: "Was nicht geprüft wurde" }).waitFor();
    for (const file of [
      "client.pdf",
      "client-de.pdf",
      "shop.pdf",
      "prices.pdf",
      "parcel.pdf",
      "leads-labels.pdf",
      "machine-labels.pdf",
      "bag-labels-a4-70x37.pdf",
    ]) {
      const r = await page.request.get(`${base()}/files/job/${number}/${file}`);
      expect([file, r.status(), (await r.body()).subarray(0, 5).toString()]).toEqual([file, 200, "%PDF-"]);
    }
    for (const file of ["client-fr.pdf", "leads-labels-napkin.pdf"])
      expect((await page.request.get(`${base()}/files/job/${number}/${file}`)).status()).toBe(404);
    const zip = await page.request.get(`${base()}/files/job/${number}/archive.zip`);
    const read = await opened(await zip.body());
    expect(read.ok && [read.manifest.number, read.changed, [...read.files.keys()].some((f) => f.startsWith("photos/"))]).toEqual([number, [], true]);
    await page.goto(`${base()}/shop`);
    await page.getByLabel("Take in an archive").setInputFiles({ name: "a.zip", mimeType: "application/zip", buffer: await zip.body() });
    await page.getByText(`${number} is here already. Nothing was taken in, and nothing is doubled.`).waitFor();
    await accessible(page);
  });
  it("as it is takes a lead; what is on loan does not leave; then it is gone, and its client has a page", async () => {
    const technician = await sit(browser, "Tansy Okoru");
    await technician.page.goto(`${base()}${at}`);
    await technician.page.getByText("As it is, a lead lets it go.").waitFor();
    await technician.page.getByRole("button", { name: "Hand over", exact: true }).click();
    await technician.page.getByText(/ask a lead to let it go as it is/).waitFor();
    await technician.context.close();
    const { page } = lead;
    await page.goto(`${base()}${at}`);
    await page.getByRole("button", { name: "Switch it on" }).click();
    const address = (await page.getByRole("link", { name: /^\/m\// }).getAttribute("href")) ?? "";
    await page.getByRole("textbox", { name: "Carrier" }).fill("Northern Carters");
    await page.getByLabel("Why it goes like this").fill("The client takes it unsoaked.");
    await page.getByRole("button", { name: "Hand over as it is" }).click();
    await page.getByRole("heading", { name: "It has left the shop." }).waitFor();
    await page.getByText(/Sent with Northern Carters/).waitFor();
    await accessible(page);
    // Nobody is signed in there, on a phone.
    const phone = await browser.newContext({ viewport: { width: 390, height: 844 } });
    const seen = await phone.newPage();
    await seen.goto(`${base()}${address}`);
    await seen.getByRole("heading", { name: "Your machine" }).waitFor();
    await accessible(seen);
    expect(await seen.locator('meta[name="robots"]').getAttribute("content")).toContain("noindex");
    const said = (await seen.textContent("body")) ?? "";
    for (const other of ["Halyard", "Runa", "MO104502", "unsoaked"]) expect(said).not.toContain(other);
    expect((await phone.request.get(`${base()}/m/${"a".repeat(43)}`)).status()).toBe(404);
    await page.getByRole("button", { name: "Withdraw it" }).click();
    await page.getByRole("button", { name: "Switch it on" }).waitFor();
    expect((await phone.request.get(`${base()}${address}`)).status()).toBe(404);
    await phone.close();
  });
  it("comes back as it left, in a job of its own", async () => {
    const { page } = lead;
    await page.goto(`${base()}${at}`);
    await page.getByLabel("It came back: what the client says").fill("It is loud.");
    await page.getByRole("button", { name: "Open a job for it" }).click();
    await page.getByText(/begins with the machine as it left\./).waitFor();
    const [made] = (await asked(`select number from job where service_of_id = (select id from job where number = '${number}')`)) as {
      number: string;
    }[];
    await page.getByRole("link", { name: "To its faults" }).click();
    await page.waitForURL(new RegExp(`/job/${made?.number}/faults`));
    await page.goto(`${base()}/job/${made?.number}/handover`);
    await page.getByText(/It came back: before this it was/).waitFor();
    await accessible(page);
    expect(lead.errors).toEqual([]);
  });
});

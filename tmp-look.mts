// @ts-nocheck
import { launch, sit } from "./tests/browser/seat";
const [size, path, ...doings] = process.argv.slice(2);
const [width, height] = size.split("x").map(Number);
const b = await launch();
const { page, context } = await sit(b, process.env.WHO ?? "Runa Thistlewood", { width, height });
await page.goto(process.env.IMBRA_URL + path);
await page.waitForLoadState("networkidle").catch(() => {});
await page.waitForTimeout(500);
for (const d of doings) {
  const [kind, ...rest] = d.split(":"); const v = rest.join(":");
  try {
  if (kind === "shot") await page.screenshot({ path: `/tmp/${v}.png` });
  else if (kind === "full") await page.screenshot({ path: `/tmp/${v}.png`, fullPage: true });
  else if (kind === "key") await page.keyboard.press(v);
  else if (kind === "type") await page.keyboard.type(v);
  else if (kind === "role") { const [r, n] = v.split("="); await page.getByRole(r, { name: new RegExp(n) }).first().click({ timeout: 8000 }); }
  else if (kind === "click") await page.getByText(new RegExp(v)).first().click({ timeout: 8000 });
  else if (kind === "find") await page.locator(v).first().click({ timeout: 8000 });
  else if (kind === "file") { const [l, f] = v.split("="); await page.getByLabel(l).first().setInputFiles(f); }
  else if (kind === "wait") await page.waitForTimeout(Number(v));
  else if (kind === "goto") { await page.goto(process.env.IMBRA_URL + v); await page.waitForLoadState("networkidle").catch(() => {}); }
  else if (kind === "text") console.log((await page.evaluate("document.body.innerText")).slice(0, Number(v || 3000)));
  else if (kind === "dark") await page.emulateMedia({ colorScheme: "dark" });
  else if (kind === "pdf") { const r = await context.request.get(process.env.IMBRA_URL + v); (await import("node:fs")).writeFileSync("/tmp/out.pdf", await r.body()); console.log(r.status()); }
  await page.waitForTimeout(400);
  } catch (e) { console.log(d, String(e).slice(0, 300)); }
}
await b.close();

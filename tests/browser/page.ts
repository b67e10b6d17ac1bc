import axe from "axe-core";
import type { Page } from "playwright-core";
import { expect } from "vitest";
import { TRIAL } from "../cases";
import { base, readIn } from "./seat";

export { asked, base, demoPerson, launch, readIn, type Seat, signIn, sit } from "./seat";

type Rules = { only: readonly string[] } | { without: readonly string[] } | undefined;

/** What axe finds wrong in `where`, an expression of the page, or in the whole document; by all its rules, only some or all but some. */
async function wrong(page: Page, where = "document", rules?: Rules): Promise<string[]> {
  const asked = {
    resultTypes: ["violations"],
    ...(rules && "only" in rules ? { runOnly: { type: "rule", values: rules.only } } : {}),
    ...(rules && "without" in rules ? { rules: Object.fromEntries(rules.without.map((r) => [r, { enabled: false }])) } : {}),
  };
  // Read once by each document: that takes as long as a page of rules. No page has frames of others.
  if (!(await page.evaluate("window.axe !== undefined"))) await page.evaluate(axe.source);
  return page.evaluate<string[]>(
    `axe.run(${where}, ${JSON.stringify(asked)}).then((r) =>
      r.violations.map((v) => v.id + ": " + v.nodes.map((n) => n.target.join(" ")).slice(0, 3).join(", ")))`,
  );
}

/** Cards of a bench that axe has judged, by what they are made of. */
const judgedCards = new Set<string>();

/** axe on a bench's card; one that is made of the same elements as one before is not judged again, but in the trial. */
export async function accessibleCard(page: Page): Promise<void> {
  const made = await page.evaluate(() => {
    const of = (e: Element): string => `<${e.tagName} ${e.getAttributeNames().sort().join(" ")}${[...new Set([...e.children].map(of))].join("")}>`;
    return of(document.body);
  });
  if (!TRIAL && judgedCards.has(made)) return;
  judgedCards.add(made);
  await accessible(page);
}

/** axe without exceptions; `only` narrows to rules that something changed since concerns. */
export async function accessible(page: Page, only?: readonly string[]): Promise<void> {
  expect(await wrong(page, "document", only && { only })).toEqual([]);
}

/** Phone, desk at 150 % of 1280 by 800, small desk, desk, large desk. */
export const WIDTHS = [
  [390, 844],
  [853, 533],
  [1024, 768],
  [1280, 800],
  [1920, 1080],
] as const;
/** For every change the smallest, the bench's and the largest; all in the trial. */
const LOOKED_AT = TRIAL ? WIDTHS : WIDTHS.filter(([w]) => [390, 1024, 1920].includes(w));

/** The rules that look at colours, those that look at where things are; all others look at elements, attributes and words. */
const BY_COLOUR = ["color-contrast", "link-in-text-block"] as const;
const BY_LAYOUT = ["scrollable-region-focusable", "css-orientation-lock"] as const;

/**
 * How many looks there are that the rules of colour have not judged on this page. A look is what those rules go by: of a text that is seen
 * its colour, whether it is large, its decoration and shadow, of a link the colour of what it stands in, and what lies behind it down to
 * what covers all. Two texts of the same look are the same to them, so one text of each new look is put into `window.newLooks`.
 */
const newLooks = (page: Page, within: string | undefined): Promise<number> =>
  page.evaluate((from) => {
    const w = window as unknown as { looks?: Set<string>; newLooks: Element[] };
    w.looks ??= new Set<string>();
    const looks = w.looks;
    w.newLooks = [];
    const judged = (look: string, e: Element) => {
      if (looks.has(look)) return;
      looks.add(look);
      w.newLooks.push(e);
    };
    const root = (from ? document.querySelector(from) : null) ?? document.body;
    const texts = document.createTreeWalker(root, NodeFilter.SHOW_TEXT);
    const range = document.createRange();
    const behind = new Map<Element, string>();
    const ground = (e: Element): string => {
      const had = behind.get(e);
      if (had !== undefined) return had;
      const s = getComputedStyle(e);
      const own = `${s.backgroundColor}${s.backgroundImage === "none" ? "" : " image"}${s.opacity === "1" ? "" : ` at ${s.opacity}`}${s.filter === "none" ? "" : s.filter}`;
      const plain = own === "rgba(0, 0, 0, 0)" ? "" : `${own}|`;
      const all = plain + (/^rgb\(/.test(own) && s.opacity === "1" ? "" : e.parentElement ? ground(e.parentElement) : "");
      behind.set(e, all);
      return all;
    };
    // Large text may be paler: from 18 points, or 14 in bold (WCAG 2.2, 1.4.3).
    const size = (s: CSSStyleDeclaration) => {
      const px = Number.parseFloat(s.fontSize);
      return px >= 24 || (px >= 18.66 && Number(s.fontWeight) >= 700) ? "large" : "";
    };
    for (let n = texts.nextNode(); n; n = texts.nextNode()) {
      const e = n.parentElement;
      if (!e || !n.nodeValue?.trim()) continue;
      range.selectNodeContents(n);
      const box = range.getBoundingClientRect();
      const s = getComputedStyle(e);
      if (box.width * box.height === 0 || s.visibility !== "visible") continue;
      // What really lies there, where it is in the window: it need not be what the text stands in.
      const there = document.elementsFromPoint(box.x + box.width / 2, box.y + box.height / 2);
      const at = there.indexOf(e);
      // Covered by something it is not looked at.
      if (at < 0 && there.length > 0) continue;
      const under =
        at < 0
          ? ground(e)
          : (there
              .slice(at)
              .map(ground)
              .find((g) => g !== "") ?? "");
      const link = e.tagName === "A" && e.parentElement ? `link in ${getComputedStyle(e.parentElement).color}` : "";
      judged([s.color, size(s), s.textDecorationLine, s.textShadow, s.opacity, link, under].join(";"), e);
    }
    // Fields have their words in themselves.
    for (const f of root.querySelectorAll("input,textarea,select")) {
      const s = getComputedStyle(f);
      judged(["field", s.color, size(s), getComputedStyle(f, "::placeholder").color, ground(f)].join(";"), f);
    }
    return w.newLooks.length;
  }, within);

/** What all other rules look at: every element that is there, whether it is seen, its words and its attributes but those of a drawing's places. */
const structure = (page: Page, within: string | undefined): Promise<string> =>
  page.evaluate(async (from) => {
    // Once whatever follows the size has followed it.
    for (let i = 0; i < 2; i++) await new Promise(requestAnimationFrame);
    const places = /^(d|x|y|x1|y1|x2|y2|cx|cy|r|rx|ry|dx|dy|width|height|points|transform|viewBox|style|textLength|font-size|stroke.*)$/;
    let out = "";
    const walk = (e: Element) => {
      const { display, visibility } = getComputedStyle(e);
      const { width, height } = e.getBoundingClientRect();
      out += `<${e.tagName}${display !== "none" && visibility === "visible" && width * height > 0 ? "" : " unseen"}`;
      for (const a of e.attributes) if (!places.test(a.name)) out += ` ${a.name}=${a.value}`;
      for (const c of e.childNodes)
        if (c instanceof Element) walk(c);
        else out += c.nodeValue;
      out += ">";
    };
    walk((from ? document.querySelector(from) : null) ?? document.documentElement);
    return out;
  }, within);

/**
 * What is open now, with axe on each width, in light and in dark: every rule where the page is made otherwise than on a width before,
 * those about colours on a text of each look that was not judged before, those about places on all. Where a sheet is open, it alone: what
 * is behind it cannot be used, and is looked at by itself. Nothing is loaded anew, and nothing may be wider than the window, so that
 * nobody scrolls sideways. Widths and theme are as before afterwards.
 */
export async function everywhere(page: Page): Promise<void> {
  const was = page.viewportSize();
  const sheet = '[role="dialog"]';
  const within = (await page.locator(sheet).count()) > 0 ? sheet : undefined;
  const where = within ? JSON.stringify(within) : "document";
  const seen = new Set<string>();
  await page.evaluate("delete window.looks");
  const byColour = async () => ((await newLooks(page, within)) > 0 ? wrong(page, "{ include: window.newLooks }", { only: BY_COLOUR }) : []);
  for (const [width, height] of LOOKED_AT) {
    await page.setViewportSize({ width, height });
    const made = await structure(page, within);
    // The first time all texts are judged, whatever their looks have in common.
    const first = seen.size === 0;
    if (first) await newLooks(page, within);
    const rules = first ? undefined : seen.has(made) ? { only: BY_LAYOUT } : { without: BY_COLOUR };
    const light = [...(await wrong(page, where, rules)), ...(first ? [] : await byColour())];
    seen.add(made);
    const wider = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
    await page.emulateMedia({ colorScheme: "dark" });
    const dark = await byColour();
    await page.emulateMedia({ colorScheme: "light" });
    expect([page.url(), width, { light, dark, wider }]).toEqual([page.url(), width, { light: [], dark: [], wider: 0 }]);
  }
  if (was) await page.setViewportSize(was);
}

/** Tab until the focus is on something with these words. */
export async function tabTo(page: Page, words: RegExp, most = 250): Promise<void> {
  for (let i = 0; i < most; i++) {
    const here = await page.evaluate(() => {
      const e = document.activeElement;
      const label = (e as HTMLInputElement | null)?.labels?.[0]?.textContent ?? "";
      return `${e?.getAttribute("aria-label") ?? label} ${e?.textContent ?? ""}`.slice(0, 300);
    });
    if (words.test(here)) return;
    await page.keyboard.press("Tab");
  }
  throw new Error(`Tab never came to ${words}`);
}

/** The page's clock put half a second on: the bench takes no press sooner than that after another. */
export const rested = (page: Page): Promise<void> =>
  page.evaluate(() => {
    const w = window as unknown as { ahead?: number };
    if (w.ahead === undefined) {
      const now = Date.now.bind(Date);
      Date.now = () => now() + (w.ahead ?? 0);
    }
    w.ahead = (w.ahead ?? 0) + 520;
  });

/** A build file read in and planned for the first time, its wiring open; the number of its job. */
export async function plannedIn(page: Page, file: string): Promise<string> {
  const job = await readIn(page, file);
  await page.goto(`${base()}/job/${job}/wiring`);
  await page.waitForLoadState("networkidle");
  await page.getByRole("button", { name: "Plan the wiring" }).click();
  await page.getByText(/^Plan \d+(, proved| is proved)/).waitFor({ timeout: 150_000 });
  return job;
}

/** The number of the plan that stands in the wiring screen's foot. A machine that is busy stores a first plan before the proved one. */
const planNumber = async (page: Page): Promise<number> =>
  Number(/Plan (\d+)/.exec((await page.getByRole("region", { name: "Inspector" }).textContent()) ?? "")?.[1] ?? 0);

/** Plans again by a key of the screen, and waits until a later plan than the one before is proved; its number, and how it ended. */
export async function plansAgain(page: Page, name: string): Promise<{ number: number; said: string }> {
  const before = await planNumber(page);
  await page.getByRole("button", { name, exact: true }).click();
  const ended = page.getByText(/^Plan \d+(, proved in| is proved as it stands,) .*wanted ends? free\./);
  await expect.poll(async () => ((await ended.count()) > 0 ? planNumber(page) : 0), { timeout: 150_000, interval: 200 }).toBeGreaterThan(before);
  return { number: await planNumber(page), said: (await ended.first().textContent()) ?? "" };
}

/** A scanner types a code faster than any hand, its Enter last; from within the page, so that a busy machine does not tear it apart. */
export const scan = (page: Page, code: string): Promise<void> =>
  page.evaluate((text) => {
    for (const key of [...text, "Enter"])
      (document.activeElement ?? document.body).dispatchEvent(new KeyboardEvent("keydown", { key, bubbles: true, cancelable: true }));
  }, code);

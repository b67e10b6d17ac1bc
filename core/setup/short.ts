/** Something that is still to be looked at, set, run or proved. */
export interface Check {
  id: string;
  kind: "line" | "item" | "promise" | "soak";
  what: string;
  /** Must be done before the machine leaves, whatever the time. */
  must?: boolean;
  minutes: number;
  /** Lower is looked at first. */
  rank: number;
}

/** Minutes that a thing takes (common practice). */
export const LOOK_MIN = 0.5;
/** What is nothing without a system on the drive. */
const ON_SYSTEM = /^(driver:|devices|updates|program:|data:)/;
const BY_ITEM: readonly (readonly [RegExp, number, number])[] = [
  [/^(lent|off:|drives-back)/, 3, 0],
  [/^(memory-profile|prompts|start-order|drive-mode|firmware)/, 3, 2],
  [/^install/, 20, 3],
  [/^(target-drive|drives-apart)/, 4, 3],
  [/^driver:/, 5, 4],
  [/^devices/, 2, 5],
  [/^(program:|data:)/, 10, 5],
  [/^clock:/, 15, 6],
  [/^curve:/, 5, 7],
  [/^(lights|switch:)/, 3, 8],
  [/^updates/, 30, 9],
];
const PROOF_MIN = 12;
const SOAK_MIN = 30;

/** A thing of the set-up as a check. */
export function checkOfItem(i: { id: string; what: string; mustBeOut?: boolean | undefined }): Check {
  const [, minutes, rank] = BY_ITEM.find(([r]) => r.test(i.id)) ?? [/./, 5, 5];
  return { id: i.id, kind: "item", what: i.what, minutes, rank, ...(i.mustBeOut ? { must: true } : {}) };
}
export const checkOfLine = (l: { id: string; what: string }): Check => ({ id: l.id, kind: "line", what: l.what, minutes: LOOK_MIN, rank: 1 });
export const checkOfPromise = (p: { about: string; words: string }): Check => ({
  id: `${p.about} ${p.words}`,
  kind: "promise",
  what: p.words,
  minutes: PROOF_MIN,
  rank: 5,
});
export const SOAK_CHECK: Check = { id: "soak", kind: "soak", what: "A soak, cut short at half an hour", minutes: SOAK_MIN, rank: 6 };

/**
 * What of it still fits into so many minutes, in the order in which it is worth doing, and what is then said as not done. What must be out of
 * the machine goes before everything; of equals the short one first.
 */
export function whatFits(checks: readonly Check[], minutes: number): { fits: Check[]; not: Check[]; usedMin: number } {
  const order = [...checks].sort((a, b) => Number(b.must ?? false) - Number(a.must ?? false) || a.rank - b.rank || a.minutes - b.minutes);
  const fits: Check[] = [];
  const not: Check[] = [];
  let usedMin = 0;
  for (const c of order) {
    const bare = c.kind === "item" && ON_SYSTEM.test(c.id) && not.some((n) => n.id === "install");
    if (c.must || (!bare && usedMin + c.minutes <= minutes)) {
      fits.push(c);
      usedMin += c.minutes;
    } else not.push(c);
  }
  return { fits, not, usedMin };
}

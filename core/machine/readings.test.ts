import { expect, it } from "vitest";
import { asExpected } from "./readings";

it.each([
  ["3600", "MT/s", "3600", true],
  ["3600", "MT/s", "1800", true],
  ["3600", "MT/s", "1799", true],
  ["3600", "MT/s", "2666", false],
  ["32", "GB", "16", false],
  ["32", "GB", "32.0", true],
  ["lit", undefined, "Lit ", true],
  ["lit", undefined, "dark", false],
  ["3600", "MT/s", "", false],
] as const)("%s %s, read as %s: %s", (expected, unit, value, as) => {
  // JEDEC: memory moves data twice a clock, so tools that read the clock show half (formula).
  expect(asExpected({ expected, ...(unit ? { unit } : {}) }, value)).toBe(as);
});

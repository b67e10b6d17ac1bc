import { readFileSync } from "node:fs";
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { cases, leastMs, processorMs } from "../../tests/cases";
import { DEMO, shelf } from "../../tests/fixtures/demo";
import { readBuild, readBuildText, readingBuild } from ".";

type Json = null | boolean | number | string | Json[] | { [k: string]: Json };
const examples = [...DEMO.map((d) => `examples/${d}.json`), "examples/fs-1041-self-contained.json"].map(
  (f) => JSON.parse(readFileSync(f, "utf8")) as Json,
);

/** Every place in a value, as a path. */
function places(value: Json, at: (string | number)[] = [], out: (string | number)[][] = []): (string | number)[][] {
  out.push(at);
  if (Array.isArray(value)) for (const [i, v] of value.entries()) places(v, [...at, i], out);
  else if (value && typeof value === "object") for (const [k, v] of Object.entries(value)) places(v, [...at, k], out);
  return out;
}
function put(value: Json, at: readonly (string | number)[], what: Json | undefined): Json {
  const [head, ...rest] = at;
  if (head === undefined) return what ?? null;
  const copy = (Array.isArray(value) ? [...value] : { ...(value as object) }) as Record<string | number, Json>;
  if (rest.length === 0 && what === undefined) delete copy[head];
  else copy[head] = put(copy[head] as Json, rest, what);
  return copy as Json;
}
const junk: fc.Arbitrary<Json | undefined> = fc.constantFrom<(Json | undefined)[]>(
  undefined,
  null,
  -1,
  1e308,
  0.5,
  "",
  "x".repeat(5000),
  "__proto__",
  "a:b:c",
  [],
  {},
  [[[]]],
  true,
);

describe("files nobody would write by hand", () => {
  it("one value spoilt anywhere in an example: read, or refused in sentences that name a place; never thrown", () => {
    let refused = 0;
    fc.assert(
      fc.property(fc.constantFrom(...examples), fc.nat(), junk, (file, n, what) => {
        const all = places(file);
        const spoilt = put(file, all[n % all.length] ?? [], what);
        const r = readBuild(spoilt, shelf);
        if (r.ok) return;
        refused++;
        expect(r.faults.length).toBeGreaterThan(0);
        expect(r.faults.length).toBeLessThanOrEqual(51);
        for (const f of r.faults) {
          expect(f.length).toBeLessThan(400);
          expect(f).toMatch(/[.!]$/);
          expect(f).not.toMatch(/undefined|\[object|NaN|Invalid input|ZodError/);
        }
      }),
      cases(400, 41),
    );
    expect(refused).toBeGreaterThan(100);
  });
  it("text cut off or spoilt at any character is refused with a line", () => {
    const text = readFileSync("examples/fs-1046.json", "utf8");
    fc.assert(
      fc.property(fc.integer({ min: 0, max: text.length - 3 }), fc.boolean(), (at, cut) => {
        const r = readBuildText(cut ? text.slice(0, at) : `${text.slice(0, at)}\u0000${text.slice(at)}`, shelf);
        expect(r.ok).toBe(false);
        expect(r.ok ? [] : r.faults).toHaveLength(1);
        expect(r.ok ? "" : r.faults[0]).toMatch(/line \d+|empty/);
      }),
      cases(120, 43),
    );
  });
  it("a list of a million is refused by its place before anything in it is read, wherever it is", async () => {
    const file = JSON.parse(readFileSync("examples/fs-1046.json", "utf8")) as { [k: string]: Json };
    const many = Array.from({ length: 1_000_000 }, () => ({}));
    const wide = Object.fromEntries(Array.from({ length: 40_000 }, (_, i) => [`k${i}`, 1]));
    const cases: [string, number, Json][] = [
      ["partTypes", 1_000_000, { ...file, partTypes: many }],
      ["parts", 1_000_000, { ...file, parts: many }],
      ["elsewhere", 1_000_000, { ...file, elsewhere: many }],
      ["partTypes[0].ports", 1_000_000, { ...file, partTypes: [{ ports: many }] }],
      ["settings", 40_000, { ...file, settings: wide }],
    ];
    for (const [at, count, data] of cases) {
      const r = readBuild(data, shelf);
      expect(r.ok ? [] : r.faults).toEqual([`${at}: ${count} entries. No list of a build is longer than 1500.`]);
      // Read to its end, each of them takes seconds.
      expect([at, (await leastMs(() => readBuild(data, shelf))) < 500]).toEqual([at, true]);
    }
  });
  it("what lies a million brackets deep is refused as quickly", () => {
    const began = processorMs();
    const r = readBuildText(`{"parts":${"[".repeat(1_000_000)}${"]".repeat(1_000_000)}}`, shelf);
    expect(r.ok ? [] : r.faults).toEqual([expect.stringMatching(/^parts(\[0\])+: nothing in a build lies so deep\.$/)]);
    expect(processorMs() - began).toBeLessThan(1500);
  });
  it("a build is read in small steps, none of them more than one part type", () => {
    const data = JSON.parse(readFileSync("examples/fs-1041-self-contained.json", "utf8"));
    const reading = readingBuild(data, []);
    let steps = 0;
    let next = reading.next();
    for (; !next.done; next = reading.next()) steps += 1;
    expect(next.value.ok).toBe(true);
    expect(steps).toBeGreaterThan(data.partTypes.length);
  });
  it("any JSON at all is refused in sentences", () => {
    fc.assert(
      fc.property(fc.jsonValue({ maxDepth: 4 }), (value) => {
        const r = readBuild(value, shelf);
        expect(r.ok).toBe(false);
        for (const f of r.ok ? [] : r.faults) expect(f).toMatch(/\w+.*: \w|^[A-Z].*\.$/s);
      }),
      cases(200, 47),
    );
  });
  it("reading twice gives the same, and what was read can be written and read again", () => {
    for (const file of examples) {
      const one = readBuild(file, shelf);
      if (!one.ok) throw new Error(one.faults.join());
      const two = readBuild(JSON.parse(JSON.stringify(one.build)), shelf);
      expect(two.ok && two.build).toEqual(one.build);
    }
  });
});

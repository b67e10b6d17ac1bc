import { describe, expect, it } from "vitest";
import { readBuild } from "./read";
import { atLatest, BUILD_VERSION } from "./versions";

describe("the number of a build's file", () => {
  const steps = [(f: Record<string, unknown>) => ({ ...f, was: "one" }), (f: Record<string, unknown>) => ({ ...f, was: `${f.was}, then two` })];
  it("leads it step by step to today's, from wherever it is", () => {
    expect(atLatest({ version: 1, name: "x" }, steps)).toEqual({ data: { version: 3, name: "x", was: "one, then two" } });
    expect(atLatest({ version: 2, was: "two" }, steps)).toEqual({ data: { version: 3, was: "two, then two" } });
    expect(atLatest({ version: 3 }, steps)).toEqual({ data: { version: 3 } });
    // The file itself stays as it was given.
    const file = Object.freeze({ version: 1 });
    atLatest(file, steps);
    expect(file).toEqual({ version: 1 });
  });
  it("of a later Imbra is one sentence and nothing else; without one the reader says what is wrong", () => {
    const later = { format: "imbra-build", version: BUILD_VERSION + 1, what: "nobody knows yet" };
    expect(readBuild(later, [])).toEqual({
      ok: false,
      faults: [`version: this file is of version ${BUILD_VERSION + 1}; this Imbra reads up to ${BUILD_VERSION}. Read it with a newer one.`],
    });
    for (const version of [0, -1, 1.5, "1", null, undefined]) {
      const r = readBuild({ format: "imbra-build", version, name: "x", parts: [{ id: "a", type: "b" }] }, []);
      expect([version, !r.ok && r.faults.some((f) => f.startsWith("version:"))]).toEqual([version, true]);
    }
  });
});

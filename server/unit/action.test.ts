import { readdirSync } from "node:fs";
import { join } from "node:path";
import { beforeAll, describe, expect, it } from "vitest";
import { z } from "zod";
import { PERMISSIONS } from "../kernel/actor";
import { ACTIONS } from "./action";

/** Every module of the server that may declare one; what only a request can load is left out. */
beforeAll(async () => {
  for (const folder of [
    "bench",
    "entries",
    "faults",
    "first-boot",
    "job",
    "parts",
    "people",
    "plan",
    "planner",
    "receipt",
    "schools",
    "shelf",
    "views",
  ])
    for (const f of readdirSync(join("server", folder)).filter((x) => x.endsWith(".ts") && !x.includes(".test.")))
      if (!["take-entry.ts", "answer-entry.ts", "job-page.ts", "jobs-page.ts", "pages.ts", "turn-here.ts", "answer.ts"].includes(f))
        await import(/* @vite-ignore */ `../${folder}/${f}`);
}, 60_000);

/** The paths of all strings in a schema, with a value that fits everything else. */
function strings(schema: z.core.JSONSchema.BaseSchema, path: string[] = []): string[][] {
  if (schema.type === "string" && !schema.enum && !schema.format) return [path];
  if (schema.type === "object")
    return Object.entries(schema.properties ?? {}).flatMap(([k, s]) => strings(s as z.core.JSONSchema.BaseSchema, [...path, k]));
  return [];
}

describe("every action", () => {
  it("is declared with a name of its own, a permission of the table and an input", () => {
    expect(ACTIONS.size).toBeGreaterThanOrEqual(35);
    for (const [name, a] of ACTIONS) {
      expect(name).toMatch(/^[a-z]+(-[a-z]+)*\.[a-z]+(-[a-z]+)*$/);
      expect(PERMISSIONS).toContain(a.permission);
      expect([name, a.input.safeParse({ $ne: null }).success && !["job.list"].includes(name)]).toEqual([name, false]);
    }
  });
  it("refuses text without end and characters that cannot be kept, in each of its words", () => {
    let looked = 0;
    for (const [name, a] of ACTIONS) {
      const json = z.toJSONSchema(a.input, { io: "input", unrepresentable: "any" }) as z.core.JSONSchema.BaseSchema;
      for (const path of strings(json)) {
        for (const bad of ["a\0b", "x\ud800y", "x".repeat(5_000_000)]) {
          const data: Record<string, unknown> = {};
          let at = data;
          for (const k of path.slice(0, -1)) at = at[k] = {} as Record<string, unknown>;
          at[path.at(-1) ?? ""] = bad;
          const r = a.input.safeParse(data);
          const said = r.success ? [] : r.error.issues.filter((i) => i.path.join() === path.join());
          expect([name, path.join("."), bad.length, said.length > 0]).toEqual([name, path.join("."), bad.length, true]);
          looked += 1;
        }
      }
    }
    expect(looked).toBeGreaterThan(100);
  });
});

import { fileURLToPath } from "node:url";
import { defineConfig } from "vitest/config";
import { BaseSequencer, type TestSpecification } from "vitest/node";

const alias = { "server-only": fileURLToPath(new URL("./node_modules/next/dist/compiled/server-only/empty.js", import.meta.url)) };

/** Files that take longest, as measured: begun last, one of them would run alone at the end. A fresh clone knows no times, and goes by size. */
const LONG = ["every-screen", "hands", "large", "whole-job", "build", "wiring", "in-between", "every-sheet", "laws", "shift"];
class LongestFirst extends BaseSequencer {
  override async sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    const rank = (f: TestSpecification) => LONG.findIndex((name) => f.moduleId.endsWith(`/${name}.test.ts`)) + 1 || LONG.length + 1;
    return (await super.sort(files)).toSorted((a, b) => rank(a) - rank(b));
  }
}

export default defineConfig({
  resolve: { alias },
  test: {
    sequence: { sequencer: LongestFirst },
    projects: [
      {
        resolve: { alias },
        test: {
          name: "unit",
          include: [
            "core/**/*.test.ts",
            "tests/laws/**/*.test.ts",
            "ui/**/*.test.ts",
            "cli/**/*.test.ts",
            "features/**/*.test.ts",
            "server/**/*.test.ts",
            "paper/**/*.test.ts",
            "archive/**/*.test.ts",
            "simulator/**/*.test.ts",
          ],
          testTimeout: 60_000,
          // What is tested here is pure: files of a worker share what was read and compiled, in two thirds of the time.
          isolate: false,
        },
      },
      {
        resolve: { alias },
        test: {
          name: "database",
          include: ["tests/db/**/*.test.ts"],
          setupFiles: ["tests/db/own.ts"],
          isolate: false,
          testTimeout: 60_000,
          hookTimeout: 60_000,
        },
      },
      {
        resolve: { alias },
        // Clusters of their own, which take ports by looking which are free: one after the other.
        test: { name: "scripts", include: ["tests/scripts/**/*.test.ts"], testTimeout: 60_000, fileParallelism: false },
      },
      {
        resolve: { alias },
        test: {
          name: "browser",
          include: ["tests/browser/**/*.test.ts"],
          setupFiles: ["tests/browser/own.ts"],
          isolate: false,
          // What comes by itself is waited for as long as a machine may stall.
          expect: { poll: { timeout: 20_000 } },
          testTimeout: 300_000,
          hookTimeout: 300_000,
        },
      },
    ],
  },
});

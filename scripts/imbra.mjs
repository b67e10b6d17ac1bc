// npm run imbra: the command line, put together into one file first (half a second; far less than reading four hundred).
import { createHash } from "node:crypto";
import { existsSync, mkdirSync, readdirSync, renameSync, rmSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath, pathToFileURL } from "node:url";
import { build } from "esbuild";

const project = dirname(dirname(fileURLToPath(import.meta.url)));
// One folder below the project, as cli/ is: what it reads beside itself is where it was.
const folder = join(project, ".data");

const made = await build({
  absWorkingDir: project,
  entryPoints: ["cli/imbra.ts"],
  bundle: true,
  platform: "node",
  format: "esm",
  packages: "external",
  write: false,
});
const text = made.outputFiles[0].text;
const name = `imbra-${createHash("sha256").update(text).digest("hex").slice(0, 16)}.mjs`;
const file = join(folder, name);
if (!existsSync(file)) {
  mkdirSync(folder, { recursive: true });
  const half = `${file}.${process.pid}`;
  writeFileSync(half, text);
  renameSync(half, file);
  for (const old of readdirSync(folder)) if (/^imbra-[0-9a-f]{16}\.mjs$/.test(old) && old !== name) rmSync(join(folder, old), { force: true });
}
await import(pathToFileURL(file).href);

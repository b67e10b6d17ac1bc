import { existsSync, mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { z } from "zod";
import { Build } from "../core/assembly";
import { PartType } from "../core/catalogue";

/** Writes the JSON Schema (2020-12) of every format Imbra reads and writes; with --check only compares. */
const SCHEMAS = { "build.schema.json": Build, "part-type.schema.json": PartType };

const checking = process.argv.includes("--check");
let stale = false;
mkdirSync("schemas", { recursive: true });
for (const [name, schema] of Object.entries(SCHEMAS)) {
  const text = `${JSON.stringify(z.toJSONSchema(schema, { io: "input", target: "draft-2020-12" }), null, 2)}\n`;
  const path = `schemas/${name}`;
  if (!checking) writeFileSync(path, text);
  else if (!existsSync(path) || readFileSync(path, "utf8") !== text) {
    stale = true;
    console.error(`${path} is not what the code says. Run: npm run schemas`);
  }
}
process.exitCode = stale ? 1 : 0;

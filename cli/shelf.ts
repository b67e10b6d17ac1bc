import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { fileURLToPath } from "node:url";
import { z } from "zod";
import { PartType } from "../core/catalogue";

const HERE = fileURLToPath(new URL("../data/shelf", import.meta.url));

/** The part types that ship with Imbra, or those of another folder of JSON lists. */
export function readShelf(folder = HERE): PartType[] {
  return readdirSync(folder)
    .filter((f) => f.endsWith(".json"))
    .sort()
    .flatMap((f) => z.array(PartType).parse(JSON.parse(readFileSync(join(folder, f), "utf8"))));
}

import { type Entry, fromBuffer, type ZipFile } from "yauzl";
import { z } from "zod";
import { ARCHIVE_VERSION, MANIFEST, sha256 } from "./pack";

/** What an archive may hold: more is no job of one machine. */
const MOST_ARCHIVE_BYTES = 200_000_000;
const MOST_FILES = 3000;
const MOST_UNPACKED = 600_000_000;

const Manifest = z.object({
  format: z.literal("imbra-archive"),
  version: z.number().int(),
  number: z.string().max(80),
  title: z.string().max(300),
  client: z.string().max(300),
  made: z.string().max(40),
  files: z.array(z.object({ name: z.string().max(300), bytes: z.number().int().min(0), sha256: z.string().length(64) })).max(MOST_FILES),
});
export type Manifest = z.infer<typeof Manifest>;

export interface Opened {
  manifest: Manifest;
  files: Map<string, Buffer>;
  /** What is not as it was when the archive was made, a sentence each. */
  changed: string[];
}

class Refused extends Error {}

/** All files of a ZIP in memory, within bounds; a name that climbs out of it is refused by the package. */
function unzipped(bytes: Buffer): Promise<Map<string, Buffer>> {
  return new Promise((resolve, reject) => {
    fromBuffer(bytes, { lazyEntries: true }, (fault, zip?: ZipFile) => {
      if (fault || !zip) return reject(fault ?? new Error("no ZIP file"));
      const out = new Map<string, Buffer>();
      let total = 0;
      if (zip.entryCount > MOST_FILES)
        return reject(new Refused(`It holds ${zip.entryCount} files; an archive of one job has at most ${MOST_FILES}.`));
      zip.on("error", reject);
      zip.on("end", () => resolve(out));
      zip.on("entry", (e: Entry) => {
        total += e.uncompressedSize;
        if (total > MOST_UNPACKED) return reject(new Refused(`Unpacked it is larger than ${MOST_UNPACKED / 1_000_000} MB.`));
        if (e.fileName.endsWith("/")) return zip.readEntry();
        zip.openReadStream(e, (no, stream) => {
          if (no || !stream) return reject(no ?? new Error("cannot be read"));
          const chunks: Buffer[] = [];
          stream.on("data", (c: Buffer) => chunks.push(c));
          stream.on("error", reject);
          stream.on("end", () => {
            out.set(e.fileName, Buffer.concat(chunks));
            zip.readEntry();
          });
        });
      });
      zip.readEntry();
    });
  });
}

/** An archive, and whether it is as it was made; or in a sentence why it is none. */
export async function opened(bytes: Buffer): Promise<({ ok: true } & Opened) | { ok: false; sentence: string }> {
  if (bytes.length > MOST_ARCHIVE_BYTES)
    return {
      ok: false,
      sentence: `The file has ${Math.round(bytes.length / 1_000_000)} MB; an archive of one job has at most ${MOST_ARCHIVE_BYTES / 1_000_000} MB.`,
    };
  let files: Map<string, Buffer>;
  try {
    files = await unzipped(bytes);
  } catch (e) {
    const why =
      e instanceof Refused
        ? e.message
        : /invalid relative path|absolute path|invalid characters/i.test(String(e))
          ? "It holds a name that climbs out of it."
          : "It is cut off, or no ZIP file.";
    return { ok: false, sentence: `This is no archive that can be read. ${why} Nothing was changed.` };
  }
  let json: unknown;
  try {
    json = JSON.parse(files.get(MANIFEST)?.toString("utf8") ?? "null");
  } catch {
    json = null;
  }
  const later = (json as { format?: unknown; version?: unknown } | null) ?? {};
  if (later.format === "imbra-archive" && typeof later.version === "number" && later.version > ARCHIVE_VERSION)
    return {
      ok: false,
      sentence: `This archive is of version ${later.version}, made by a later Imbra; this one reads up to ${ARCHIVE_VERSION}. Nothing was changed.`,
    };
  const read = Manifest.safeParse(json);
  if (!read.success)
    return {
      ok: false,
      sentence: "This ZIP file has no manifest of an archive in it. Nothing was changed. Choose the file that Imbra made at a handover.",
    };
  return { ok: true, manifest: read.data, files, changed: changedIn(read.data, files) };
}

function changedIn(m: Manifest, files: ReadonlyMap<string, Buffer>): string[] {
  const out: string[] = [];
  for (const f of m.files) {
    const there = files.get(f.name);
    if (!there) out.push(`${f.name} is missing.`);
    else if (sha256(there) !== f.sha256) out.push(`${f.name} was changed since ${m.made.slice(0, 10)}.`);
  }
  const known = new Set([MANIFEST, ...m.files.map((f) => f.name)]);
  for (const name of files.keys()) if (!known.has(name)) out.push(`${name} was put in since.`);
  return out;
}

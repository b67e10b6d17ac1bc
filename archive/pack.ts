import { createHash } from "node:crypto";
import { once } from "node:events";
import { type ZipFile as Writer, ZipFile } from "yazl";

/** A file of an archive. */
export interface Held {
  /** With folders: `photos/….jpg`. */
  name: string;
  bytes: Buffer;
}

export const ARCHIVE_VERSION = 1;
export const MANIFEST = "manifest.json";
const INDEX = "index.html";

export const sha256 = (b: Buffer): string => createHash("sha256").update(b).digest("hex");

/** What an archive is of. */
export interface About {
  number: string;
  title: string;
  client: string;
  /** ISO 8601. */
  made: string;
}

const plain = (s: string) => s.replace(/[<>&"']/g, (c) => `&#${c.charCodeAt(0)};`);

/** The page that somebody without Imbra opens first: what each file is. */
function indexPage(about: About, files: readonly Held[]): Buffer {
  const rows = files.map((f) => `<li><a href="${encodeURI(f.name)}">${plain(f.name)}</a>, ${f.bytes.length} bytes</li>`).join("\n");
  return Buffer.from(`<!doctype html>
<html lang="en"><meta charset="utf-8"><title>${plain(about.number)} ${plain(about.title)}</title>
<h1>${plain(about.number)} ${plain(about.title)}</h1>
<p>For ${plain(about.client)}. Made ${plain(about.made)}. Every file can be read without the program that made it; manifest.json has the SHA-256 of each.</p>
<ul>
${rows}
</ul></html>
`);
}

/** One ZIP file that can be read without Imbra: what is given, a page that lists it, and a manifest with the SHA-256 of each. */
export async function packed(about: About, given: readonly Held[]): Promise<Buffer> {
  const files = [...given, { name: INDEX, bytes: indexPage(about, given) }];
  const manifest = {
    format: "imbra-archive",
    version: ARCHIVE_VERSION,
    ...about,
    files: files.map((f) => ({ name: f.name, bytes: f.bytes.length, sha256: sha256(f.bytes) })),
  };
  const zip: Writer = new ZipFile();
  // The same record is the same file, whenever it is packed.
  const mtime = new Date(about.made);
  for (const f of [{ name: MANIFEST, bytes: Buffer.from(`${JSON.stringify(manifest, null, 1)}\n`) }, ...files])
    zip.addBuffer(f.bytes, f.name, { mtime, mode: 0o100644 });
  zip.end();
  const chunks: Buffer[] = [];
  zip.outputStream.on("data", (c: Buffer) => chunks.push(c));
  await once(zip.outputStream, "end");
  return Buffer.concat(chunks);
}

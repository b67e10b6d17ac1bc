import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import fc from "fast-check";
import { afterAll, describe, expect, it } from "vitest";
import { ZipFile } from "yazl";
import { cases } from "../tests/cases";
import { type Held, opened, packed } from ".";

const folder = mkdtempSync(join(tmpdir(), "imbra-archive-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const about = { number: "FS-1042", title: "Recording <room>", client: "Gannet Lane Choir", made: "2026-12-02T10:00:00.000Z" };
const held = (name: string, text: string): Held => ({ name, bytes: Buffer.from(text) });
const files = [held("build.json", '{"a":1}'), held("photos/one.jpg", "\u0000\u00ff not text"), held("log.jsonl", "{}\n{}\n")];

/** A ZIP file of these, as anybody could make one. */
async function zip(list: readonly Held[]): Promise<Buffer> {
  const z = new ZipFile();
  for (const f of list) z.addBuffer(f.bytes, f.name);
  z.end();
  const chunks: Buffer[] = [];
  for await (const c of z.outputStream) chunks.push(c as Buffer);
  return Buffer.concat(chunks);
}

describe("an archive", () => {
  it("is read by the system's own tools: names, bytes, and the SHA-256 that its manifest says", async () => {
    const at = join(folder, "a.zip");
    writeFileSync(at, await packed(about, files));
    execFileSync("unzip", ["-qo", at, "-d", join(folder, "out")]);
    const manifest = JSON.parse(readFileSync(join(folder, "out", "manifest.json"), "utf8")) as { files: { name: string; sha256: string }[] };
    expect(manifest.files.map((f) => f.name)).toEqual([...files.map((f) => f.name), "index.html"]);
    for (const f of manifest.files) {
      const [said] = execFileSync("sha256sum", [join(folder, "out", f.name)], { encoding: "utf8" }).split(" ");
      expect([f.name, said]).toEqual([f.name, f.sha256]);
    }
    for (const f of files) expect(readFileSync(join(folder, "out", f.name))).toEqual(f.bytes);
    const page = readFileSync(join(folder, "out", "index.html"), "utf8");
    expect([page.includes("Recording &#60;room&#62;"), page.includes('href="photos/one.jpg"')]).toEqual([true, true]);
  });
  it("out and in again is the same, whatever is in it, and the same record is the same file", async () => {
    const name = fc.stringMatching(/^[a-z0-9]{1,8}(\/[a-z0-9]{1,8})?\.[a-z]{2,4}$/).filter((n) => n !== "manifest.json" && n !== "index.html");
    await fc.assert(
      fc.asyncProperty(fc.dictionary(name, fc.uint8Array({ maxLength: 200 }), { maxKeys: 6 }), async (all) => {
        const given = Object.entries(all).map(([n, bytes]) => ({ name: n, bytes: Buffer.from(bytes) }));
        const made = await packed(about, given);
        expect(await packed(about, given)).toEqual(made);
        const read = await opened(made);
        if (!read.ok) throw new Error(read.sentence);
        expect(read.changed).toEqual([]);
        for (const g of given) expect(read.files.get(g.name)).toEqual(g.bytes);
      }),
      cases(40, 3),
    );
  });
  it("says what was changed, taken out or put in", async () => {
    const read = await opened(await packed(about, files));
    if (!read.ok) throw new Error(read.sentence);
    const all = new Map(read.files);
    all.set("build.json", Buffer.from('{"a":2}'));
    all.delete("log.jsonl");
    all.set("more.txt", Buffer.from("x"));
    const odd = await opened(await zip([...all].map(([name, bytes]) => ({ name, bytes }))));
    expect(odd.ok && odd.changed).toEqual(["build.json was changed since 2026-12-02.", "log.jsonl is missing.", "more.txt was put in since."]);
  });
  it("cut off, of a later version, climbing, or none at all: a sentence", async () => {
    const whole = await packed(about, files);
    const sentence = async (b: Buffer) => {
      const r = await opened(b);
      return r.ok ? "" : r.sentence;
    };
    expect(await sentence(whole.subarray(0, whole.length - 30))).toMatch(/cut off/);
    expect(await sentence(Buffer.from("no zip"))).toMatch(/cut off, or no ZIP file/);
    expect(await sentence(await zip([held("a.txt", "x")]))).toMatch(/no manifest/);
    expect(await sentence(await zip([held("manifest.json", '{"format":"imbra-archive","version":9}')]))).toMatch(/version 9.*later/);
    // A name that climbs: no package writes one, so that the bytes are changed.
    const climbing = Buffer.from((await zip([held("aa/evil.txt", "x")])).toString("latin1").replaceAll("aa/evil.txt", "../evil.txt"), "latin1");
    expect(await sentence(climbing)).toMatch(/climbs out/);
    const many = await zip(Array.from({ length: 3001 }, (_, i) => held(`${i}.txt`, "")));
    expect(await sentence(many)).toMatch(/3001 files/);
  });
});

import { decode, tooLarge } from "../../core/table";

/** The text of a chosen file, or a sentence: too large by its real size, or not text. `what`: what it should have been. */
export async function readTextFile(file: File, what: string): Promise<{ ok: true; text: string } | { ok: false; sentence: string }> {
  const large = tooLarge(file.size, what);
  return large ? { ok: false, sentence: large } : decode(new Uint8Array(await file.arrayBuffer()), what);
}

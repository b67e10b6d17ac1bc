import { createCipheriv, createDecipheriv, hkdfSync, randomBytes } from "node:crypto";
import { cookieRules } from "./seat";

// AES-256 in Galois/Counter Mode (NIST SP 800-38D), its key from the server's secret by HKDF (RFC 5869); the database has neither.
const IV_BYTES = 12;
const TAG_BYTES = 16;
const keyFor = (about: string) => Buffer.from(hkdfSync("sha256", cookieRules().password, "", `imbra sealed ${about}`, 32));

/** A text that only this server can open, for this one thing. */
export function sealText(text: string, about: string): string {
  const iv = randomBytes(IV_BYTES);
  const cipher = createCipheriv("aes-256-gcm", keyFor(about), iv);
  const body = Buffer.concat([cipher.update(text, "utf8"), cipher.final()]);
  return Buffer.concat([iv, cipher.getAuthTag(), body]).toString("base64url");
}

/** Opened; undefined: sealed by another server's secret, for another thing, or changed. */
export function openText(sealed: string, about: string): string | undefined {
  const all = Buffer.from(sealed, "base64url");
  try {
    const d = createDecipheriv("aes-256-gcm", keyFor(about), all.subarray(0, IV_BYTES));
    d.setAuthTag(all.subarray(IV_BYTES, IV_BYTES + TAG_BYTES));
    return Buffer.concat([d.update(all.subarray(IV_BYTES + TAG_BYTES)), d.final()]).toString("utf8");
  } catch {
    return undefined;
  }
}

import { hmac } from "@noble/hashes/hmac.js";
import { sha256 } from "@noble/hashes/sha2.js";
import { bytesToHex, utf8ToBytes } from "@noble/hashes/utils.js";

/** What of an entry its seal stands for: nothing of it can be another without the secret of its turn. */
export interface Sealed {
  turn: string;
  key: string;
  /** By the device's own clock, ms since 1970. */
  madeAtMs: number;
  action: string;
  input: unknown;
}

/**
 * The seal of an entry, made on the device the moment it is pressed: HMAC with SHA-256 (RFC 2104, FIPS 198-1), in hexadecimal. The same
 * on both sides, and without the browser's own cryptography, which is there only behind TLS.
 */
export const sealOf = (secret: string, { turn, key, madeAtMs, action, input }: Sealed): string =>
  bytesToHex(hmac(sha256, utf8ToBytes(secret), utf8ToBytes(JSON.stringify([turn, key, madeAtMs, action, input]))));

/** SHA-256 of a picture, in hexadecimal: what a photo's seal says of it. */
export const hashOfBytes = (bytes: Uint8Array): string => bytesToHex(sha256(bytes));

/** What of a photo its seal stands for. */
export const sealedOfPhoto = (p: {
  number?: string | undefined;
  step?: string | undefined;
  part?: string | undefined;
  sha256?: string | undefined;
}) => ({
  number: p.number,
  step: p.step,
  part: p.part,
  sha256: p.sha256,
});

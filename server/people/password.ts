import { type Algorithm, hash, verify } from "@node-rs/argon2";
import { ZxcvbnFactory } from "@zxcvbn-ts/core";
import * as common from "@zxcvbn-ts/language-common";
import * as english from "@zxcvbn-ts/language-en";
import pLimit from "p-limit";

/** Argon2id as the OWASP Password Storage Cheat Sheet has it: 19 MiB, 2 passes, 1 lane (its second choice of equals; RFC 9106). */
const PARAMETERS = { algorithm: 2 satisfies Algorithm.Argon2id, memoryCost: 19_456, timeCost: 2, parallelism: 1 } as const;

/** At least 8 characters, at most 128, no rules of composition (NIST SP 800-63B, ASVS V6.2; from memory). */
export const LEAST_PASSWORD = 8;
export const MOST_PASSWORD = 128;
/** A PIN is digits: 4 to 8. */
export const PIN = /^\d{4,8}$/;

let estimator: ZxcvbnFactory | undefined;
/**
 * How easily a password is guessed, 0 to 4, by lists of common passwords, words and names and the patterns that people make of them: the check
 * against what is commonly used that NIST SP 800-63B asks for (from memory). The lists take a while to read, so it is done once.
 */
function score(password: string, own: readonly string[]): number {
  estimator ??= new ZxcvbnFactory({ dictionary: { ...common.dictionary, ...english.dictionary }, graphs: common.adjacencyGraphs });
  return estimator.check(password, [...own]).score;
}

/** What is wrong with a new password, in a sentence; undefined when it will do. */
export function passwordFault(password: string, name: string): string | undefined {
  if (password.length < LEAST_PASSWORD) return `A password has at least ${LEAST_PASSWORD} characters. Several words in a row are easy to keep.`;
  if (name.length > 2 && password.toLowerCase().includes(name.toLowerCase()))
    return "A password that holds the name is easily guessed. Take other words.";
  if (score(password, [...name.split(/\s+/), "imbra"]) < 2)
    return "That password is among the first that anybody would try. Take several words in a row.";
  return undefined;
}

/** What is wrong with a new PIN; undefined when it will do. */
export function pinFault(pin: string): string | undefined {
  if (!PIN.test(pin)) return "A PIN is four to eight digits.";
  const steps = new Set([...pin].slice(1).map((d, i) => (Number(d) - Number(pin[i]) + 10) % 10));
  return steps.size === 1 && [0, 1, 9].includes([...steps][0] ?? -1)
    ? "Digits that are all the same or in a row are tried first. Take others."
    : undefined;
}

/** Unicode spelled one way (NFKC), so that the same word typed on another keyboard is the same. */
const spelled = (secret: string) => secret.normalize("NFKC");

/** Each takes a processor for a while and 19 MiB: two at a time, and no more wait than a moment's worth. */
const AT_ONCE = pLimit(2);
const MOST_WAITING = 40;

export const hashSecret = (secret: string): Promise<string> => AT_ONCE(() => hash(spelled(secret), PARAMETERS));

let nobody: Promise<string> | undefined;

/** Is it the secret of this hash? Without a hash it takes as long, and is not: nobody learns from the time whether a name exists. */
export async function isSecret(kept: string | null | undefined, secret: string): Promise<boolean | "busy"> {
  nobody ??= hashSecret("nobody has this one");
  const hashed = kept ?? (await nobody);
  if (AT_ONCE.pendingCount >= MOST_WAITING) return "busy";
  const right = await AT_ONCE(() => verify(hashed, spelled(secret)).catch(() => false));
  return right && Boolean(kept);
}

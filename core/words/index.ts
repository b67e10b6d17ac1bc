/**
 * Names in a sentence: "A, B and C", beyond `most` of them "A, B and 2 more". Where a name has a comma of its own, semicolons part them.
 */
export const list = (names: readonly string[], most = Number.POSITIVE_INFINITY): string => {
  const shown = names.slice(0, names.length > most ? most : undefined);
  const rest = names.length - shown.length;
  const own = names.length > 1 && names.some((n) => n.includes(", "));
  const parted = own ? "; " : ", ";
  const and = own ? "; and " : " and ";
  if (rest > 0) return `${shown.join(parted)}${and}${rest} more`;
  return shown.length > 1 ? `${shown.slice(0, -1).join(parted)}${and}${shown.at(-1)}` : (shown[0] ?? "");
};

/** As it stands in the middle of a sentence: "CPU" and "SATA data" stay as they are. */
export const lower = (s: string): string => (/^\p{Lu}(?![\p{Lu}\d.-])/u.test(s) ? s.charAt(0).toLowerCase() + s.slice(1) : s);

/** A thing with its article: "an expansion slot", "a USB 3 header", "an M.2 slot". By its sound as it is said. */
export const a = (thing: string): string =>
  `${/^(?:[aeio]|u(?!s|ni)|8|1[18]\b|(?!SATA|RAM|LAN)[AEFHILMNORSX](?![a-z]))/.test(thing) ? "an" : "a"} ${thing}`;

/** As a sentence begins. */
export const upper = (s: string): string => s.charAt(0).toUpperCase() + s.slice(1);

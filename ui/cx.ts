/** Joins class names, leaving out what is off. */
export const cx = (...names: (string | false | null | undefined)[]): string => names.filter(Boolean).join(" ");

type File = Record<string, unknown>;

/**
 * What a build's file looks like is numbered: a change that older files do not fit is a step here, from one number to the next, and nothing is
 * guessed from what a file happens to have. Fields that may be left out need none. The first leads from 1 to 2; a step never changes again.
 */
const STEPS: readonly ((file: File) => File)[] = [];

/** The number that files are written with today. */
export const BUILD_VERSION = 1;

/** A file as one of today's number; a sentence where it is of a later Imbra. What has no number is left to whoever reads it. */
export function atLatest(data: unknown, steps = STEPS): { data: unknown } | { fault: string } {
  const latest = 1 + steps.length;
  if (data === null || typeof data !== "object" || Array.isArray(data)) return { data };
  const { version } = data as File;
  if (typeof version !== "number" || !Number.isInteger(version) || version < 1) return { data };
  if (version > latest) return { fault: `version: this file is of version ${version}; this Imbra reads up to ${latest}. Read it with a newer one.` };
  return { data: steps.slice(version - 1).reduce((file, step, i) => ({ ...step(file), version: version + i + 1 }), data as File) };
}

import type { Build } from "../../core/assembly";

type Part = Build["parts"][number];
type Showed = Record<string, string | number | boolean | null>;

/** What a screen shows of the values of a part that are about to be written: it goes with them, so that nobody's are written over unseen. */
export function showedOf(part: Part | undefined, change: Record<string, unknown>): Showed {
  const shown = (part ?? {}) as Record<string, unknown>;
  return Object.fromEntries(
    Object.keys(change).map((field) => {
      const value = shown[field];
      return [field, typeof value === "string" || typeof value === "number" || typeof value === "boolean" ? value || null : null];
    }),
  );
}

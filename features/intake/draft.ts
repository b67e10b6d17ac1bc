import type { Fix } from "../../core/intake";

/** What was pasted and typed, kept in this tab until the job is made: a reload or a wrong key loses nothing. */
export interface Draft {
  text: string;
  fixes: Fix[];
  form: Record<string, string>;
  touched: string[];
}

const KEY = "imbra-intake";

export function keptDraft(): Draft | undefined {
  try {
    const d = JSON.parse(sessionStorage.getItem(KEY) ?? "null") as Draft | null;
    return d && typeof d.text === "string" && Array.isArray(d.fixes) ? d : undefined;
  } catch {
    return undefined;
  }
}

export function keepDraft(d: Draft): void {
  try {
    if (d.text === "" && d.touched.length === 0) sessionStorage.removeItem(KEY);
    else sessionStorage.setItem(KEY, JSON.stringify(d));
  } catch {
    // A browser that keeps nothing still takes the job.
  }
}

export const dropDraft = (): void => {
  try {
    sessionStorage.removeItem(KEY);
  } catch {}
};

/** The corrections with one more: the same line again adds to what was said of it. */
export const withFix = (fixes: readonly Fix[], fix: Fix): Fix[] => {
  const had = fixes.find((f) => f.key === fix.key);
  return [...fixes.filter((f) => f !== had), { ...had, ...fix }];
};

/** What an action tells the screen: done, or one sentence that says what happened, what was kept and what to do. */
export type Result<T = undefined> =
  | { ok: true; value: T }
  /** `later`: nobody refused it; the same may be sent again. */
  | { ok: false; sentence: string; more?: string[]; later?: true };

export const done = (): Result => ({ ok: true, value: undefined });
export const yes = <T>(value: T): Result<T> => ({ ok: true, value });
export const no = (sentence: string, more?: string[]): { ok: false; sentence: string; more?: string[] } => ({
  ok: false,
  sentence,
  ...(more ? { more } : {}),
});

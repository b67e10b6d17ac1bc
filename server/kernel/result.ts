/** Two things that cannot both be so: what is recorded, and what a person says. */
export interface TwoFacts {
  there: string;
  yours: string;
}

/** What an action tells the screen: done, or one sentence that says what happened, what was kept and what to do. */
export type Result<T = undefined> =
  | {
      ok: true;
      value: T;
      /** The job's revision once this is in it. */
      revision?: number;
    }
  | Refusal;

export interface Refusal {
  ok: false;
  sentence: string;
  more?: string[];
  /** Nobody refused it: the same may be sent again, at once or when somebody has said who they are. */
  later?: "again" | "who";
  /** What is recorded was not what the screen showed: a person looks and chooses. */
  facts?: TwoFacts;
}

export const done = (): Result => ({ ok: true, value: undefined });
export const yes = <T>(value: T): Result<T> => ({ ok: true, value });
export const no = (sentence: string, more?: string[]): Refusal => ({ ok: false, sentence, ...(more ? { more } : {}) });
export const contradicts = (sentence: string, facts: TwoFacts): Refusal => ({ ok: false, sentence, facts });

/** Nobody is signed in here: the same may be sent again by whoever says who they are. */
export const NOBODY: Refusal = { ...no("You are not signed in any more. Nothing was changed. Sign in, then press again."), later: "who" };

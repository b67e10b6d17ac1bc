import type { Answer } from "../../core/diagnose";
import { besideThis } from "../kernel/thread";
import type { AskedAbout } from "./asked";

/** The machines that it worked out last are worth keeping while somebody hunts. */
const BOUNDS = { mostWaiting: 12, mostMs: 30_000, idleMs: 600_000 };

/** What is to blame for each of these faults; undefined: too many wait already, or it took too long. */
export async function diagnoseBeside(asked: AskedAbout): Promise<Answer[] | undefined> {
  try {
    return await besideThis<AskedAbout, Answer[]>("diagnose-thread", asked, BOUNDS);
  } catch (e) {
    // The page stands without it, and says so.
    console.error(e);
    return undefined;
  }
}

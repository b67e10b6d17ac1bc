import { isLost } from "../db";
import type { Result } from "./result";

/** What a screen is told when something was thrown; `kept` says what became of its wish. The fault itself goes to the log. */
export function failed(e: unknown, kept = "Nothing was changed."): Extract<Result, { ok: false }> {
  console.error(e);
  const sentence = isLost(e)
    ? `The database did not answer. ${kept} Try again.`
    : `The server failed at this and wrote why into its log. ${kept} If it fails again, tell whoever keeps the server.`;
  return { ok: false, sentence, later: true };
}

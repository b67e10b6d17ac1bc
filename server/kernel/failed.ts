import { isLost } from "../../db";
import type { Refusal } from "./result";

/**
 * What a screen is told when something was thrown; `kept` says what became of its wish. Only where the database did not answer may
 * the same be sent again; a fault of the server would be the same again. The fault itself goes to the log, whole; that the database is
 * away in a line, for every tablet asks again every few seconds.
 */
export function failed(e: unknown, kept = "Nothing was changed."): Refusal {
  const lost = isLost(e);
  // Behind the statement, which says what somebody wrote.
  console.error(
    lost && e instanceof Error
      ? `The database did not answer: ${e.message
          .trim()
          .split(/\n| - /)
          .at(-1)}`
      : e,
  );
  return lost
    ? { ok: false, sentence: `The database did not answer. ${kept} Try again.`, later: "again" }
    : {
        ok: false,
        sentence: `The server failed at this and wrote why into its log. ${kept} If it fails again, tell whoever keeps the server.`,
      };
}

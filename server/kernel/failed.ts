import { isLost } from "../../db";
import type { Refusal } from "./result";

/**
 * What a screen is told when something was thrown; `kept` says what became of its wish. Only where the database did not answer may
 * the same be sent again; a fault of the server would be the same again. The fault itself goes to the log.
 */
export function failed(e: unknown, kept = "Nothing was changed."): Refusal {
  console.error(e);
  return isLost(e)
    ? { ok: false, sentence: `The database did not answer. ${kept} Try again.`, later: "again" }
    : {
        ok: false,
        sentence: `The server failed at this and wrote why into its log. ${kept} If it fails again, tell whoever keeps the server.`,
      };
}

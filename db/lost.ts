import { DeadlockException, DriverException, LockWaitTimeoutException, ServerException } from "@mikro-orm/core";

/**
 * PostgreSQL error classes 08, 53 and 57P, a lock that was not to be had (55P03) and a transaction left idle (25P03; appendix A of its
 * manual), and what the network itself says.
 */
const CODES = /^(08|53|57P|55P03|25P03|ECONN|ETIMEDOUT|EPIPE|ENOTFOUND)/;
/** Errors of the driver and of its pool that have no code: what ends a transaction is thrown as it comes (`pg` 8, `knex` 3). */
const WORDS =
  /connection terminated|not queryable|timeout acquiring a connection|timeout exceeded when trying to connect|unable to acquire a connection/i;

/** Did the database not answer, so that the same may be asked again? Otherwise it answered, or the fault is ours. */
export function isLost(e: unknown): boolean {
  if (!(e instanceof Error)) return false;
  if (e instanceof DeadlockException || e instanceof LockWaitTimeoutException) return true;
  const code = String((e as { code?: unknown }).code ?? "");
  if (CODES.test(code) || WORDS.test(e.message)) return true;
  return e instanceof DriverException && !(e instanceof ServerException) && code === "";
}

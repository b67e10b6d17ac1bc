import { no, type Result } from "../../server/kernel/result";

/** Statuses that say of a body itself that it cannot be taken: sent again it would be answered the same (RFC 9110, 15.5). */
const FOR_GOOD = [400, 411, 413, 414, 415, 422, 431];

/**
 * What a server said of something that a device sent. Refused for good it is a refusal with its sentence, and what waits behind it goes on.
 * @throws where nothing of ours has answered: it is sent again later.
 */
export async function resultOf(answer: Response): Promise<Result> {
  if (answer.ok) return (await answer.json()) as Result;
  if (!FOR_GOOD.includes(answer.status)) throw new Error(String(answer.status));
  const said = (await answer.json().catch(() => undefined)) as Partial<Result> | undefined;
  if (said && said.ok === false && typeof said.sentence === "string") return said as Result;
  return no(
    `The server cannot take this (${answer.status}${answer.status === 413 ? ": it is too large" : ""}). It is kept here; nothing of it was recorded.`,
  );
}

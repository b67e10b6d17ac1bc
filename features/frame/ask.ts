import type { Result } from "../../server/kernel/result";
import type { Answer, Question } from "../../server/views/asked";

/** Asks the server something that changes nothing, beside all other requests. A network that is away throws, as an action does. */
export async function ask<Q extends Question>(question: Q, input: object, signal?: AbortSignal): Promise<Result<Answer<Q>>> {
  const answer = await fetch(`/data/ask/${question}`, {
    method: "POST",
    headers: { "Content-Type": "application/json" },
    body: JSON.stringify(input),
    cache: "no-store",
    ...(signal ? { signal } : {}),
  });
  return (await answer.json()) as Result<Answer<Q>>;
}

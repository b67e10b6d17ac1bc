/** The body of a request; undefined where it is longer than `bytes`, of which no more than that is read. */
export async function bodyAtMost(request: Request, bytes: number): Promise<Buffer | undefined> {
  const reader = request.body?.getReader();
  const parts: Uint8Array[] = [];
  let size = 0;
  for (;;) {
    const { value, done } = (await reader?.read()) ?? { done: true, value: undefined };
    if (done || !value) return Buffer.concat(parts);
    size += value.length;
    parts.push(value);
    if (size > bytes) {
      await reader?.cancel().catch(() => undefined);
      return undefined;
    }
  }
}

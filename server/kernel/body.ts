/** A body as it comes in; undefined where it is longer than `bytes`, of which no more than that is read. */
export async function bodyAtMost(body: AsyncIterable<Uint8Array> | ReadableStream<Uint8Array> | null, bytes: number): Promise<Buffer | undefined> {
  const parts: Uint8Array[] = [];
  let size = 0;
  for await (const part of (body ?? []) as AsyncIterable<Uint8Array>) {
    size += part.length;
    if (size > bytes) return undefined;
    parts.push(part);
  }
  return Buffer.concat(parts);
}

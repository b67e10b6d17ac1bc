/** Longest stretch of work before others have their turn. */
const STRETCH_MS = 12;

/** Works through a list in order, and lets every other request have its turn in between: a long file holds up nobody. */
export async function inTurns<A, B>(list: readonly A[], work: (item: A, index: number) => B): Promise<B[]> {
  const out: B[] = [];
  let began = performance.now();
  for (const [i, item] of list.entries()) {
    out.push(work(item, i));
    if (performance.now() - began < STRETCH_MS) continue;
    await new Promise((resolve) => setImmediate(resolve));
    began = performance.now();
  }
  return out;
}

/** Longest stretch of work before others have their turn. */
const STRETCH_MS = 12;

const othersTurn = () => new Promise((resolve) => setImmediate(resolve));

/** Goes through small steps to their end, and lets every other request have its turn in between. */
export async function toTheEnd<T>(steps: Generator<void, T>): Promise<T> {
  for (let began = performance.now(); ; ) {
    const { done, value } = steps.next();
    if (done) return value;
    if (performance.now() - began < STRETCH_MS) continue;
    await othersTurn();
    began = performance.now();
  }
}

/** Works through a list in order, and lets every other request have its turn in between: a long file holds up nobody. */
export async function inTurns<A, B>(list: readonly A[], work: (item: A, index: number) => B): Promise<B[]> {
  const out: B[] = [];
  let began = performance.now();
  for (const [i, item] of list.entries()) {
    out.push(work(item, i));
    if (performance.now() - began < STRETCH_MS) continue;
    await othersTurn();
    began = performance.now();
  }
  return out;
}

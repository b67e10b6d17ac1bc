/** Is this the suite that a release has to pass (`npm run trial`)? Otherwise it is the one for every change (`npm test`). */
export const TRIAL = process.env.IMBRA_TRIAL === "1";

/** A seed that was asked for (`LAWS_SEED`), or one of this trial's own, which `npm run trial` prints. */
const SEED = process.env.LAWS_SEED === undefined ? undefined : Number(process.env.LAWS_SEED);

/**
 * How many cases a property test takes, and from which seed: `runs` is what was once found to be enough. For every change a third of
 * them, always the same; in the trial four times as many, never the same twice.
 */
export const cases = (runs: number, seed: number): { numRuns: number; seed: number } => ({
  numRuns: TRIAL ? runs * 4 : Math.max(3, Math.ceil(runs / 3)),
  seed: SEED ?? seed,
});

/** What this process took of the processor so far, ms: what else a machine does meanwhile is not in it, so it may be bounded. */
export const processorMs = (): number => {
  const { user, system } = process.cpuUsage();
  return (user + system) / 1000;
};

/** What some work takes of the processor, ms: the least of three goes, for a machine that stalls only adds to it. */
export async function leastMs(work: () => unknown): Promise<number> {
  let least = Number.POSITIVE_INFINITY;
  for (let go = 0; go < 3; go++) {
    const began = processorMs();
    await work();
    least = Math.min(least, processorMs() - began);
  }
  return least;
}

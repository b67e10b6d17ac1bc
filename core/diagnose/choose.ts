import { type Deed, entropyBits, type Hypothesis, MISREAD, mends, resultOf, type Suspicion } from "./inference";

/** After a repair the machine is started and looked at again, minutes. */
export const VERIFY_MIN = 1;
/** What no deed cures costs so much before somebody gives up, minutes. */
const HOPELESS_MIN = 120;
/** Hypotheses with less of a share make no difference to what is done next. */
const NEGLIGIBLE = 2e-4;
const MOST_KEPT = 400;
/** For less nobody looks at anything, minutes. */
const LEAST_GAIN_MIN = 0.2;

/** Hypotheses that still matter, with their shares summing to one. */
interface Kept {
  at: number[];
  share: number[];
}

function kept(shares: Float64Array): Kept {
  let at: number[] = [];
  for (let i = 0; i < shares.length; i++) if ((shares[i] ?? 0) > NEGLIGIBLE) at.push(i);
  if (at.length > MOST_KEPT) at = at.sort((a, b) => (shares[b] ?? 0) - (shares[a] ?? 0)).slice(0, MOST_KEPT);
  const sum = at.reduce((n, i) => n + (shares[i] ?? 0), 0);
  return { at, share: at.map((i) => (shares[i] ?? 0) / sum) };
}

/** Deeds that repair, as lists of numbers. */
interface Repairs {
  minutes: number[];
  cures: number[][];
}
const repairsAmong = (deeds: readonly Deed[]): Repairs => {
  const list = deeds.filter((d) => d.cures.size > 0);
  return { minutes: list.map((d) => d.minutes + VERIFY_MIN), cures: list.map((d) => [...d.cures]) };
};

/**
 * Minutes until it is mended where repairs are done in falling share over minutes, which is the least for one fault and repairs that do not
 * depend on each other (Kadane and Simon 1977; from memory). Two causes need both cured.
 */
export function minutesByShare(hypotheses: readonly Hypothesis[], shares: Float64Array, deeds: readonly Deed[]): number {
  const k = kept(shares);
  return byShare(hypotheses, k.at, k.share, repairsAmong(deeds), () => false);
}

/** What explains nothing of what is wrong shows itself as a wrong entry when it is looked at again after the first deed. */
type Idle = (at: number) => boolean;

function byShare(
  hypotheses: readonly Hypothesis[],
  at: readonly number[],
  share: readonly number[],
  { minutes, cures }: Repairs,
  idle: Idle,
  without = -1,
): number {
  const weight = new Map<number, number>();
  for (let j = 0; j < at.length; j++) {
    const causes = idle(at[j] ?? 0) ? [] : (hypotheses[at[j] ?? 0]?.causes ?? []);
    for (const c of causes) weight.set(c, (weight.get(c) ?? 0) + (share[j] ?? 0) / causes.length);
  }
  const gain = cures.map((list, d) => {
    if (d === without) return 0;
    let g = 0;
    for (const c of list) g += weight.get(c) ?? 0;
    return g;
  });
  const byCause = new Map<number, number[]>();
  for (const [d, list] of cures.entries())
    if ((gain[d] ?? 0) > 0)
      for (const c of list)
        if (weight.has(c)) {
          const has = byCause.get(c);
          if (has) has.push(d);
          else byCause.set(c, [d]);
        }
  // The moment at which a cause is cured.
  const cured = new Map<number, number>();
  let clock = 0;
  let once = VERIFY_MIN;
  for (;;) {
    let best = -1;
    let rate = 1e-12;
    for (let d = 0; d < gain.length; d++) {
      const r = (gain[d] ?? 0) / (minutes[d] ?? 1);
      if (r > rate) [best, rate] = [d, r];
    }
    if (best < 0) break;
    clock += minutes[best] ?? 0;
    if (cured.size === 0) once = clock;
    gain[best] = 0;
    for (const c of cures[best] ?? []) {
      const w = weight.get(c);
      if (w === undefined || cured.has(c)) continue;
      cured.set(c, clock);
      for (const d of byCause.get(c) ?? []) if (d !== best) gain[d] = Math.max(0, (gain[d] ?? 0) - w);
    }
  }
  let sum = 0;
  for (let j = 0; j < at.length; j++) {
    let last = 0;
    if (idle(at[j] ?? 0)) last = once;
    else for (const c of hypotheses[at[j] ?? 0]?.causes ?? []) last = Math.max(last, cured.get(c) ?? clock + HOPELESS_MIN);
    sum += (share[j] ?? 0) * last;
  }
  return sum;
}

/** What may come of a deed. */
export interface Outcome {
  seen: string;
  share: number;
  /** What is still to be expected then, minutes. */
  minutesLeft: number;
  /** Shares of what is wrong then. */
  after: Float64Array;
}

/** A deed with what it is worth. */
export interface Choice<D extends Deed = Deed> {
  deed: D;
  /** Expected until a verified repair, where this is done first. */
  minutes: number;
  outcomes: Outcome[];
  /** Information that it brings, bits. */
  bits: number;
}

/**
 * Deeds by the least expected minutes until a verified repair: each is tried one step ahead, and what is left after each outcome is counted
 * as by falling share over minutes; the first of them by that rule is among those tried, so that nothing is worse than the rule.
 * Looks and tests are only worth their minutes where they change what is done.
 */
export function bestFirst<D extends Deed>(s: Suspicion, shares: Float64Array, deeds: readonly D[], lines: readonly string[] = []): Choice<D>[] {
  const k = kept(shares);
  const before = entropyBits(k.share);
  const repairs = deeds.filter((d) => d.cures.size > 0);
  const as = repairsAmong(deeds);
  const touched = new Set(k.at.flatMap((i) => s.hypotheses[i]?.causes ?? []));
  const out: Choice<D>[] = [];
  const idleOf = new Map<number, boolean>();
  const idle: Idle = (at) => {
    if (lines.length === 0) return false;
    let is = idleOf.get(at);
    if (is === undefined) {
      is = s.symptoms(at, lines) === "";
      idleOf.set(at, is);
    }
    return is;
  };
  for (const deed of deeds) {
    const isRepair = deed.cures.size > 0;
    if (isRepair && ![...deed.cures].some((c) => touched.has(c))) continue;
    const groups = deed.shows ? looked(s, k, deed) : repaired(s, k, deed, lines);
    if (groups.length < (isRepair ? 1 : 2)) continue;
    const without = isRepair ? repairs.indexOf(deed) : -1;
    let minutes = deed.minutes + (isRepair ? VERIFY_MIN : 0);
    let bits = before;
    const outcomes: Outcome[] = [];
    for (const g of groups) {
      const after = g.share.map((p) => p / g.sum);
      const minutesLeft = mends(g.seen, isRepair) ? 0 : byShare(s.hypotheses, g.at, after, as, idle, without);
      minutes += g.sum * minutesLeft;
      bits -= g.sum * entropyBits(after);
      const all = new Float64Array(s.hypotheses.length);
      for (const [j, i] of g.at.entries()) all[i] = (all[i] ?? 0) + (after[j] ?? 0);
      outcomes.push({ seen: g.seen, share: g.sum, minutesLeft, after: all });
    }
    out.push({ deed, minutes, outcomes: outcomes.sort((a, b) => b.share - a.share), bits: Math.max(0, bits) });
  }
  // What only informs has to gain something; of what is alike the quicker comes first.
  const worth = (c: Choice<D>) => Math.round((c.minutes + (c.deed.cures.size > 0 ? 0 : LEAST_GAIN_MIN)) * 20);
  return out.sort((a, b) => worth(a) - worth(b) || a.deed.minutes - b.deed.minutes || (a.deed.id < b.deed.id ? -1 : 1));
}

interface Group {
  seen: string;
  sum: number;
  at: number[];
  share: number[];
}

/** Of a look or a test: what each outcome leaves, with the chance of misreading it. */
function looked(s: Suspicion, k: Kept, deed: Deed): Group[] {
  const shown = k.at.map((i) => deed.shows?.(s.hypotheses[i] as Hypothesis));
  const values = [...new Set(shown.filter((v) => v !== undefined))];
  if (values.length < 2) return [];
  return values.flatMap((v) => {
    const share = k.share.map(
      (p, j) => p * (shown[j] === undefined ? 1 / values.length : shown[j] === v ? 1 - MISREAD : MISREAD / (values.length - 1)),
    );
    const sum = share.reduce((a, b) => a + b, 0);
    return sum > 1e-9 ? [{ seen: v, sum, at: k.at, share }] : [];
  });
}

/** Of a repair: that it was that, that nothing changed, or that something else is wrong now. */
function repaired(s: Suspicion, k: Kept, deed: Deed, lines: readonly string[]): Group[] {
  const groups = new Map<string, Group>();
  for (const [j, i] of k.at.entries()) {
    const to = s.left(i, deed.cures);
    const result = resultOf(s, i, to, lines);
    const word = result === "changed" ? `changed ${s.symptoms(to, lines)}` : result;
    const g = groups.get(word) ?? { seen: result, sum: 0, at: [], share: [] };
    groups.set(word, g);
    g.sum += k.share[j] ?? 0;
    g.at.push(to);
    g.share.push(k.share[j] ?? 0);
  }
  const list = [...groups.values()];
  // A repair that would change nothing is none.
  return list.every((g) => g.seen === "no change") ? [] : list;
}

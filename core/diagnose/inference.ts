/** What could be so: nothing wrong, one cause, or two. The first of a list is that nothing is wrong. */
export interface Hypothesis {
  /** Causes by their place in the list of causes; none: nothing is wrong. */
  causes: readonly number[];
  /** How likely before anything is seen; any scale. */
  prior: number;
  /** What would be seen of a line; undefined: it says nothing of it. */
  shows: (line: string) => string | undefined;
}

/** Something that was seen or read, or done with what came of it, in the order in which it was. */
export type Evidence = { line: string; value: string } | { deed: Deed; result: Result };

/** What a test says whose way around is the cure: a lead that works elsewhere stays there. */
export const NOW_WORKS = "now it works";
/** What came of a deed: all is as wanted, all is as it was, something else is wrong now, hands say that it cannot be done, or what a test says. */
export type Result = "that was it" | "no change" | "changed" | "impossible" | (string & {});

/** Something that hands may do: it cures causes, or only shows something. */
export interface Deed {
  id: string;
  minutes: number;
  /** Causes by their place. */
  cures: ReadonlySet<number>;
  /** What a look or a test would show, where it cures nothing. */
  shows?: (h: Hypothesis) => string | undefined;
}

/** Does this result mean that it is mended: all is as wanted, or a lead stays where it works? */
export const mends = (result: string, curesSomething: boolean): boolean => result === "that was it" || (result === NOW_WORKS && curesSomething);

/** A wrong entry must never make the true cause impossible: so often is something misread or mistyped (common practice, from memory). */
export const MISREAD = 0.02;
/** Who sees something wrong looks again before saying so (common practice, from memory). */
const MISREAD_WRONG = 0.001;
/** A plug pressed home or a spare that does not help although it should: so rarely (common practice, from memory). */
const BOTCHED = 0.05;

export type Same = (line: string, shown: string, seen: string) => boolean;
const plainly: Same = (_, shown, seen) => shown === seen;

/** Hypotheses, and what is left of one when causes are cured. */
export interface Suspicion {
  hypotheses: readonly Hypothesis[];
  /** Place of the hypothesis that is left when these causes are cured. */
  left: (at: number, cures: ReadonlySet<number>) => number;
  /** What the lines that are wrong show: one word for all of them; empty: all as wanted. */
  symptoms: (at: number, lines: readonly string[]) => string;
  same?: Same;
}

/** A suspicion of hypotheses alone: what is left is found by the causes it holds. */
export function suspicionOf(hypotheses: readonly Hypothesis[], good?: (line: string) => string | undefined, same?: Same): Suspicion {
  const key = (causes: readonly number[]) => [...causes].sort((a, b) => a - b).join(" ");
  const at = new Map<string, number>();
  for (const [i, h] of hypotheses.entries()) if (!at.has(key(h.causes))) at.set(key(h.causes), i);
  return {
    hypotheses,
    left: (i, cures) => {
      const causes = hypotheses[i]?.causes ?? [];
      if (!causes.some((c) => cures.has(c))) return i;
      return at.get(key(causes.filter((c) => !cures.has(c)))) ?? 0;
    },
    symptoms: (i, lines) => {
      const h = hypotheses[i];
      if (!h) return "";
      // Where no line is named, each thing that is wrong is a symptom by itself.
      if (lines.length === 0) return key(h.causes);
      const off = lines.map((l) => (h.shows(l) === good?.(l) ? "" : (h.shows(l) ?? "")));
      return off.every((v) => v === "") ? "" : off.join("|");
    },
    ...(same ? { same } : {}),
  };
}

export interface Posterior {
  /** What is wrong now, after what was done: a share for each hypothesis. */
  now: Float64Array;
  /** What was wrong before anything was done. */
  was: Float64Array;
}

/**
 * Bayes' rule over hypotheses: each observation and each outcome of an action counts once. The shares sum to one. What was seen before a
 * repair is of the machine as it was then. Where every hypothesis contradicts what was seen, the least contradicted keep what there is.
 */
export function posterior(
  s: Suspicion,
  evidence: readonly Evidence[],
  off: (seen: { line: string; value: string }) => boolean = () => true,
): Posterior {
  const same = s.same ?? plainly;
  const n = s.hypotheses.length;
  const state = new Int32Array(n);
  const log = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    state[i] = i;
    log[i] = Math.log(s.hypotheses[i]?.prior ?? 0);
  }
  let lines: string[] = [];
  for (const e of evidence) {
    if ("line" in e) {
      // What values mean the same is asked once for each value.
      const means = new Map<string, boolean>();
      const wrong = off(e);
      for (let i = 0; i < n; i++) {
        const shown = s.hypotheses[state[i] ?? 0]?.shows(e.line);
        if (shown === undefined) continue;
        let is = means.get(shown);
        if (is === undefined) {
          is = same(e.line, shown, e.value);
          means.set(shown, is);
        }
        log[i] = (log[i] ?? 0) + Math.log(is ? 1 - MISREAD : wrong ? MISREAD_WRONG : MISREAD);
      }
      lines = lines.filter((l) => l !== e.line);
      if (wrong) lines.push(e.line);
      continue;
    }
    if (e.result === "impossible") continue;
    for (let i = 0; i < n; i++) {
      const at = state[i] ?? 0;
      const h = s.hypotheses[at] as Hypothesis;
      if (e.deed.shows) {
        const shown = e.deed.shows(h);
        if (shown !== undefined) log[i] = (log[i] ?? 0) + Math.log(shown === e.result ? 1 - MISREAD : MISREAD);
        if (e.result !== NOW_WORKS && lines.length > 0 && s.symptoms(at, lines) === "") log[i] = (log[i] ?? 0) + Math.log(MISREAD);
        if (e.result === NOW_WORKS) state[i] = s.left(at, e.deed.cures);
        continue;
      }
      const to = s.left(at, e.deed.cures);
      const said = resultOf(s, at, to, lines);
      if (said === e.result) {
        state[i] = to;
        // That something is still wrong was seen once more: what explains none of it is doubted once more.
        if (said === "no change" && lines.length > 0 && s.symptoms(to, lines) === "") log[i] = (log[i] ?? 0) + Math.log(MISREAD);
        if (said !== "no change") log[i] = (log[i] ?? 0) + Math.log(1 - BOTCHED);
      } else if (e.result === "no change") log[i] = (log[i] ?? 0) + Math.log(BOTCHED);
      else {
        state[i] = to;
        log[i] = (log[i] ?? 0) + Math.log(MISREAD);
      }
    }
    if (mends(e.result, e.deed.cures.size > 0)) lines = [];
  }
  let top = Number.NEGATIVE_INFINITY;
  for (const l of log) top = Math.max(top, l);
  const was = new Float64Array(n);
  let sum = 0;
  for (let i = 0; i < n; i++) {
    was[i] = Math.exp((log[i] ?? 0) - top);
    sum += was[i] ?? 0;
  }
  const now = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    was[i] = (was[i] ?? 0) / sum;
    const at = state[i] ?? 0;
    now[at] = (now[at] ?? 0) + (was[i] ?? 0);
  }
  return { now, was };
}

/** What would come of a repair that leads from one state to another. */
export function resultOf(s: Suspicion, from: number, to: number, lines: readonly string[]): "that was it" | "no change" | "changed" {
  if (from === to) return "no change";
  const [before, after] = [s.symptoms(from, lines), s.symptoms(to, lines)];
  return after === "" ? "that was it" : before === after ? "no change" : "changed";
}

/** Shannon's entropy, bits. */
export function entropyBits(shares: Iterable<number>): number {
  let bits = 0;
  for (const p of shares) if (p > 0) bits -= p * Math.log2(p);
  return bits;
}

/** Share of each cause, by its place: of all hypotheses that hold it. */
export function shareOf(hypotheses: readonly Hypothesis[], shares: Float64Array, causes: number): Float64Array {
  const out = new Float64Array(causes);
  for (const [i, h] of hypotheses.entries()) for (const c of h.causes) out[c] = (out[c] ?? 0) + (shares[i] ?? 0);
  return out;
}

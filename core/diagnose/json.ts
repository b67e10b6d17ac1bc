import type { Graph } from "../assembly";
import { type Problem, pricesOf, problemOf } from "../order";
import type { Access } from "./deeds";
import { type Answer, type Happened, leadsTo, type Policy, within } from "./leads-to";

/** What it takes to get at a step's place, by the precedences of the order: what is over it comes out first; and to open the machine. */
export function accessOf(problem: Problem): { access: Access; opening?: { minutes: number; words: string } } {
  // During a hunt the machine stays open: closing it is paid once.
  const open: Problem = { ...problem, works: problem.works.map((w) => (w.id === "close" ? { ...w, done: false } : w)) };
  const prices = pricesOf(open);
  const closed = problem.works.find((w) => w.id === "close")?.done ? pricesOf(problem)("close") : undefined;
  return {
    access: (step) => {
      const p = prices(step);
      return p && { minutes: p.handsMinutes, words: p.steps > 1 ? p.words : "" };
    },
    ...(closed ? { opening: { minutes: closed.handsMinutes, words: "The machine is closed: its panels come off first." } } : {}),
  };
}

/** What was seen and done, in order, as a build file carries it. */
export function happenedOf({ build }: Graph): Happened[] {
  const seen: readonly { line: string; value: string; afterActions?: number }[] = build.observations ?? build.readings ?? [];
  const actions = build.actions ?? [];
  const after = (n: number) => seen.filter((o) => Math.min(o.afterActions ?? 0, actions.length) === n).map(({ line, value }) => ({ line, value }));
  return [...after(0), ...actions.flatMap((a, i): Happened[] => [{ deed: a.action, result: a.result }, ...after(i + 1)])];
}

const share = (p: number) => Math.round(p * 1000) / 1000;
const tenth = (n: number) => Math.round(n * 10) / 10;

interface Told {
  action: string;
  outcomes: { seen: string; share: number; follows: Told | null }[];
}
const policyJson = (p: Policy): Told => ({
  action: p.deed,
  outcomes: p.outcomes.map((o) => ({ seen: o.seen, share: share(o.share), follows: o.follows && policyJson(o.follows) })),
});

/** What `diagnose FILE` prints, and whether there is something to do. */
export function diagnoseJson(graph: Graph) {
  const shop = graph.build.diagnosis;
  const answer: Answer = leadsTo(graph, {
    happened: happenedOf(graph),
    ...accessOf(problemOf(graph)),
    depth: 3,
    ...(shop ? { priors: shop.priors, minutes: shop.minutes, ...(shop.spares ? { spares: shop.spares } : {}) } : {}),
  });
  const { next, others } = answer;
  return {
    suspects: answer.suspects.map((s) => ({ id: s.id, share: share(s.share), words: s.words, alike: s.alike, why: s.why })),
    cleared: answer.cleared.map((c) => ({ id: c.id, name: c.name, by: c.by })),
    nothing: share(answer.nothing),
    entropyBits: share(answer.entropyBits),
    expectedMinutes: tenth(answer.expectedMinutes),
    next: next && {
      id: next.id,
      kind: next.kind,
      target: next.target,
      words: next.words,
      ...(next.caution ? { caution: next.caution } : {}),
      ...(next.access ? { access: next.access } : {}),
      ...(next.waits ? { waits: true } : {}),
      minutes: next.minutes,
      expectedMinutes: tenth(next.expectedMinutes),
      bits: share(next.bits),
      why: next.why,
      outcomes: next.outcomes.map((o) => ({ seen: o.seen, share: share(o.share), clears: o.clears, follows: o.follows, words: o.followsWords })),
    },
    others: others.map((o) => ({ id: o.id, words: o.words, minutes: o.minutes, expectedMinutes: tenth(o.expectedMinutes) })),
    ...(shop?.withinMinutes ? { within: within(answer, shop.withinMinutes) ?? null } : {}),
    policy: answer.policy && policyJson(answer.policy),
    notes: answer.notes,
  };
}

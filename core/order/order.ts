import type { Graph } from "../assembly";
import { type Arranged, arranged } from "./arrange";
import type { Minutes, Order, Posture, Precedence, Problem, Step, Work } from "./model";
import { problemOf } from "./problem";
import type { Asked } from "./steps";

export interface OrderAsked extends Asked {
  /** How the case lies now; left out: as what was done last leaves it. */
  lies?: Posture;
}

/** The steps of a build in the order of the work: what is done first, then the rest as it stands best from here. */
export function orderOf(graph: Graph, asked: OrderAsked = {}): Order {
  return orderOfProblem(problemOf(graph, asked), asked.lies);
}

/** The same for steps that are known: after a tick nothing but the rest is worked out anew. */
export function orderOfProblem(problem: Problem, lies?: Posture): Order {
  const { works, precedences } = problem;
  const whole = arranged(works, precedences);
  const done = whole.order.filter((o) => o.work.done);
  const rest = restOf(whole, precedences, lies);
  const start = done.at(-1)?.block ?? 0;
  const before = done.length > 0 ? whole.blocks.slice(0, start + 1) : [];
  // The rest begins as the case lies: in the block of what was done last, where that is how it lies.
  const joined = before.length > 0 && before.at(-1) === rest.blocks[0] ? [...before, ...rest.blocks.slice(1)] : [...before, ...rest.blocks];
  const shift = joined.length - rest.blocks.length;
  const order = [...done, ...rest.order.map((o) => ({ work: o.work, block: o.block + shift }))];
  const byAfter = new Map<string, Precedence[]>();
  for (const p of precedences) {
    const has = byAfter.get(p.after);
    if (has) has.push(p);
    else byAfter.set(p.after, [p]);
  }
  const steps = order.map(({ work, block }) => stepOf(work, block, joined[block], byAfter.get(work.id) ?? [], works));
  return {
    steps,
    blocks: joined,
    lies: rest.blocks[0] as Posture,
    turns: rest.turns,
    left: sum(rest.order.map((o) => o.work.minutes)),
    conflicts: problem.conflicts,
    gaveWay: problem.gaveWay,
    late: problem.late,
  };
}

/** What is not done yet: as the whole order has it, while that takes no more turns from here than any other would. */
function restOf(whole: Arranged, precedences: readonly Precedence[], lies: Posture | undefined): Arranged {
  const left = whole.order.filter((o) => !o.work.done);
  if (left.length === whole.order.length && (lies === undefined || lies === whole.blocks[0])) return whole;
  const last = whole.order.findLast((o) => o.work.done && o.work.postures.length > 0);
  const start = lies ?? (last ? (whole.blocks[last.block] as Posture) : (whole.blocks[0] as Posture));
  const ids = new Set(left.map((o) => o.work.id));
  const among = precedences.filter((p) => ids.has(p.before) && ids.has(p.after));
  const best = arranged(
    left.map((o) => o.work),
    among,
    start,
  );
  const blocks: Posture[] = [start];
  const order = left.map((o) => {
    const posture = whole.blocks[o.block] as Posture;
    if (blocks.at(-1) !== posture && o.work.postures.length > 0 && !o.work.postures.includes(blocks.at(-1) as Posture)) blocks.push(posture);
    return { work: o.work, block: blocks.length - 1 };
  });
  return blocks.length - 1 <= best.turns ? { order, blocks, turns: blocks.length - 1 } : best;
}

const sum = (list: readonly Minutes[]): Minutes => ({
  handsOn: Math.round(list.reduce((n, m) => n + m.handsOn, 0) * 10) / 10,
  unattended: Math.round(list.reduce((n, m) => n + m.unattended, 0) * 10) / 10,
});

function stepOf(work: Work, block: number, posture: Posture | undefined, into: readonly Precedence[], works: readonly Work[]): Step {
  const { stage: _, along: __, mootOnce: ___, ...rest } = work;
  const covers = [...new Set(into.filter((p) => p.kind === "covers").map((p) => p.before))];
  const words = coversWords(works.filter((w) => covers.includes(w.id)));
  return {
    ...rest,
    ...(work.postures.length > 0 && posture ? { posture } : {}),
    after: into.map((p) => ({ step: p.before, kind: p.kind, why: p.why })),
    covers,
    ...(words ? { coversWords: words } : {}),
    block,
  };
}

function coversWords(covered: readonly Work[]): string | undefined {
  if (covered.length === 0) return undefined;
  const names = [...new Set(covered.map((w) => (w.port ? w.port.slice(w.port.indexOf(":") + 1) : w.title)))];
  const rest = names.length - 4;
  return `Covers ${names.slice(0, 4).join(", ")}${rest > 0 ? ` and ${rest} more` : ""}. All of them must be in.`;
}

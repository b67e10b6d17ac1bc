import type { Build } from "../assembly";
import type { Order, Problem, Step } from "./model";

/**
 * Is this order one that hands can follow? Checked by itself, step by step, from the problem and the build, with nothing of how the
 * order was found. Every fault in a sentence; none: it is valid.
 */
export function faultsOf(problem: Problem, order: Order, build: Pick<Build, "connections">): string[] {
  return [...sequence(problem, order), ...postures(order), ...ends(order.steps, build), ...putBack(order.steps)];
}

/** Every step once, and nothing before what it needs, what it would hide, or what the shop puts first. */
function sequence(problem: Problem, order: Order): string[] {
  const out: string[] = [];
  const known = new Set(problem.works.map((w) => w.id));
  const been = new Set<string>();
  for (const s of order.steps) {
    if (!known.has(s.id)) out.push(`${s.id} is no step of this build.`);
    if (been.has(s.id)) out.push(`${s.id} is there twice.`);
    // What hands did already, they did in whatever order they liked.
    if (!s.done)
      for (const p of problem.precedences) if (p.after === s.id && !been.has(p.before)) out.push(`${p.before} must come before ${s.id}: ${p.why}.`);
    been.add(s.id);
  }
  for (const id of known) if (!been.has(id)) out.push(`${id} is missing.`);
  return out;
}

/** Each step as the case may lie for it, and no more turns than were said. */
function postures(order: Order): string[] {
  const out: string[] = [];
  let lies = order.lies;
  let turns = 0;
  for (const s of order.steps) {
    if (s.done) continue;
    const posture = order.blocks[s.block];
    if (s.postures.length === 0) continue;
    if (posture === undefined || !s.postures.includes(posture)) out.push(`${s.id} cannot be done with the case ${posture}.`);
    if (posture !== undefined && posture !== lies) {
      turns++;
      lies = posture;
    }
  }
  if (turns > order.turns) out.push(`${turns} turns are made, ${order.turns} were said.`);
  return out;
}

function ends(steps: readonly Step[], build: Pick<Build, "connections">): string[] {
  const times = new Map<string, number>();
  for (const s of steps) if (s.lead) times.set(s.lead, (times.get(s.lead) ?? 0) + 1);
  return build.connections.flatMap((c) => (times.get(c.lead) === 1 ? [] : [`${c.lead} is plugged ${times.get(c.lead) ?? 0} times.`]));
}

function putBack(steps: readonly Step[]): string[] {
  const out: string[] = [];
  const off = new Set<string>();
  for (const s of steps) {
    for (const x of s.takesOff) off.add(x);
    for (const x of s.putsBack) if (!off.delete(x)) out.push(`${x} is put back before it was taken off.`);
  }
  return [...out, ...[...off].map((x) => `${x} is never put back.`)];
}

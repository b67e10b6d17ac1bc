import { BY_HAND, type Order, type Precedence, type PrecedenceKind, type Problem, type Work } from "./model";
import { orderOfProblem } from "./order";
import { titleOf, withoutRings } from "./rings";

export interface Pulled {
  verdict: "allowed" | "warned" | "refused";
  /** Why, in a sentence. */
  words: string;
  order?: Order;
}

const EVERY: readonly PrecedenceKind[] = ["needs", "covers", "reach", "school"];
const HARD: readonly PrecedenceKind[] = ["needs", "covers", "reach"];

/** The first precedence on a way from one step to another, along these kinds. */
function wayBetween(list: readonly Precedence[], from: string, to: string, kinds: readonly PrecedenceKind[]): Precedence[] | undefined {
  const next = new Map<string, Precedence[]>();
  for (const p of list) {
    if (!kinds.includes(p.kind)) continue;
    const has = next.get(p.before);
    if (has) has.push(p);
    else next.set(p.before, [p]);
  }
  const came = new Map<string, Precedence | undefined>([[from, undefined]]);
  const open = [from];
  for (let i = 0; i < open.length; i++) {
    const at = open[i] as string;
    if (at === to) {
      const out: Precedence[] = [];
      for (let p = came.get(at); p; p = came.get(p.before)) out.unshift(p);
      return out;
    }
    for (const p of next.get(at) ?? [])
      if (!came.has(p.after)) {
        came.set(p.after, p);
        open.push(p.after);
      }
  }
  return undefined;
}

/** May steps (those of a card) be pulled before others (all of another card): at once, against a school or for a turn more, or not at all. */
export function pull(problem: Problem, order: Order, steps: readonly string[], before: readonly string[]): Pulled {
  const works = new Map(problem.works.map((w) => [w.id, w]));
  const gone = [...steps, ...before].some((id) => !works.has(id)) || steps.some((s) => before.includes(s)) || steps.length * before.length === 0;
  if (gone) return { verdict: "refused", words: "The job has no such step any more: its parts or its plan changed." };
  const over = [...steps, ...before].find((id) => works.get(id)?.done);
  if (over !== undefined) return { verdict: "refused", words: `${titleOf(works, over)} is done already.` };
  const pairs = steps.flatMap((step) => before.map((b) => [step, b] as const));
  for (const [step, b] of pairs) {
    const hard = wayBetween(problem.precedences, b, step, HARD);
    if (hard) return { verdict: "refused", words: refusal(works, hard, step) };
  }
  const school = pairs.map(([s, b]) => wayBetween(problem.precedences, b, s, EVERY)?.find((p) => p.kind === "school")).find((p) => p !== undefined);
  const asked = pairs.map(([step, b]): Precedence => ({ before: step, after: b, kind: "needs", why: BY_HAND }));
  const tried = withoutRings(works, [...problem.precedences, ...asked]);
  const next = orderOfProblem({
    ...problem,
    precedences: tried.precedences.map((p) => (asked.includes(p) ? { ...p, kind: "school" as const } : p)),
  });
  const more = next.turns - order.turns;
  const said = [
    school ? `It departs from the shop's way: ${school.why}.` : "",
    more > 0 ? `The case is turned ${more === 1 ? "once" : `${more} times`} more.` : "",
  ].filter(Boolean);
  return said.length > 0
    ? { verdict: "warned", words: said.join(" "), order: next }
    : { verdict: "allowed", words: "Nothing stands against it, and no turn is added.", order: next };
}

function refusal(works: ReadonlyMap<string, Work>, way: readonly Precedence[], step: string): string {
  const [first] = way;
  if (!first) return "";
  const via = first.after === step ? "" : ` (it comes before ${titleOf(works, first.after)}, and that before ${titleOf(works, step)})`;
  return `${titleOf(works, first.before)} comes first: ${first.why}${via}.`;
}

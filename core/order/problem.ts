import { byText, type Graph } from "../assembly";
import type { Conflict, Precedence, Problem, Work } from "./model";
import { inTurn, titleOf, withoutRings } from "./rings";
import { type Asked, stepsFor } from "./steps";
import { waysOut } from "./ways-out";

/** The steps of a build with what must come before what, and what contradicts itself there. */
export function problemOf(graph: Graph, asked: Asked = {}): Problem {
  const { works, edges, late } = stepsFor(graph, asked);
  const { precedences, rings: found, gaveWay } = withoutRings(works, edges);
  // A last look is made of what it looks at: it is in no ring by itself.
  const conflicts = found.map((whole): Conflict => {
    const ring = whole.filter((id) => !id.startsWith("gate:"));
    const inside = edges.filter((e) => e.kind !== "school" && ring.includes(e.before) && ring.includes(e.after)).sort(inTurn);
    return { steps: ring, why: whyOf(works, ring, inside), ways: waysOut(graph, asked, ring, inside) };
  });
  const sorted = [...works.values()].sort((a, b) => byText(a.id, b.id));
  return { works: sorted, precedences: precedences.sort(inTurn), gaveWay, conflicts, late };
}

function whyOf(works: ReadonlyMap<string, Work>, ring: readonly string[], inside: readonly Precedence[]): string {
  const self = inside.find((e) => e.before === e.after);
  if (self) return `${titleOf(works, self.before)} would have to come before itself: ${self.why}.`;
  const reasons = inside.slice(0, 4).map((e) => `${titleOf(works, e.before)} comes before ${titleOf(works, e.after)}: ${e.why}`);
  return `${ring.length === 2 ? "Each of these two steps needs the other first" : `Each of these ${ring.length} steps needs the others first`}. ${reasons.join("; ")}.`;
}

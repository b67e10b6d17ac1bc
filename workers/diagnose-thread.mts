// A thread that finds faults: it keeps the machines that it worked out last, so that a further observation takes no second.
import { createHash } from "node:crypto";
import { type Build, buildGraph, type Graph, typeLookup } from "../core/assembly";
import { type Answer, accessOf, type Backward, backwardOf, leadsTo, priorsFrom } from "../core/diagnose";
import { problemOf } from "../core/order";
import type { AskedAbout } from "../server/faults/asked";

interface Known {
  graph: Graph;
  b: Backward;
  reach: ReturnType<typeof accessOf>;
}

const MOST_KEPT = 8;
const kept = new Map<string, Known>();

function known(build: Build, found: AskedAbout["found"], machines: number): Known {
  const key = createHash("sha256")
    .update(JSON.stringify([build, found, machines]))
    .digest("hex");
  const had = kept.get(key);
  if (had) {
    kept.delete(key);
    kept.set(key, had);
    return had;
  }
  const graph = buildGraph(build, typeLookup(build, []));
  const made = { graph, b: backwardOf(graph, priorsFrom(graph, found, machines)), reach: accessOf(problemOf(graph, { powered: true })) };
  kept.set(key, made);
  const oldest = kept.keys().next().value;
  if (kept.size > MOST_KEPT && oldest !== undefined) kept.delete(oldest);
  return made;
}

export default function diagnose({ build, found, machines, faults, spares }: AskedAbout): Answer[] {
  const { graph, b, reach } = known(build, found, machines);
  return faults.map((happened) => leadsTo(graph, { happened, ...reach, ...(spares ? { spares } : {}) }, b));
}

import { buildGraph } from "../core/assembly";
import { arranged } from "../core/order/arrange";
import { POSTURES } from "../core/order/model";
import { orderOfProblem } from "../core/order/order";
import { problemOf } from "../core/order/problem";
import { type Net, netOf } from "../core/order/rings";
import { bitsOf, fewestTurns } from "../core/order/turns";
import { plan } from "../core/plan";
import { DEMO, demo } from "../tests/fixtures/demo";

const RUNS = 9;
/** States that the plain search may look at. */
const LIMIT = 400_000;
const ms = (work: () => unknown): number => {
  const t = performance.now();
  work();
  return performance.now() - t;
};
const median = (list: number[]): number => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)] ?? 0;

/** The plain search: breadth first by turns, one step at a time, every set of done steps a state. Undefined: more states than the limit. */
function plain(net: Net, may: readonly number[]): number | undefined {
  const n = net.ids.length;
  const seen = new Set<string>();
  const rings: { done: Uint8Array; left: number; lies: number }[][] = [[{ done: new Uint8Array(n), left: n, lies: 0 }]];
  for (let turns = 0; turns < rings.length; turns++) {
    const ring = rings[turns] ?? [];
    for (let s = ring.pop(); s; s = ring.pop()) {
      if (s.left === 0) return turns;
      const key = `${s.lies}${s.done.join("")}`;
      if (seen.has(key)) continue;
      seen.add(key);
      if (seen.size > LIMIT) return undefined;
      for (let v = 0; v < n; v++) {
        if (s.done[v] || !(net.before[v] ?? []).every((b) => s.done[b])) continue;
        for (let q = 0; q < POSTURES.length; q++) {
          if (!((may[v] as number) & (1 << q))) continue;
          const done = s.done.slice();
          done[v] = 1;
          const next = turns + (q === s.lies ? 0 : 1);
          const state = { done, left: s.left - 1, lies: q };
          const there = rings[next];
          if (there) there.push(state);
          else rings[next] = [state];
        }
      }
    }
  }
  return undefined;
}

console.log(`Order, median of ${RUNS} in this process, ms; the plain search may look at ${LIMIT.toLocaleString("en")} states`);
console.log("  build     steps turns  problem  order  after a tick  search   plain search on the first steps: steps, ms, times as long");
for (const name of DEMO) {
  const { build, types } = demo(name);
  const made = await plan(build, types, { deadlineS: 20 });
  const graph = buildGraph(made.build, types);
  const problem = problemOf(graph);
  const order = orderOfProblem(problem);
  const made1 = median(Array.from({ length: RUNS }, () => ms(() => problemOf(graph))));
  const ordered = median(Array.from({ length: RUNS }, () => ms(() => orderOfProblem(problem))));
  // Half of it done, and one more.
  const half = new Set(order.steps.slice(0, Math.floor(order.steps.length / 2)).map((s) => s.id));
  const ticked = { ...problem, works: problem.works.map((w) => ({ ...w, done: half.has(w.id) })) };
  const tick = median(Array.from({ length: RUNS }, () => ms(() => orderOfProblem(ticked))));
  const all = netOf(
    problem.works.map((w) => w.id),
    problem.precedences,
  );
  const may = problem.works.map((w) => bitsOf(w.postures));
  const search = median(Array.from({ length: RUNS }, () => ms(() => fewestTurns(all, may, "standing"))));
  // As many of the first steps as the plain search still ends on.
  let ended = "";
  for (let n = 8; n <= order.steps.length; n += 2) {
    const first = arranged(problem.works, problem.precedences)
      .order.slice(0, n)
      .map((o) => o.work);
    const net = netOf(
      first.map((w) => w.id),
      problem.precedences,
    );
    const bits = first.map((w) => bitsOf(w.postures));
    let turns: number | undefined;
    const slow = ms(() => {
      turns = plain(net, bits);
    });
    if (turns === undefined) {
      ended += `; with ${n} it did not end`;
      break;
    }
    const quick = median(Array.from({ length: RUNS }, () => ms(() => fewestTurns(net, bits, "standing"))));
    if (fewestTurns(net, bits, "standing").blocks.length - 1 !== turns) throw new Error(`${name}: ${n} steps, another count of turns`);
    ended = `${n}, ${slow.toFixed(1)}, ${(slow / Math.max(quick, 0.001)).toFixed(0)}`;
  }
  console.log(
    `  ${name} ${String(order.steps.length).padStart(5)} ${String(order.turns).padStart(5)} ${made1.toFixed(1).padStart(8)} ${ordered.toFixed(1).padStart(6)} ${tick.toFixed(1).padStart(13)} ${search.toFixed(2).padStart(7)}   ${ended}`,
  );
}

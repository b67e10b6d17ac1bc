import { Session } from "node:inspector/promises";
import { buildGraph, type Graph, withConnections } from "../core/assembly";
import type { PartType } from "../core/catalogue";
import { plan } from "../core/plan";
import { routesOf } from "../core/routes";
import { drawSheet, type Look, sceneOf } from "../core/scene";
import { DEMO, demo } from "../tests/fixtures/demo";

const RUNS = 9;
const ms = (work: () => unknown): number => {
  const t = performance.now();
  work();
  return performance.now() - t;
};
const median = (list: number[]): number => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)] ?? 0;

const look = (graph: Graph, scale: number): Look => ({
  scale,
  line: 14,
  letter: 0.52,
  pitch: 5,
  least: 10,
  shown: () => "whole",
  isDone: () => false,
  port: (a) => ({ state: graph.atPort.has(a) ? "planned" : "free" }),
  nameOfPort: (p) => (p.landmark ? undefined : 2),
  nameOfBox: (b) => (b.kind === "board" ? undefined : 3),
});

/** The same case, a hair wider each time: nothing that was worked out for it before can be used again. */
const fresh = (graph: Graph, types: (id: string) => PartType | undefined, n: number): Graph =>
  buildGraph(graph.build, (id) => {
    const t = types(id);
    return t?.kind === "case" ? { ...t, body: { ...t.body, widthMm: (t.body.widthMm ?? 450) + n / 1000 } } : t;
  });

console.log("Routes and scene, median of 9 in this process, ms");
console.log("  build     routes  from nothing  known case  a lead moved  scene  drawn at 1.25 and 3 px/mm");
for (const name of DEMO) {
  const { build, types } = demo(name);
  const made = await plan(build, types, { deadlineS: 20 });
  const graph = buildGraph(made.build, types);
  const routes = routesOf(graph).routes.length;
  const cold = median(Array.from({ length: RUNS }, (_, n) => ms(() => routesOf(fresh(graph, types, n + 1)))));
  const warm = median(Array.from({ length: RUNS }, () => ms(() => routesOf(buildGraph(made.build, types)))));
  const leads = graph.connections.filter((c) => graph.leads.get(c.lead)?.loom === "fans");
  const moved = median(
    leads.slice(0, RUNS).map((c) =>
      ms(() =>
        routesOf(
          withConnections(
            graph,
            graph.connections.filter((x) => x !== c),
          ),
        ),
      ),
    ),
  );
  const scenes = median(
    Array.from({ length: RUNS }, () => {
      const g = buildGraph(made.build, types);
      routesOf(g);
      return ms(() => sceneOf(g));
    }),
  );
  const drawn = [1.25, 3].map((s) => median(Array.from({ length: RUNS }, () => ms(() => drawSheet(sceneOf(graph), "front", look(graph, s))))));
  console.log(
    `  ${name} ${String(routes).padStart(7)} ${cold.toFixed(0).padStart(13)} ${warm.toFixed(1).padStart(11)} ${moved.toFixed(1).padStart(13)} ${scenes.toFixed(1).padStart(6)}  ${drawn.map((d) => d.toFixed(1)).join(", ")}`,
  );
}

/** How much of planning goes into reach and ways, ms and of how much, as the inspector samples it: the same plan with a reach that costs nothing. */
async function reachOf(build: ReturnType<typeof demo>["build"], types: ReturnType<typeof demo>["types"]): Promise<{ reach: number; all: number }> {
  const session = new Session();
  session.connect();
  await session.post("Profiler.enable");
  await session.post("Profiler.setSamplingInterval", { interval: 200 });
  await session.post("Profiler.start");
  await plan(build, types, { deadlineS: 30 });
  const { profile } = await session.post("Profiler.stop");
  session.disconnect();
  const above = new Map(profile.nodes.flatMap((n) => (n.children ?? []).map((c) => [c, n.id] as const)));
  const nodes = new Map(profile.nodes.map((n) => [n.id, n.callFrame]));
  let [reach, all] = [0, 0];
  for (const [i, id] of (profile.samples ?? []).entries()) {
    const took = (profile.timeDeltas?.[i] ?? 0) / 1000;
    let at: number | undefined = id;
    let [ours, known] = [false, false];
    for (; at !== undefined; at = above.get(at)) {
      const url = nodes.get(at)?.url ?? "";
      ours ||= url.includes("/core/plan/");
      known ||= url.includes("/core/routes/");
    }
    if (ours) all += took;
    if (ours && known) reach += took;
  }
  return { reach, all };
}

console.log("Planning with reach from routes against reach by the rule of thumb (the same case without its cut-outs, so another problem to solve),");
console.log("median of 5, warm, ms; and against the same plan with a reach that costs nothing");
for (const name of DEMO) {
  const { build, types } = demo(name);
  const bare = (id: string) => {
    const t = types(id);
    return t?.kind === "case" ? { ...t, body: { ...t.body, cutouts: [] } } : t;
  };
  const times: Record<string, number[]> = { routes: [], thumb: [] };
  // Turn about, so that what else the machine does hits both.
  for (let i = 0; i < 6; i++)
    for (const [kind, of] of [
      ["routes", types],
      ["thumb", bare],
    ] as const) {
      const t = performance.now();
      await plan(build, of, { deadlineS: 30 });
      if (i > 0) times[kind]?.push(performance.now() - t);
    }
  const [a, b] = [median(times.routes ?? []), median(times.thumb ?? [])];
  const { reach, all } = await reachOf(build, types);
  console.log(
    `  ${name}  ${a.toFixed(0).padStart(6)} against ${b.toFixed(0).padStart(6)}: ${(a / b).toFixed(2)} times; ${reach.toFixed(1)} of ${all.toFixed(0)} ms are reach: ${(all / (all - reach)).toFixed(2)} times`,
  );
}

import { describe, expect, it } from "vitest";
import { type Build, buildGraph, type Graph, partIdOf, type Rect, readBuildText } from "../../core/assembly";
import { check, checkAll, checkParts, withTriedWays } from "../../core/checks";
import { freeEnds, say, whyHere } from "../../core/claims";
import { clearances, said } from "../../core/fit";
import { powerOn, simulate } from "../../core/machine";
import { doneAfter, orderOf, problemOf, undoOf } from "../../core/order";
import { LEVELS, type Plan, plan } from "../../core/plan";
import { leadsNear, routesOf } from "../../core/routes";
import { drawSheet, paperDrawing, sceneOf } from "../../core/scene";
import { setupOf } from "../../core/setup";
import { bodies } from "../../core/space";
import { runOf } from "../../core/wiring";
import { hiddenIn, SimulatedMachine } from "../../simulator/machine";
import { shelf } from "../fixtures/demo";
import { MACHINE_NAMES, machine, machineFile } from "../fixtures/machines";

const plans = new Map<string, Promise<Plan>>();
const planOf = (name: string): Promise<Plan> => {
  const known = plans.get(name);
  if (known) return known;
  const { build, types } = machine(name);
  const made = plan(build, types);
  plans.set(name, made);
  return made;
};
const planned = async (name: string): Promise<{ made: Plan; graph: Graph }> => {
  const made = await planOf(name);
  return { made, graph: buildGraph(made.build, machine(name).types) };
};
const plugged = (build: Build): Build => ({ ...build, connections: build.connections.map((c) => ({ ...c, state: "plugged" as const })) });

/** What nobody says: inner names, numbers that are none, two stops, doubled words. */
const NOBODY = /undefined|NaN|\bnull\b|radiator:[a-z]|\[object|\.\.|, ,|\bthe the\b|cable cable|\b1 (slots|modules|leads|fans|screws|mm are)\b|—/;

describe.each(MACHINE_NAMES)("a machine unlike the demo: %s", (name) => {
  it("answers like a machine: starts in turn, is read, is set up, and says nothing absurd, right or with something wrong in it", async () => {
    const { made } = await planned(name);
    const build = { ...plugged(made.build), partTypes: [...new Map([...shelf, ...made.build.partTypes].map((t) => [t.id, t])).values()] };
    const graph = buildGraph(build, machine(name).types);
    for (const hidden of [{}, hiddenIn(build, 1, 3), hiddenIn(build, 2, 8)]) {
      const s = simulate(graph, { modes: hidden });
      const m = new SimulatedMachine(build, hidden);
      m.do("mains");
      m.do("press");
      m.pass(60);
      m.do("load");
      m.pass(1800);
      const words = JSON.stringify([s.verdict, s.sequence, s.observables.map((o) => [o.what, o.because]), m.state().said, m.state().screen]);
      expect(words).not.toMatch(NOBODY);
      for (const v of [...Object.values(m.readings()), m.state().noiseDb, ...s.observables.map((o) => (typeof o.value === "number" ? o.value : 0))])
        expect(Number.isFinite(v) && v >= 0 && v < 20_000).toBe(true);
      // What will be seen of the machine is what the stand-in shows.
      const fans = m.state().fans;
      const running = m.state().on;
      if (running)
        expect(fans.filter((f) => !f.turns).map((f) => f.id)).toEqual(s.lines.filter((l) => l.id.startsWith("turns:") && !l.works).map((l) => l.id));
      else expect(fans.every((f) => !f.turns)).toBe(true);
    }
    const items = setupOf(graph, { promises: [{ about: "overclock", words: "CPU at 5.4 GHz" }], testPrograms: ["load maker"] });
    expect(new Set(items.map((x) => x.id)).size).toBe(items.length);
    expect(JSON.stringify(items)).not.toMatch(NOBODY);
    for (const f of graph.parts.values()) if (f.type.kind === "fan") for (const n of leadsNear(graph, f.id)) expect(n.mm).toBeLessThanOrEqual(40);
  });
  it("is planned, proved and clean; what stays free has its reason; every lead reaches by its own route", async () => {
    const { made, graph } = await planned(name);
    expect([made.status, made.broken]).toEqual(["proved", []]);
    const missing = new Set(made.free.map((f) => f.end));
    for (const f of check(graph, "plan").filter((x) => x.severity === "stop" && !["picture-source", "memory-slots"].includes(x.rule)))
      expect([f.message, f.ends.some((e) => missing.has(e))]).toEqual([f.message, true]);
    const routes = routesOf(graph);
    for (const c of graph.connections) {
      const [l, p, r] = [graph.leads.get(c.lead), graph.ports.get(c.port), routes.byLead.get(c.lead)];
      if (!l || !p || !r) continue;
      // One truth: the claim's run, the route and the plan say the same of it.
      expect([c.lead, r.needMm <= r.hasMm]).toEqual([c.lead, true]);
      const run = runOf(graph, l, p);
      // A cable of several plugs is measured from plug to plug on the drawing.
      if (run && r.through.length === 0 && !l.part.cable) expect([c.lead, run.needMm, run.hasMm]).toEqual([c.lead, r.needMm, r.hasMm]);
    }
  });

  it("no two bodies share a place unless that is a stop, by boxes compared here", () => {
    const { graph } = machine(name);
    const stops = new Set(
      checkParts(graph).flatMap((f) => (f.rule === "one-place" && f.severity === "stop" ? [f.ends.slice(0, 2).sort().join()] : [])),
    );
    const solid = bodies(graph).filter((b) => b.part && !b.assumed && !["light", "cover", "heatsink"].includes(b.kind));
    const over = (a: Rect, b: Rect) => [
      Math.min(a.xMm + a.widthMm, b.xMm + b.widthMm) - Math.max(a.xMm, b.xMm),
      Math.min(a.yMm + a.heightMm, b.yMm + b.heightMm) - Math.max(a.yMm, b.yMm),
    ];
    const zone = (p: string) => graph.parts.get(p)?.part.zone?.split(":")[1] ?? (graph.parts.get(p)?.part.zone === "radiator" ? "radiator" : p);
    for (const [i, a] of solid.entries())
      for (const b of solid.slice(i + 1)) {
        const [ida, idb] = [a.part?.id ?? "", b.part?.id ?? ""];
        if (ida === idb || zone(ida) === zone(idb) || [zone(ida), zone(idb)].includes("radiator")) continue;
        const deep = Math.min(a.depth[1], b.depth[1]) - Math.max(a.depth[0], b.depth[0]);
        if (Math.min(...over(a.rect, b.rect), deep) <= 3) continue;
        expect([ida, idb, stops.has([ida, idb].sort().join())]).toEqual([ida, idb, true]);
      }
  });

  it("its work has an order without contradiction; undone and done again it is the same machine, and nothing comes out that is not in the way", async () => {
    const { made, graph } = await planned(name);
    const { steps, conflicts } = orderOf(graph);
    expect(conflicts).toEqual([]);
    const behind = steps.filter((s) => s.posture === "behind-up");
    if (name === "rack") expect(behind.map((s) => s.title)).toEqual([]);
    const whole = plugged(made.build);
    const all = buildGraph({ ...whole, done: steps.map((s) => s.id) }, machine(name).types);
    const problem = problemOf(all);
    const by = new Map(problem.works.map((w) => [w.id, w]));
    const next = new Map<string, string[]>();
    for (const p of problem.precedences) if (p.kind !== "school") next.set(p.before, [...(next.get(p.before) ?? []), p.after]);
    for (const w of problem.works) {
      const undo = undoOf(problem, w.id);
      if (!undo) continue;
      // Whatever comes out hides or rests on the step, through others: found here by walking alone.
      const reached = new Set([w.id]);
      for (const id of reached) for (const n of next.get(id) ?? []) reached.add(n);
      const supply = [...reached].some((id) => by.get(id)?.parts.some((p) => machine(name).graph.parts.get(p)?.type.kind === "supply"));
      for (const o of undo.out)
        expect([w.id, o.step, reached.has(o.step) || (supply && by.get(o.step)?.measure === "root") || LOOKS.test(o.step)]).toEqual([
          w.id,
          o.step,
          true,
        ]);
      const left = doneAfter(problem, undo);
      const again = new Set([...left, ...undo.back.map((b) => b.step)]);
      expect([w.id, steps.filter((s) => !again.has(s.id)).map((s) => s.id)]).toEqual([w.id, []]);
    }
  });

  it("no accessory is in its plan that could be left out without anything getting worse", async () => {
    const { made } = await planned(name);
    const { build, types } = machine(name);
    const upTo = LEVELS.slice(0, LEVELS.indexOf("fromShelf"));
    for (const type of new Set(made.accessories.map((a) => a.type))) {
      const taken = made.accessories.filter((a) => a.type === type);
      const others = made.accessories.filter((a) => a.type !== type);
      const count = (t: string) => others.filter((a) => a.type === t).length + (t === type ? taken.length - 1 : 0);
      const fewer = {
        ...build,
        accessories: build.accessories.map((a) => ({ type: a.type, count: count(a.type) })),
        policy: { ...build.policy, mayOrder: false },
      };
      const without = await plan(fewer, types);
      const worse = upTo.filter((l) => l !== "toOrder").some((l) => without.cost[l] > made.cost[l]);
      expect([type, worse]).toEqual([type, true]);
    }
  }, 120_000);

  it("every sentence about it is one that somebody would say", async () => {
    const { made, graph } = await planned(name);
    const on = powerOn(buildGraph(plugged(made.build), machine(name).types));
    const { steps } = orderOf(graph);
    const sentences = [
      ...graph.connections.map((c) => whyHere(graph, c)),
      ...freeEnds(graph).map((f) => say(graph, f.claim)),
      ...checkAll(graph).map((f) => f.message),
      ...withTriedWays(graph, checkParts(graph)).flatMap((f) => [f.message, ...(f.ways ?? [])]),
      ...clearances(graph).map(said),
      on.verdict,
      ...on.lines.map((l) => l.because),
      ...steps.flatMap((s) => [s.title, s.detail, s.rightWhen]),
    ].filter((s): s is string => typeof s === "string" && s !== "");
    expect(sentences.filter((s) => NOBODY.test(s))).toEqual([]);
    for (const s of sentences) expect([s, /^[^a-z]|^[a-z]+_|^at least/.test(s) || graph.leads.size === 0]).toEqual([s, true]);
  });

  it("is drawn on both sides without a shape that is none, and read back the same from its own file", async () => {
    const { made, graph } = await planned(name);
    const scene = sceneOf(graph);
    for (const sheet of ["front", "behind"] as const) {
      const d = paperDrawing(graph, sheet, name);
      expect(JSON.stringify(d.items)).not.toMatch(/NaN|null/);
    }
    expect(drawSheet.length).toBe(3);
    expect(scene.boxes.length).toBeGreaterThan(5);
    for (const file of [machineFile(name), made.build]) {
      const read = readBuildText(JSON.stringify(file), shelf);
      if (!read.ok) throw new Error(read.faults.join("\n"));
      const again = readBuildText(JSON.stringify(read.build), shelf);
      if (!again.ok) throw new Error(again.faults.join("\n"));
      expect(again.build).toEqual(read.build);
    }
    expect(made.build.parts.map((p) => p.id).every((id) => partIdOf(`${id}:x`) === id)).toBe(true);
  });
});

/** Looked at or tried again, whatever comes out. */
const LOOKS = /^(look|gate:|first-start|fan-test|bench-test|fill-loop|hold-card|open|close|pack|tie|dress:|route:)/;

import { describe, expect, it } from "vitest";
import { DEMO, demo, demoPlan } from "../../tests/fixtures/demo";
import { type Build, buildGraph } from "../assembly";
import { WORK_SCHOOLS } from "../schools";
import { POSTURES, type Posture } from "./model";
import { orderOf, orderOfProblem } from "./order";
import { problemOf } from "./problem";
import { doneAfter, undoOf } from "./undo";
import { faultsOf } from "./valid";

async function planned(name: string) {
  const { build } = await demoPlan(name);
  return { build, types: demo(name).types };
}
const graphOf = (build: Build, types: Awaited<ReturnType<typeof planned>>["types"]) => buildGraph(build, types);
/** The build with its first steps done, plugs as connections and the rest by name. */
function withDone(build: Build, ids: readonly string[]): Build {
  const plugs = new Set(ids.filter((x) => x.startsWith("plug:")).map((x) => x.slice("plug:".length)));
  return {
    ...build,
    done: ids.filter((x) => !x.startsWith("plug:")),
    connections: build.connections.map((c) => ({ ...c, state: plugs.has(c.lead) ? "plugged" : c.state })),
  };
}

describe.each(DEMO)("%s: laws of the order", (name) => {
  it("every order printed is valid, step by step, by a checker of its own; in every school and from every posture", async () => {
    const { build, types } = await planned(name);
    const graph = graphOf(build, types);
    for (const lies of POSTURES) {
      const problem = problemOf(graph);
      expect(problem.conflicts).toEqual([]);
      expect(faultsOf(problem, orderOfProblem(problem, lies), build)).toEqual([]);
    }
    for (const school of WORK_SCHOOLS)
      for (const answer of Object.keys(school.options)) {
        const problem = problemOf(graph, { policy: { ...build.policy, [school.id]: answer } });
        expect([school.id, answer, faultsOf(problem, orderOfProblem(problem), build)]).toEqual([school.id, answer, []]);
      }
  });
  it("does not depend on the order of the input", async () => {
    const { build, types } = await planned(name);
    const turned = { ...build, parts: [...build.parts].reverse(), connections: [...build.connections].reverse() };
    const ids = (b: Build) => orderOf(graphOf(b, types)).steps.map((s) => s.id);
    expect(ids({ ...build, connections: [...build.connections].reverse() })).toEqual(ids(build));
    expect([...ids(turned)].sort()).toEqual([...ids(build)].sort());
  });
  it("after any part of it is done, the rest is valid and never asks for more turns than the whole", async () => {
    const { build, types } = await planned(name);
    const whole = orderOf(graphOf(build, types));
    for (let n = 1; n < whole.steps.length; n += 5) {
      const did = whole.steps.slice(0, n).map((s) => s.id);
      const half = withDone(build, did);
      const problem = problemOf(graphOf(half, types));
      const rest = orderOfProblem(problem);
      expect([n, faultsOf(problem, rest, build).filter((f) => !f.includes("put back"))]).toEqual([n, []]);
      expect(rest.turns).toBeLessThanOrEqual(whole.turns);
      expect(
        rest.steps
          .filter((s) => s.done)
          .map((s) => s.id)
          .sort(),
      ).toEqual([...did].sort());
    }
  });
  it("undoing and doing again comes back to the same, for every step of a finished machine", async () => {
    const { build, types } = await planned(name);
    const all = orderOf(graphOf(build, types)).steps.map((s) => s.id);
    const problem = problemOf(graphOf(withDone(build, all), types));
    const everything = new Set(problem.works.map((w) => w.id));
    for (const w of problem.works) {
      const undo = undoOf(problem, w.id);
      if (!undo) throw new Error(`${w.id} cannot be undone`);
      const left = doneAfter(problem, undo);
      expect(left.has(w.id)).toBe(false);
      const again = { ...problem, works: problem.works.map((x) => ({ ...x, done: left.has(x.id) })) };
      const order = orderOfProblem(again);
      expect([w.id, faultsOf(again, order, build).filter((f) => !f.includes("put back"))]).toEqual([w.id, []]);
      // What is done afterwards is what came out, in an order that hands can follow.
      const redone = order.steps.filter((s) => !s.done).map((s) => s.id);
      expect(redone).toEqual(undo.back.map((b) => b.step));
      expect(new Set([...left, ...redone])).toEqual(everything);
    }
  });
  it("holds with any kind of part left out, and no sentence has a hole", async () => {
    const { build, types } = await planned(name);
    const kinds = [...new Set(build.parts.flatMap((p) => types(p.type)?.kind ?? []))];
    for (const kind of kinds) {
      const parts = build.parts.filter((p) => types(p.type)?.kind !== kind);
      const ids = new Set(parts.map((p) => p.id));
      const own = (end: string) => ids.has(end.slice(0, end.indexOf(":")).split("/")[0] ?? "");
      const left = { ...build, parts, connections: build.connections.filter((c) => own(c.lead) && own(c.port)) };
      const problem = problemOf(graphOf(left, types));
      const order = orderOfProblem(problem);
      expect([kind, faultsOf(problem, order, left)]).toEqual([kind, []]);
      for (const s of order.steps) expect([s.title, s.detail, s.rightWhen].join(" ")).not.toMatch(/undefined|NaN|null|\.\./);
    }
  });
  it("has words, minutes and a reason for every step, and hands take 2 to 8 hours", async () => {
    const { build, types } = await planned(name);
    const { steps, left } = orderOf(graphOf(build, types));
    expect(new Set(steps.map((s) => s.id)).size).toBe(steps.length);
    for (const s of steps) {
      expect([s.id, s.title.length > 5, s.detail.length > 5, (s.rightWhen ?? "").length > 3]).toEqual([s.id, true, true, true]);
      expect(s.minutes.handsOn).toBeGreaterThan(0);
      expect(s.minutes.handsOn).toBeLessThanOrEqual(60);
      for (const a of s.after) expect((a.why ?? "").length).toBeGreaterThan(5);
    }
    // Common practice: 2 to 5 hours of hands for a custom build; the dome renderer has ten drives and sixteen fans.
    expect(left.handsOn).toBeGreaterThan(100);
    expect(left.handsOn).toBeLessThan(480);
  });
});

describe("from wherever the case lies", () => {
  it("says how it lies, and counts the turn to where the work is", async () => {
    const { build, types } = await planned("fs-1042");
    const turns = (lies: Posture) => orderOf(graphOf(build, types), { lies }).turns;
    expect(turns("standing")).toBeLessThanOrEqual(turns("behind-up"));
    expect(orderOf(graphOf(build, types), { lies: "behind-up" }).lies).toBe("behind-up");
  });
});

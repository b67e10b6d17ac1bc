import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { cases } from "../../tests/cases";
import { DEMO, demo, demoPlan } from "../../tests/fixtures/demo";
import { type Build, buildGraph, type Connection } from "../assembly";
import { hungOn, rootOf } from "../brings";
import { mate } from "../catalogue";
import { checkAll } from "../checks";
import { freeEnds } from "../claims";
import { orderOf } from "../order";
import { plan } from "../plan";
import { powerOn } from ".";

/** The planned build with some plugs put anywhere that their shape allows: rings, chains into themselves, wrong voltages. */
async function scrambled(name: string, picks: readonly [number, number][]): Promise<Build> {
  const made = await demoPlan(name);
  const graph = buildGraph(made.build, demo(name).types);
  const list: Connection[] = made.build.connections.map((c) => ({ ...c, state: "plugged" }));
  const ports = [...graph.ports.values()];
  for (const [n, m] of picks) {
    const c = list[n % list.length];
    const l = c && graph.leads.get(c.lead);
    if (!c || !l || c.place) continue;
    const fits = ports.filter(
      (p) => (l.lead.flow === "out") === (p.port.flow === "in") && mate(l.lead.family, p.port.family, l.lead.key, p.port.key).outcome !== "keyed",
    );
    const to = fits[m % Math.max(1, fits.length)];
    if (!to) continue;
    const was = c.port;
    for (const o of list) if (o !== c && o.port === to.address && !o.place) o.port = was;
    c.port = to.address;
  }
  return { ...made.build, connections: list };
}

describe("whatever hands have plugged", () => {
  it.each(DEMO)("%s: every question gets an answer, none hangs or throws", async (name) => {
    await fc.assert(
      fc.asyncProperty(fc.array(fc.tuple(fc.nat(), fc.nat()), { minLength: 1, maxLength: 12 }), async (picks) => {
        const build = await scrambled(name, picks);
        const graph = buildGraph(build, demo(name).types);
        for (const p of graph.ports.values()) {
          rootOf(graph, p);
          hungOn(graph, p);
        }
        const findings = checkAll(graph);
        const on = powerOn(graph);
        expect(on.verdict.length).toBeGreaterThan(10);
        // Harm is never pressed through in silence.
        if (on.damage.length > 0) expect(findings.some((f) => f.severity === "stop")).toBe(true);
        expect(orderOf(graph).steps.length).toBeGreaterThan(build.connections.length);
        freeEnds(graph);
      }),
      cases(60, 53),
    );
  });
  it("a splitter plugged into a splitter that hangs on it: said, and planned round", async () => {
    const made = await demoPlan("fs-1041");
    const { types } = demo("fs-1041");
    const graph = buildGraph(made.build, types);
    const splitters = made.build.parts.filter((p) => graph.parts.get(p.id)?.type.kind === "splitter").map((p) => p.id);
    expect(splitters.length).toBeGreaterThan(1);
    const [a, b] = splitters;
    const ring: Build = {
      ...made.build,
      connections: [
        ...made.build.connections.filter((c) => ![`${a}:in`, `${b}:in`].includes(c.lead) && ![`${a}:out-1`, `${b}:out-1`].includes(c.port)),
        { lead: `${a}:in`, port: `${b}:out-1`, state: "plugged" },
        { lead: `${b}:in`, port: `${a}:out-1`, state: "plugged" },
      ],
    };
    const ringed = buildGraph(ring, types);
    expect(checkAll(ringed).some((f) => f.rule === "dangling")).toBe(true);
    expect(powerOn(ringed).verdict).toMatch(/^If you press now/);
    const again = await plan(ring, types);
    expect(again.connections.filter((c) => c.state === "plugged").map((c) => c.lead)).toEqual(expect.arrayContaining([`${a}:in`, `${b}:in`]));
  }, 60_000);
});

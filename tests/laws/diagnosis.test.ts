import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { buildGraph, type Graph, withConnections } from "../../core/assembly";
import { type Backward, backwardOf, elsewhere, type Happened, isOff, leadsTo } from "../../core/diagnose";
import { powerOn } from "../../core/machine";
import { plan } from "../../core/plan";
import { cases } from "../cases";
import { advised, hunt } from "../fixtures/hunt";
import { build, recipe } from "./builds";
import { allPlugged } from "./plugged";

const { numRuns, seed: SEED } = cases(30, 20261126);
const RUNS = Number(process.env.LAWS_RUNS ?? numRuns);
const DEADLINE_S = 8;

/** What is true of every answer on the way: the true cause is never cleared, nothing is proposed twice, every "because" is true. */
function judged(graph: Graph, b: Backward, elements: readonly string[]) {
  return (happened: readonly Happened[]) => {
    const a = leadsTo(graph, { happened }, b);
    const sum = a.suspects.reduce((n, s) => n + s.share, 0);
    expect(sum).toBeLessThanOrEqual(2.01);
    for (const e of elements) expect([elements, e, a.cleared.some((c) => c.id === e)]).toEqual([elements, e, false]);
    const off = happened.filter((h): h is { line: string; value: string } => "line" in h && isOff(b, h));
    for (const s of a.suspects) {
      const of = b.suspected.find((x) => x.causes[0]?.id === s.id);
      const alone = /^It alone explains/.test(s.why) && !happened.some((h) => "deed" in h && h.result !== "no change");
      if (alone) for (const o of off) expect([s.id, o, of?.effect.has(o.line)]).toEqual([s.id, o, true]);
    }
    if (a.next) {
      expect(happened.some((h) => "deed" in h && h.deed === a.next?.id)).toBe(false);
      expect(a.next.outcomes.reduce((n, o) => n + o.share, 0)).toBeCloseTo(1, 1);
    }
  };
}

describe("laws of the diagnosis over generated builds", () => {
  it(
    "one thing that is wrong is never cleared and is found by following the advice",
    async () => {
      let found = 0;
      await fc.assert(
        fc.asyncProperty(recipe, fc.array(fc.nat(), { minLength: 5, maxLength: 5 }), async (r, picks) => {
          const { build: given, types } = build(r);
          const graph = buildGraph(allPlugged((await plan(given, types, { deadlineS: DEADLINE_S })).build), types);
          const b = backwardOf(graph);
          if (b.damage.length > 0) return;
          const causes = b.suspected.flatMap((s) => s.causes);
          for (const pick of picks) {
            const c = causes[pick % causes.length];
            if (!c) return;
            const h = hunt(graph, b, { [c.element]: c.mode }, advised(graph, b), { most: 80, check: judged(graph, b, [c.element]) });
            expect([c.id, h.ended, h.deeds]).toEqual([c.id, true, [...new Set(h.deeds)]]);
            found++;
          }
        }),
        { numRuns: Math.max(3, RUNS), seed: SEED },
      );
      expect(found).toBeGreaterThan(RUNS);
    },
    120_000 + RUNS * 20_000,
  );

  it(
    "of two things that are wrong both are found by following the advice, looking anew at what changed",
    async () => {
      let found = 0;
      let most = 0;
      await fc.assert(
        fc.asyncProperty(recipe, fc.array(fc.tuple(fc.nat(), fc.nat()), { minLength: 5, maxLength: 5 }), async (r, picks) => {
          const { build: given, types } = build(r);
          const graph = buildGraph(allPlugged((await plan(given, types, { deadlineS: DEADLINE_S })).build), types);
          const b = backwardOf(graph);
          if (b.damage.length > 0) return;
          const causes = b.suspected.flatMap((s) => s.causes);
          for (const pair of picks) {
            const two = pair.flatMap((n) => causes[n % causes.length] ?? []);
            const h = hunt(graph, b, Object.fromEntries(two.map((c) => [c.element, c.mode])), advised(graph, b), { most: 120 });
            expect([two.map((c) => c.id), h.ended, h.deeds]).toEqual([two.map((c) => c.id), true, h.deeds]);
            most = Math.max(most, h.deeds.length);
            found++;
          }
        }),
        { numRuns: Math.max(3, RUNS), seed: SEED },
      );
      if (process.env.LAWS_SAY) console.log({ found, most });
      expect(found).toBeGreaterThan(RUNS);
    },
    120_000 + RUNS * 20_000,
  );

  it(
    "what is put elsewhere tells the port from the device as it is said: it works there where the port is dead, and nothing else comes to harm",
    async () => {
      const said = { free: 0, exchanged: 0 };
      await fc.assert(
        fc.asyncProperty(recipe, async (r) => {
          const { build: given, types } = build(r);
          const graph = buildGraph(allPlugged((await plan(given, types, { deadlineS: DEADLINE_S })).build), types);
          const before = powerOn(graph);
          const leadOf = (line: string) => line.slice(line.indexOf(":") + 1);
          const works = new Set(before.lines.filter((l) => l.works).map((l) => leadOf(l.id)));
          for (const port of new Set(before.lines.flatMap((l) => l.leans.filter((e) => e.kind === "port").map((e) => e.id)))) {
            const other = elsewhere(graph, port, works);
            if (!other) continue;
            const to = new Map(other.moves.map((m) => [m.lead, m.port]));
            const moved = withConnections(
              graph,
              graph.connections.map((c) => ({ ...c, port: to.get(c.lead) ?? c.port })),
            );
            expect([port, other.action, powerOn(moved).damage]).toEqual([port, other.action, []]);
            // Of what has a line of its own: with the port dead it works in its new place, and what came from there does not.
            const now = new Map(powerOn(moved, new Set([port])).lines.map((l) => [leadOf(l.id), l]));
            const [mine, theirs] = other.moves.map((m) => m.lead);
            if (mine && works.has(mine)) expect([port, other.action, now.get(mine)?.works]).toEqual([port, other.action, true]);
            if (theirs) expect([port, other.action, now.get(theirs)?.works]).toEqual([port, other.action, false]);
            said[theirs ? "exchanged" : "free"]++;
          }
        }),
        { numRuns: Math.max(3, Math.ceil(RUNS / 2)), seed: SEED },
      );
      if (process.env.LAWS_SAY) console.log(said);
      expect([said.free > RUNS, said.exchanged > RUNS / 10]).toEqual([true, true]);
    },
    120_000 + RUNS * 20_000,
  );
});

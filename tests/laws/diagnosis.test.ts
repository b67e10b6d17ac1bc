import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { buildGraph, withConnections } from "../../core/assembly";
import { diagnose, elsewhere, type Seen } from "../../core/diagnose";
import { type Element, powerOn } from "../../core/machine";
import { plan } from "../../core/plan";
import { cases } from "../cases";
import { build, recipe } from "./builds";
import { allPlugged } from "./plugged";

const { numRuns, seed: SEED } = cases(30, 20261126);
const RUNS = Number(process.env.LAWS_RUNS ?? numRuns);
const DEADLINE_S = 8;

describe("laws of the diagnosis over generated builds", () => {
  it(
    "one thing that is bad is never cleared by what works, is found by following the advice, and no sentence says nothing",
    async () => {
      let found = 0;
      await fc.assert(
        fc.asyncProperty(recipe, fc.array(fc.nat(), { minLength: 6, maxLength: 6 }), async (r, picks) => {
          const { build: given, types } = build(r);
          const graph = buildGraph(allPlugged((await plan(given, types, { deadlineS: DEADLINE_S })).build), types);
          const { lines } = powerOn(graph);
          const elements = [...new Map<string, Element>(lines.flatMap((l) => l.leans).map((e) => [e.id, e])).values()];
          for (const pick of picks) {
            const bad = elements[pick % elements.length];
            if (!bad) return;
            const real = new Map(powerOn(graph, new Set([bad.id])).lines.map((l) => [l.id, l]));
            const seen = lines.map(
              (l): Seen => ({ line: l.id, asExpected: real.get(l.id)?.expected === l.expected, value: real.get(l.id)?.expected ?? "" }),
            );
            if (seen.every((s) => s.asExpected)) continue;
            const tried = new Set<string>();
            for (;;) {
              const d = diagnose(lines, seen, tried);
              expect([bad.id, d.cleared.map((c) => c.name)]).toEqual([bad.id, expect.not.arrayContaining([bad.name])]);
              for (const s of d.suspects) {
                const [before, after] = s.why.replace(/ does\.$|[.:].*$/, "").split(" works only if ");
                expect([s.why, before === after]).toEqual([s.why, false]);
              }
              const id = d.next?.element.id;
              expect([bad.id, id !== undefined && !tried.has(id)]).toEqual([bad.id, true]);
              if (id === undefined || id === bad.id) break;
              tried.add(id);
            }
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
    "of two things that are bad none is cleared by what works; both are found by following the advice, looking anew at what changed",
    async () => {
      let found = 0;
      let most = 0;
      await fc.assert(
        fc.asyncProperty(recipe, fc.array(fc.tuple(fc.nat(), fc.nat()), { minLength: 6, maxLength: 6 }), async (r, picks) => {
          const { build: given, types } = build(r);
          const graph = buildGraph(allPlugged((await plan(given, types, { deadlineS: DEADLINE_S })).build), types);
          const { lines } = powerOn(graph);
          const elements = [...new Map<string, Element>(lines.flatMap((l) => l.leans).map((e) => [e.id, e])).values()];
          const look = (bad: ReadonlySet<string>): Seen[] => {
            const real = new Map(powerOn(graph, bad).lines.map((l) => [l.id, l]));
            return lines.map((l) => ({ line: l.id, asExpected: real.get(l.id)?.expected === l.expected, value: real.get(l.id)?.expected ?? "" }));
          };
          for (const pair of picks) {
            const bad = new Set(pair.flatMap((n) => elements[n % elements.length]?.id ?? []));
            const names = [...bad];
            let seen = look(bad);
            const tried = new Set<string>();
            let tries = 0;
            while (seen.some((s) => !s.asExpected)) {
              const d = diagnose(lines, seen, tried);
              const cleared = d.cleared.map((c) => c.name);
              for (const e of elements) if (bad.has(e.id)) expect([names, e.name, cleared.includes(e.name)]).toEqual([names, e.name, false]);
              const id = d.next?.element.id;
              expect([names, tries, id !== undefined && !tried.has(id)]).toEqual([names, tries, true]);
              if (id === undefined) break;
              tries++;
              tried.add(id);
              // What was reseated or swapped stays so; who sees a change looks at every line again.
              if (bad.delete(id)) seen = look(bad);
            }
            most = Math.max(most, tries);
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

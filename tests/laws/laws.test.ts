import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { type Build, buildGraph, type Graph, partsOfKind, type TypeLookup } from "../../core/assembly";
import { check, checkAll } from "../../core/checks";
import { account, claimsHere, freeEnds, say } from "../../core/claims";
import { powerOn } from "../../core/machine";
import { cardsOf, doneAfter, faultsOf, orderOfProblem, POSTURES, problemOf, startedBy, stepsByName, stepsFor, undoOf } from "../../core/order";
import { compareCost, FREE_LEVELS, LEVELS, type Plan, plan, verify, waysIn, wholeCost } from "../../core/plan";
import { routesOf } from "../../core/routes";
import { isHung } from "../../core/space";
import { runOf, wayWords } from "../../core/wiring";
import { cases } from "../cases";
import { build, type Recipe, recipe } from "./builds";
import { claimHolds } from "./claim-holds";
import { loosened } from "./loosened";
import { allPlugged, scrambled } from "./plugged";

/** `npm run laws` asks for more builds and a fresh seed; `npm test` runs these. */
const { numRuns, seed: SEED } = cases(30, 20261126);
const RUNS = Number(process.env.LAWS_RUNS ?? numRuns);
const runs = (share = 1) => ({ numRuns: Math.max(3, Math.round(RUNS * share)), seed: SEED, endOnFailure: RUNS > 100 });
const DEADLINE_S = 8;
const LIMIT_MS = 120_000 + RUNS * 20_000;

const planned = async (r: Recipe) => {
  const given = build(r);
  const made = await plan(given.build, given.types, { deadlineS: DEADLINE_S });
  return { ...given, made, after: buildGraph(made.build, given.types) };
};
const nothingMissing = (made: Plan) => made.status === "proved" && made.free.every((f) => f.need === "optional");
/** Rules about the choice of parts, not about their wiring. */
const OF_PARTS = new Set(["supply-size", "memory-pair", "memory-speed", "cooling-sold"]);

/** Ports that something hides, whatever the board: cards, coolers, radiators, supplies and memory over anything. */
const hidden = fc.array(fc.tuple(fc.nat(40), fc.constantFrom("card", "cooler", "supply", "radiator", "memory")), { maxLength: 6 });
type Hides = readonly (readonly [number, "card" | "cooler" | "supply" | "radiator" | "memory"])[];
const withHidden =
  (types: TypeLookup, hides: Hides): TypeLookup =>
  (id) => {
    const t = types(id);
    if (!t || hides.length === 0 || (t.kind !== "board" && t.kind !== "card")) return t;
    const ports = t.ports.map((p, i) => ({ ...p, coveredBy: hides.filter(([at]) => at % t.ports.length === i).map(([, by]) => by) }));
    return { ...t, ports };
  };

describe("laws over generated builds", () => {
  it(
    "1: a proved plan with nothing free is clean, and all of it works when it is plugged",
    async () => {
      await fc.assert(
        fc.asyncProperty(recipe, async (r) => {
          const { made, after, types } = await planned(r);
          expect(made.broken).toEqual([]);
          // What is drawn and printed of a lead's length says that it reaches, as the planner found.
          expect(
            routesOf(after).routes.flatMap((x) => (x.needMm > x.hasMm ? [`${x.lead} into ${x.port}: ${x.needMm} of ${x.hasMm} mm`] : [])),
          ).toEqual([]);
          for (const { lead, port } of after.connections) {
            const [l, p] = [after.leads.get(lead), after.ports.get(port)];
            const run = l && p && runOf(after, l, p);
            if (run) expect([lead, port, run.needMm <= run.hasMm]).toEqual([lead, port, true]);
          }
          if (!nothingMissing(made)) return;
          expect(check(after, "plan").filter((f) => f.severity !== "note" && !OF_PARTS.has(f.rule))).toEqual([]);
          const on = powerOn(buildGraph(allPlugged(made.build), types));
          expect([on.damage, on.stopsAt, on.lines.filter((l) => !l.works)]).toEqual([[], undefined, []]);
        }),
        runs(),
      );
    },
    LIMIT_MS,
  );

  it(
    "2: what the checks stop is never planned; what the planner refuses is at least a warning once it is plugged",
    async () => {
      await fc.assert(
        fc.asyncProperty(recipe, fc.array(fc.tuple(fc.nat(), fc.nat()), { minLength: 1, maxLength: 4 }), async (r, picks) => {
          const { made, after, types, graph } = await planned(r);
          const stops = check(after, "plan").filter((f) => f.severity === "stop" && !OF_PARTS.has(f.rule));
          const missing = new Set(made.free.filter((f) => f.need === "mandatory").map((f) => f.end));
          // A stop is about something that stays free, and the plan says so; nothing else is one.
          for (const s of stops) expect([s.message, s.ends.some((e) => missing.has(e)) || s.rule === "cpu-power"]).toEqual([s.message, true]);
          const wrong = verify(scrambled(made.build, types, picks, "planned"), graph, made.build).broken;
          if (wrong.length === 0) return;
          const found = checkAll(scrambled(made.build, types, picks, "plugged"));
          expect([wrong, found.some((f) => f.severity !== "note")]).toEqual([wrong, true]);
        }),
        runs(),
      );
    },
    LIMIT_MS,
  );

  it(
    "4 and 5: every sentence is true and every end accounted for: not planned, planned, plugged at random, stale",
    async () => {
      const judge = (graph: Graph) => {
        const claims = [...graph.connections.flatMap((c) => claimsHere(graph, c)), ...freeEnds(graph).map((f) => f.claim)];
        expect(claims.filter((c) => !claimHolds(graph, c)).map((c) => [say(graph, c), c])).toEqual([]);
        for (const c of claims) expect([c, say(graph, c)]).toEqual([c, expect.stringMatching(/^\S+ .*\.$/s)]);
        const free = new Set(freeEnds(graph).map((f) => f.end));
        const where = account(graph);
        for (const l of graph.leads.keys()) expect([l, where.has(l)]).toEqual([l, true]);
        for (const [end, at] of where) if (at === "free") expect([end, free.has(end)]).toEqual([end, true]);
      };
      await fc.assert(
        fc.asyncProperty(recipe, fc.array(fc.tuple(fc.nat(), fc.nat()), { minLength: 1, maxLength: 8 }), async (r, picks) => {
          const { made, after, types, graph } = await planned(r);
          judge(graph);
          judge(after);
          judge(scrambled(made.build, types, picks));
          judge(buildGraph({ ...made.build, connections: made.build.connections.filter((_, i) => i % 4 !== 1) }, types));
        }),
        runs(),
      );
    },
    LIMIT_MS,
  );

  it(
    "6 and 7: the order of the input changes nothing, and planning again changes nothing",
    async () => {
      await fc.assert(
        fc.asyncProperty(recipe, async (r) => {
          const { made, build: given, types } = await planned(r);
          if (made.status !== "proved") return;
          const turned = await plan({ ...given, parts: [...given.parts].reverse(), accessories: [...given.accessories].reverse() }, types, {
            deadlineS: DEADLINE_S,
          });
          const where = (p: Plan) => Object.fromEntries(p.connections.map((c) => [c.lead, c.port]));
          if (turned.status === "proved") expect(compareCost(turned.cost, made.cost)).toBe(0);
          const again = await plan(made.build, types, { deadlineS: DEADLINE_S });
          expect(where(again)).toEqual(where(made));
          expect(again.cost.changes).toBe(0);
        }),
        runs(0.5),
      );
    },
    LIMIT_MS,
  );

  it(
    "9: one more header, cable or accessory never makes a plan worse",
    async () => {
      await fc.assert(
        fc.asyncProperty(
          recipe,
          fc.constantFrom("header" as const, "split2" as const, "split3" as const, "extension" as const, "pigtail" as const),
          async (r, more) => {
            const { made } = await planned(r);
            const richer: Recipe =
              more === "header"
                ? { ...r, headers: [...r.headers, { limitA: 1, control: "both" }] }
                : more === "pigtail"
                  ? { ...r, pigtails: r.pigtails + 1 }
                  : { ...r, accessories: { ...r.accessories, [more]: r.accessories[more] + 1 } };
            const other = await planned(richer);
            if (made.status !== "proved" || other.made.status !== "proved") return;
            // The lines along which leads are led go through the ports of the board: with one more of them a way may be some
            // millimetres longer. So the plan without is priced where there is more.
            const there: Build = { ...other.build, parts: made.build.parts, connections: made.build.connections };
            const [a, b] = [other.made.cost, { ...wholeCost(there, other.types), changes: made.cost.changes }];
            expect([compareCost(a, b) <= 0, LEVELS.filter((l) => a[l] !== b[l]).map((l) => [l, b[l], a[l]])]).toEqual([true, expect.anything()]);
          },
        ),
        runs(0.5),
      );
    },
    LIMIT_MS,
  );

  it(
    "what is said to let in what stays free lets it in: a plan with it is made, and says so itself",
    async () => {
      await fc.assert(
        fc.asyncProperty(recipe, async (r) => {
          const { made, types } = await planned(r);
          const wanted = made.free.filter((f) => f.need !== "optional").map((f) => f.end);
          const ways = await waysIn(made, types, { deadlineS: DEADLINE_S });
          if (wanted.length === 0) {
            expect(ways).toBeUndefined();
            return;
          }
          if (!ways) throw new Error("nothing is said");
          expect([...ways.lets, ...ways.left].sort()).toEqual(wanted.sort());
          expect(ways.needs.length > 0).toBe(ways.lets.length > 0);
          for (const n of ways.needs) expect(wayWords(buildGraph(made.build, types), types, n)).not.toMatch(/undefined|NaN|(^|\s)(0|-\d+) /);
          if (ways.lets.length === 0 || made.status !== "proved" || !ways.proved) return;
          const then = loosened(made.build, types, ways.needs);
          const other = await plan(then.build, then.types, { deadlineS: DEADLINE_S });
          if (other.status !== "proved") return;
          const freeIn = (p: Plan) => FREE_LEVELS.map((l) => p.cost[l]);
          const [before, after] = [freeIn(made), freeIn(other)];
          const first = before.findIndex((n, i) => n !== after[i]);
          const told = [ways, other.free.map((f) => f.end)];
          expect([told, (after[first] ?? 0) < (before[first] ?? 0)]).toEqual([told, true]);
          if (ways.left.length === 0) expect([told, after]).toEqual([told, before.map(() => 0)]);
          // All of it is needed: without any one of it something stays free that it lets in.
          // An accessory that may be ordered comes by itself once the rest is there.
          for (const n of ways.needs.filter((x) => x.kind !== "accessory" || !r.policy.mayOrder).slice(0, 3)) {
            const fewer = "count" in n && n.count > 1 ? [{ ...n, count: n.count - 1 }] : [];
            const less = loosened(made.build, types, [...ways.needs.filter((x) => x !== n), ...fewer]);
            const without = await plan(less.build, less.types, { deadlineS: DEADLINE_S });
            if (without.status === "proved") expect([told, n, freeIn(without)]).not.toEqual([told, n, after]);
          }
        }),
        runs(0.5),
      );
    },
    LIMIT_MS,
  );

  it(
    "order: valid step by step in every posture, whatever is plugged already; a ring is said; undoing and doing again comes back to the same",
    async () => {
      await fc.assert(
        fc.asyncProperty(recipe, fc.constantFrom(...POSTURES), fc.nat(), hidden, async (r, lies, n, hides) => {
          const { made, types } = await planned(r);
          const graph = buildGraph(made.build, withHidden(types, hides));
          const problem = problemOf(graph);
          for (const c of problem.conflicts) expect([c.steps.length > 0, c.why.length > 20]).toEqual([true, true]);
          const whole = orderOfProblem(problem, lies);
          expect(faultsOf(problem, whole, made.build)).toEqual([]);
          // What is plugged for the start on the table starts it, where the plan misses nothing.
          const rigged = whole.steps.find((x) => x.rig);
          if (rigged && nothingMissing(made)) {
            const on = powerOn(startedBy(graph, rigged), undefined, false);
            const why = on.lines.find((l) => l.id === on.stopsAt || (on.stopsAt === "memory" && l.id === "memory-stage"))?.because;
            expect([on.damage, on.stopsAt === undefined || why === "Nothing gives a picture.", on.stopsAt, why]).toEqual([[], true, on.stopsAt, why]);
          }
          // Whatever is in the machine at the end has been put in by somebody.
          const fitted = new Set(whole.steps.flatMap((x) => (x.kind === "fit" || x.kind === "assemble" ? x.parts : [])));
          const toFit = (["board", "supply", "cooler", "fan", "hub", "usb-hub", "lighting"] as const).flatMap((kind) => partsOfKind(graph, kind));
          expect(toFit.filter((p) => !fitted.has(p.id) && !isHung(p)).map((p) => p.id)).toEqual([]);
          // Where nothing is known, or nothing is to be done, no number is said.
          const words = [
            ...whole.steps.flatMap((s) => [s.title, s.detail, s.rightWhen ?? "", s.caution ?? "", s.coversWords ?? ""]),
            ...cardsOf(whole.steps, whole.blocks).map((c) => c.title),
          ];
          const titles = cardsOf(whole.steps, whole.blocks).map((c) => c.title);
          expect(titles.filter((t, i) => titles.indexOf(t) !== i)).toEqual([]);
          expect(words.filter((t) => /(^|[ (])(0 (?!of|V|mm)[a-z]|1 [a-z]+s\b(?! own)|undefined|NaN|\? )/.test(t))).toEqual([]);
          // What is done first, by hands that follow it.
          const did = new Set(whole.steps.slice(0, n % (whole.steps.length + 1)).map((s) => s.id));
          // What an entry asks of one step is what the whole says of it, also when it is too late.
          const then = buildGraph({ ...made.build, done: [...did].filter((id) => !id.startsWith("plug:")) }, withHidden(types, hides));
          const { works, late } = stepsFor(then);
          const all = [...works.values(), ...late];
          const step = stepsByName(then);
          const named = (w: ReturnType<typeof step>) => [w?.id, w?.title, w?.measure];
          // Those that follow from ways come late, so that others are asked for without them; then all again, with them.
          const some = [...all].sort((a, b) => Number(/^(route|dress|tie)/.test(a.id)) - Number(/^(route|dress|tie)/.test(b.id)));
          for (let i = 0; i < 2; i++) expect(some.map((w) => named(step(w.id)))).toEqual(some.map(named));
          expect(step("no-such-step")).toBeUndefined();
          const half = { ...problem, works: problem.works.map((w) => ({ ...w, done: did.has(w.id) })) };
          const rest = orderOfProblem(half);
          expect(faultsOf(half, rest, made.build).filter((f) => !f.includes("put back"))).toEqual([]);
          expect(rest.turns).toBeLessThanOrEqual(orderOfProblem(problem).turns + 1);
          for (const w of half.works.filter((x) => x.done).slice(0, 6)) {
            const undo = undoOf(half, w.id);
            const left = undo && doneAfter(half, undo);
            const again = { ...half, works: half.works.map((x) => ({ ...x, done: left?.has(x.id) ?? false })) };
            const back = orderOfProblem(again);
            expect(faultsOf(again, back, made.build).filter((f) => !f.includes("put back"))).toEqual([]);
            for (const b of undo?.back ?? []) expect([b.step, left?.has(b.step)]).toEqual([b.step, false]);
          }
        }),
        runs(),
      );
    },
    LIMIT_MS,
  );
});

import { type Backward, backwardOf, deedsOf, type Happened, leadsTo } from "../core/diagnose";
import { type Assignment, simulate } from "../core/machine";
import { pluggedDemo } from "../tests/fixtures/demo";
import { advised, hunt, type Strategy } from "../tests/fixtures/hunt";
import { byShareOverMinutes, checklist, drawn, likeliest } from "../tests/fixtures/strategies";

/** So many pairs of causes are drawn for each machine; BENCH_DOUBLES says otherwise. */
const DOUBLES = Number(process.env.BENCH_DOUBLES ?? 60);
const MOST_DEEDS = 300;
/** All demo machines; BENCH_MACHINES names some. */
const MACHINES = (process.env.BENCH_MACHINES ?? "fs-1041,fs-1042,fs-1043,fs-1044,fs-1045,fs-1046,fs-1047,fs-1048").split(",");

/** The same numbers for the same start. */
function rolls(seed: number): () => number {
  let x = seed >>> 0;
  return () => {
    x = (Math.imul(x, 1664525) + 1013904223) >>> 0;
    return x / 2 ** 32;
  };
}

interface Case {
  modes: Assignment;
  weight: number;
}

const singlesOf = (b: Backward): Case[] =>
  b.suspected.flatMap((s) => s.causes.map((c) => ({ modes: { [c.element]: c.mode }, weight: c.perTenThousand })));

function doublesOf(b: Backward, n: number): Case[] {
  const next = rolls(7);
  const causes = b.suspected.flatMap((s) => s.causes);
  return Array.from({ length: n }, () => {
    const [x, y] = [causes[Math.floor(next() * causes.length)], causes[Math.floor(next() * causes.length)]];
    return { modes: { ...(x ? { [x.element]: x.mode } : {}), ...(y ? { [y.element]: y.mode } : {}) }, weight: 1 };
  });
}

interface Figures {
  minutes: number[];
  weighted: number;
  deeds: number;
  lost: number;
}

function figures(
  graph: Awaited<ReturnType<typeof pluggedDemo>>,
  b: Backward,
  cases: readonly Case[],
  make: (i: number) => Strategy,
  misread = 0,
): Figures {
  const runs = cases.map((c, i) =>
    hunt(graph, b, c.modes, make(i), { most: MOST_DEEDS, ...(misread > 0 ? { misread, roll: rolls(1000 + i) } : {}) }),
  );
  const weight = cases.reduce((n, c) => n + c.weight, 0);
  return {
    minutes: runs.map((r) => r.minutes),
    weighted: runs.reduce((n, r, i) => n + r.minutes * (cases[i]?.weight ?? 0), 0) / weight,
    deeds: runs.reduce((n, r) => n + r.deeds.length, 0) / runs.length,
    lost: runs.filter((r) => !r.ended).length,
  };
}

const mean = (list: readonly number[]) => list.reduce((n, x) => n + x, 0) / list.length;
const at = (list: readonly number[], share: number) =>
  [...list].sort((x, y) => x - y)[Math.min(list.length - 1, Math.floor(list.length * share))] ?? 0;
const told = (name: string, f: Figures) =>
  console.log(
    `  ${name.padEnd(30)} mean ${mean(f.minutes).toFixed(1)} min, by how often ${f.weighted.toFixed(1)}, middle ${at(f.minutes, 0.5)}, 95th ${at(f.minutes, 0.95)}, deeds ${f.deeds.toFixed(1)}${f.lost > 0 ? `, ${f.lost} not found` : ""}`,
  );

const STRATEGIES: Record<string, (graph: Awaited<ReturnType<typeof pluggedDemo>>, b: Backward) => (i: number) => Strategy> = {
  advice: (graph, b) => () => advised(graph, b),
  "p over minutes": (_, b) => () => byShareOverMinutes(b),
  "likeliest first": (_, b) => () => likeliest(b),
  "the trade's checklist": (_, b) => () => checklist(b),
  drawn: (_, b) => (i) => drawn(b, i + 1),
};

for (const [what, casesOf] of [
  ["one thing wrong, every one", singlesOf],
  [`two things wrong, ${DOUBLES} drawn a machine`, (b: Backward) => doublesOf(b, DOUBLES)],
] as const) {
  console.log(`Minutes and deeds to a machine as wanted: ${what}, ${MACHINES.length} demo machines`);
  const all = new Map<string, Figures>();
  for (const name of MACHINES) {
    const graph = await pluggedDemo(name);
    const b = backwardOf(graph);
    if (b.damage.length > 0) continue;
    const cases = casesOf(b);
    const add = (key: string, f: Figures) => {
      const had = all.get(key);
      const n = had?.minutes.length ?? 0;
      const m = f.minutes.length;
      all.set(key, {
        minutes: [...(had?.minutes ?? []), ...f.minutes],
        weighted: ((had?.weighted ?? 0) * n + f.weighted * m) / (n + m),
        deeds: ((had?.deeds ?? 0) * n + f.deeds * m) / (n + m),
        lost: (had?.lost ?? 0) + f.lost,
      });
    };
    for (const [key, make] of Object.entries(STRATEGIES)) add(key, figures(graph, b, cases, make(graph, b)));
    // What the shop believes is wrong three times, either way; so are its minutes by half; two readings of a hundred are misread.
    const roll = rolls(3);
    const keys = [...new Set(b.suspected.flatMap((s) => s.causes.map((c) => `${c.kind} ${c.mode}`)))];
    const off = backwardOf(graph, Object.fromEntries(keys.map((k) => [k, roll() < 0.5 ? 3 : 1 / 3])));
    add(
      "advice, priors 3 times off",
      figures(graph, b, cases, () => advised(graph, off)),
    );
    add(
      "p over minutes, the same",
      figures(graph, b, cases, () => byShareOverMinutes(off)),
    );
    const minutes = Object.fromEntries(deedsOf(b, new Map()).map((d) => [d.id, d.minutes * (roll() < 0.5 ? 1.5 : 0.5)]));
    add(
      "advice, minutes off by half",
      figures(graph, b, cases, () => advised(graph, b, minutes)),
    );
    add(
      "advice, 2 % misread",
      figures(graph, b, cases, () => advised(graph, b), 0.02),
    );
    add(
      "p over minutes, the same ",
      figures(graph, b, cases, () => byShareOverMinutes(b), 0.02),
    );
  }
  for (const [key, f] of all) told(key, f);
}

// After an observation on the large machine, beside working every hypothesis forward anew.
const graph = await pluggedDemo("fs-1043");
const compiled = performance.now();
const b = backwardOf(graph);
console.log(`The large machine: ${b.suspected.length} suspects, worked out once in ${(performance.now() - compiled).toFixed(0)} ms`);
const happened: Happened[] = [
  { line: "standby", value: "lit" },
  { line: "button", value: "starts" },
  { line: "turns:fan-floor-1:lead", value: "still" },
];
const middle = (work: () => unknown, times: number) => {
  const took = Array.from({ length: times }, () => {
    const t = performance.now();
    work();
    return performance.now() - t;
  });
  return at(took, 0.5);
};
const ours = middle(() => leadsTo(graph, { happened }, b), 9);
const brute = middle(() => {
  // Each single cause, and each pair of those that explain something, run forward anew.
  const causes = b.suspected.flatMap((s) => s.causes.slice(0, 1));
  for (const c of causes) simulate(graph, { modes: { [c.element]: c.mode } });
  const explain = b.suspected.filter((s) => s.effect.has("turns:fan-floor-1:lead")).flatMap((s) => s.causes.slice(0, 1));
  for (const [i, x] of explain.entries())
    for (const y of explain.slice(i + 1)) simulate(graph, { modes: { [x.element]: x.mode, [y.element]: y.mode } });
}, 3);
console.log(
  `Ranking and next action after an observation: ${ours.toFixed(0)} ms; every hypothesis forward anew: ${brute.toFixed(0)} ms (${(brute / ours).toFixed(0)} times)`,
);

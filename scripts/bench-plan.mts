import { buildGraph, type PortNode } from "../core/assembly";
import { mate, usable } from "../core/catalogue";
import { type Cost, LEVELS, type Plan, plan, proofWords, SolvedPieces } from "../core/plan";
import { leadToPortMm } from "../core/routes";
import { DEMO, demo } from "../tests/fixtures/demo";
import { generated } from "../tests/fixtures/generated";
import { given, T } from "../tests/fixtures/small";
import { plainFans } from "../tests/referee/plain-model";

/** Median of some runs in ms. */
async function median(runs: number, work: () => Promise<unknown>): Promise<number> {
  const times: number[] = [];
  for (let i = 0; i < runs; i++) {
    const t = performance.now();
    await work();
    times.push(performance.now() - t);
  }
  return times.sort((a, b) => a - b)[Math.floor(runs / 2)] ?? 0;
}

const warm = demo("fs-1048");
await plan(warm.build, warm.types);
/** `tsx scripts/bench-plan.mts again`: only the last part. */
const onlyAgain = process.argv.includes("again");
console.log("Plan of each demo build, median of 3, warm");
for (const name of onlyAgain ? [] : DEMO) {
  const { build, types } = demo(name);
  let leads = 0;
  let status = "";
  const ms = await median(3, async () => {
    const p = await plan(build, types);
    leads = p.leads;
    status = p.status;
  });
  console.log(`  ${name}  ${String(leads).padStart(3)} leads  ${ms.toFixed(0).padStart(6)} ms  ${status}`);
}

console.log("Fans on headers through splitters: the planner against the plain model, same run, median of 3");
for (const n of onlyAgain ? [] : [3, 5, 7]) {
  const { build, types } = given(
    [
      T.case("c", [T.mount("a", "front", 440, 100), T.mount("z", "rear", 10, 120)]),
      T.board("b", [T.header("H1", 20, { role: "cpu-fan" }), T.header("H2", 120), T.header("H3", 220)]),
      T.splitter("s2", 2),
      T.splitter("s3", 3),
      T.fan("f", 0.2),
    ],
    [
      { id: "case", type: "c" },
      { id: "board", type: "b" },
      ...Array.from({ length: n }, (_, i) => ({ id: `f${i}`, type: "f", mount: i % 2 ? "a" : "z" })),
    ],
    {
      policy: { mayOrder: false },
      accessories: [
        { type: "s2", count: 2 },
        { type: "s3", count: 1 },
      ],
    },
  );
  const ours = await median(3, () => plan(build, types));
  const plain = await median(3, () => plainFans(build, types));
  console.log(`  ${n} fans  ours ${ours.toFixed(0)} ms, plain ${plain.toFixed(0)} ms: ${(plain / ours).toFixed(1)} times`);
}

/** Seconds for the whole plan, and for the first. */
const LIMIT_S = 60;
const FIRST_S = 2.5;
const words = (c: Partial<Cost>) =>
  LEVELS.filter((l) => l !== "canonical" && (c[l] ?? 0) > 0)
    .map((l) => `${l} ${c[l]}`)
    .join(", ");
const seconds = async <X,>(work: () => Promise<X> | X): Promise<[number, X]> => {
  const t = performance.now();
  const x = await work();
  return [(performance.now() - t) / 1000, x];
};
const aboveLength = LEVELS.slice(0, LEVELS.indexOf("lengthCm"));
console.log(`Generated builds, one after the other: first plan (asked to stop at ${FIRST_S} s) and whole plan (${LIMIT_S} s)`);
for (const [size, seeds] of [
  [25, [1, 2, 3]],
  [60, [1, 2, 3]],
  [120, [1, 2, 3, 4, 5]],
  [240, [1, 2]],
] as const) {
  if (onlyAgain) break;
  for (const seed of seeds) {
    const { build, types } = generated(size, seed);
    const [firstS, first] = await seconds(() => plan(build, types, { deadlineS: FIRST_S }));
    const [oursS, ours] = await seconds(() => plan(build, types, { deadlineS: LIMIT_S }));
    const level = aboveLength.find((l) => first.cost[l] !== ours.cost[l]);
    const gap = (100 * (first.cost.lengthCm - ours.cost.lengthCm)) / ours.cost.lengthCm;
    const state = (p: Plan) => (p.status === "proved" ? "proved" : proofWords(p));
    console.log(`  ${size}/${seed}  ${ours.leads} leads: ${words(ours.cost)}`);
    console.log(
      `     first ${firstS.toFixed(2)} s (${state(first)}; ${level ? `differs at ${level}: ${first.cost[level]}` : `equal above length, length ${gap >= 0 ? "+" : ""}${gap.toFixed(1)} %`})`,
    );
    console.log(`     whole ${oursS.toFixed(2)} s (${state(ours)})`);
  }
}

if (!onlyAgain) {
  const { build, types } = given(
    [
      T.case(
        "c",
        [0, 1, 2, 3, 4].map((z) => T.mount(`m${z}`, ["front", "top", "rear", "bottom", "side"][z] ?? "front", 60 + 80 * z, 20 + 90 * z)),
      ),
      T.board(
        "b",
        Array.from({ length: 12 }, (_, i) => T.header(`H${i + 1}`, 15 * i, i === 0 ? { role: "cpu-fan" } : {})),
      ),
      T.splitter("s3", 3),
      T.fan("f", 0.2),
    ],
    [
      { id: "case", type: "c" },
      { id: "board", type: "b" },
      ...Array.from({ length: 30 }, (_, i) => ({ id: `f${i}`, type: "f", mount: `m${i % 5}` })),
    ],
    { policy: { mayOrder: false }, accessories: [{ type: "s3", count: 12 }] },
  );
  const [s, p] = await seconds(() => plan(build, types, { deadlineS: LIMIT_S }));
  console.log(
    `Thirty equal fans in five zones on twelve headers with twelve splitters: ${s.toFixed(1)} s, ${p.status}${p.provedTo ? `, settled to ${p.provedTo}` : ""}: ${words(p.cost)}`,
  );
}

console.log("One lead fixed, planned again with proof, over all leads in turn: with solved pieces at hand against from nothing");
for (const [name, { build, types }] of [
  ...["fs-1041", "fs-1043", "fs-1045"].map((n) => [n, demo(n)] as const),
  ["generated 120/1", generated(120, 1)] as const,
]) {
  const bare = { ...build, connections: [] };
  const nothing = await median(3, () => plan(bare, types));
  const planned = (await plan(bare, types)).build;
  const mine = new Set(planned.parts.filter((p) => p.from === "client").map((p) => p.id));
  const graph = buildGraph(planned, types);
  const own = planned.connections.filter((c) => mine.has(c.lead.split(/[:/]/)[0] ?? ""));
  /** The nearest other port that takes the lead, within its reach, and empty. */
  const elsewhere = (lead: string): string | undefined => {
    const l = graph.leads.get(lead);
    if (!l || l.part.cable || l.lead.flow !== "in" || l.lead.family === "panel-loose") return undefined;
    const run = (p: PortNode) => leadToPortMm(graph, l, p);
    return [...graph.ports.values()]
      .filter((p) => p.port.flow === "out" && p.part !== l.part && !graph.atPort.has(p.address) && usable(mate(l.lead.family, p.port.family)))
      .filter((p) => p.part.type.kind === "board" && run(p) <= l.lead.lengthMm)
      .sort((a, b) => run(a) - run(b))[0]?.address;
  };
  const WHERE = [
    "in the nearest other port that is empty, or where the plan has it",
    "where the plan has it",
    "in the nearest other port that is empty",
  ];
  for (const where of WHERE) {
    const times: number[] = [];
    let proved = 0;
    // Each reading begins with what one plan left solved, and no more.
    const solved = new SolvedPieces();
    await plan(bare, types, { solved });
    for (const pick of own) {
      const port = where === WHERE[1] ? pick.port : (elsewhere(pick.lead) ?? (where === WHERE[0] ? pick.port : undefined));
      if (!port) continue;
      const connections = planned.connections.map((c) =>
        c === pick ? { lead: c.lead, port, ...(port === c.port && c.place ? { place: c.place } : {}), state: "fixed" as const } : c,
      );
      const t = performance.now();
      const made = await plan({ ...planned, connections }, types, { solved });
      times.push(performance.now() - t);
      if (made.status === "proved") proved += 1;
    }
    times.sort((a, b) => a - b);
    const middle = times[Math.floor(times.length / 2)] ?? 0;
    console.log(
      `  ${name}  from nothing ${nothing.toFixed(0)} ms; ${times.length} leads fixed ${where}: median ${middle.toFixed(0)} ms, slowest ${(times.at(-1) ?? 0).toFixed(0)} ms, ${proved} proved; median ${(nothing / middle).toFixed(1)} times quicker`,
    );
  }
}

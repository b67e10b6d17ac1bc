import { PieceMemory, plan } from "../core/plan";
import { DEMO, demo } from "../tests/fixtures/demo";
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
console.log("Plan of each demo build, median of 3, warm");
for (const name of DEMO) {
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
for (const n of [3, 5, 7]) {
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

console.log(
  "One lead fixed where the plan has it, planned again with proof, over all leads in turn: with the memory of solved pieces against from nothing",
);
for (const name of ["fs-1041", "fs-1043", "fs-1045"]) {
  const { build, types } = demo(name);
  const bare = { ...build, connections: [] };
  const nothing = await median(3, () => plan(bare, types));
  const memory = new PieceMemory();
  const planned = (await plan(bare, types, { memory })).build;
  const mine = new Set(planned.parts.filter((p) => p.from === "client").map((p) => p.id));
  const times: number[] = [];
  let proved = 0;
  for (const pick of planned.connections) {
    if (!mine.has(pick.lead.split(/[:/]/)[0] ?? "")) continue;
    const fixed = { ...planned, connections: planned.connections.map((c) => (c === pick ? { ...c, state: "fixed" as const } : c)) };
    const t = performance.now();
    const made = await plan(fixed, types, { memory });
    times.push(performance.now() - t);
    if (made.status === "proved") proved += 1;
  }
  times.sort((a, b) => a - b);
  const middle = times[Math.floor(times.length / 2)] ?? 0;
  console.log(
    `  ${name}  from nothing ${nothing.toFixed(0)} ms; ${times.length} leads: median ${middle.toFixed(0)} ms, slowest ${(times.at(-1) ?? 0).toFixed(0)} ms, ${proved} proved; median ${(nothing / middle).toFixed(1)} times quicker`,
  );
}

import { plan } from "../core/plan";
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

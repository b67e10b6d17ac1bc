import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { buildGraph, typeLookup } from "../../core/assembly";
import { mate, measurable, usable } from "../../core/catalogue";
import { plan } from "../../core/plan";
import { Person, type PersonRow } from "../../db";
import { card } from "../../server/bench/card";
import { note } from "../../server/bench/note";
import { plug } from "../../server/bench/plug";
import { step } from "../../server/bench/step";
import { takeBack } from "../../server/entries/take-back";
import { actOn } from "../../server/faults/act";
import { closeFault } from "../../server/faults/close";
import { observe } from "../../server/first-boot/observe";
import { setting } from "../../server/first-boot/setting";
import { startSoak } from "../../server/first-boot/soak";
import { handOver } from "../../server/handover/hand-over";
import { reopen } from "../../server/handover/reopen";
import { changeDetails } from "../../server/job/details";
import { jobFromFile } from "../../server/job/from-file";
import { goOn, park } from "../../server/job/park";
import { setAside } from "../../server/job/set-aside";
import { changeWishes } from "../../server/job/wishes";
import { canNow, tryPull, undoStep } from "../../server/order/ask";
import { letGo, pullStep } from "../../server/order/pull";
import { addPart } from "../../server/parts/add";
import { changePart } from "../../server/parts/change";
import { measurePart } from "../../server/parts/measure";
import { placePart } from "../../server/parts/place";
import { removePart } from "../../server/parts/remove";
import { fix } from "../../server/plan/fix";
import { planJob } from "../../server/plan/plan-job";
import { leadThrough } from "../../server/plan/way";
import { benchTest } from "../../server/receipt/bench-test";
import { receive } from "../../server/receipt/receive";
import { replacementCame } from "../../server/receipt/replacement";
import { changeSchools } from "../../server/schools/follow";
import { type Action, carryOut } from "../../server/unit/action";
import { viewAtOnce } from "../../server/views/heads";
import type { JobView } from "../../server/views/job-view";
import { keptView } from "../../server/views/kept";
import { benchSlice, bootSlice, faultsSlice, handoverSlice, orderSlice, partsSlice, wiringSlice } from "../../server/views/slices";
import { cases, TRIAL } from "../cases";
import { shelf } from "../fixtures/demo";
import { dice, generated } from "../fixtures/generated";
import { testDatabase } from "./setup";

const db = testDatabase();

/** `LAWS_SEED` and `SHIFT_PRESSES` ask for another and a longer shift. */
const { seed: SEED } = cases(1, 20261128);
const PRESSES = Number(process.env.SHIFT_PRESSES ?? (TRIAL ? 160 : 28));

// biome-ignore lint/suspicious/noExplicitAny: any action at all
type Any = Action<any, any>;
type Roll = ReturnType<typeof dice>;

/** Everything stored of a job. */
async function stored(number: string): Promise<string> {
  const [row] = await db
    .em()
    .execute<{ all: string }[]>(
      `select concat_ws('|', (select j::text from "job" j where j."id" = k."id"), ${[
        "job_part",
        "connection",
        "step_done",
        "step_skipped",
        "fault",
        "observation",
        "finding_override",
        "plan",
      ]
        .map((t) => `(select string_agg(x::text, ';' order by x::text) from "${t}" x where x."job_id" = k."id")`)
        .join(", ")}, (select count(*)::text from "log_entry" e where e."job_id" = k."id")) as "all" from "job" k where k."number" = ?`,
      [number],
    );
  return row?.all ?? "";
}

/** A sentence that somebody can be shown. */
const sound = (text: string) => text.length > 0 && !/undefined|NaN|\[object|\bnull\b| {2}/.test(text);

/** Words anywhere in what screens get. */
function words(value: unknown, at = ""): string[] {
  if (typeof value === "string") return sound(value) || value === "" ? [] : [`${at}: ${value}`];
  if (Array.isArray(value)) return value.flatMap((v, i) => words(v, `${at}[${i}]`));
  if (value !== null && typeof value === "object") return Object.entries(value).flatMap(([k, v]) => words(v, `${at}.${k}`));
  return typeof value === "number" && Number.isNaN(value) ? [`${at}: NaN`] : [];
}

/** A step as a card says it. */
const onCard = (v: JobView, s: JobView["steps"][number] | undefined): Record<string, unknown> => {
  const port = s?.lead && v.leads.find((l) => l.address === s.lead)?.port;
  return port ? { kind: "plug", lead: s.lead, port, state: "plugged" } : { kind: "step", step: s?.id, done: true };
};

/** Something that hands, eyes or the office would say of a job as it is now, sensible or not. */
function press(v: JobView, roll: Roll, n: number): [Any, Record<string, unknown>] {
  const of = <X>(list: readonly X[]): X | undefined => list[roll(0, list.length - 1)];
  const lead = of(v.leads);
  const planned = of(v.leads.filter((l) => l.port && l.state === "planned")) ?? lead;
  const ports = v.build.partTypes.length > 0 ? v.leads.flatMap((l) => l.port ?? []) : [];
  const todo = of(v.steps.filter((s) => !s.done)) ?? of(v.steps);
  const anyStep = of(v.steps);
  const partOf = of(v.build.parts);
  const type = v.build.partTypes.find((x) => x.id === partOf?.type);
  const typeOf = of([...v.build.partTypes, ...shelf].filter((t) => t.kind === type?.kind));
  const seenLine = of(v.power.lines);
  const fault = of(v.faults);
  const made: [Any, Record<string, unknown>][] = [
    [plug, { lead: planned?.address, port: planned?.port ?? of(ports), state: "plugged" }],
    [plug, { lead: planned?.address, port: planned?.port ?? of(ports), state: "plugged", saw: { port: planned?.port ?? null, state: "planned" } }],
    [plug, { lead: lead?.address, port: of(ports), state: of(["plugged", "planned", "checked"]) }],
    [step, { step: todo?.id, done: true, tookS: roll(1, 400) }],
    [step, { step: anyStep?.id, done: roll(0, 2) > 0 }],
    [card, { items: [...new Set([todo, anyStep, of(v.steps)])].map((s) => onCard(v, s)) }],
    [note, { text: `note ${n}`, kind: of(["note", "skip", "problem"]), ...(roll(0, 1) ? { step: anyStep?.id } : {}) }],
    [takeBack, {}],
    [takeBack, {}],
    [observe, { lines: [{ line: seenLine?.id, value: of([seenLine?.expected ?? "", ...(seenLine?.otherwise ?? []), "17"]) || "?" }] }],
    [
      actOn,
      { fault: fault?.number ?? 1, deed: `press:${lead?.address}@${lead?.port}`, result: of(["no change", "that was it", "changed", "impossible"]) },
    ],
    [closeFault, { fault: fault?.number ?? 1, finding: "a loose plug" }],
    [fix, { lead: lead?.address, port: lead?.port ?? of(ports), fixed: roll(0, 1) === 1 }],
    [leadThrough, { lead: lead?.address, cutout: null }],
    [pullStep, { steps: [todo?.id], before: [of(v.steps.filter((s) => !s.done))?.id ?? todo?.id] }],
    [tryPull, { steps: [todo?.id], before: [anyStep?.id] }],
    [undoStep, { step: anyStep?.id }],
    [canNow, { missing: roll(0, 1) ? [partOf?.id] : [], minutes: roll(5, 90) }],
    [letGo, {}],
    [removePart, { part: partOf?.id }],
    [addPart, { type: typeOf?.id, count: 1 }],
    [changePart, { part: partOf?.id, type: typeOf?.id }],
    [changePart, { part: partOf?.id, label: `name ${roll(1, 30)}`, serial: `S-${roll(1, 200)}` }],
    [
      placePart,
      { part: partOf?.id, ...of([{ blows: "in" }, { blows: "out" }, { mount: null }, { reused: true }, { standoffsSet: true }, { cage: "out" }]) },
    ],
    [measurePart, { part: partOf?.id, what: type ? (of(measurable(type))?.what ?? "length") : "length", mm: roll(1, 300) }],
    [receive, { part: partOf?.id, serial: `R-${roll(1, 300)}`, price: roll(0, 900) }],
    [benchTest, { part: partOf?.id, result: of(["passed", "passed", "dead"]) }],
    [replacementCame, { part: partOf?.id }],
    [
      changeSchools,
      { schools: of([{ benchTest: "full" }, { coolerFirst: "after" }, { secondCpuPlug: "fill" }, { mainsV: 115 }, { cooling: "quiet" }]) },
    ],
    [changeWishes, { lighting: of(["wanted", "none", "indifferent"]), upgradeW: roll(0, 400) }],
    [changeDetails, { client: `Client ${roll(1, 9)}`, bench: roll(1, 5) }],
    [setAside, { finding: of(v.findings)?.id ?? "nothing", reason: "the client wants it so" }],
    [
      setting,
      of<Record<string, unknown>>([{ memoryProfile: true }, { memoryProfile: false }, { cpuFanWarning: "ignore", because: "the pump has it" }]) ?? {},
    ],
    [startSoak, {}],
    [park, { for: "a fan", until: null }],
    [goOn, {}],
    [handOver, { reason: roll(0, 1) ? "the client takes it as it is" : "" }],
    [reopen, { reason: "something was forgotten" }],
  ];
  return made[roll(0, made.length - 1)] as [Any, Record<string, unknown>];
}

/** What holds of a job whatever was said of it; `told` says what that was. */
async function looksRight(told: string, number: string): Promise<JobView> {
  const after = await viewAtOnce(db.em(), number);
  if (!after) throw new Error(told);
  // What is kept is what would be derived anew.
  expect([told, JSON.stringify(await keptView(db.em(), number)) === JSON.stringify(after)]).toEqual([told, true]);
  for (const slice of [wiringSlice, partsSlice, orderSlice, benchSlice, handoverSlice, bootSlice, faultsSlice])
    expect([told, words(slice(after))]).toEqual([told, []]);
  expect([told, words(after.log)]).toEqual([told, []]);
  const { steps, leads: all } = after;
  expect([told, new Set(steps.map((s) => s.id)).size]).toEqual([told, steps.length]);
  // Nothing is planned for where it does not belong.
  const graph = buildGraph(after.build, typeLookup(after.build, []));
  const astray = graph.connections.filter((c) => {
    const [l, p] = [graph.leads.get(c.lead)?.lead, graph.ports.get(c.port)?.port];
    return (c.state === "planned" || c.state === "fixed") && (!l || !p || !usable(mate(l.family, p.family, l.key, p.key)));
  });
  expect([told, astray]).toEqual([told, []]);
  const inPort = all.filter((l) => l.port && l.state !== "planned");
  expect([told, inPort.filter((l) => !l.portName).map((l) => l.address)]).toEqual([told, []]);
  return after;
}

describe.each([
  ["a generated build of 24 leads", 1, () => JSON.stringify(generated(24, SEED + 1).build)],
  ["a build of the shop's own parts", 3, () => readFileSync(`examples/fs-104${1 + (SEED % 8)}.json`, "utf8")],
] as const)("a shift on %s", (_what, nth, text) => {
  it(`${PRESSES} presses, sensible and not: refused ones change nothing, others are told once, and every screen can be made of it`, async () => {
    const roll = dice(SEED + nth);
    const people = (await db.em().find(Person, { role: { $in: ["technician", "lead"] } }, { limit: 3 })) as PersonRow[];
    const first = people[0] as PersonRow;
    const read = await carryOut(db.em(), first, jobFromFile, { text: text() });
    if (!read.ok) throw new Error(read.sentence);
    const number = read.value as string;
    const planned = async () => planJob(db.em(), number, first, (build) => plan(build, typeLookup(build, []), { deadlineS: 3 }));
    await planned();
    let taken = 0;
    const names = new Map<string, [ok: number, no: number]>();
    const refusals = new Set<string>();
    for (let n = 0; n < PRESSES; n++) {
      const before = await db.view(number);
      // Parts that moved are planned for again now and then, and what was handed over or parked is taken up again.
      if (before.plan?.stale && roll(0, 3) === 0) await planned();
      const closed = before.head.stage === "handed-over" && roll(0, 2) > 0;
      const waits = before.head.stage === "waiting" && roll(0, 2) > 0;
      const [action, input] = closed ? [reopen as Any, { reason: "something was forgotten" }] : waits ? [goOn as Any, {}] : press(before, roll, n);
      const by = people[roll(0, people.length - 1)] as PersonRow;
      const was = await stored(number);
      const entry = { key: `${number}-${n}` };
      const told = `${n}: ${action.name} ${JSON.stringify(input)}`;
      const said = await carryOut(db.em(), by, action, { number, ...input }, entry).catch((e: unknown) => {
        throw new Error(`${told}: ${e instanceof Error ? e.stack : e}`);
      });
      const is = await stored(number);
      const counts = names.get(action.name) ?? [0, 0];
      names.set(action.name, said.ok ? [counts[0] + 1, counts[1]] : [counts[0], counts[1] + 1]);
      if (!said.ok) {
        refusals.add(`${action.name}: ${said.sentence}`);
        expect([told, said.sentence]).toEqual([told, expect.stringMatching(/^\S.*[.?]$/s)]);
        expect([told, sound(said.sentence)]).toEqual([told, true]);
        expect([told, said.sentence, is === was]).toEqual([told, said.sentence, true]);
        continue;
      }
      taken++;
      // Sent once more, it changes nothing.
      const again = await carryOut(db.em(), by, action, { number, ...input }, entry);
      if (action !== takeBack || said.revision !== before.head.revision) expect([told, again.ok]).toEqual([told, true]);
      expect([told, (await stored(number)) === is]).toEqual([told, true]);
      const after = await looksRight(told, number);
      if ("revision" in said && said.revision !== undefined) expect([told, after.head.revision]).toEqual([told, said.revision]);
    }
    if (process.env.SHIFT_PRESSES) console.log([...names].map(([k, [ok, not]]) => `${k} ${ok}/${not}`).join(", "), [...refusals].sort().join("\n"));
    expect(taken).toBeGreaterThan(PRESSES / 4);
  }, 600_000);

  it(`${PRESSES / 4} times two people at the same moment: each is taken once or refused in a sentence, nothing is lost or torn`, async () => {
    const roll = dice(SEED + 7 * nth);
    const people = (await db.em().find(Person, { role: { $in: ["technician", "lead"] } }, { limit: 3 })) as PersonRow[];
    const [one, two] = people as [PersonRow, PersonRow];
    const read = await carryOut(db.em(), one, jobFromFile, { text: text() });
    if (!read.ok) throw new Error(read.sentence);
    const number = read.value as string;
    await planJob(db.em(), number, one, (build) => plan(build, typeLookup(build, []), { deadlineS: 3 }));
    let both = 0;
    for (let n = 0; n < PRESSES / 4; n++) {
      const before = await db.view(number);
      const closed = before.head.stage === "handed-over" || before.head.stage === "waiting";
      const [a, b] = closed
        ? [[before.head.stage === "waiting" ? goOn : reopen, { reason: "goes on" }] as [Any, object], press(before, roll, n)]
        : [press(before, roll, n), press(before, roll, n)];
      const entries = [0, 1].map((i) => ({ key: `${number}-pair-${n}-${i}` }));
      const told = `${n}: ${a[0].name} ${JSON.stringify(a[1])} beside ${b[0].name} ${JSON.stringify(b[1])}`;
      const say = () =>
        Promise.all([
          carryOut(db.em(), one, a[0], { number, ...a[1] }, entries[0]),
          carryOut(db.em(), two, b[0], { number, ...b[1] }, entries[1]),
        ]).catch((e: unknown) => {
          throw new Error(`${told}: ${e instanceof Error ? e.stack : e}`);
        });
      const said = await say();
      for (const r of said) if (!r.ok) expect([told, r.sentence]).toEqual([told, expect.stringMatching(/^\S.*[.?]$/s)]);
      const after = await looksRight(told, number);
      const taken = said.filter((r) => r.ok).length;
      if (taken === 2) both++;
      // Whoever came second is told where the job stands then; of two refused it stands where it stood.
      const at = said.flatMap((r) => (r.ok && r.revision !== undefined ? [r.revision] : []));
      expect([told, after.head.revision]).toEqual([told, at.length > 0 ? Math.max(...at) : before.head.revision]);
      const is = await stored(number);
      const again = await say();
      expect([told, again.map((r, i) => r.ok || !said[i]?.ok)]).toEqual([told, [true, true]]);
      // What was refused may be possible by now: only what was taken must not count twice.
      if (taken === 2 && ![a[0], b[0]].includes(takeBack as Any)) expect([told, (await stored(number)) === is]).toEqual([told, true]);
    }
    expect(both).toBeGreaterThan(0);
  }, 600_000);
});

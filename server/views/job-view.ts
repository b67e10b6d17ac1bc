import type { Build } from "../../core/assembly";
import { type Free, freeEnds, type TiedBack, tiedBack } from "../../core/claims";
import type { Misplaced } from "../../core/diagnose";
import { eventWords } from "../../core/job";
import { type PowerOn, powerOn } from "../../core/machine";
import { type Conflict, type Order, orderOf, type Step, startWords } from "../../core/order";
import { wholeDraw } from "../../core/power";
import type { Ways } from "../../core/wiring";
import { type EntityManager, Fault, FaultEvent, type FaultEventRow, Link, LogEntry, Observation, Photo, Plan, StepSkipped } from "../../db";
import { type AfterStart, afterStart } from "../build/after-start";
import { buildOfJob, findJob, type JobBuild } from "../build/build-of-job";
import { allSetAside, findingsOf, type JobFinding, overridesOf, type SetAside, withSetAside } from "../build/findings";
import { misplacedOfJob } from "../build/misplaced-of-job";
import { ownMinutes } from "../build/own-minutes";
import { day } from "../kernel/text";
import { type OnItsWay, onTheirWay } from "../receipt/returns";
import { type LeadRow, leadRows } from "./lead-rows";

export interface HeadView {
  number: string;
  /** Raised by whatever happens to the job. */
  revision: number;
  client: string;
  title: string;
  purpose: string;
  stage: string;
  bench: number | null;
  technician: string | null;
  dueOn: string | null;
  waitingFor: string | null;
  waitingUntil: string | null;
}

export interface StageProgress {
  parts: string;
  wiring: string;
  order: string;
  bench: string;
  firstBoot: string;
  faults: number;
  stop: Partial<Record<"parts" | "wiring" | "bench" | "firstBoot", boolean>>;
}

export interface JobView {
  head: HeadView;
  build: Build;
  progress: StageProgress;
  plan: {
    revision: number;
    status: string;
    stale: boolean;
    madeBy: string;
    madeAt: string;
    tookMs: number;
    /** How far it is proved, in words; empty when to its end. */
    proof: string;
    cost: Record<string, number>;
    inBag: string[];
    /** What would let in what it leaves free; nothing where all that is wanted is in. */
    ways: Ways | null;
  } | null;
  leads: LeadRow[];
  free: Free[];
  tied: TiedBack[];
  findings: JobFinding[];
  /** All that was ever set aside, the oldest first. */
  setAside: SetAside[];
  steps: Step[];
  /** Steps that hands left out for now, and why. */
  skipped: Record<string, { reason: string; by: string; at: string }>;
  /** What a press would do at each step that starts the machine on the table. */
  starts: Record<string, string>;
  /** Photos, the oldest first. */
  photos: { id: string; step: string | null; part: string | null; by: string; at: string }[];
  /** Parts that have not arrived. */
  notHere: string[];
  /** Parts that went back and of which no replacement is here: nothing is done with them. */
  away: OnItsWay[];
  /** The order as a whole; its steps stand beside it. */
  order: Omit<Order, "steps">;
  power: PowerOn;
  /** What the record itself explains: plugs in wrong places. */
  misplaced: Misplaced[];
  seen: Record<string, { value: string; asExpected: boolean; by: string; at: string; first?: string; simulated?: boolean }>;
  faults: {
    number: number;
    title: string;
    line: string;
    state: string;
    /** Lines that are wrong because of it. */
    lines: string[];
    /** Of a simulated machine that is practised on. */
    simulated: boolean;
    /** What was seen and done, in order. */
    events: FaultSaid[];
    causes: { element: string; words: string }[];
    minutes: number | null;
    finding: string | null;
    openedAt: string;
    openedBy: string;
  }[];
  log: { id: number; at: string; by: string; kind: string; text: string; planRevision: number | null }[];
  draw: { peakW: number; supplyW: number };
  /** What is set up, proved and soaked after the first start. */
  after: AfterStart;
}

/** An entry of the log with its sentence, made from what happened. */
function logLine(e: {
  id: number;
  happenedAt: Date;
  by: { name: string };
  kind: string;
  text?: string | null;
  data?: unknown;
  planRevision?: number | null;
}) {
  const text = e.text ?? eventWords({ kind: e.kind, data: e.data ?? null });
  return { id: e.id, at: e.happenedAt.toISOString(), by: e.by.name, kind: e.kind, text, planRevision: e.planRevision ?? null };
}

export function headOf(job: JobBuild["job"]): HeadView {
  return {
    number: job.number,
    revision: job.revision,
    client: job.client,
    title: job.title,
    purpose: job.purpose,
    stage: job.stage,
    bench: job.bench ?? null,
    technician: job.technician?.name ?? null,
    dueOn: day(job.dueOn),
    waitingFor: job.waitingFor ?? null,
    waitingUntil: day(job.waitingUntil),
  };
}

/** Steps that each need the other first stop the work, with what would let it go on. */
const conflictFinding = (c: Conflict): JobFinding => ({
  id: `order:${c.steps.join(" ")}`,
  rule: "order",
  severity: "stop",
  message: `${c.why}${c.ways.length > 0 ? ` ${c.ways.map((w) => w.words).join(" Or: ")}` : ""}`,
  ends: c.steps.flatMap((s) => (s.startsWith("plug:") ? [s.slice("plug:".length)] : [])),
});

/** Something seen of a fault or done about it. */
export interface FaultSaid {
  words: string;
  at: string;
  by: string;
  line?: string;
  value?: string;
  deed?: string;
  result?: string;
  minutes?: number;
}
const MOST_FAULT_EVENTS = 2000;

const faultSaid = (
  e: Pick<FaultEventRow, "words" | "at" | "line" | "value" | "deed" | "result" | "minutes"> & { by: { name: string } },
): FaultSaid => ({
  words: e.words,
  at: e.at.toISOString(),
  by: e.by.name,
  ...(e.line ? { line: e.line, value: e.value ?? "" } : {}),
  ...(e.deed ? { deed: e.deed } : {}),
  ...(e.result ? { result: e.result } : {}),
  ...(e.minutes === null || e.minutes === undefined ? {} : { minutes: e.minutes }),
});

/** Everything a job's screens show, derived at one moment from what is stored. */
export async function jobView(em: EntityManager, number: string): Promise<JobView | undefined> {
  const job = await findJob(em, number);
  if (!job) return undefined;
  const b = await buildOfJob(em, job);
  // One after the other: they are of one moment, in one transaction, which has one connection.
  const overrides = await overridesOf(em, job.id);
  const plan = await em.findOne(
    Plan,
    { job: job.id },
    {
      orderBy: { revision: "desc" },
      populate: ["madeBy"],
      fields: ["revision", "partsRevision", "status", "madeBy.name", "madeAt", "tookMs", "proof", "cost", "cables", "ways"],
    },
  );
  const links = await em.find(Link, { job: job.id });
  const skipped = await em.find(StepSkipped, { job: job.id }, { populate: ["by"], limit: 500 });
  const photos = await em.find(Photo, { job: job.id }, { orderBy: { at: "asc" }, populate: ["by"], limit: 300 });
  const observations = await em.find(Observation, { job: job.id }, { populate: ["by"] });
  const faults = await em.find(Fault, { job: job.id }, { orderBy: { number: "asc" }, populate: ["openedBy"], limit: 200 });
  const events =
    faults.length === 0 ? [] : await em.find(FaultEvent, { job: job.id }, { orderBy: { id: "asc" }, populate: ["by"], limit: MOST_FAULT_EVENTS });
  const entries = await em.find(LogEntry, { job: job.id }, { orderBy: { id: "desc" }, limit: 200, populate: ["by"] });
  const planned = plan !== null || links.length > 0;
  const found = findingsOf(b.graph, planned);
  const [ofParts, ofWiring] = [withSetAside(found.parts, overrides), withSetAside(found.wiring, overrides)];
  const findings = withSetAside([...found.parts, ...found.wiring], overrides);
  const order = orderOf(b.graph, { powered: observations.length > 0, history: await ownMinutes(em) });
  const all = [...order.steps];
  const power = powerOn(b.graph);
  const after = await afterStart(em, b);
  const moves = await misplacedOfJob(em, b);
  const leads = leadRows(b, links, findings);
  // What is practised on holds nothing up.
  const openFaults = faults.filter((f) => f.state === "open" && !f.simulated);
  const places = leads.filter((l) => l.loom !== "seat");
  const placed = places.filter((l) => l.port).length;
  const done = all.filter((s) => s.done).length;
  return {
    head: headOf(job),
    build: b.build,
    progress: {
      parts: `${b.build.parts.length} parts`,
      wiring: links.length === 0 ? `none of ${places.filter((l) => !l.out).length} yet` : `${placed} of ${places.length}`,
      order: `${all.length} steps`,
      bench: `${done} of ${all.length}`,
      firstBoot: `${power.lines.filter((l) => observations.some((o) => o.line === l.id && !o.simulated)).length} of ${power.lines.length}`,
      faults: openFaults.length,
      stop: {
        parts: ofParts.some((f) => f.severity === "stop"),
        wiring: ofWiring.some((f) => f.severity === "stop"),
        firstBoot: observations.some((o) => !o.asExpected),
      },
    },
    plan: plan
      ? {
          revision: plan.revision,
          status: plan.status,
          stale: plan.partsRevision !== job.partsRevision,
          madeBy: plan.madeBy.name,
          madeAt: plan.madeAt.toISOString(),
          tookMs: plan.tookMs,
          proof: plan.proof,
          cost: plan.cost as Record<string, number>,
          inBag: (plan.cables as { inBag: string[] }).inBag.map((id) => b.graph.parts.get(id)?.part.label ?? id),
          ways: (plan.ways as Ways | null) ?? null,
        }
      : null,
    leads,
    free: freeEnds(b.graph),
    tied: tiedBack(b.graph),
    findings: [...findings, ...order.conflicts.map(conflictFinding)],
    setAside: allSetAside([...found.parts, ...found.wiring], overrides),
    steps: all,
    skipped: Object.fromEntries(
      skipped
        .filter((x) => all.some((s) => s.id === x.step && !s.done))
        .map((x) => [x.step, { reason: x.reason, by: x.by.name, at: x.at.toISOString() }]),
    ),
    starts: Object.fromEntries(
      all.flatMap((s) => {
        const words = s.presses && !s.done ? startWords(b.graph, s) : undefined;
        return words === undefined ? [] : [[s.id, words]];
      }),
    ),
    photos: photos.map((x) => ({ id: x.id, step: x.step ?? null, part: x.part ?? null, by: x.by.name, at: x.at.toISOString() })),
    notHere: b.notHere,
    away: await onTheirWay(em, job.id),
    order: {
      blocks: order.blocks,
      lies: order.lies,
      turns: order.turns,
      left: order.left,
      gaveWay: order.gaveWay,
      conflicts: order.conflicts,
      late: order.late,
    },
    power,
    misplaced: moves,
    seen: Object.fromEntries(
      observations.map((o) => [
        o.line,
        {
          value: o.value,
          asExpected: o.asExpected,
          by: o.by.name,
          at: o.at.toISOString(),
          ...(o.firstValue ? { first: o.firstValue } : {}),
          ...(o.simulated ? { simulated: true } : {}),
        },
      ]),
    ),
    faults: faults.map((f) => ({
      number: f.number,
      title: f.title,
      line: f.line,
      state: f.state,
      lines: f.lines,
      simulated: f.simulated,
      events: [
        ...f.tried.map(({ name, result, at }): FaultSaid => ({ words: name, result, at, by: f.openedBy.name })),
        ...events.flatMap((e) => (e.fault === f.number ? [faultSaid(e)] : [])),
      ],
      causes: f.causes ?? [],
      minutes: f.minutes ?? null,
      finding: f.finding ?? null,
      openedAt: f.openedAt.toISOString(),
      openedBy: f.openedBy.name,
    })),
    log: entries.map(logLine),
    draw: wholeDraw(b.graph),
    after,
  };
}

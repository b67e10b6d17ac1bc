import { type Build, type Connection, naturally } from "../core/assembly";
import { type Loom, mate, usable } from "../core/catalogue";
import type { Finding } from "../core/checks";
import { type Free, freeEnds, type TiedBack, tiedBack } from "../core/claims";
import { type Diagnosis, diagnose, type Seen } from "../core/diagnose";
import { type PowerOn, powerOn } from "../core/machine";
import { type Step, stepsOf } from "../core/order";
import { wholeDraw } from "../core/power";
import { needOf, type Ways } from "../core/wiring";
import { type EntityManager, Fault, Job, Link, LogEntry, Observation, Plan, StepDone } from "../db";
import { buildOfJob, findJob, type JobBuild } from "./build-of-job";
import { allSetAside, findingsOf, type JobFinding, overridesOf, type SetAside, withSetAside } from "./overrides";

export type LeadState = "free" | "planned" | "plugged" | "checked" | "wrong";

export interface LeadRow {
  address: string;
  tag: string;
  name: string;
  loom: Loom;
  family: string;
  lengthMm: number;
  state: LeadState;
  fixed: boolean;
  port?: string;
  portName?: string;
  place?: number[];
  why: string;
  /** Planned elsewhere, plugged here. */
  plannedPort?: string;
  plannedName?: string;
  /** Why it has no port. */
  free?: string;
  need: "mandatory" | "wanted" | "optional";
  severity?: Finding["severity"];
  fromPart: string;
  origin: { xMm: number; yMm: number };
  out: boolean;
}

export interface JobHead {
  number: string;
  client: string;
  title: string;
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
  head: JobHead;
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
  power: PowerOn;
  seen: Record<string, { value: string; asExpected: boolean; by: string; at: string }>;
  faults: {
    number: number;
    title: string;
    line: string;
    state: string;
    tried: { name: string; result: string; at: string }[];
    finding: string | null;
    openedAt: string;
    openedBy: string;
  }[];
  diagnosis: Diagnosis;
  log: { id: number; at: string; by: string; kind: string; text: string; planRevision: number | null }[];
  draw: { peakW: number; supplyW: number };
}

const day = (d: Date | string | null | undefined) => (d ? (typeof d === "string" ? d : d.toISOString().slice(0, 10)) : null);

export function headOf(job: JobBuild["job"]): JobHead {
  return {
    number: job.number,
    client: job.client,
    title: job.title,
    stage: job.stage,
    bench: job.bench ?? null,
    technician: job.technician?.name ?? null,
    dueOn: day(job.dueOn),
    waitingFor: job.waitingFor ?? null,
    waitingUntil: day(job.waitingUntil),
  };
}

/** Everything a job's screens show, derived at one moment from what is stored. */
export async function jobView(em: EntityManager, number: string): Promise<JobView | undefined> {
  const job = await findJob(em, number);
  if (!job) return undefined;
  const b = await buildOfJob(em, job);
  const [overrides, plan, links, steps, observations, faults, entries] = await Promise.all([
    overridesOf(em, job.id),
    em.findOne(
      Plan,
      { job: job.id },
      {
        orderBy: { revision: "desc" },
        populate: ["madeBy"],
        fields: ["revision", "partsRevision", "status", "madeBy.name", "madeAt", "tookMs", "proof", "cost", "cables", "ways"],
      },
    ),
    em.find(Link, { job: job.id }),
    em.find(StepDone, { job: job.id }),
    em.find(Observation, { job: job.id }, { populate: ["by"] }),
    em.find(Fault, { job: job.id }, { orderBy: { number: "asc" }, populate: ["openedBy"], limit: 200 }),
    em.find(LogEntry, { job: job.id }, { orderBy: { id: "desc" }, limit: 200, populate: ["by"] }),
  ]);
  const planned = plan !== null || links.length > 0;
  const found = findingsOf(b.graph, planned);
  const [ofParts, ofWiring] = [withSetAside(found.parts, overrides), withSetAside(found.wiring, overrides)];
  const findings = withSetAside([...found.parts, ...found.wiring], overrides);
  const { steps: all, conflicts } = stepsOf(b.graph, new Set(steps.map((s) => s.step)), observations.length > 0);
  const power = powerOn(b.graph);
  const seenList: Seen[] = observations.map((o) => ({ line: o.line, asExpected: o.asExpected, value: o.value }));
  const tried = new Set(
    faults.filter((f) => f.state === "open").flatMap((f) => f.tried.filter((t) => t.result === "no change").map((t) => t.element)),
  );
  const leads = leadRows(b, links, findings);
  const openFaults = faults.filter((f) => f.state === "open");
  const places = leads.filter((l) => l.loom !== "seat");
  const placed = places.filter((l) => l.port).length;
  const done = all.filter((s) => s.done).length;
  return {
    head: headOf(job),
    build: b.build,
    progress: {
      parts: `${b.build.parts.filter((p) => p.from === "client").length} parts`,
      wiring: links.length === 0 ? `none of ${places.filter((l) => !l.out).length} yet` : `${placed} of ${places.length}`,
      order: `${all.length} steps`,
      bench: `${done} of ${all.length}`,
      firstBoot: `${observations.length} of ${power.lines.length}`,
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
    findings: [...findings, ...conflicts.map((c): JobFinding => ({ id: `order:${c}`, rule: "order", severity: "stop", message: c, ends: [] }))],
    setAside: allSetAside([...found.parts, ...found.wiring], overrides),
    steps: all,
    power,
    seen: Object.fromEntries(observations.map((o) => [o.line, { value: o.value, asExpected: o.asExpected, by: o.by.name, at: o.at.toISOString() }])),
    faults: faults.map((f) => ({
      number: f.number,
      title: f.title,
      line: f.line,
      state: f.state,
      tried: f.tried.map(({ name, result, at }) => ({ name, result, at })),
      finding: f.finding ?? null,
      openedAt: f.openedAt.toISOString(),
      openedBy: f.openedBy.name,
    })),
    diagnosis: diagnose(
      power.lines,
      seenList.filter((s) => s.asExpected || openFaults.some((f) => f.line === s.line)),
      tried,
    ),
    log: entries.map((e) => ({ id: e.id, at: e.at.toISOString(), by: e.by.name, kind: e.kind, text: e.text, planRevision: e.planRevision ?? null })),
    draw: wholeDraw(b.graph),
  };
}

function leadRows(b: JobBuild, links: { lead: string; plannedPort?: string | null; why: string }[], findings: Finding[]): LeadRow[] {
  const link = new Map(links.map((l) => [l.lead, l]));
  const free = new Map(freeEnds(b.graph).map((f) => [f.end, f]));
  return [...b.graph.leads.values()]
    .flatMap((l): LeadRow[] => {
      const c = b.graph.ofLead.get(l.address);
      const row = link.get(l.address);
      const p = c && b.graph.ports.get(c.port);
      // Cable plugs that nothing needs stay in the bag: they are no leads of this job.
      if (!c && (l.lead.flow === "out" || l.lead.role === "cable-root")) return [];
      const wrong = p !== undefined && !usable(mate(l.lead.family, p.port.family, l.lead.key, p.port.key));
      const mine = findings.filter((f) => f.ends.includes(l.address));
      const severity = mine.find((f) => f.severity === "stop")?.severity ?? mine.find((f) => f.severity === "warn")?.severity;
      const elsewhere = row?.plannedPort && row.plannedPort !== c?.port ? b.graph.ports.get(row.plannedPort) : undefined;
      return [
        {
          address: l.address,
          tag: l.tag,
          name:
            l.part.cable && l.lead.flow === "out"
              ? `${l.part.part.label}${l.lead.label.includes(", ") ? l.lead.label.slice(l.lead.label.indexOf(", ")) : ""}`
              : l.name,
          loom: l.loom,
          family: l.lead.family,
          lengthMm: l.lead.lengthMm,
          state: wrong ? "wrong" : stateOf(c),
          fixed: c?.state === "fixed",
          why: row?.why ?? "",
          need: needOf(b.graph, l),
          fromPart: l.part.id,
          origin: l.origin,
          out: l.lead.flow === "out",
          ...(c && p ? { port: c.port, portName: p.name, ...(c.place ? { place: c.place } : {}) } : {}),
          ...(elsewhere ? { plannedPort: elsewhere.address, plannedName: elsewhere.name } : {}),
          ...(c ? {} : { free: free.get(l.address)?.reason ?? "" }),
          ...(severity ? { severity } : {}),
        },
      ];
    })
    .sort((a, b2) => naturally(a.tag, b2.tag));
}

const stateOf = (c: Connection | undefined): LeadState => (!c ? "free" : c.state === "fixed" ? "planned" : c.state);

export interface BenchJob extends JobHead {
  next: string;
  stops: number;
  openFaults: number;
  share: number;
  leads: number;
  placed: number;
}

/** All jobs with what hands do next on each. */
export async function benches(em: EntityManager): Promise<BenchJob[]> {
  const jobs = await em.find(Job, {}, { orderBy: { number: "asc" }, limit: 200, populate: ["technician"] });
  const out: BenchJob[] = [];
  for (const job of jobs) {
    const v = await jobView(em, job.number).catch((e: unknown) => {
      console.error(`${job.number} could not be worked out`, e);
      return undefined;
    });
    // One job that cannot be worked out must not take the others' bench away.
    if (!v) {
      out.push({
        ...headOf(job),
        next: "This job could not be worked out. Nothing of it is lost; open it, undo the last entry, or tell the lead",
        stops: 1,
        openFaults: 0,
        share: 0,
        leads: 0,
        placed: 0,
      });
      continue;
    }
    const left = v.steps.find((s) => !s.done);
    const done = v.steps.filter((s) => s.done).length;
    out.push({
      ...v.head,
      next: nextOf(v, left),
      stops: v.findings.filter((f) => f.severity === "stop").length,
      openFaults: v.progress.faults,
      share: v.steps.length ? done / v.steps.length : 0,
      leads: v.leads.length,
      placed: v.leads.filter((l) => l.port).length,
    });
  }
  return out;
}

function nextOf(v: JobView, left: Step | undefined): string {
  if (v.head.stage === "waiting") return `Waits for ${v.head.waitingFor ?? "a delivery"}`;
  if (v.head.stage === "handed-over") return "Handed over";
  if (!v.plan) return `${v.leads.filter((l) => !l.out && l.loom !== "seat").length} leads, none planned. Plan the wiring`;
  if (v.plan.stale) return "Parts changed. Plan the wiring again";
  if (v.diagnosis.next) return v.diagnosis.next.action;
  if (v.head.stage === "soak") return "Soak: read temperatures and fan speeds";
  if (left) return left.title;
  const unseen = v.power.lines.find((l) => !v.seen[l.id]);
  return unseen ? `First boot: look at ${unseen.what.toLowerCase()}` : "All as expected. Soak next";
}

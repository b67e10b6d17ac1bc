import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { z } from "zod";
import { type Build, buildGraph, type Connection, readBuildText, typeLookup } from "../core/assembly";
import { PartType, toStored } from "../core/catalogue";
import { powerOn } from "../core/machine";
import { offerOf } from "../core/offer";
import { orderOf } from "../core/order";
import { plan } from "../core/plan";
import {
  Credential,
  Fault,
  FaultEvent,
  Job,
  type JobRow,
  Link,
  LogEntry,
  Observation,
  Offer,
  Person,
  type PersonRow,
  Plan,
  ShelfType,
  StepDone,
} from "./entities";
import type { EntityManager } from "./orm";
import { layPart } from "./part-rows";

/** Known-good spares for testing. */
const SPARES: Record<string, number> = {
  "mossgate-650m": 1,
  "lathewell-16-6000": 2,
  "halcyra-160": 1,
  "pebblestone-swift-1000": 1,
  "quillane-8": 1,
  "whirrow-120": 2,
};

const STOCK: Record<string, number> = {
  "knotwick-split-2": 6,
  "knotwick-split-3": 5,
  "knotwick-fan-ext-300": 6,
  "knotwick-hub-6": 2,
  "knotwick-light-split-3": 3,
  "knotwick-light-ext-500": 3,
  "knotwick-light-hub-6": 2,
  "knotwick-usb-hub-3": 1,
  "knotwick-16-adapter": 1,
};

/** Made up, and printed at start: nothing that is to stay secret. */
const DemoPerson = z.object({ name: z.string(), role: z.enum(["lead", "technician", "reader"]), password: z.string(), pin: z.string().optional() });

interface Story {
  file: string;
  title: string;
  stage: string;
  person: number;
  bench?: number;
  dueIn: number;
  purpose: string;
  /** Share of the bench steps that are done. */
  done?: number;
  seen?: "all" | "fault";
  /** An offer was accepted by somebody; since then one type stands in place of what was sold, and one more was asked for and is not there. */
  sold?: { by: string; other: { is: string; was: string }; gone: string };
  waitingFor?: string;
  waitingIn?: number;
}

const STORIES: readonly Story[] = [
  {
    file: "fs-1041",
    title: "Quiet workstation",
    stage: "planning",
    person: 0,
    bench: 1,
    dueIn: 4,
    purpose: "Tide and current models, day and night; no lights, little noise.",
  },
  {
    file: "fs-1042",
    title: "Recording room",
    stage: "bench",
    person: 1,
    bench: 2,
    dueIn: 2,
    done: 0.56,
    purpose: "Four-part takes; slow fans, no card.",
  },
  { file: "fs-1043", title: "Dome renderer", stage: "intake", person: 0, dueIn: 9, purpose: "Ten drives, two cards, sixteen fans." },
  {
    file: "fs-1044",
    title: "Shipboard lab",
    stage: "bench",
    person: 2,
    bench: 3,
    dueIn: 1,
    done: 0.53,
    purpose: "Compact, carried aboard; braced for transport.",
  },
  {
    file: "fs-1045",
    title: "Rink showpiece",
    stage: "soak",
    person: 3,
    bench: 4,
    dueIn: 1,
    done: 1,
    seen: "all",
    purpose: "Lit everywhere, glass on two sides.",
    sold: { by: "Halyard Roller Rink", other: { is: "pebblestone-swift-2000", was: "pebblestone-swift-1000" }, gone: "pebblestone-slate-1000" },
  },
  {
    file: "fs-1046",
    title: "Front desk",
    stage: "handed-over",
    person: 1,
    dueIn: -2,
    done: 1,
    seen: "all",
    purpose: "Labels and letters; as cheap as sound.",
  },
  {
    file: "fs-1047",
    title: "Studio rebuild",
    stage: "first-boot",
    person: 3,
    bench: 4,
    dueIn: 0,
    done: 1,
    seen: "fault",
    purpose: "New parts in the client's old case.",
  },
  {
    file: "fs-1048",
    title: "Interpreter station",
    stage: "waiting",
    person: 2,
    dueIn: 5,
    done: 0,
    purpose: "Two video calls at once.",
    waitingFor: "a replacement power supply: dead at the bench test",
    waitingIn: 2,
  },
];

const dayFrom = (today: Date, days: number) => new Date(today.getTime() + days * 86_400_000);
const isoDay = (d: Date) => d.toISOString().slice(0, 10);

/** Fills an empty database with the demo: dates follow `today`. Does nothing when there are people already. `hashed` is how secrets are kept. */
export async function seed(
  em: EntityManager,
  folder: string,
  today: Date,
  say: (text: string) => void,
  hashed: (secret: string) => Promise<string>,
): Promise<boolean> {
  if ((await em.count(Person)) > 0) return false;
  const shelf = readdirSync(join(folder, "data/shelf"))
    .filter((f) => f.endsWith(".json"))
    .sort()
    .flatMap((f) => PartType.array().parse(JSON.parse(readFileSync(join(folder, "data/shelf", f), "utf8"))));
  const known = DemoPerson.array().parse(JSON.parse(readFileSync(join(folder, "data/demo-people.json"), "utf8")));
  const people = known.map(({ name, role }) => em.create(Person, { name, role, active: true }));
  for (const t of shelf)
    em.create(ShelfType, {
      id: t.id,
      kind: t.kind,
      maker: t.maker,
      name: t.name,
      revision: t.revision,
      body: toStored(t),
      stock: STOCK[t.id] ?? 0,
      spares: SPARES[t.id] ?? 0,
    });
  await em.flush();
  for (const [n, { password, pin }] of known.entries()) {
    const person = people[n] as PersonRow;
    em.create(Credential, { person, passwordHash: await hashed(password), pinHash: pin ? await hashed(pin) : null });
  }
  for (const [n, story] of STORIES.entries()) {
    say(`demo job ${n + 1} of ${STORIES.length}: ${story.title}`);
    const read = readBuildText(readFileSync(join(folder, "examples", `${story.file}.json`), "utf8"), shelf);
    if (!read.ok) throw new Error(`${story.file}: ${read.faults.join(" ")}`);
    const person = people[story.person] as PersonRow;
    await tell(em, story, read.build, shelf, person, today);
    await em.flush();
  }
  return true;
}

async function tell(em: EntityManager, story: Story, build: Build, shelf: readonly PartType[], person: PersonRow, today: Date): Promise<void> {
  const types = typeLookup(build, shelf);
  const number = story.file.toUpperCase();
  const job = em.create(Job, {
    number,
    client: build.client ?? "",
    title: story.title,
    purpose: story.purpose,
    stage: story.stage,
    bench: story.bench ?? null,
    technician: person,
    dueOn: isoDay(dayFrom(today, story.dueIn)),
    waitingFor: story.waitingFor ?? null,
    waitingUntil: story.waitingIn === undefined ? null : isoDay(dayFrom(today, story.waitingIn)),
    policy: build.policy,
    settings: build.settings,
    wishes: build.wishes,
    aside: [],
    partsRevision: 1,
    version: 1,
    revision: 1,
    stageBefore: story.stage === "waiting" ? "bench" : null,
    createdAt: dayFrom(today, -6),
  });
  const entry = (daysAgo: number, kind: string, text: string, planRevision: number | null = null) =>
    em.create(LogEntry, {
      job,
      at: dayFrom(today, -daysAgo),
      happenedAt: dayFrom(today, -daysAgo),
      by: person,
      kind,
      text,
      planRevision,
      entryKey: null,
      data: null,
    });
  entry(6, "job", `Job ${number} opened for ${build.client}.`);
  if (story.done === undefined) {
    parts(em, job, build, types, today);
    return;
  }
  const made = await plan(build, types);
  parts(em, job, made.build, types, today);
  em.create(Plan, {
    job,
    revision: 1,
    partsRevision: 1,
    status: made.status,
    cost: made.cost,
    free: made.free,
    cables: made.cables,
    connections: made.connections.map((c) => ({ lead: c.lead, port: c.port, ...(c.place ? { place: c.place } : {}) })),
    madeBy: person,
    madeAt: dayFrom(today, -3),
    tookMs: 0,
  });
  entry(3, "plan", `Plan 1, ${made.status}: ${made.connections.length} connections.`, 1);
  if (story.sold) sell(em, job, made.build, types, story.sold, person, dayFrom(today, -5));
  const graph = buildGraph(made.build, types);
  const { steps } = orderOf(graph);
  const finished = steps.slice(0, Math.round(steps.length * story.done));
  const plugged = new Set(finished.flatMap((s) => s.lead ?? []));
  for (const s of finished) {
    if (!s.lead) em.create(StepDone, { job, step: s.id, by: person, at: dayFrom(today, -1) });
    entry(1, s.lead ? "plugged" : "step", `${s.title}: done.`, 1);
  }
  const states = made.connections.map((c): Connection & { why: string } => ({ ...c, state: plugged.has(c.lead) ? "plugged" : "planned" }));
  for (const c of states) {
    em.create(Link, {
      job,
      lead: c.lead,
      port: c.port,
      place: c.place ?? null,
      state: c.state,
      plannedPort: null,
      why: c.why,
      planRevision: 1,
      changedAt: dayFrom(today, -1),
    });
  }
  if (story.waitingFor)
    entry(
      1,
      "waiting",
      `Bench test: no standby light with the supply of this job; with the known-good spare the board lights up. Supply dead on arrival, returned. The job waits for ${story.waitingFor}.`,
    );
  if (!story.seen) return;
  const power = powerOn(buildGraph({ ...made.build, connections: states }, types));
  // On the fault job the front fans share a splitter whose plug is loose: they are dark together.
  const isWrong = (id: string) => story.seen === "fault" && id.startsWith("turns:fan-front");
  const incident: string[] = [];
  const title: string[] = [];
  for (const line of power.lines) {
    if (story.seen === "fault" && ["Front ports", "Lights"].includes(line.group)) continue;
    const wrong = isWrong(line.id);
    const value = wrong ? (line.otherwise[0] ?? "") : line.expected;
    em.create(Observation, { job, line: line.id, value, asExpected: !wrong, by: person, at: today });
    entry(0, "seen", `${line.what}: ${value}${wrong ? `; expected ${line.expected}` : ", as expected"}.`);
    if (!wrong) continue;
    incident.push(line.id);
    title.push(`${line.what}: ${value}, expected ${line.expected}`);
    em.create(FaultEvent, { job, fault: 1, line: line.id, value, words: line.what, by: person, at: today });
  }
  const [first] = power.lines.filter((l) => l.id === incident[0]);
  if (!first) return;
  em.create(Fault, {
    job,
    number: 1,
    line: first.id,
    lines: incident,
    title: title.join("; "),
    expected: first.expected,
    seen: first.otherwise[0] ?? "",
    state: "open",
    tried: [],
    causes: null,
    minutes: null,
    finding: null,
    openedBy: person,
    openedAt: today,
    closedAt: null,
  });
  entry(0, "fault", `Fault 1 opened: ${title.length} fans are still.`);
}

function sell(
  em: EntityManager,
  job: JobRow,
  build: Build,
  types: (id: string) => PartType | undefined,
  sold: NonNullable<Story["sold"]>,
  by: PersonRow,
  at: Date,
): void {
  const own = { ...build, parts: build.parts.filter((p) => p.from === "client") };
  const now = offerOf(own, types, { beside: [], hours: 6, rate: 0, machines: 1, currency: "", promises: [], words: "" });
  const name = (id: string) => types(id)?.name ?? id;
  const lines = now.parts.map((l) => (l.type === sold.other.is ? { ...l, type: sold.other.was, what: name(sold.other.was) } : l));
  const body = { ...now, parts: [...lines, { what: name(sold.gone), type: sold.gone, count: 1 }] };
  em.create(Offer, { job, count: 1, body, by, at, acceptedBy: sold.by, acceptedOn: isoDay(at), acceptedToldBy: by });
}

const TESTED = new Set(["board", "cpu", "memory", "card", "supply", "drive", "cooler"]);
const daysFrom = (today: Date, days: number) => new Date(today.getTime() + days * 86_400_000);

function parts(em: EntityManager, job: JobRow, build: Build, types: (id: string) => PartType | undefined, today: Date): void {
  build.parts.forEach((p, position) => {
    const kind = types(p.type)?.kind ?? "cable";
    const here = job.stage !== "intake" && p.from === "client";
    // The job that waits, waits for the part that was dead at its bench test.
    const dead = job.stage === "waiting";
    const serial = p.from === "client" ? `${p.type.slice(0, 2).toUpperCase()}${job.number.slice(-4)}${String(position).padStart(2, "0")}` : null;
    layPart(em, job, { ...p, serial: job.stage === "intake" || serial === null ? undefined : serial }, types(p.type), position, {
      supplier: here && !p.reused ? "Quayside Components" : null,
      arrivedAt: here ? daysFrom(today, -5) : null,
      warrantyUntil: here && !p.reused ? daysFrom(today, 725).toISOString().slice(0, 10) : null,
      testResult: here && (dead || job.stage !== "planning") && TESTED.has(kind) ? (dead && kind === "supply" ? "dead" : "passed") : null,
      testedWith: dead && kind === "supply" ? "the bench's own board and CPU" : null,
    });
  });
}

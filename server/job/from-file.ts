import { z } from "zod";
import { type Build, buildGraph, parseJson, type TypeLookup } from "../../core/assembly";
import { asExpected, headerLines, powerOn } from "../../core/machine";
import { Job, type JobRow, Link, layPart, Observation, StepDone } from "../../db";
import { readAgainstShelf } from "../build/build-of-job";
import { no, type Result, yes } from "../kernel/result";
import { fileText } from "../kernel/text";
import { shopAction } from "../unit/action";
import { JobUnit, jobRead, type Unit } from "../unit/unit";
import { nextNumber } from "./number";

/** More than this are refused: a shop of ten benches needs thirty years for them. */
export const MOST_JOBS = 100_000;

/** Stores a build that has been read as a job. Inside the caller's transaction. */
function createJob(unit: Unit, build: Build, types: TypeLookup, number: string): JobRow {
  const em = unit.tx;
  const job = em.create(Job, {
    number,
    client: build.client ?? "No client named",
    title: build.name.slice(0, 120),
    stage: "intake",
    technician: unit.by,
    policy: build.policy,
    settings: build.settings,
    wishes: build.wishes,
    ways: Object.fromEntries((build.ways ?? []).map((w) => [w.lead, w.cutout])),
    pulled: build.pulled ?? [],
    aside: [],
    partsRevision: 1,
    version: 1,
    revision: 1,
    createdAt: unit.when.happened,
  });
  build.parts.forEach((p, position) => {
    layPart(em, job, p, types(p.type), position);
  });
  for (const c of build.connections) {
    em.create(Link, {
      job,
      lead: c.lead,
      port: c.port,
      place: c.place ?? null,
      state: c.state,
      plannedPort: null,
      why: "From the build file.",
      planRevision: null,
      changedAt: unit.when.happened,
    });
  }
  for (const step of new Set(build.done)) em.create(StepDone, { job, step, by: unit.by, at: unit.when.happened });
  // What was seen of another copy of the machine is seen of this one; a line that its sheet does not have is left out.
  if (build.readings) {
    const graph = buildGraph(build, types);
    const lines = new Map([...powerOn(graph).lines, ...headerLines(graph)].map((l) => [l.id, l]));
    for (const r of new Map(build.readings.map((x) => [x.line, x])).values()) {
      const line = lines.get(r.line);
      if (!line) continue;
      const now = { value: r.value, asExpected: asExpected(line, r.value), by: unit.by, at: unit.when.happened };
      em.create(Observation, { job, line: r.line, ...now, firstValue: null });
    }
  }
  return job;
}

/** A new job from a build file. Bad files give a sentence a fault and store nothing. */
export const jobFromFile = shopAction({
  name: "job.from-file",
  permission: "run jobs",
  input: z.object({ text: fileText(4_000_000) }),
  run: async (unit, { text }): Promise<Result<string>> => {
    const json = parseJson(text);
    if (!json.ok) return no("Nothing was stored. Correct the file and read it again.", json.faults);
    const read = await readAgainstShelf(unit.tx, json.value);
    if (!read.ok) return no("Nothing was stored. Correct the file and read it again.", read.faults);
    if ((await unit.tx.count(Job)) >= MOST_JOBS) return no(`There are already ${MOST_JOBS} jobs. Nothing was stored.`);
    const number = await nextNumber(unit.tx);
    const job = createJob(unit, read.build, read.types, number);
    await unit.tx.flush();
    const made = new JobUnit(unit.tx, unit.actor, unit.when, jobRead(job), undefined);
    made.emit("job-made", { number, client: job.client, parts: read.build.parts.length, from: "file" });
    await made.keepEvents();
    return yes(number);
  },
});

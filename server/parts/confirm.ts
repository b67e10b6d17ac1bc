import { z } from "zod";
import { isDone } from "../../core/assembly";
import { figuresOf, figureWords, type PartType, toStored, withFigure } from "../../core/catalogue";
import { JobPart, Link, LockMode, ShelfRevision, ShelfType } from "../../db";
import { entryOf } from "../build/parts-of-job";
import { no, type Result, yes } from "../kernel/result";
import { JobNumber, key, PartKey } from "../kernel/text";
import { jobAction } from "../unit/action";
import { findPart } from "./find-part";

export const Confirm = z.object({
  number: JobNumber,
  part: PartKey,
  figure: key(60),
  value: z.union([z.number().min(0).max(100_000), z.string().min(1).max(80), z.boolean()]),
  how: z.enum(["confirmed", "measured", "said"]).default("confirmed"),
});

/**
 * Somebody says what was only assumed of a part: every part of this job of its type becomes it, and so does the type on the shelf. Where it was
 * assumed right nothing else moves; a plan of before stands.
 */
export const confirmFigure = jobAction({
  name: "parts.confirm",
  permission: "change parts",
  input: Confirm,
  run: async (unit, c): Promise<Result<{ same: boolean; jobs: string[] }>> => {
    const { tx } = unit;
    const found = await findPart(unit, c.part);
    if (!found.ok) return found;
    const { row, name } = found;
    const was = (await unit.build()).types(row.type);
    const figure = was && figuresOf(was.kind).find((f) => f.id === c.figure);
    const had = was?.figures?.[c.figure];
    if (!was || !figure || !had) return no(`Nothing of ${name} is assumed under ${c.figure} any more. Nothing was changed.`);
    if (typeof had.value !== typeof c.value) return no(`${figure.word} of ${name}: ${String(c.value)} is no such value. Nothing was changed.`);
    const note = { by: unit.actor.name, at: unit.when.happened.toISOString() };
    let type: PartType;
    try {
      type = withFigure(was, c.figure, c.value, c.how, note);
    } catch {
      return no(`${figure.word} of ${name}: ${String(c.value)} cannot be. Nothing was changed. Look again.`);
    }
    const { build, graph } = await unit.build();
    const lost = lostEnds(was, type).flatMap((end) => build.parts.filter((p) => p.type === row.type).map((p) => `${p.id}:${end}`));
    const there = graph.connections.filter((x) => lost.includes(x.lead) || lost.includes(x.port));
    const gone = [...new Set(there.filter(isDone).flatMap((x) => lost.filter((l) => l === x.lead || l === x.port)))];
    if (gone.length > 0) return no(`${gone.join(", ")} of ${name} would be gone, and a plug is in it. Take it out first. Nothing was changed.`);
    const same = had.value === c.value;
    const shelf = await tx.findOne(ShelfType, { id: row.type }, { lockMode: LockMode.PESSIMISTIC_WRITE });
    const revision = Math.max(shelf?.revision ?? 0, was.revision) + 1;
    const body = toStored({ ...type, revision });
    for (const p of await tx.find(JobPart, { job: unit.job.id, type: row.type })) Object.assign(p, { body, typeRevision: revision });
    if (shelf && entryOf(shelf.body).figures) {
      Object.assign(shelf, { revision, body });
      tx.create(ShelfRevision, {
        type: row.type,
        revision,
        body,
        by: unit.by,
        at: unit.when.happened,
        because: `${figure.word}: ${figureWords(figure, c.value)}, ${c.how} at ${c.number}`.slice(0, 500),
      });
    }
    // What was only planned there is planned anew.
    if (there.length > 0) await tx.nativeDelete(Link, { job: unit.job.id, lead: { $in: there.map((x) => x.lead) } });
    if (!same) unit.partsChanged();
    unit.emit("figure-confirmed", {
      part: c.part,
      name,
      word: figure.word,
      value: figureWords(figure, c.value),
      ...(same ? {} : { was: figureWords(figure, had.value) }),
    });
    const others = await tx.find(JobPart, { type: row.type, job: { $ne: unit.job.id } }, { populate: ["job"], limit: 200 });
    return yes({ same, jobs: [...new Set(others.map((o) => o.job.number))].sort() });
  },
});

const lostEnds = (was: PartType, now: PartType): string[] => {
  const ids = (t: PartType) => new Set([...t.ports.map((p) => p.id), ...t.leads.map((l) => l.id)]);
  const left = ids(now);
  return [...ids(was)].filter((id) => !left.has(id));
};

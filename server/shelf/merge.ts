import { z } from "zod";
import { isProvisional, toStored } from "../../core/catalogue";
import { isClosed, isStage } from "../../core/job";
import { Job, JobPart, type JobRow, Link, LockMode, ShelfRevision, ShelfType, Tip, TypePhoto } from "../../db";
import { entryOf } from "../build/parts-of-job";
import { no, type Result, yes } from "../kernel/result";
import { TypeId } from "../kernel/text";
import { shopAction } from "../unit/action";
import { JobUnit, jobRead } from "../unit/unit";

/** Jobs that one merge may touch. */
const MOST_JOBS = 200;

/**
 * Two part types that are one: the provisional one goes, and open jobs that had it have the other. What was planned at an end that the other
 * lacks is planned anew; where a plug is in there, nothing is merged. Jobs that are closed keep the entry they were built with.
 */
export const mergeTypes = shopAction({
  name: "shelf.merge",
  permission: "keep the shelf",
  input: z.object({ drop: TypeId, keep: TypeId }),
  run: async (unit, m): Promise<Result<{ jobs: string[] }>> => {
    const { tx } = unit;
    if (m.drop === m.keep) return no("That is the same part type twice. Nothing was changed.");
    const [drop, keep] = await Promise.all([
      tx.findOne(ShelfType, { id: m.drop }, { lockMode: LockMode.PESSIMISTIC_WRITE }),
      tx.findOne(ShelfType, { id: m.keep }, { lockMode: LockMode.PESSIMISTIC_WRITE }),
    ]);
    if (!drop || !keep) return no(`The shelf has no part type ${drop ? m.keep : m.drop} any more. Nothing was changed.`);
    const [was, is] = [entryOf(drop.body), entryOf(keep.body)];
    if (!isProvisional(was))
      return no(`Nothing of ${was.name} is assumed: it is a part type of its own. Nothing was changed. Merge the other way round.`);
    if (was.kind !== is.kind) return no(`${was.name} is a ${was.kind}, ${is.name} a ${is.kind}. Nothing was changed.`);
    const rows = await tx.find(JobPart, { type: m.drop }, { populate: ["job"], limit: 2000 });
    const jobs = new Map(rows.map((r) => [r.job.id, r.job as JobRow]));
    const open = [...jobs.values()].filter((j) => !(isStage(j.stage) && isClosed(j.stage)));
    if (open.length > MOST_JOBS)
      return no(`${open.length} open jobs have ${was.name}; at most ${MOST_JOBS} are changed at once. Nothing was changed.`);
    const ends = new Set([...is.ports.map((p) => p.id), ...is.leads.map((l) => l.id)]);
    const revision = keep.revision + 1;
    const body = toStored({ ...is, revision });
    const touched: string[] = [];
    for (const { id } of open.sort((a, b) => (a.number < b.number ? -1 : 1))) {
      const job = (await tx.findOneOrFail(Job, { id }, { lockMode: LockMode.PESSIMISTIC_WRITE, refresh: true })) as JobRow;
      const mine = rows.filter((r) => r.job.id === id);
      const keys = new Set(mine.map((r) => r.key));
      const links = await tx.find(Link, { job: id }, { limit: 2000 });
      const lost = links.filter((l) => [l.lead, l.port].some((a) => keys.has(a.split(":")[0] ?? "") && !ends.has(a.split(":")[1] ?? "")));
      const plugged = lost.find((l) => l.state === "plugged" || l.state === "checked");
      if (plugged)
        return no(`At ${job.number} a plug is in ${plugged.port}, which ${is.name} does not have. Nothing was changed. Take it out first.`);
      for (const l of lost) tx.remove(l);
      for (const r of mine) Object.assign(r, { type: is.id, body, typeRevision: revision });
      const one = new JobUnit(tx, unit.actor, unit.when, jobRead(job), undefined);
      one.partsChanged();
      for (const r of mine) one.emit("part-swapped", { part: r.key, name: r.label ?? was.name, was: was.name, now: is.name });
      await tx.flush();
      await one.keepEvents();
      touched.push(job.number);
    }
    Object.assign(keep, { stock: keep.stock + drop.stock, spares: keep.spares + drop.spares });
    tx.create(ShelfRevision, {
      type: is.id,
      revision,
      body,
      by: unit.by,
      at: unit.when.happened,
      because: `${was.name} (${was.id}) is it, too.`,
    });
    Object.assign(keep, { revision, body });
    // What colleagues know of the one is known of the other; a photo that is there stays.
    await tx.nativeUpdate(Tip, { type: m.drop }, { type: m.keep });
    if ((await tx.count(TypePhoto, { type: m.keep })) === 0) await tx.nativeUpdate(TypePhoto, { type: m.drop }, { type: m.keep });
    tx.remove(drop);
    return yes({ jobs: touched });
  },
});

import { z } from "zod";
import { parseWith, readBuild } from "../../core/assembly";
import { contradictions, PartType, toStored } from "../../core/catalogue";
import { type EntityManager, JobPart, LockMode, ShelfRevision, ShelfType } from "../../db";
import { entryOf } from "../build/parts-of-job";
import { no, type Result, yes } from "../kernel/result";
import { fileText, text } from "../kernel/text";
import { shopAction } from "../unit/action";

export const MOST_TYPES = 100_000;

export const SaveType = z.object({
  text: fileText(400_000),
  /** The revision the editor began with; left out for a new part type. */
  from: z.number().int().min(1).optional(),
  because: text(500).default(""),
});

/**
 * A part type made or corrected. It gets the next revision; jobs keep the entry they were planned with and are told.
 * A port that a plug of some job is in cannot go.
 */
export const saveType = shopAction({
  name: "shelf.save",
  permission: "keep the shelf",
  input: SaveType,
  run: async (unit, s): Promise<Result<{ id: string; revision: number; jobs: string[] }>> => {
    const { tx } = unit;
    let data: unknown;
    try {
      data = JSON.parse(s.text);
    } catch {
      return no("This is not JSON. Nothing was stored.");
    }
    const parsed = parseWith(PartType, data);
    if (!parsed.ok) return no("Nothing was stored. Correct these and save again.", parsed.faults);
    const type = parsed.value;
    // Read as part of a build of one: the same sentences for references that lead nowhere.
    const whole = readBuild({ format: "imbra-build", version: 1, name: "check", partTypes: [type], parts: [{ id: "part", type: type.id }] }, []);
    if (!whole.ok)
      return no(
        "Nothing was stored. Correct these and save again.",
        whole.faults.map((f) => f.replace("partTypes[0].", "")),
      );
    const odd = contradictions(type);
    if (odd.length > 0) return no("This entry says two things that cannot both be. Nothing was stored. Measure again, correct these and save.", odd);
    const row = await tx.findOne(ShelfType, { id: type.id }, { lockMode: LockMode.PESSIMISTIC_WRITE });
    if (s.from === undefined && row) return no(`The shelf already has a part type ${type.id}. Give the new one another id. Nothing was stored.`);
    if (s.from !== undefined && !row)
      return no(`${type.id} is not on the shelf. Its id cannot change: save it as a new part type. Nothing was stored.`);
    if (row && s.from !== undefined && row.revision !== s.from)
      return no(
        `${type.name} was corrected meanwhile: revision ${row.revision}, yours began at ${s.from}. Nothing was stored. Open it again and repeat the change.`,
      );
    if (row && row.kind !== type.kind)
      return no(`${type.id} is a ${row.kind} and stays one. Save a ${type.kind} under another id. Nothing was stored.`);
    if (!row && (await tx.count(ShelfType)) >= MOST_TYPES) return no(`The shelf is full: ${MOST_TYPES} part types. Nothing was stored.`);
    const users = row ? await tx.find(JobPart, { type: type.id }, { populate: ["job"], limit: 500 }) : [];
    const lost = row ? await lostEnds(tx, entryOf(row.body), type) : [];
    if (lost.length > 0) return no(`${lost.slice(0, 3).join(" ")} Nothing was stored. Keep the port, or take the plug out first.`);
    const revision = (row?.revision ?? 0) + 1;
    const body = toStored({ ...type, revision });
    if (row) Object.assign(row, { maker: type.maker, name: type.name, revision, body });
    else tx.create(ShelfType, { id: type.id, kind: type.kind, maker: type.maker, name: type.name, revision, body, stock: 0, spares: 0 });
    tx.create(ShelfRevision, { type: type.id, revision, body, by: unit.by, at: unit.when.happened, because: s.because });
    return yes({ id: type.id, revision, jobs: [...new Set(users.map((u) => u.job.number))] });
  },
});

/** Plugged connections whose end the corrected part type no longer has. */
async function lostEnds(tx: EntityManager, was: PartType, now: PartType): Promise<string[]> {
  const ids = (t: PartType) => new Set([...t.ports.map((p) => p.id), ...t.leads.map((l) => l.id)]);
  const gone = [...ids(was)].filter((id) => !ids(now).has(id));
  if (gone.length === 0) return [];
  const rows = await tx.execute<{ number: string; lead: string; port: string }[]>(
    `select j."number", c."lead", c."port" from "connection" c join "job" j on j."id" = c."job_id" join "job_part" p on p."job_id" = j."id" and p."type" = ?
     where c."state" in ('plugged', 'checked') and (${gone.map(() => `c."lead" = p."key" || ':' || ? or c."port" = p."key" || ':' || ?`).join(" or ")}) limit 5`,
    [was.id, ...gone.flatMap((g) => [g, g])],
  );
  return rows.map(
    (r) => `${gone.find((g) => r.lead.endsWith(`:${g}`) || r.port.endsWith(`:${g}`))} is in use: ${r.number} has ${r.lead} in ${r.port}.`,
  );
}

import { z } from "zod";
import { type EntityManager, JobPart } from "../../db";
import { done, no, type Result } from "../kernel/result";
import { Day, JobNumber, key, line, PartKey, text } from "../kernel/text";
import { jobAction } from "../unit/action";
import { findPart } from "./find-part";

export const ORIGINS = ["new", "second-hand", "client", "bundle", "loan"] as const;

const FactsGiven = z
  .strictObject({
    firmware: line(60),
    madeOn: Day.nullable(),
    origin: z.enum(ORIGINS).nullable(),
    /** From whom it is bought, or whose it is. */
    whose: line(120),
    /** On loan: until when. */
    untilOn: Day.nullable(),
    condition: text(300),
    /** What was proved on it: clock, memory speed that held. */
    proved: line(200),
    /** What went wrong with its like, told to the maker: what, when, what they said. */
    defect: z.strictObject({ what: line(300), toldOn: Day.nullable(), answer: line(300) }),
    /** Things of the order list that came along with it. */
    came: z.array(z.preprocess((c) => (typeof c === "string" ? { id: c, what: "" } : c), z.strictObject({ id: key(160), what: line(160) }))).max(60),
    /** What else came with it and is not used: it lies in the bag. */
    along: z.array(line(120)).max(40, "at most 40 things"),
  })
  .partial();

/** What is known of this very piece, not of its type. */
export type Facts = Required<z.infer<typeof FactsGiven>>;
const NOTHING: Facts = {
  firmware: "",
  madeOn: null,
  origin: null,
  whose: "",
  untilOn: null,
  condition: "",
  proved: "",
  defect: { what: "", toldOn: null, answer: "" },
  came: [],
  along: [],
};

/** As it was stored; what nobody said is empty. */
export function factsOf(raw: unknown): Facts {
  const read = FactsGiven.safeParse(raw ?? {});
  return { ...NOTHING, ...(read.success ? read.data : {}) } as Facts;
}

/** By part. */
export async function factsOfJob(em: EntityManager, jobId: string): Promise<Record<string, Facts>> {
  const rows = await em.find(JobPart, { job: jobId }, { limit: 250 });
  return Object.fromEntries(rows.map((r) => [r.key, factsOf(r.facts)]));
}

const WORD: { [K in keyof Facts]: string } = {
  firmware: "firmware",
  madeOn: "made on",
  origin: "where it comes from",
  whose: "whose it is",
  untilOn: "on loan until",
  condition: "its condition",
  proved: "what was proved on it",
  defect: "a defect",
  came: "what came along",
  along: "what lies in the bag",
};

/** What is known of a piece: only what is given changes. */
export const changeFacts = jobAction({
  name: "parts.facts",
  permission: "record",
  input: z.object({ number: JobNumber, part: PartKey, facts: FactsGiven }),
  run: async (unit, c): Promise<Result> => {
    const found = await findPart(unit, c.part);
    if (!found.ok) return found;
    const was = factsOf(found.row.facts);
    const now = { ...was, ...Object.fromEntries(Object.entries(c.facts).filter(([, v]) => v !== undefined)) } as Facts;
    const changed = (Object.keys(now) as (keyof Facts)[]).filter((k) => JSON.stringify(was[k]) !== JSON.stringify(now[k]));
    if (changed.length === 0) return done();
    if (now.origin === "loan" && now.whose === "") return no(`Whose is ${found.name}? Nothing was changed. A thing on loan has an owner.`);
    const kept: Record<string, unknown> = { ...now };
    found.row.facts = kept;
    unit.emit("facts", { part: c.part, name: found.name, changed: changed.map((k) => WORD[k]) });
    return done();
  },
});

/** Where pieces with this serial were before: of other jobs, newest first. */
export async function whereBefore(
  em: EntityManager,
  jobId: string,
  serials: readonly string[],
): Promise<{ serial: string; job: string; name: string }[]> {
  if (serials.length === 0) return [];
  const rows = await em.find(JobPart, { job: { $ne: jobId }, serial: { $in: [...serials] } }, { limit: 60, populate: ["job"] });
  return rows.map((r) => ({ serial: r.serial ?? "", job: r.job.number, name: r.label ?? r.type }));
}

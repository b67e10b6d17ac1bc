import type { z } from "zod";
import { parseWith } from "../../core/assembly";
import { isClosed } from "../../core/job";
import { type EntityManager, Job, type JobRow, LogEntry, UniqueConstraintViolationException } from "../../db";
import { type Actor, may, mayNot, type Permission } from "./actor";
import { Entry, happenedAt } from "./entry";
import { no, type Refusal, type Result, yes } from "./result";
import { JobUnit, Unit } from "./unit";

/** Something that a person may ask for, declared once: under which name, with which input, who may, and what it does. */
export interface Action<S extends z.ZodType, T> {
  name: string;
  permission: Permission;
  input: S;
  /** Carries out a parsed input. Refusals are values; whatever is thrown is a fault, and nothing is stored of it. */
  carryOut: (em: EntityManager, actor: Actor, value: z.infer<S>, entry?: Entry) => Promise<Result<T>>;
}

interface Declared<S extends z.ZodType> {
  name: string;
  permission: Permission;
  input: S;
}

const declared = new Map<string, Action<z.ZodType, unknown>>();
/** Every action and query that a loaded module declares, by name. */
export const ACTIONS: ReadonlyMap<string, Action<z.ZodType, unknown>> = declared;

function declare<S extends z.ZodType, T>(action: Action<S, T>): Action<S, T> {
  // A development server loads a module again; the newest counts.
  declared.set(action.name, action as unknown as Action<z.ZodType, unknown>);
  return action;
}

/** Changes one job: the job is locked, an entry that is kept already is not kept twice, and a refusal takes everything back. */
export function jobAction<S extends z.ZodType<{ number: string }>, T = undefined>(
  action: Declared<S> & {
    /** May be done on a job that was handed over. */
    onClosed?: boolean;
    run: (unit: JobUnit, value: z.infer<S>) => Promise<Result<T>>;
  },
): Action<S, T> {
  const carryOut = async (em: EntityManager, actor: Actor, value: z.infer<S>, entry?: Entry): Promise<Result<T>> =>
    inTransaction(em, async (tx) => {
      const { job, known } = await lockJob(tx, value.number, entry?.key);
      if (!job) return no(`There is no job ${value.number}. Nothing was changed.`);
      if (known) return { ...yes(undefined as T), revision: job.revision };
      const before = job.revision;
      const arrived = new Date();
      const unit = new JobUnit(tx, actor, { happened: happenedAt(entry, arrived), arrived }, job, entry?.key);
      if (!action.onClosed && isClosed(unit.stage.now()))
        return no(
          `${job.number} was ${unit.stage.now() === "cancelled" ? "cancelled" : "handed over"}. Nothing was changed. Open it again on Handover first.`,
        );
      const said = await action.run(unit, value);
      if (said.ok) {
        await unit.keepHead(before);
        return { ...said, revision: job.revision };
      }
      return said;
    });
  // One that was waiting for the job sees what was written meanwhile only when it writes the same itself.
  const onceOnly: typeof carryOut = async (em, actor, value, entry) => {
    try {
      const said = await carryOut(em, actor, value, entry);
      // The same entry may have been stored while this one waited for the job. Asked anew: what this one wrote itself is taken back.
      const kept = said.ok || !entry ? undefined : await keptAt(em, value.number, entry.key);
      return kept === undefined ? said : { ...yes(undefined as T), revision: kept };
    } catch (e) {
      const kept = entry && isSentTwice(e) ? await keptAt(em, value.number, entry.key) : undefined;
      if (kept === undefined) throw e;
      return { ...yes(undefined as T), revision: kept };
    }
  };
  return declare({ name: action.name, permission: action.permission, input: action.input, carryOut: onceOnly });
}

/** The job, held until the end of the transaction, and whether it has an entry of this key already: one question. */
async function lockJob(tx: EntityManager, number: string, key: string | undefined): Promise<{ job?: JobRow; known: boolean }> {
  const [row] = await tx.execute<Record<string, unknown>[]>(
    `select j.*, exists(select from "log_entry" e where e."job_id" = j."id" and e."entry_key" = ?) as "known" from "job" j where j."number" = ? for update of j`,
    [key ?? null, number],
  );
  if (!row) return { known: false };
  const { known, ...columns } = row;
  return { job: tx.map(Job, columns) as JobRow, known: known === true };
}

/** The job's revision when it has an entry of this key. */
async function keptAt(em: EntityManager, number: string, key: string): Promise<number | undefined> {
  const fresh = em.fork();
  const job = await fresh.findOne(Job, { number });
  return job && (await fresh.count(LogEntry, { job: job.id, entryKey: key })) > 0 ? job.revision : undefined;
}

/** Changes what belongs to the whole shop, or makes a job: a transaction, and nothing locked beforehand. */
export function shopAction<S extends z.ZodType, T = undefined>(
  action: Declared<S> & { run: (unit: Unit, value: z.infer<S>) => Promise<Result<T>> },
): Action<S, T> {
  const carryOut = (em: EntityManager, actor: Actor, value: z.infer<S>) =>
    inTransaction(em, (tx) => {
      const now = new Date();
      return action.run(new Unit(tx, actor, { happened: now, arrived: now }), value);
    });
  return declare({ name: action.name, permission: action.permission, input: action.input, carryOut });
}

/** Asks without changing anything, or works long and stores through actions of its own. */
export function query<S extends z.ZodType, T>(
  action: Omit<Declared<S>, "permission"> & {
    permission?: Permission;
    run: (em: EntityManager, value: z.infer<S>, actor: Actor) => Promise<Result<T>>;
  },
): Action<S, T> {
  return declare({
    name: action.name,
    permission: action.permission ?? "look",
    input: action.input,
    carryOut: (em, actor, value) => action.run(em, value, actor),
  });
}

/** A refusal takes back what was written before it: "nothing was changed" is always true. */
class Refused extends Error {
  constructor(readonly said: Refusal) {
    super("refused");
  }
}

/** The row that an entry sent twice at once cannot write: the other of the two has it. */
const isSentTwice = (e: unknown): boolean => e instanceof UniqueConstraintViolationException && e.message.includes("log_entry_job_entry_key_unique");

async function inTransaction<T>(em: EntityManager, work: (tx: EntityManager) => Promise<Result<T>>): Promise<Result<T>> {
  try {
    return await em.transactional(async (tx) => {
      const said = await work(tx as EntityManager);
      if (!said.ok) throw new Refused(said);
      return said;
    });
  } catch (e) {
    if (e instanceof Refused) return e.said;
    throw e;
  }
}

/** An action for an actor and an input as it came: may they, is it sound, then the work. */
export async function carryOut<S extends z.ZodType, T>(
  em: EntityManager,
  actor: Actor | undefined,
  action: Action<S, T>,
  input: unknown,
  entry?: unknown,
): Promise<Result<T>> {
  if (!actor || !may(actor, action.permission)) return no(`${mayNot(actor, action.permission)} Nothing was changed.`);
  const value = parseWith(action.input, input);
  if (!value.ok) return no("The entry was not understood. Nothing was changed.", value.faults);
  const own = entry === undefined ? undefined : parseWith(Entry, entry);
  if (own && !own.ok) return no("The entry was not understood. Nothing was changed.", own.faults);
  return action.carryOut(em, actor, value.value, own?.value);
}

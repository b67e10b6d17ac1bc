import pLimit from "p-limit";
import type { z } from "zod";
import { parseWith } from "../../core/assembly";
import { isClosed } from "../../core/job";
import { afterCommit, type EntityManager, Job, type JobRow, LogEntry, prepared, UniqueConstraintViolationException } from "../../db";
import { type Actor, may, mayNot, type Permission } from "../kernel/actor";
import { Entry, happenedAt } from "../kernel/entry";
import { tellShop } from "../kernel/news";
import { no, type Refusal, type Result, yes } from "../kernel/result";
import type { Seat } from "../kernel/seat";
import { type JobRead, JobUnit, Unit } from "./unit";

/** Something that a person may ask for, declared once: under which name, with which input, who may, and what it does. */
export interface Action<S extends z.ZodType, T> {
  name: string;
  permission: Permission;
  input: S;
  /** It changes something: nobody does that at a bench that was left alone. */
  changes: boolean;
  /** Carries out a parsed input. Refusals are values; whatever is thrown is a fault, and nothing is stored of it. */
  carryOut: (em: EntityManager, actor: Actor, value: z.infer<S>, entry?: Entry, seat?: Seat) => Promise<Result<T>>;
}

/** An action on one job: in its transaction it looks whether a seat that was only remembered is so still, and throws `SeatMoved` where it is not. */
export interface JobAction<S extends z.ZodType, T> extends Action<S, T> {
  looksAtSeat: true;
}

/** Who sits at a device is another than a moment ago, or nobody; nothing was changed. */
export class SeatMoved extends Error {
  constructor() {
    super("the seat is not what it was");
  }
}

interface Declared<S extends z.ZodType> {
  name: string;
  permission: Permission;
  input: S;
}

const declared = new Map<string, Action<z.ZodType, unknown>>();
/** Every action and query that a loaded module declares, by name. */
export const ACTIONS: ReadonlyMap<string, Action<z.ZodType, unknown>> = declared;

function declare<S extends z.ZodType, T>(action: Action<S, T>): void {
  // A development server loads a module again; the newest counts.
  declared.set(action.name, action as unknown as Action<z.ZodType, unknown>);
}

/** Changes one job: the job is locked, an entry that is kept already is not kept twice, and a refusal takes everything back. */
export function jobAction<S extends z.ZodType<{ number: string }>, T = undefined>(
  action: Declared<S> & {
    /** May be done on a job that was handed over. */
    onClosed?: boolean;
    /**
     * Nothing but the log is written for this value. Then the job is not held meanwhile, which saves three ways to the database and back:
     * what happened is kept if the job is still as it was read, else all is done again with the job held.
     */
    onlyTells?: (value: z.infer<S>) => boolean;
    run: (unit: JobUnit, value: z.infer<S>) => Promise<Result<T>>;
  },
): JobAction<S, T> {
  /** Undefined: the job, or who sits at the device, moved on meanwhile, and nothing was kept. */
  const work = async (
    tx: EntityManager,
    { job, known }: Asked,
    ...[actor, value, entry, seat]: [Actor, z.infer<S>, Entry | undefined, Seat | undefined]
  ): Promise<Result<T> | undefined> => {
    if (!job) return no(`There is no job ${value.number}. Nothing was changed.`);
    if (known) return { ok: true, value: undefined as T, revision: job.revision };
    const arrived = new Date();
    const unit = new JobUnit(tx, actor, { happened: happenedAt(entry, arrived), arrived }, job, entry?.key);
    if (!action.onClosed && isClosed(unit.stage.now()))
      return no(
        `${job.number} was ${unit.stage.now() === "cancelled" ? "cancelled" : "handed over"}. Nothing was changed. Open it again on Handover first.`,
      );
    const said = await action.run(unit, value);
    if (!said.ok) return said;
    const kept = await unit.keepEvents(seat);
    return kept ? { ok: true, value: said.value, revision: unit.revision } : undefined;
  };
  const carryOut = async (em: EntityManager, actor: Actor, value: z.infer<S>, entry?: Entry, seat?: Seat): Promise<Result<T>> => {
    if (action.onlyTells?.(value)) {
      const told = await work(em, await readJob(em, value.number, entry?.key), actor, value, entry, seat);
      if (told) return told;
    }
    return inTurnOf(value.number, () =>
      inTransaction(em, async (tx) => {
        const said = await work(tx, await lockJob(tx, value.number, entry?.key), actor, value, entry, seat);
        if (!said) throw new SeatMoved();
        return said;
      }),
    );
  };
  // One that was waiting for the job sees what was written meanwhile only when it writes the same itself.
  const onceOnly: typeof carryOut = async (em, actor, value, entry, seat) => {
    try {
      const said = await carryOut(em, actor, value, entry, seat);
      // The same entry may have been stored while this one waited for the job. Asked anew: what this one wrote itself is taken back.
      const kept = said.ok || !entry ? undefined : await keptAt(em, value.number, entry.key);
      return kept === undefined ? said : { ...yes(undefined as T), revision: kept };
    } catch (e) {
      const kept = entry && isSentTwice(e) ? await keptAt(em, value.number, entry.key) : undefined;
      if (kept === undefined) throw e;
      return { ...yes(undefined as T), revision: kept };
    }
  };
  const made: JobAction<S, T> = {
    name: action.name,
    permission: action.permission,
    input: action.input,
    changes: true,
    carryOut: onceOnly,
    looksAtSeat: true,
  };
  declare(made);
  return made;
}

/** So many wait for one job in this process; more are told to come again. */
const MOST_WAITING = 60;
const queues = new Map<string, ReturnType<typeof pLimit>>();

/** One at a time of a job: whoever waits for it waits here, and holds no connection meanwhile that others need. */
async function inTurnOf<T>(number: string, work: () => Promise<Result<T>>): Promise<Result<T>> {
  const queue = queues.get(number) ?? pLimit(1);
  queues.set(number, queue);
  if (queue.pendingCount >= MOST_WAITING)
    return { ...no(`Too much comes in for ${number.slice(0, 40)} at this moment. Nothing was changed. Try again.`), later: "again" };
  try {
    return await queue(work);
  } finally {
    if (queue.activeCount + queue.pendingCount === 0) queues.delete(number);
  }
}

interface Asked {
  job?: JobRead;
  known: boolean;
}

/** The columns of a job as this program knows them, whatever a later one adds. */
const columnsOfJob = (em: EntityManager): string =>
  Object.values(em.getMetadata().get<JobRow>("Job").properties)
    .flatMap((p) => (p.fieldNames ?? []).map((f) => `j."${f}"`))
    .join();

/** The job, and whether it has an entry of this key already: one question. */
async function readJob(em: EntityManager, number: string, key: string | undefined, hold = false): Promise<Asked> {
  const [row] = await prepared<Record<string, unknown>>(
    em,
    hold ? "hold job" : "read job",
    `select ${columnsOfJob(em)}, exists(select from "log_entry" e where e."job_id" = j."id" and e."entry_key" = ?) as "known" from "job" j where j."number" = ?${hold ? " for update of j" : ""}`,
    [key ?? null, number],
  );
  if (!row) return { known: false };
  const { known, ...columns } = row;
  const { id, stage, revision } = columns as { id: string; stage: string; revision: number };
  return { job: { id, number, stage, revision, row: () => em.map(Job, columns) as JobRow }, known: known === true };
}

/** The same, the job held until the end of the transaction. */
const lockJob = (tx: EntityManager, number: string, key: string | undefined): Promise<Asked> => readJob(tx, number, key, true);

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
  const carryOut = (em: EntityManager, actor: Actor, value: z.infer<S>) => shopWork(em, actor, (unit) => action.run(unit, value));
  const made: Action<S, T> = { name: action.name, permission: action.permission, input: action.input, changes: true, carryOut };
  declare(made);
  return made;
}

/** Work on what belongs to the whole shop, all of it stored or nothing. */
export const shopWork = <T>(em: EntityManager, actor: Actor, work: (unit: Unit) => Promise<Result<T>>): Promise<Result<T>> =>
  inTransaction(em, (tx) => {
    const now = new Date();
    afterCommit(tx, tellShop);
    return work(new Unit(tx, actor, { happened: now, arrived: now }));
  });

/** Asks without changing anything, or works long and stores through actions of its own: `changes` says so where it needs no more than a look. */
export function query<S extends z.ZodType, T>(
  action: Omit<Declared<S>, "permission"> & {
    permission?: Permission;
    changes?: true;
    run: (em: EntityManager, value: z.infer<S>, actor: Actor) => Promise<Result<T>>;
  },
): Action<S, T> {
  const made: Action<S, T> = {
    name: action.name,
    permission: action.permission ?? "look",
    input: action.input,
    changes: action.changes ?? (action.permission ?? "look") !== "look",
    carryOut: (em, actor, value) => action.run(em, value, actor),
  };
  declare(made);
  return made;
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
  seat?: Seat,
): Promise<Result<T>> {
  if (!actor || !may(actor, action.permission)) return no(`${mayNot(actor, action.permission)} Nothing was changed.`);
  const value = parseWith(action.input, input);
  if (!value.ok) return no("The entry was not understood. Nothing was changed.", value.faults);
  const own = entry === undefined ? undefined : parseWith(Entry, entry);
  if (own && !own.ok) return no("The entry was not understood. Nothing was changed.", own.faults);
  return action.carryOut(em, actor, value.value, own?.value, seat);
}

import { type EventKind, type Happening, isStage, type JobEvents, type Stage, stageAfter } from "../../core/job";
import { stepsByName, type Work } from "../../core/order";
import {
  type EntityManager,
  Fault,
  FaultEvent,
  type FaultEventRow,
  type FaultRow,
  type JobRow,
  Link,
  type LinkRow,
  Person,
  type PersonRow,
  prepared,
} from "../../db";
import { buildOfJob, type JobBuild } from "../build/build-of-job";
import type { Actor } from "../kernel/actor";
import { tellJob } from "../kernel/news";
import { type Seat, STILL_SO } from "../kernel/seat";

/** Told, and nothing of what hands do next, how far they are or what is wrong moves. */
const BESIDE_THE_WORK: readonly EventKind[] = ["note", "skipped"];

/** Of a fault with many symptoms so much is its title, characters. */
const MOST_TITLE = 400;

/** What an action has to know of a step. */
export type StepName = Pick<Work, "id" | "title" | "measure" | "parts" | "kind"> & Partial<Pick<Work, "lead">>;

/** When something happened, and when the server heard of it. */
export interface When {
  happened: Date;
  arrived: Date;
}

/** One action's work in one transaction: it reads and changes through `tx`, and all of it is stored or nothing. */
export class Unit {
  constructor(
    readonly tx: EntityManager,
    readonly actor: Actor,
    readonly when: When,
  ) {}

  /** The actor as a row of this transaction. */
  get by(): PersonRow {
    return this.tx.getReference(Person, this.actor.id) as PersonRow;
  }
}

/** A job as it was read, and the way to its row as an entity, which takes longer to make than an entry takes to be kept. */
export interface JobRead {
  id: string;
  number: string;
  stage: string;
  revision: number;
  row: () => JobRow;
}

export const jobRead = (row: JobRow): JobRead => ({ id: row.id, number: row.number, stage: row.stage, revision: row.revision, row: () => row });

/** A unit on one job: its row is locked, so that nobody else changes the job meanwhile, or nothing but the log is written. */
export class JobUnit extends Unit {
  private row: JobRow | undefined;
  private built: Promise<JobBuild> | undefined;
  private named: Promise<(id: string) => StepName | undefined> | undefined;
  private readonly told: { kind: EventKind; data: unknown; plan_revision: number | null; entry_key: string | null }[] = [];
  /** The entry of the log that this one takes back. */
  takesBack: number | undefined;

  constructor(
    tx: EntityManager,
    actor: Actor,
    when: When,
    readonly read: JobRead,
    /** Kept with the first event, so that an entry sent twice is known. */
    private readonly entryKey: string | undefined,
  ) {
    super(tx, actor, when);
  }

  /** The job's row, as an entity of this transaction. */
  get job(): JobRow {
    this.row ??= this.read.row();
    return this.row;
  }

  /** The job's build as it was when the unit began, read once and only when asked for. */
  build(): Promise<JobBuild> {
    this.built ??= buildOfJob(this.tx, this.job);
    return this.built;
  }

  /** A step of it by its id, as it was when the unit began; also one for which it is too late. */
  async step(id: string): Promise<StepName | undefined> {
    this.named ??= this.build().then((b) => stepsByName(b.graph));
    return (await this.named)(id);
  }

  /** Rows that were read or made by this unit. */
  private readonly linkOf = new Map<string, LinkRow | undefined>();

  readonly links = {
    /** Reads what is about to be asked for in one go. */
    read: async (leads: readonly string[]): Promise<void> => {
      const rows = await this.tx.find(Link, { job: this.job.id, lead: { $in: [...leads] } }, { limit: leads.length });
      for (const lead of leads) this.linkOf.set(lead, undefined);
      for (const row of rows) this.linkOf.set(row.lead, row as LinkRow);
    },
    find: async (lead: string): Promise<LinkRow | undefined> => {
      if (!this.linkOf.has(lead)) await this.links.read([lead]);
      return this.linkOf.get(lead);
    },
    /** This lead is in this port from now on; what is not said stays as it was. */
    put: async (lead: string, now: Partial<Pick<LinkRow, "place" | "plannedPort" | "why">> & Pick<LinkRow, "port" | "state">): Promise<void> => {
      const row = await this.links.find(lead);
      if (row) {
        Object.assign(row, now, { changedAt: this.when.happened });
        return;
      }
      const made = this.tx.create(Link, {
        job: this.job,
        lead,
        place: null,
        plannedPort: null,
        why: "",
        planRevision: null,
        ...now,
        changedAt: this.when.happened,
      });
      this.linkOf.set(lead, made as LinkRow);
    },
    remove: async (lead: string): Promise<void> => {
      await this.tx.nativeDelete(Link, { job: this.job.id, lead });
      this.linkOf.set(lead, undefined);
    },
  };

  readonly faults = {
    open: (): Promise<FaultRow[]> =>
      this.tx.find(Fault, { job: this.job.id, state: "open" }, { limit: 200, orderBy: { number: "asc" } }) as Promise<FaultRow[]>,
    /** Opens a fault; its number in the job. */
    add: async (fault: Pick<FaultRow, "line" | "title" | "expected" | "seen"> & { simulated?: boolean }): Promise<number> => {
      const last = await this.tx.findOne(Fault, { job: this.job.id }, { orderBy: { number: "desc" } });
      const number = (last?.number ?? 0) + 1;
      this.tx.create(Fault, {
        job: this.job,
        number,
        ...fault,
        lines: [fault.line],
        state: "open",
        tried: [],
        finding: null,
        causes: null,
        minutes: null,
        openedBy: this.by,
        openedAt: this.when.happened,
        closedAt: null,
      });
      await this.tx.flush();
      return number;
    },
    close: (fault: FaultRow, finding: string): void => {
      Object.assign(fault, { state: "closed", closedAt: this.when.happened, finding });
    },
    /** Another line is wrong because of the same. */
    join: (fault: FaultRow, line: string, words: string): void => {
      if (fault.lines.includes(line)) return;
      Object.assign(fault, { lines: [...fault.lines, line], title: `${fault.title}; ${words}`.slice(0, MOST_TITLE) });
    },
    /** What was seen of it or done about it, kept for good. */
    note: (
      fault: number,
      what: Pick<FaultEventRow, "words"> & Partial<Pick<FaultEventRow, "line" | "value" | "deed" | "result" | "minutes" | "simulated">>,
    ): void => {
      this.tx.create(FaultEvent, {
        job: this.job,
        fault,
        line: null,
        value: null,
        deed: null,
        result: null,
        minutes: null,
        simulated: false,
        ...what,
        by: this.by,
        at: this.when.happened,
      });
    },
  };

  readonly stage = {
    now: (): Stage => {
      const { stage } = this.row ?? this.read;
      return isStage(stage) ? stage : "intake";
    },
    /** Moves the job on as the state machine says; the stage after. */
    to: (happening: Happening): Stage => {
      const was = this.stage.now();
      const before = this.job.stageBefore && isStage(this.job.stageBefore) ? this.job.stageBefore : undefined;
      const next = stageAfter(was, happening, before);
      if (next === was) return was;
      this.job.stage = next;
      this.job.stageBefore = next === "waiting" ? was : null;
      if (next !== "waiting") Object.assign(this.job, { waitingFor: null, waitingUntil: null });
      return next;
    },
  };

  /** Plugs may fit otherwise from now on: a plan made before is stale. */
  partsChanged(): void {
    this.job.partsRevision += 1;
  }

  /** What happened, for the log and for everybody who looks on. Each event raises the job's revision. */
  emit<K extends EventKind>(kind: K, data: JobEvents[K], planRevision?: number): void {
    this.told.push({
      kind,
      data: this.takesBack === undefined ? data : { ...data, takesBack: this.takesBack },
      plan_revision: planRevision ?? null,
      entry_key: this.told.length === 0 ? (this.entryKey ?? null) : null,
    });
  }

  /** The job's revision once everything that was told is kept. */
  get revision(): number {
    return this.read.revision + this.told.length;
  }

  /**
   * Keeps what was told, once, at the end: the log, the job's revision and, where nothing happened that moves what lists show of the job,
   * their head, which is right for the new revision too. One statement, since each one is a way to the database and back. False, and
   * nothing kept: the job is not as it was read, or a remembered seat is not what it was.
   */
  async keepEvents(seat?: Seat): Promise<boolean> {
    const { read, actor, when, told, revision } = this;
    if (told.length === 0 && !seat) return true;
    const headMoves = told.some((e) => !BESIDE_THE_WORK.includes(e.kind));
    const [row] = await prepared<{ moved: boolean }>(
      this.tx,
      seat ? "keep events of a seat" : "keep events",
      `with "moved" as (update "job" set "revision" = ? where "id" = ? and "revision" = ? and ${seat ? STILL_SO : "true"} returning "id"),
         "log" as (
           insert into "log_entry" ("job_id", "by_id", "at", "happened_at", "kind", "data", "plan_revision", "entry_key")
           select m."id", ?::uuid, ?::timestamptz, ?::timestamptz, e."kind", e."data", e."plan_revision", e."entry_key" from "moved" m,
             rows from (jsonb_to_recordset(?::jsonb) as ("kind" text, "data" jsonb, "plan_revision" int, "entry_key" text)) with ordinality e
           order by e."ordinality"
         ),
         "head" as (update "job_head" h set "revision" = ? from "moved" m where h."job_id" = m."id" and h."revision" = ?)
       select exists(select from "moved") as "moved"`,
      [
        ...[revision, read.id, read.revision, ...(seat ? [seat.session, seat.stamp] : [])],
        ...[actor.id, when.arrived, when.happened, JSON.stringify(told)],
        ...[revision, headMoves ? -1 : read.revision],
      ],
    );
    if (row?.moved && told.length > 0) tellJob(this.tx, read.number, revision);
    return row?.moved === true;
  }
}

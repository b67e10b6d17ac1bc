import { type EventKind, type Happening, isStage, type JobEvents, type Stage, stageAfter } from "../../core/job";
import { stepsFor, type Work } from "../../core/order";
import { type EntityManager, Fault, type FaultRow, type JobRow, Link, type LinkRow, LogEntry, Person, type PersonRow } from "../../db";
import { buildOfJob, type JobBuild } from "../read/build-of-job";
import type { Actor } from "./actor";

/** Told, and nothing of what hands do next, how far they are or what is wrong moves. */
const BESIDE_THE_WORK: readonly EventKind[] = ["note", "skipped"];

/** What an action has to know of a step. */
export type StepName = Pick<Work, "id" | "title" | "measure"> & Partial<Pick<Work, "lead">>;

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

/** A unit on one job, whose row is locked: nobody else changes the job meanwhile. */
export class JobUnit extends Unit {
  private built: Promise<JobBuild> | undefined;
  private known: Promise<ReadonlyMap<string, StepName>> | undefined;
  private told = 0;
  private headMoves = false;
  /** The entry of the log that this one takes back. */
  takesBack: number | undefined;

  constructor(
    tx: EntityManager,
    actor: Actor,
    when: When,
    readonly job: JobRow,
    /** Kept with the first event, so that an entry sent twice is known. */
    private readonly entryKey: string | undefined,
  ) {
    super(tx, actor, when);
  }

  /** The job's build as it was when the unit began, read once and only when asked for. */
  build(): Promise<JobBuild> {
    this.built ??= buildOfJob(this.tx, this.job);
    return this.built;
  }

  /** Its steps by id as they were when the unit began, those for which it is too late among them; worked out once, when asked for. */
  steps(): Promise<ReadonlyMap<string, StepName>> {
    this.known ??= this.build().then((b) => {
      const { works, late } = stepsFor(b.graph);
      return new Map<string, StepName>([...late.map((w) => [w.id, w] as const), ...works]);
    });
    return this.known;
  }

  readonly links = {
    find: async (lead: string): Promise<LinkRow | undefined> => (await this.tx.findOne(Link, { job: this.job.id, lead })) ?? undefined,
    /** This lead is in this port from now on; what is not said stays as it was. */
    put: async (lead: string, now: Partial<Pick<LinkRow, "place" | "plannedPort" | "why">> & Pick<LinkRow, "port" | "state">): Promise<void> => {
      const row = await this.links.find(lead);
      if (row) Object.assign(row, now, { changedAt: this.when.happened });
      else
        this.tx.create(Link, {
          job: this.job,
          lead,
          place: null,
          plannedPort: null,
          why: "",
          planRevision: null,
          ...now,
          changedAt: this.when.happened,
        });
    },
    remove: async (lead: string): Promise<void> => {
      await this.tx.nativeDelete(Link, { job: this.job.id, lead });
    },
  };

  readonly faults = {
    open: (): Promise<FaultRow[]> =>
      this.tx.find(Fault, { job: this.job.id, state: "open" }, { limit: 200, orderBy: { number: "asc" } }) as Promise<FaultRow[]>,
    /** Opens a fault; its number in the job. */
    add: async (fault: Pick<FaultRow, "line" | "title" | "expected" | "seen">): Promise<number> => {
      const last = await this.tx.findOne(Fault, { job: this.job.id }, { orderBy: { number: "desc" } });
      const number = (last?.number ?? 0) + 1;
      this.tx.create(Fault, {
        job: this.job,
        number,
        ...fault,
        state: "open",
        tried: [],
        finding: null,
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
  };

  readonly stage = {
    now: (): Stage => (isStage(this.job.stage) ? this.job.stage : "intake"),
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

  /** What lists show of the job is right for its new revision too, where nothing happened that moves it: nobody derives it anew. */
  async keepHead(before: number): Promise<void> {
    if (this.told === 0 || this.headMoves) return;
    await this.tx.execute(`update "job_head" set "revision" = ? where "job_id" = ? and "revision" = ?`, [this.job.revision, this.job.id, before]);
  }

  /** Plugs may fit otherwise from now on: a plan made before is stale. */
  partsChanged(): void {
    this.job.partsRevision += 1;
  }

  /** What happened, for the log and for everybody who looks on. Each event raises the job's revision. */
  emit<K extends EventKind>(kind: K, data: JobEvents[K], planRevision?: number): void {
    const first = this.told++ === 0;
    this.headMoves ||= !BESIDE_THE_WORK.includes(kind);
    this.job.revision += 1;
    this.tx.create(LogEntry, {
      job: this.job,
      by: this.by,
      kind,
      data: this.takesBack === undefined ? data : { ...data, takesBack: this.takesBack },
      text: null,
      planRevision: planRevision ?? null,
      entryKey: first ? (this.entryKey ?? null) : null,
      at: this.when.arrived,
      happenedAt: this.when.happened,
    });
  }
}

import { Worker } from "node:worker_threads";
import type { Address, Build } from "../../core/assembly";
import type { Matters } from "../../core/matters";
import type { Place, PlaceCost, Plan, PlanProgress } from "../../core/plan";
import type { Ways } from "../../core/wiring";

const DEADLINE_S = 60;
const THREADS = 2;
/** What a large build may take beyond its deadline on a machine that does much else, s. */
const GRACE_S = 90;
/** More that wait than this are refused: somebody's browser asks in a loop. */
const MOST_WAITING = 40;

export type Task =
  | { kind: "plan"; build: Build; deadlineS: number; ways?: Asked["ways"]; stillBest?: boolean | undefined }
  | { kind: "matters"; build: Build; deadlineS: number; listOnly: boolean }
  | { kind: "places"; build: Build; deadlineS: number; lead: Address; places: readonly Place[] };

/** How a plan is asked for. */
export interface Asked {
  deadlineS?: number;
  onProgress?: (now: PlanProgress) => void;
  /** Say what would let in what stays free. */
  ways?: "always" | "when proved" | undefined;
  /** The build is a plan that was proved, and only more of it is held than was then. */
  stillBest?: boolean | undefined;
  /** Ends the work; what waits is not begun. */
  signal?: AbortSignal | undefined;
}

/** What the thread says: news while it works, then the end. */
export type Said = { ok: true; value: unknown } | { ok: false; why: string } | { progress: PlanProgress };

interface Waiting {
  task: Task;
  /** Nobody waits for the answer: only the thread's memory is wanted. */
  ahead: boolean;
  onProgress?: ((now: PlanProgress) => void) | undefined;
  done: (value: unknown) => void;
  failed: (e: Error) => void;
}
interface Thread {
  worker: Worker;
  now?: Waiting | undefined;
  late?: NodeJS.Timeout | undefined;
  /** The job it worked on last: its memory has that job's pieces. */
  last: string;
}
interface Pool {
  threads: Thread[];
  queue: Waiting[];
}

const holder = globalThis as typeof globalThis & { imbraPlanPool?: Pool };
function pool(): Pool {
  holder.imbraPlanPool ??= { threads: [], queue: [] };
  return holder.imbraPlanPool;
}

/** Where the thread's program is when nothing has bundled it. */
let unbundled: URL | undefined;
export const threadsFrom = (program: URL): void => {
  unbundled = program;
};

function newThread(p: Pool): Thread {
  const worker = unbundled ? new Worker(unbundled) : new Worker(new URL("../../workers/plan.worker.ts", import.meta.url));
  const thread: Thread = { worker, last: "" };
  worker.unref();
  const end = (settle: (w: Waiting) => void) => {
    clearTimeout(thread.late);
    const w = thread.now;
    thread.now = undefined;
    if (w) settle(w);
  };
  worker.on("message", (m: Said) => {
    if ("progress" in m) {
      thread.now?.onProgress?.(m.progress);
      return;
    }
    end((w) => (m.ok ? w.done(m.value) : w.failed(new Error(m.why))));
    next(p);
  });
  worker.on("error", (e) => end((w) => w.failed(e)));
  worker.on("exit", () => {
    end((w) => w.failed(new Error("the planner stopped")));
    p.threads = p.threads.filter((t) => t !== thread);
    next(p);
  });
  p.threads.push(thread);
  return thread;
}

function next(p: Pool): void {
  // A thread that works ahead on this very job has it in its memory in a moment; whoever is behind need not wait for that.
  const w = p.queue.find((x) => !p.threads.some((t) => t.now?.ahead && t.now.task.build.name === x.task.build.name));
  if (!w) return;
  const { name } = w.task.build;
  const idle = p.threads.filter((t) => !t.now);
  const thread = idle.find((t) => t.last === name) ?? idle[0] ?? (p.threads.length < THREADS ? newThread(p) : undefined);
  if (!thread) return;
  p.queue = p.queue.filter((x) => x !== w);
  thread.now = w;
  thread.last = name;
  // A thread that does not answer is ended; the next task gets a new one. A busy machine takes many times as long for the same.
  thread.late = setTimeout(() => void thread.worker.terminate(), (w.task.deadlineS * 2 + GRACE_S) * 1000);
  thread.late.unref();
  thread.worker.postMessage(w.task);
  next(p);
}

function run<T>(task: Task, { onProgress, signal }: Asked = {}, ahead = false): Promise<T> {
  const p = pool();
  if (p.queue.length >= MOST_WAITING) return Promise.reject(new Error("too many plans wait already"));
  return new Promise<T>((resolve, reject) => {
    const mine: Waiting = { task, ahead, onProgress, done: (v) => resolve(v as T), failed: reject };
    const stop = () => {
      const busy = p.threads.find((t) => t.now === mine);
      p.queue = p.queue.filter((w) => w !== mine);
      reject(new Error("it was stopped"));
      // A solver in the middle of its work hears nothing: its thread is ended, and the next task gets a new one.
      if (busy) void busy.worker.terminate();
    };
    if (signal?.aborted) {
      reject(new Error("it was stopped"));
      return;
    }
    signal?.addEventListener("abort", stop, { once: true });
    p.queue.push(mine);
    next(p);
  });
}

/** A plan, and what would let in what it leaves free. */
export type PlanAndWays = Plan & { ways?: Ways };

/** Plans in a thread, so that a heavy solve never holds up another request; the thread remembers what it solved. */
export const planInThread = (build: Build, asked: Asked = {}): Promise<PlanAndWays> =>
  run({ kind: "plan", build, deadlineS: asked.deadlineS ?? DEADLINE_S, ways: asked.ways, stillBest: asked.stillBest }, asked);

/** What turns on what is only assumed of a build's parts, in the same threads. */
export const mattersInThread = (build: Build, listOnly: boolean): Promise<Matters> => run({ kind: "matters", build, deadlineS: 40, listOnly });

/** What each place of one lead would cost, in the same threads. */
export const placesInThread = (build: Build, lead: Address, places: readonly Place[]): Promise<PlaceCost[]> =>
  run({ kind: "places", build, lead, places, deadlineS: 20 });

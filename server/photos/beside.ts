import { type ChildProcess, fork } from "node:child_process";
import { existsSync } from "node:fs";
import { join } from "node:path";
import pLimit from "p-limit";
import type { Upright } from "./upright";

/** A picture that takes longer is none: its process is ended, s. Twenty megapixels of a camera take about one. */
const MOST_S = 12;
/** More that wait than this are told to come again: each is in memory whole. */
const MOST_WAITING = 6;
/** Without work for so long, the process ends. */
const IDLE_MS = 60_000;

/** As the build made it; a development server runs the sources. */
const program = (): [string, string[]] => {
  const built = join(process.cwd(), ".data", "photo-process.mjs");
  return process.env.NODE_ENV === "production" && existsSync(built)
    ? [built, []]
    : [join(process.cwd(), "workers", "photo-process.mts"), ["--import", "tsx"]];
};

interface Helper {
  child?: ChildProcess | undefined;
  idle?: NodeJS.Timeout | undefined;
}
const holder = globalThis as typeof globalThis & { imbraPhotos?: Helper };
const helper = (): Helper => {
  holder.imbraPhotos ??= {};
  return holder.imbraPhotos;
};
const oneAtATime = pLimit(1);

function living(h: Helper): ChildProcess {
  if (h.child?.connected) return h.child;
  const [file, execArgv] = program();
  const child = fork(file, [], {
    execArgv,
    serialization: "advanced",
    stdio: ["ignore", "ignore", "inherit", "ipc"],
    env: { ...process.env, DATABASE_URL: "", IMBRA_SECRET: "" },
  });
  child.unref();
  child.channel?.unref();
  child.once("exit", () => {
    if (h.child === child) h.child = undefined;
  });
  h.child = child;
  return child;
}

function work(raw: Buffer, mostS: number): Promise<Upright | undefined> {
  const h = helper();
  clearTimeout(h.idle);
  const child = living(h);
  child.channel?.ref();
  return new Promise((resolve) => {
    const end = (made: Upright | undefined) => {
      clearTimeout(late);
      child.off("message", heard);
      child.off("exit", gone);
      child.channel?.unref();
      h.idle = setTimeout(() => h.child?.kill(), IDLE_MS);
      h.idle.unref();
      resolve(made && { ...made, bytes: Buffer.from(made.bytes) });
    };
    const heard = (m: unknown) => end((m as { made: Upright | undefined }).made);
    const gone = () => end(undefined);
    const late = setTimeout(() => {
      child.kill("SIGKILL");
    }, mostS * 1000);
    child.once("message", heard);
    child.once("exit", gone);
    child.send({ raw }, (e) => {
      if (e) child.kill("SIGKILL");
    });
  });
}

/** A photo turned upright by a process of its own, one at a time; undefined: no photo, or one that takes too long. "busy": too many wait. */
export async function uprightBeside(raw: Buffer, mostS = MOST_S): Promise<Upright | undefined | "busy"> {
  if (oneAtATime.pendingCount >= MOST_WAITING) return "busy";
  return oneAtATime(() => work(raw, mostS));
}

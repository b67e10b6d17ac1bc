import { FaultEvent, type FaultRow } from "../../db";
import type { JobUnit } from "../unit/unit";

/** Longer than this nobody stood at one action: the bench was left meanwhile, minutes. */
const MOST_MIN = 90;
const MINUTE_MS = 60_000;

/** Minutes since what was last seen of a fault or done about it. */
export async function minutesSince(unit: JobUnit, f: FaultRow): Promise<number> {
  const last = await unit.tx.findOne(FaultEvent, { job: unit.job.id, fault: f.number }, { orderBy: { id: "desc" } });
  const from = last?.at ?? f.openedAt;
  return Math.round(Math.min(MOST_MIN, Math.max(0, unit.when.happened.getTime() - from.getTime()) / MINUTE_MS) * 10) / 10;
}

/** Minutes that it took so far. */
export async function minutesOf(unit: JobUnit, f: FaultRow): Promise<number> {
  const events = await unit.tx.find(FaultEvent, { job: unit.job.id, fault: f.number }, { limit: 1000 });
  return Math.round(events.reduce((n, e) => n + (e.minutes ?? 0), 0) * 10) / 10;
}

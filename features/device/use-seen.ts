"use client";
import Dexie, { type EntityTable } from "dexie";
import { useEffect, useMemo, useState } from "react";
import type { BenchSlice } from "../../server/views/slices";
import type { One } from "./said";

type Saw = NonNullable<Extract<One, { kind: "plug" }>["saw"]>;

/** How far a job was when this device last heard of it. */
export interface Seen {
  number: string;
  revision: number;
  /** When the server said so, by its clock. */
  asOfMs: number;
  /** Steps, and whether they are done. */
  steps: Record<string, boolean>;
  /** Leads, and where they are. */
  leads: Record<string, Saw>;
  skipped: BenchSlice["skipped"];
}

const db = new Dexie("imbra-seen") as Dexie & { seen: EntityTable<Seen, "number"> };
db.version(1).stores({ seen: "number" });

/** Whoever sits here next sees nothing of it. */
export const forgetSeen = (): Promise<void> => db.seen.clear().catch(() => undefined);

/** No page is opened without a network that is older. */
const KEPT_MS = 3 * 86_400_000;

const stateOf = (state: BenchSlice["leads"][number]["state"]): Saw["state"] => (state === "wrong" ? "plugged" : state);

/** What a screen shows of a lead. */
export const sawOfRow = (l: BenchSlice["leads"][number]): Saw => ({ port: l.port ?? null, state: stateOf(l.state) });

const seenOn = (view: BenchSlice, asOfMs: number): Seen => ({
  number: view.head.number,
  revision: view.head.revision,
  asOfMs,
  steps: Object.fromEntries(view.steps.map((s) => [s.id, s.done])),
  leads: Object.fromEntries(view.leads.map((l) => [l.address, sawOfRow(l)])),
  skipped: view.skipped,
});

/**
 * How far this job is, as this device last heard it: of the page, or, where the page was kept and is older, of what the device wrote down
 * when it was told. `known` is false until that has been read.
 */
export function useSeen(view: BenchSlice, asOfMs: number): { seen: Seen; known: boolean } {
  const [kept, setKept] = useState<Seen | "none" | undefined>();
  const { number } = view.head;
  useEffect(() => {
    let gone = false;
    db.seen.get(number).then(
      (s) => gone || setKept(s ?? "none"),
      () => gone || setKept("none"),
    );
    db.seen
      .filter((s) => Date.now() - s.asOfMs > KEPT_MS)
      .delete()
      .catch(() => undefined);
    return () => {
      gone = true;
    };
  }, [number]);
  const here = useMemo(() => seenOn(view, asOfMs), [view, asOfMs]);
  // A page made later counts whatever its revision: the shop may have gone back to a backup.
  const older = kept !== undefined && kept !== "none" && kept.revision > here.revision && kept.asOfMs > here.asOfMs;
  useEffect(() => {
    if (kept !== undefined && !older) db.seen.put(here).catch(() => undefined);
  }, [kept, older, here]);
  return { seen: older ? kept : here, known: kept !== undefined };
}

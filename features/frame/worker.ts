"use client";
import { useEffect, useState, useSyncExternalStore } from "react";
import type { TurnKey } from "../../server/kernel/turn";

/** Who works at a device. */
export interface Worker {
  id: string;
  name: string;
}
/** Whoever works here and has a turn: what they press is sealed with its secret. */
export interface AtTurn extends Worker {
  turn: TurnKey;
}
interface Known {
  worker: Worker | null;
  /** When the server said so, by its own clock, ms since 1970. */
  asOfMs: number;
  /** Dropped when the turn ends: signed out, taken over, ended, or nobody touched the device for long. */
  turn?: TurnKey;
  /** They may record something. */
  records?: boolean;
}

const KEY = "imbra-worker";
const TOUCHED = "imbra-touched";
const MINUTES = "imbra-lock-minutes";
const LOOK_MS = 5000;

function read(text: string | null): Known | undefined {
  try {
    const k = JSON.parse(text ?? "") as Known;
    return typeof k.asOfMs === "number" ? k : undefined;
  } catch {
    return undefined;
  }
}
const hearers = new Set<() => void>();
const subscribe = (hear: () => void) => {
  hearers.add(hear);
  window.addEventListener("storage", hear);
  return () => {
    hearers.delete(hear);
    window.removeEventListener("storage", hear);
  };
};
const stored = () => localStorage.getItem(KEY);
function store(known: Known): void {
  localStorage.setItem(KEY, JSON.stringify(known));
  for (const hear of [...hearers]) hear();
}

/** Keeps on this device who works at it, unless something newer is kept already: a page opened without a network may be old. */
export function keepWorker(worker: Worker | null, asOfMs: number): void {
  const known = read(stored());
  if (known && known.asOfMs >= asOfMs) return;
  // The same person's turn goes on; anybody else's is over.
  const same = known?.turn && known.worker?.id === worker?.id ? { turn: known.turn, ...(known.records ? { records: true } : {}) } : {};
  store({ worker, asOfMs, ...same });
}

/** A turn begins here, or is known again: whoever worked here before does no more. */
export function keepTurn({ id, name, asOfMs, turn, records }: Worker & { asOfMs: number; turn: TurnKey; records: boolean }): void {
  store({ worker: { id, name }, asOfMs, turn, records });
}

/** The turn is over: what seals entries is gone from this device. */
export function dropTurn(): void {
  const known = read(stored());
  if (known?.turn) store({ worker: known.worker, asOfMs: known.asOfMs });
}

/** Minutes after which a device that nobody touches asks who is there, as it last heard. */
const lockMinutes = (): number => Number(localStorage.getItem(MINUTES) ?? 15);
export const keepLockMinutes = (minutes: number): void => localStorage.setItem(MINUTES, String(minutes));

/** Has nobody touched this device for so long? By its own clock, in this moment. */
const isIdle = (minutes: number): boolean => minutes > 0 && Date.now() - Number(localStorage.getItem(TOUCHED) ?? Date.now()) > minutes * 60_000;

/** Whose turn it is, in this moment; nobody's where the device was left alone. */
export function turnNow(): AtTurn | undefined {
  const known = read(stored());
  if (!known?.worker || !known.turn || !known.records || isIdle(lockMinutes())) return undefined;
  return { ...known.worker, turn: known.turn };
}

/** Does this device know a turn at all, of whoever it is? */
export const knowsTurn = (): boolean => read(stored())?.turn !== undefined;
export const isLocked = (): boolean => isIdle(lockMinutes());

/** Calls `begun` with each turn that begins while somebody is there to have it. */
export function useTurnBegins(begun: (at: AtTurn) => void): void {
  useEffect(() => {
    let last: string | undefined;
    const look = () => {
      const at = turnNow();
      if (at && at.turn.id !== last) begun(at);
      last = at?.turn.id;
    };
    look();
    return subscribe(look);
  }, [begun]);
}

/** Who works at this device: as the newest page or change of person said, whatever page is open. */
export function useWorker(page: Worker | null, asOfMs: number): Worker | null {
  const text = useSyncExternalStore(subscribe, stored, () => null);
  useEffect(() => keepWorker(page, asOfMs), [page, asOfMs]);
  const known = read(text);
  return known && known.asOfMs > asOfMs ? known.worker : page;
}

/** Somebody is here: they have just said who they are. */
export const touchDevice = (): void => localStorage.setItem(TOUCHED, String(Date.now()));
/** The server knows that nobody was here for long. */
export const leaveDevice = (): void => localStorage.setItem(TOUCHED, "0");

/** Nobody has touched this device for so many minutes (0: never so; below: nobody is signed in, and nothing is known). Whoever touches it while it is free keeps it free. */
export function useUntouched(minutes: number): { locked: boolean; touch: () => void } {
  const [locked, setLocked] = useState(false);
  useEffect(() => {
    if (minutes >= 0) keepLockMinutes(minutes);
    if (minutes <= 0) {
      setLocked(false);
      return;
    }
    const look = () => {
      const idle = isIdle(minutes);
      setLocked(idle);
      // A turn ends with the hands that it was of.
      if (idle) dropTurn();
    };
    const touched = () => {
      if (!isIdle(minutes)) localStorage.setItem(TOUCHED, String(Date.now()));
    };
    if (localStorage.getItem(TOUCHED) === null) localStorage.setItem(TOUCHED, String(Date.now()));
    look();
    const timer = setInterval(look, LOOK_MS);
    window.addEventListener("pointerdown", touched, true);
    window.addEventListener("keydown", touched, true);
    return () => {
      clearInterval(timer);
      window.removeEventListener("pointerdown", touched, true);
      window.removeEventListener("keydown", touched, true);
    };
  }, [minutes]);
  const touch = () => {
    touchDevice();
    setLocked(false);
  };
  return { locked, touch };
}

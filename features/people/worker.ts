"use client";
import { useEffect, useState, useSyncExternalStore } from "react";

/** Who works at a device. */
export interface Worker {
  id: string;
  name: string;
}
interface Known {
  worker: Worker | null;
  /** When the server said so, by its own clock, ms since 1970. */
  asOfMs: number;
}

const KEY = "imbra-worker";
const TOUCHED = "imbra-touched";
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

/** Keeps on this device who works at it, unless something newer is kept already: a page opened without a network may be old. */
export function keepWorker(worker: Worker | null, asOfMs: number): void {
  const known = read(stored());
  if (known && known.asOfMs >= asOfMs) return;
  localStorage.setItem(KEY, JSON.stringify({ worker, asOfMs } satisfies Known));
  for (const hear of [...hearers]) hear();
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

/** Nobody has touched this device for so many minutes (0: never so). Whoever touches it while it is free keeps it free. */
export function useUntouched(minutes: number): { locked: boolean; touch: () => void } {
  const [locked, setLocked] = useState(false);
  useEffect(() => {
    if (minutes <= 0) {
      setLocked(false);
      return;
    }
    const idle = () => Date.now() - Number(localStorage.getItem(TOUCHED) ?? Date.now()) > minutes * 60_000;
    const look = () => setLocked(idle());
    const touched = () => {
      if (!idle()) localStorage.setItem(TOUCHED, String(Date.now()));
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

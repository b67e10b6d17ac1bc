"use client";
import { useCallback, useEffect, useState } from "react";
import { useLive } from "../frame/live";
import { type AtTurn, useTurnBegins } from "../frame/worker";
import { adoptPhotos, type KeptPhoto, sendPhotos, watchPhotos } from "./photos";

const AGAIN_MS = 6000;

/** Photos that wait on this device, of whatever job. */
export function usePhotos(): KeptPhoto[] {
  const [list, setList] = useState<KeptPhoto[]>([]);
  useEffect(() => watchPhotos(setList), []);
  return list;
}

/** Sends photos from whatever page is open, one tab at a time. */
export function usePhotoSending(): void {
  const { refresh } = useLive();
  // What is changed in the store is sent by who watches it.
  useTurnBegins(useCallback((at: AtTurn) => void adoptPhotos(at).catch(() => undefined), []));
  useEffect(() => {
    let busy = false;
    const flush = async () => {
      if (busy || !navigator.onLine) return;
      busy = true;
      try {
        const work = async () => {
          if ((await sendPhotos()) > 0) refresh();
        };
        if (navigator.locks) await navigator.locks.request("imbra-photos", { ifAvailable: true }, (lock) => (lock ? work() : undefined));
        else await work();
      } finally {
        busy = false;
      }
    };
    const run = () => void flush().catch(() => undefined);
    run();
    const stop = watchPhotos((list) => {
      if (list.some((p) => !p.aside)) run();
    });
    const timer = setInterval(run, AGAIN_MS);
    window.addEventListener("online", run);
    return () => {
      stop();
      clearInterval(timer);
      window.removeEventListener("online", run);
    };
  }, [refresh]);
}

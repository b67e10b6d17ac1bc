"use client";
import { useEffect, useRef } from "react";
import { useSteady } from "./use-steady";

/** Keeps `now` behind the hash of the address. What stands there when the page opens, or comes by back or a link, is given to `onCome`. */
export function useAddress(now: string, onCome: (hash: string) => void): void {
  const come = useSteady(onCome);
  const read = useRef(false);
  useEffect(() => {
    const look = () => come(window.location.hash.slice(1));
    if (window.location.hash.length > 1) look();
    read.current = true;
    window.addEventListener("hashchange", look);
    return () => window.removeEventListener("hashchange", look);
  }, [come]);
  const first = useRef(true);
  // After each drawing: a refresh writes the address as the framework knows it, without what stands behind the hash.
  useEffect(() => {
    // Not before what stands there has been read.
    if (first.current) {
      first.current = false;
      return;
    }
    if (!read.current || window.location.hash.slice(1) === now) return;
    const { pathname, search } = window.location;
    window.history.replaceState(window.history.state, "", `${pathname}${search}${now ? `#${now}` : ""}`);
  });
}

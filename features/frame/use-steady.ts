"use client";
import { useCallback, useEffect, useRef } from "react";

/** The same function for the life of a component, doing what the latest one does: what gets it need not be drawn again. */
export function useSteady<A extends unknown[]>(work: (...args: A) => void): (...args: A) => void {
  const now = useRef(work);
  useEffect(() => {
    now.current = work;
  });
  return useCallback((...args: A) => now.current(...args), []);
}

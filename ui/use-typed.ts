"use client";
import { useEffect, useState } from "react";

/**
 * What stands in a field, and from which stored value it was begun: untouched it follows what is stored; once somebody types it stays
 * theirs, and `from` says what they saw when they began.
 */
export function useTyped(stored: string): { value: string; from: string; set: (value: string) => void } {
  const [{ value, from }, setBoth] = useState({ value: stored, from: stored });
  useEffect(() => {
    setBoth((b) => (b.value === b.from || b.value.trim() === stored ? { value: stored, from: stored } : b));
  }, [stored]);
  return { value, from, set: (value) => setBoth((b) => ({ ...b, value })) };
}

"use client";
import { startTransition, useEffect, useState } from "react";

/** The value of a moment ago, until the screen has been drawn once with the new one: two short tasks instead of a long one. */
export function useLater<T>(value: T): T {
  const [shown, setShown] = useState(value);
  useEffect(() => startTransition(() => setShown(value)), [value]);
  return shown;
}

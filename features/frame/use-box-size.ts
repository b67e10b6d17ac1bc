"use client";
import { type RefObject, useEffect, useState } from "react";

/** The room inside a box in px, and again when it changes; what it holds does not change it. */
export function useBoxSize(box: RefObject<HTMLElement | null>, first: { w: number; h: number }): { w: number; h: number } {
  const [size, setSize] = useState(first);
  useEffect(() => {
    const el = box.current;
    if (!el) return;
    const watch = new ResizeObserver(() =>
      setSize((was) => (was.w === el.offsetWidth && was.h === el.offsetHeight ? was : { w: el.offsetWidth, h: el.offsetHeight })),
    );
    watch.observe(el);
    return () => watch.disconnect();
  }, [box]);
  return size;
}

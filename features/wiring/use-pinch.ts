"use client";
import { type RefObject, useEffect, useRef } from "react";

const STEP = 1.35;

/** Two fingers spread or closed by a third change the zoom by one name; one finger goes on dragging the drawing. */
export function usePinch(box: RefObject<HTMLElement | null>, onZoom: (by: 1 | -1) => void): void {
  const zoom = useRef(onZoom);
  useEffect(() => {
    zoom.current = onZoom;
  });
  useEffect(() => {
    const el = box.current;
    if (!el) return;
    let from = 0;
    const apart = (e: TouchEvent) => {
      const [a, b] = [e.touches[0], e.touches[1]];
      return a && b ? Math.hypot(a.clientX - b.clientX, a.clientY - b.clientY) : 0;
    };
    const start = (e: TouchEvent) => {
      from = apart(e);
    };
    const move = (e: TouchEvent) => {
      const now = apart(e);
      if (from === 0 || now === 0) return;
      e.preventDefault();
      if (now / from > STEP) {
        zoom.current(1);
        from = now;
      } else if (now / from < 1 / STEP) {
        zoom.current(-1);
        from = now;
      }
    };
    el.addEventListener("touchstart", start, { passive: true });
    el.addEventListener("touchmove", move, { passive: false });
    return () => {
      el.removeEventListener("touchstart", start);
      el.removeEventListener("touchmove", move);
    };
  }, [box]);
}

"use client";
import { useEffect, useRef } from "react";

/** Keys that follow each other faster than this come from a scanner, ms (common practice). */
export const SCAN_MS = 80;

/**
 * Bare keys of a screen, outside fields and dialogs. A letter or digit waits a moment: more in that time are a scan,
 * whose Enter is swallowed; so a scan never presses a key of the screen.
 */
export function useKeys(onKey: (key: string, event: KeyboardEvent) => void, onScan: (code: string) => void): void {
  const now = useRef({ onKey, onScan });
  useEffect(() => {
    now.current = { onKey, onScan };
  });
  useEffect(() => {
    let burst = "";
    let timer: ReturnType<typeof setTimeout> | undefined;
    const key = (e: KeyboardEvent) => {
      const t = e.target as HTMLElement | null;
      if ((t && ["INPUT", "TEXTAREA", "SELECT"].includes(t.tagName)) || e.ctrlKey || e.metaKey || e.altKey) return;
      if (document.querySelector('[role="dialog"]')) return;
      if (e.key === "Enter" && burst.length > 2) {
        e.preventDefault();
        e.stopPropagation();
        const code = burst;
        burst = "";
        clearTimeout(timer);
        now.current.onScan(code);
        return;
      }
      if (e.key.length > 1) {
        now.current.onKey(e.key, e);
        return;
      }
      if (e.key === " " && burst === "") return;
      // What is typed next belongs into the field that this opens: it cannot wait.
      if (e.key === "/" && burst === "") {
        e.preventDefault();
        now.current.onKey(e.key, e);
        return;
      }
      burst += e.key;
      clearTimeout(timer);
      timer = setTimeout(() => {
        const typed = burst;
        burst = "";
        if (typed.length === 1) now.current.onKey(typed, e);
      }, SCAN_MS);
    };
    // Before anything that has the focus: a scan's Enter must not press it.
    window.addEventListener("keydown", key, true);
    return () => {
      window.removeEventListener("keydown", key, true);
      clearTimeout(timer);
    };
  }, []);
}

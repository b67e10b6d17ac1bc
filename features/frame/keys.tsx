"use client";
import { createContext, type ReactNode, useContext, useEffect, useLayoutEffect, useMemo, useRef, useState } from "react";

/** Keys that follow each other faster than this come from a scanner, ms (common practice). */
export const SCAN_MS = 80;
/** A second key of a pair is waited for so long. */
const PAIR_MS = 1500;
const OFF = "imbra-shortcuts-off";

/** What keys do on a screen. */
export interface Binding {
  /** As the browser names them: "f", "Escape", "ctrl+k"; "g 1" is one after the other. */
  keys: readonly string[];
  /** What they do, for the list of keys. */
  word: string;
  /** False: it was not for this after all, and the key goes on to others. */
  run: (event?: KeyboardEvent) => unknown;
  /** `keys`: moves about, and is no deed to choose from a list. */
  only?: "keys";
  /** What is typed next belongs into what this opens: it cannot wait for a scan to be told apart. */
  atOnce?: boolean;
}

/** A screen is asked before its job, a job before the whole application. */
export type Scope = "screen" | "job" | "all";
const ORDER: readonly Scope[] = ["screen", "job", "all"];

interface Listener {
  scope: Scope;
  now: () => { bindings: readonly Binding[]; scan?: ((code: string) => boolean) | undefined };
}

interface Keys {
  listen: (l: Listener) => () => void;
  /** All that can be pressed now, nearest scope first. */
  list: () => ({ scope: Scope } & Binding)[];
  off: boolean;
  setOff: (off: boolean) => void;
}
const Here = createContext<Keys | undefined>(undefined);

const isField = (t: EventTarget | null) => t instanceof HTMLElement && (t.isContentEditable || ["INPUT", "TEXTAREA", "SELECT"].includes(t.tagName));
const isKey = (t: EventTarget | null) =>
  t instanceof HTMLElement && (["BUTTON", "A", "SUMMARY"].includes(t.tagName) || t.getAttribute("role") === "option");
const chordOf = (e: KeyboardEvent) =>
  `${e.ctrlKey || e.metaKey ? "ctrl+" : ""}${e.altKey ? "alt+" : ""}${e.key.length === 1 ? e.key.toLowerCase() : e.key}`;

/**
 * The one place that hears keys and scans. A letter or digit waits a moment: more in that time are a scan, whose Enter is swallowed, so
 * that a scan never presses a key. A scan is heard on every screen, over a sheet too; in a field it is typed there.
 */
export function KeysProvider({ children }: { children: ReactNode }) {
  const listeners = useRef<Listener[]>([]);
  const [off, setOffNow] = useState(false);
  const isOff = useRef(false);
  useEffect(() => {
    isOff.current = localStorage.getItem(OFF) === "yes";
    setOffNow(isOff.current);
  }, []);
  useEffect(() => {
    let burst = "";
    let pair = "";
    let pairAt = 0;
    let timer: ReturnType<typeof setTimeout> | undefined;
    /** Nearest scope first; within one, whoever came last. */
    const inOrder = () => ORDER.flatMap((s) => listeners.current.filter((l) => l.scope === s).reverse());
    const press = (name: string, e: KeyboardEvent): boolean => {
      const names = [name];
      if (pair && Date.now() - pairAt < PAIR_MS) names.unshift(`${pair} ${name}`);
      pair = name.length === 1 ? name : "";
      pairAt = Date.now();
      for (const wanted of names)
        for (const l of inOrder())
          for (const b of l.now().bindings)
            if (b.keys.includes(wanted) && b.run(e) !== false) {
              if (wanted.includes(" ") && wanted.length > 1) pair = "";
              return true;
            }
      return false;
    };
    const scan = (code: string) => {
      for (const l of inOrder()) if (l.now().scan?.(code)) return;
    };
    const isPair = (both: string) => inOrder().some((l) => l.now().bindings.some((b) => b.keys.includes(both)));
    const isAtOnce = (name: string) => inOrder().some((l) => l.now().bindings.some((b) => b.atOnce && b.keys.includes(name)));
    const key = (e: KeyboardEvent) => {
      const sheet = document.querySelector('[role="dialog"]') !== null;
      const chord = chordOf(e);
      if (chord.startsWith("ctrl+") || chord.startsWith("alt+")) {
        // In a field, Ctrl+Z takes back what was typed there.
        if ((isField(e.target) && chord !== "ctrl+k") || (sheet && chord !== "ctrl+k")) return;
        if (press(chord, e)) e.preventDefault();
        return;
      }
      if (isField(e.target)) return;
      if (e.key === "Enter" && burst.length > 2) {
        e.preventDefault();
        e.stopPropagation();
        const code = burst;
        burst = "";
        clearTimeout(timer);
        scan(code);
        return;
      }
      const long = e.key.length > 1;
      if (long || (e.key === " " && burst === "")) {
        if (sheet || ["Shift", "Control", "Alt", "Meta"].includes(e.key)) return;
        // What has the focus obeys its own Space and Enter first.
        if ((e.key === " " || e.key === "Enter") && isKey(e.target)) return;
        if (e.repeat && (e.key === " " || e.key === "Enter")) {
          e.preventDefault();
          return;
        }
        if (press(e.key, e)) e.preventDefault();
        return;
      }
      if (e.repeat) return;
      if (burst === "" && !sheet && !isOff.current && isAtOnce(e.key)) {
        e.preventDefault();
        press(e.key, e);
        return;
      }
      burst += e.key;
      clearTimeout(timer);
      timer = setTimeout(() => {
        const typed = burst;
        burst = "";
        if (isOff.current || document.querySelector('[role="dialog"]') !== null) return;
        const keys = [...typed.toLowerCase()];
        // Two that belong together may come as quickly as a scan begins.
        if (keys.length === 1 || (keys.length === 2 && isPair(keys.join(" ")))) for (const k of keys) press(k, e);
      }, SCAN_MS);
    };
    // Before anything that has the focus: a scan's Enter must not press it.
    window.addEventListener("keydown", key, true);
    return () => {
      window.removeEventListener("keydown", key, true);
      clearTimeout(timer);
    };
  }, []);
  const value = useMemo(
    (): Keys => ({
      listen: (l) => {
        listeners.current.push(l);
        return () => {
          listeners.current = listeners.current.filter((x) => x !== l);
        };
      },
      list: () =>
        ORDER.flatMap((scope) => listeners.current.filter((l) => l.scope === scope).flatMap((l) => l.now().bindings.map((b) => ({ scope, ...b })))),
      off,
      setOff: (now) => {
        isOff.current = now;
        localStorage.setItem(OFF, now ? "yes" : "no");
        setOffNow(now);
      },
    }),
    [off],
  );
  return <Here.Provider value={value}>{children}</Here.Provider>;
}

export function useKeyList(): Keys {
  const keys = useContext(Here);
  if (!keys) throw new Error("keys outside of KeysProvider");
  return keys;
}

/** What keys and scans do while this is on screen. `scan` says whether the code meant something here; if not, others are asked. */
export function useKeys(scope: Scope, bindings: readonly Binding[], scan?: (code: string) => boolean): void {
  const { listen } = useKeyList();
  const now = useRef({ bindings, scan });
  // With the picture itself, not after it: a key means what is on the screen when it is pressed.
  useLayoutEffect(() => {
    now.current = { bindings, scan };
  });
  useEffect(() => listen({ scope, now: () => now.current }), [listen, scope]);
}

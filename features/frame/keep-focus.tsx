"use client";
import { useEffect } from "react";

/** What may take the focus of something inside it that went away, nearest first. */
const HOLDS = 'li, [role="option"], tr, form, section[aria-label], [role="group"][aria-label], [role="dialog"], main';
const STOPS = 'button:not([aria-disabled="true"]), a[href], input, select, textarea, [tabindex="0"]';

/**
 * What had the focus went away with what it did: focus stays near it, instead of falling to the page. Nearest: something else to press in
 * the same row, form or region; else the region itself.
 */
export function KeepFocus() {
  useEffect(() => {
    let holders: HTMLElement[] = [];
    let had: Element | null = null;
    const remember = () => {
      const at = document.activeElement;
      if (!(at instanceof HTMLElement) || at === document.body) return;
      had = at;
      holders = [];
      for (let h = at.parentElement?.closest<HTMLElement>(HOLDS); h; h = h.parentElement?.closest<HTMLElement>(HOLDS)) holders.push(h);
    };
    const look = () => {
      if (document.activeElement !== document.body || !had || had.isConnected) return;
      const near = holders.find((h) => h.isConnected && h.getClientRects().length > 0);
      had = null;
      if (!near) return;
      const next = near.matches("main, section, [role='group']") ? null : near.querySelector<HTMLElement>(STOPS);
      if (next) next.focus({ preventScroll: true });
      else {
        if (!near.hasAttribute("tabindex")) near.setAttribute("tabindex", "-1");
        near.focus({ preventScroll: true });
      }
    };
    const gone = new MutationObserver(() => {
      if (had && !had.isConnected) requestAnimationFrame(look);
    });
    document.addEventListener("focusin", remember);
    gone.observe(document.body, { childList: true, subtree: true });
    return () => {
      document.removeEventListener("focusin", remember);
      gone.disconnect();
    };
  }, []);
  return null;
}

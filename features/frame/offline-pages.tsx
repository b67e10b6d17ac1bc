"use client";
import { SerwistProvider } from "@serwist/turbopack/react";
import { usePathname } from "next/navigation";
import { useEffect, useRef } from "react";
import { useLive } from "./live";

/** Screens that hands work at: they open without a network however they were come to. */
const AT_HAND = /^\/job\/[^/]+\/(bench|receipt)$/;

/** The bench keeps what it shows by itself (./kept-slices.ts): its page is kept once, to hold it. */
const KEEPS_ITSELF = /\/bench$/;

/** Kept anew so long after a change, whatever else comes meanwhile, and no more often than this. */
const REST_MS = 3000;
const APART_MS = 10_000;

async function keep(page: string): Promise<void> {
  await navigator.serviceWorker.ready;
  if (KEEPS_ITSELF.test(new URL(page).pathname) && (await (await caches.open("pages")).match(page))) return;
  const answer = await fetch(page);
  // Not the way to the sign-in, and not a page that failed, in place of one that can be worked at.
  if (answer.ok && !answer.redirected) await (await caches.open("pages")).put(page, answer);
}

/**
 * Keeps pages that were opened, so that they open again without a network; those that hands work at as they were seen last, with all that
 * others did meanwhile. Browsers allow it on this machine and behind TLS.
 */
export function OfflinePages() {
  const path = usePathname();
  const { renewed } = useLive();
  const last = useRef({ path: "", atMs: 0 });
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  useEffect(() => {
    if (!AT_HAND.test(path)) return;
    return () => {
      clearTimeout(timer.current);
      timer.current = undefined;
    };
  }, [path]);
  useEffect(() => {
    if (!AT_HAND.test(path) || timer.current !== undefined || !("caches" in window) || !("serviceWorker" in navigator)) return;
    const wait = last.current.path === path ? Math.max(REST_MS, last.current.atMs + APART_MS - Date.now()) : 0;
    timer.current = setTimeout(() => {
      timer.current = undefined;
      last.current = { path, atMs: Date.now() };
      keep(window.location.href).catch(() => undefined);
    }, wait);
  }, [path, renewed]);
  return <SerwistProvider swUrl="/sw/sw.js" cacheOnNavigation={false} reloadOnOnline={false} />;
}

"use client";
import { SerwistProvider } from "@serwist/turbopack/react";
import { usePathname } from "next/navigation";
import { useEffect } from "react";

/** Screens that hands work at: they open without a network however they were come to. */
const AT_HAND = /^\/job\/[^/]+\/(bench|receipt)$/;

/** Keeps pages that were opened, so that they open again without a network. Browsers allow it on this machine and behind TLS. */
export function OfflinePages() {
  const path = usePathname();
  useEffect(() => {
    if (!AT_HAND.test(path) || !("caches" in window) || !("serviceWorker" in navigator)) return;
    const here = window.location.href;
    navigator.serviceWorker.ready
      .then(() => caches.open("pages"))
      .then((kept) => kept.add(here))
      .catch(() => undefined);
  }, [path]);
  return <SerwistProvider swUrl="/sw/sw.js" cacheOnNavigation={false} reloadOnOnline={false} />;
}

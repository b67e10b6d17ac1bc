"use client";
import { useRouter } from "next/navigation";
import { useEffect } from "react";

/** Asks for news every few seconds while the page is looked at: two benches work on the same job. */
export function Refresh({ everyS = 12 }: { everyS?: number }) {
  const router = useRouter();
  useEffect(() => {
    const again = () => {
      if (document.visibilityState === "visible") router.refresh();
    };
    const timer = setInterval(again, everyS * 1000);
    window.addEventListener("focus", again);
    return () => {
      clearInterval(timer);
      window.removeEventListener("focus", again);
    };
  }, [router, everyS]);
  return null;
}

"use client";
import { useRouter } from "next/navigation";
import { startTransition, useEffect, useState } from "react";

const AGAIN_MS = 3000;

/** A page that could not be had: it is asked for again, by itself and by a press, until it can be. */
export default function Failed({ reset }: { error: Error; reset: () => void }) {
  const router = useRouter();
  const [tries, setTries] = useState(0);
  useEffect(() => {
    const timer = setInterval(async () => {
      const r = await fetch("/live/ping", { cache: "no-store" }).catch(() => undefined);
      if (r?.status !== 204) return;
      setTries((n) => n + 1);
      startTransition(() => {
        router.refresh();
        reset();
      });
    }, AGAIN_MS);
    return () => clearInterval(timer);
  }, [router, reset]);
  return (
    <main className="p-12">
      <h1 className="text-verdict font-semibold">This page cannot be shown now.</h1>
      <p className="mt-2">
        The server or its database does not answer. Nothing was changed, and what was recorded is kept. It is asked for again every few seconds
        {tries > 0 ? `; ${tries} tries so far` : ""}.
      </p>
      <button
        type="button"
        className="key mt-4"
        onClick={() =>
          startTransition(() => {
            router.refresh();
            reset();
          })
        }
      >
        Try again now
      </button>
    </main>
  );
}

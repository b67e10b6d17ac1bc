"use client";
import { useEffect, useState } from "react";
import type { Finding } from "../../core/checks";
import { Button } from "../../ui/button";
import { SeverityShape } from "../../ui/marks";

/** A new stop stands above the stage until somebody has opened it. What was opened is kept on this device. */
export function StopLine({ number, findings }: { number: string; findings: Finding[] }) {
  const [known, setKnown] = useState<Set<string> | null>(null);
  const key = `imbra-stops-${number}`;
  useEffect(() => {
    try {
      setKnown(new Set(JSON.parse(localStorage.getItem(key) ?? "[]") as string[]));
    } catch {
      setKnown(new Set());
    }
  }, [key]);
  const stops = findings.filter((f) => f.severity === "stop");
  const fresh = known ? stops.filter((f) => !known.has(f.id)) : [];
  const first = fresh[0];
  if (!first) return null;
  const seen = () => {
    const all = new Set([...(known ?? []), ...fresh.map((f) => f.id)]);
    setKnown(all);
    localStorage.setItem(key, JSON.stringify([...all].slice(-200)));
  };
  return (
    <div role="alert" className="flex min-h-10 shrink-0 items-center gap-3 border-b-2 border-stop bg-raised px-4">
      <SeverityShape severity="stop" />
      <strong>Stop.</strong>
      <span className="flex-1">
        {first.message}
        {fresh.length > 1 ? ` And ${fresh.length - 1} more.` : ""}
      </span>
      <Button onClick={seen}>I have seen it</Button>
    </div>
  );
}

"use client";
import { useEffect, useState } from "react";
import type { PlaceRow } from "../../server/plan/places";
import type { LeadRow } from "../../server/views/lead-rows";
import { ask } from "../frame/ask";
import type { Candidate } from "../shared/candidates";

export const sameSpot = (c: Candidate, r: { port: string; place?: number[] | undefined }) =>
  c.port === r.port && (c.place ?? []).join() === (r.place ?? []).join();

/** What one place would cost, once it is known. */
export function CostWords({ rows, at }: { rows: PlaceRow[] | null; at: Candidate }) {
  const row = rows?.find((r) => sameSpot(at, r));
  if (!row) return null;
  return (
    <span className="block text-second">
      {row.best ? "Best: " : row.holds ? "Costs: " : "Not there: "}
      {row.words}
      {row.proved || !row.holds ? "" : " (not yet proved)"}
    </span>
  );
}

/** Once a lead is taken, the planner tells what each place would cost; another lead or letting go forgets it. */
export function usePlaceCosts(number: string, lead: LeadRow, list: readonly Candidate[], taking: boolean) {
  const [rows, setRows] = useState<PlaceRow[] | null>(null);
  const [said, setSaid] = useState("");
  const asked = JSON.stringify(list.slice(0, 24).map((c) => ({ port: c.port, ...(c.place ? { place: c.place } : {}) })));
  const { address, loom } = lead;
  useEffect(() => {
    setRows(null);
    setSaid("");
    const places = JSON.parse(asked);
    if (!taking || places.length === 0 || loom === "seat") return;
    let gone = false;
    setSaid("Working out what each place would cost …");
    ask("wiring.place-costs", { number, lead: address, places })
      .then((r) => {
        if (gone) return;
        if (r.ok) setRows(r.value);
        setSaid(r.ok ? "" : r.sentence);
      })
      .catch(() => {
        if (!gone) setSaid("No answer from the server: the costs are not known. Placing still works.");
      });
    return () => {
      gone = true;
    };
  }, [number, address, loom, asked, taking]);
  return { rows, said };
}

"use client";
import { useState } from "react";
import type { ReadyView } from "../../server/handover/recorded";
import { Button } from "../../ui/button";
import Link from "../../ui/link";
import { comeBackAction } from "../actions/handover";
import { useAct } from "../frame/use-act";

/** The machine outlives its jobs: where it was built, where it came back; and, once it has left, the way to take it in again. */
export function OtherJobs({ number, ready, stage }: { number: string; ready: ReadyView; stage: string }) {
  const act = useAct();
  const [says, setSays] = useState("");
  const [made, setMade] = useState("");
  const left = stage === "handed-over";
  const isHere = ready.after.some((j) => j.open);
  if (!left && !ready.before && ready.after.length === 0) return null;
  const to = (n: string) => `/job/${encodeURIComponent(n)}`;
  return (
    <section aria-label="The machine's other jobs" className="mt-4">
      <h2 className="text-key font-[650]">The machine's other jobs</h2>
      {ready.before ? (
        <p>
          It came back: before this it was{" "}
          <Link className="underline underline-offset-4" href={`${to(ready.before.number)}/handover`}>
            {ready.before.number} {ready.before.title}
          </Link>
          .
        </p>
      ) : null}
      <ul>
        {ready.after.map((j) => (
          <li key={j.number} className="border-t border-rule py-1.5">
            <Link className="underline underline-offset-4" href={to(j.number)}>
              {j.number}
            </Link>{" "}
            {j.says} <span className="text-second text-soft">{j.open ? "in work" : "closed"}</span>
          </li>
        ))}
      </ul>
      {left && !isHere ? (
        <form
          className="mt-1 flex flex-wrap items-end gap-3"
          onSubmit={(e) => {
            e.preventDefault();
            act.run(
              () => comeBackAction({ number, says }),
              (n) => {
                setMade(n);
                setSays("");
                return `${n} begins with the machine as it left.`;
              },
            );
          }}
        >
          <label className="flex min-w-56 flex-1 flex-col gap-1">
            <span className="text-second text-soft">It came back: what the client says</span>
            <input className="field w-full" value={says} maxLength={500} onChange={(e) => setSays(e.target.value)} />
          </label>
          <Button type="submit" disabled={act.pending || says.trim().length < 3}>
            Open a job for it
          </Button>
        </form>
      ) : null}
      <p role="status">
        {act.sentence}{" "}
        {made ? (
          <Link className="underline underline-offset-4" href={`${to(made)}/faults`}>
            To its faults
          </Link>
        ) : null}
      </p>
    </section>
  );
}

"use client";
import { useState } from "react";
import type { Answer } from "../../core/diagnose";
import type { FaultsSlice } from "../../server/views/slices";
import { Button } from "../../ui/button";
import { Fold } from "../../ui/fold";
import { closeFaultAction } from "../actions/faults";
import { useAct } from "../frame/use-act";

const MOST_CLEARED = 14;

/** What was seen of it and done about it, in order; what that cleared; and its end by hand. */
export function Incident({ number, fault, answer }: { number: string; fault: FaultsSlice["faults"][number]; answer: Answer | undefined }) {
  const cleared = answer?.cleared ?? [];
  return (
    <>
      <h2 className="mt-4 text-key font-[650]">Seen and done</h2>
      {fault.events.length === 0 ? (
        <p className="text-soft">Nothing yet. One thing at a time.</p>
      ) : (
        <ol>
          {fault.events.map((e, i) => (
            <li key={i} className="border-t border-rule py-1.5">
              {e.words}
              {(e.value ?? e.result) ? `: ${e.value ?? e.result}` : ""} <span className="text-second text-soft">{e.by}</span>
            </li>
          ))}
        </ol>
      )}
      <h2 className="mt-4 text-key font-[650]">Cleared</h2>
      {cleared.length === 0 ? (
        <p className="text-soft">Nothing yet. Whatever is seen to work clears all that it depends on.</p>
      ) : (
        <ul>
          {cleared.slice(0, MOST_CLEARED).map((c) => (
            <li key={c.id} className="border-t border-rule py-1.5">
              <span className="font-semibold">{c.name}</span> <span className="text-second text-soft">by {c.by}</span>
            </li>
          ))}
          {cleared.length > MOST_CLEARED ? <li className="border-t border-rule py-1.5 text-soft">and {cleared.length - MOST_CLEARED} more</li> : null}
        </ul>
      )}
      <CloseIt number={number} fault={fault.number} />
    </>
  );
}

function CloseIt({ number, fault }: { number: string; fault: number }) {
  const act = useAct();
  const [finding, setFinding] = useState("");
  return (
    <Fold word={<>Close fault {fault} with a finding</>} className="mt-3 text-second">
      <form
        className="mt-1 flex gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          act.run(
            () => closeFaultAction({ number, fault, finding }),
            () => "Closed.",
          );
        }}
      >
        <input
          className="field flex-1"
          aria-label={`What fault ${fault} was`}
          placeholder="Part, connection or setting; replaced, reseated or set"
          value={finding}
          onChange={(e) => setFinding(e.target.value)}
          maxLength={500}
        />
        <Button type="submit" disabled={act.pending}>
          Close
        </Button>
      </form>
      <p role="status">{act.sentence}</p>
    </Fold>
  );
}

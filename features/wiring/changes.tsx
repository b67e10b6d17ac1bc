"use client";
import { useState } from "react";
import type { PlanChange } from "../../server/plan/plan-changes";
import { Dialog } from "../../ui/dialog";
import { ask } from "../frame/ask";
import { useAct } from "../frame/use-act";
import { WiringDifference } from "../shared/wiring-difference";

/** Before and after: what the last plan changed against the one before it. */
export function Changes({ number, revision }: { number: string; revision: number }) {
  const act = useAct();
  const [change, setChange] = useState<PlanChange | null>(null);
  return (
    <Dialog
      onOpenChange={(open) => {
        setChange(null);
        act.clear();
        if (!open) return;
        act.run(async () => {
          const r = await ask("wiring.plan-changes", { number });
          if (r.ok) setChange(r.value);
          return r;
        });
      }}
      title={`What plan ${revision} changed`}
      className="w-[720px]"
      trigger={
        <button type="button" className="flex min-h-8 items-center self-start text-second underline underline-offset-4">
          What plan {revision} changed
        </button>
      }
    >
      <div className="region min-h-0 flex-1">
        {change ? (
          <WiringDifference rows={change.rows} before={`in plan ${change.before}`} after={`in plan ${change.after}`} under={2} />
        ) : (
          <p role="status">{act.pending ? "Comparing …" : act.sentence}</p>
        )}
      </div>
    </Dialog>
  );
}

"use client";
import type { JobView } from "../../server/views/job-view";
import { Button } from "../../ui/button";
import Link from "../../ui/link";
import { Changes } from "./changes";
import type { Planning } from "./use-plan";

const STALE = "A part changed after this plan was made: it is stale.";

/** Connections may come without a plan: from a file, or by hand. */
const withoutPlan = (leads: number, planned: number): string =>
  planned === 0
    ? `${leads} ${leads === 1 ? "lead" : "leads"}, none planned.`
    : `${planned} of ${leads} ${leads === 1 ? "lead" : "leads"} have their places from a file or by hand; no plan of Imbra's own yet.`;

/** How the plan stands, what it is doing now, and the one thing to press next. */
export function PlanFoot({
  number,
  plan,
  planning,
  pending,
  said,
  leads,
  planned,
  assumptions,
  onPlan,
}: {
  number: string;
  plan: JobView["plan"];
  planning: Planning;
  pending: boolean;
  /** What the last action or scan said; it stands before what the planner said. */
  said: string;
  /** Leads that want a port, and those that have one. */
  leads: number;
  planned: number;
  /** Values of the parts that are only assumed. */
  assumptions: number;
  onPlan: () => void;
}) {
  return (
    <div className="flex min-h-18 shrink-0 flex-col justify-center gap-1 border-t border-rule px-4 py-3">
      <p role="status" className="text-second">
        {pending
          ? "Working …"
          : said ||
            planning.sentence ||
            (plan ? `Plan ${plan.revision}, ${plan.status}, by ${plan.madeBy}. ${plan.proof}` : withoutPlan(leads, planned))}
        {assumptions > 0 && plan && !pending && !planning.busy ? (
          <Link className="block underline" href={`/job/${number}/parts?show=matters`}>
            It rests on {assumptions} assumed {assumptions === 1 ? "value" : "values"}: what of them matters.
          </Link>
        ) : null}
        {plan?.stale && !pending && !planning.busy ? <strong className="block font-semibold">{STALE}</strong> : null}
      </p>
      {plan && plan.revision > 1 && !planning.busy ? <Changes number={number} revision={plan.revision} /> : null}
      {planning.busy ? (
        <div className="flex items-center gap-2">
          <div className="min-w-0 flex-1">
            <progress aria-label="Planning" className="block w-full" value={planning.share} />
            <p className="text-second leading-5">{planning.now}</p>
          </div>
          <Button onClick={planning.stop}>Cancel</Button>
        </div>
      ) : !plan || plan.stale ? (
        <Button tone="mark" disabled={pending} onClick={onPlan}>
          {plan ? "Plan the wiring again" : "Plan the wiring"}
        </Button>
      ) : (
        <div className="flex gap-2">
          <Link className="key key-mark flex-1" href={`/job/${number}/bench`}>
            Go to the bench
          </Link>
          <Button disabled={pending} onClick={onPlan}>
            Plan again
          </Button>
        </div>
      )}
    </div>
  );
}

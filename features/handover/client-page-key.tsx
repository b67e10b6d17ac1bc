"use client";
import { Button } from "../../ui/button";
import { clientPageAction } from "../actions/handover";
import { useAct } from "../frame/use-act";

/** A page of the machine for whoever has its address: off until somebody switches it on, and withdrawn at any time. */
export function ClientPageKey({ number, page }: { number: string; page: string | null }) {
  const act = useAct();
  return (
    <section aria-labelledby="client-page" className="mt-4">
      <h2 id="client-page" className="text-key font-[650]">
        Page for the client's eyes
      </h2>
      <p className="text-second text-soft">
        {page
          ? "Whoever has this address sees what is in the machine, what its lights mean and its cover: no prices, no names, no serials."
          : "Off. Switched on, it has an address that nobody guesses: what is in the machine, its lights, its cover; no prices, no names, no serials."}
      </p>
      <div className="mt-1 flex flex-wrap items-center gap-4">
        <Button disabled={act.pending} onClick={() => act.run(() => clientPageAction({ number, on: page === null }))}>
          {page ? "Withdraw it" : "Switch it on"}
        </Button>
        {page ? (
          <a className="min-w-0 flex-1 underline underline-offset-4 [overflow-wrap:anywhere]" href={page} target="_blank" rel="noreferrer">
            {page}
          </a>
        ) : null}
      </div>
      <p role="status">{act.sentence}</p>
    </section>
  );
}

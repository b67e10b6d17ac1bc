"use client";
import { useState } from "react";
import { isSilent, type SoldRow } from "../../core/handover";
import type { ReadyView } from "../../server/handover/recorded";
import { Button } from "../../ui/button";
import { StateMark } from "../../ui/marks";
import { prepareAction } from "../actions/handover";
import { useDates } from "../frame/dates";
import { useAct } from "../frame/use-act";
import { money } from "../shared/money";

const MARK: Record<SoldRow["state"], "checked" | "wrong" | "planned" | "free"> = {
  same: "checked",
  better: "planned",
  other: "wrong",
  missing: "free",
  "not asked for": "wrong",
};

/** What was agreed, beside what is in the machine: line by line, with the client's word where they differ, and what it comes to. */
export function Sold({ number, ready, closed, client }: { number: string; ready: ReadyView; closed: boolean; client: string }) {
  const dates = useDates();
  const { agreed, sold, currency } = ready;
  const differs = sold.filter((r) => r.state !== "same" || r.cents !== 0);
  const cents = sold.reduce((n, r) => n + r.cents, 0);
  return (
    <section aria-labelledby="sold" className="mt-6">
      <h2 id="sold" className="text-key font-[650]">
        Sold against built
      </h2>
      {!agreed ? (
        <p className="text-soft">No offer was accepted: there is nothing that it could be held against. An offer is made on Parts, under Offer.</p>
      ) : (
        <>
          <p className="text-second text-soft">
            Offer {agreed.count}, accepted by {agreed.by}, {dates.day(agreed.on)}.{" "}
            {differs.length === 0
              ? "Every line is as it was sold."
              : `${differs.length} of ${sold.length} lines differ${cents === 0 ? "; the price is the same" : `: ${cents > 0 ? "+" : ""}${money(cents / 100, currency)} against what was agreed`}.`}
          </p>
          <table className="mt-1 w-full text-left max-[760px]:block">
            <thead className="text-second text-soft max-[760px]:sr-only">
              <tr>
                <th className="font-normal">Sold</th>
                <th className="font-normal">Built</th>
                <th className="w-32 font-normal">State</th>
                <th className="w-28 text-right font-normal">Difference</th>
                <th className="w-[32%] pl-4 font-normal">The client's word</th>
              </tr>
            </thead>
            <tbody className="max-[760px]:block">
              {[...differs, ...sold.filter((r) => !differs.includes(r))].map((r) => (
                <tr key={r.id} className="border-t border-rule align-top max-[760px]:grid max-[760px]:grid-cols-2">
                  <td className="py-1.5 pr-3 [overflow-wrap:anywhere]">{r.sold || <span className="text-soft">not sold</span>}</td>
                  <td className="py-1.5 pr-3 [overflow-wrap:anywhere]">{r.built || <span className="text-soft">not there</span>}</td>
                  <td className="py-1.5">
                    <StateMark state={r.state === "same" && r.cents !== 0 ? "planned" : MARK[r.state]} word={r.state} size={13} />
                  </td>
                  <td className="mono py-1.5 text-right">{r.cents === 0 ? "" : `${r.cents > 0 ? "+" : ""}${money(r.cents / 100, currency)}`}</td>
                  <td className="py-1.5 pl-4 max-[760px]:col-span-2 max-[760px]:pl-0">
                    {r.word ? (
                      <>
                        {r.word.words}{" "}
                        <span className="text-second text-soft">
                          {r.word.who}, {dates.day(r.word.on)}
                        </span>
                      </>
                    ) : isSilent(r) && !closed ? (
                      <WordOn number={number} line={r.id} of={r.sold || r.built} client={client} />
                    ) : null}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
    </section>
  );
}

const today = () => new Date().toISOString().slice(0, 10);

/** What the client said to a difference: asked for where it differs. */
function WordOn({ number, line, of, client }: { number: string; line: string; of: string; client: string }) {
  const act = useAct();
  const [open, setOpen] = useState(false);
  const [words, setWords] = useState("");
  const [who, setWho] = useState(client);
  const [on, setOn] = useState(today);
  if (!open)
    return (
      <Button onClick={() => setOpen(true)}>
        Their word<span className="sr-only"> on {of}</span>
      </Button>
    );
  return (
    <form
      className="flex flex-col gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        act.run(() => prepareAction({ number, line, words, who, on }));
      }}
    >
      <input
        className="field w-full"
        aria-label={`What the client said of ${of}`}
        placeholder="What they said, and how"
        value={words}
        maxLength={500}
        onChange={(e) => setWords(e.target.value)}
      />
      <div className="flex flex-wrap gap-2">
        <input className="field min-w-0 flex-1" aria-label="Who said it" value={who} maxLength={120} onChange={(e) => setWho(e.target.value)} />
        <input className="field" type="date" aria-label="On which day" value={on} onChange={(e) => setOn(e.target.value)} />
        <Button type="submit" disabled={act.pending}>
          Keep
        </Button>
      </div>
      <p role="status" className="text-second">
        {act.sentence}
      </p>
    </form>
  );
}

"use client";
import { useState } from "react";
import { type Agreed, changedSince, type OfferLine, sumsOf } from "../../core/offer";
import type { OfferView as Made } from "../../server/offer/offers";
import { Button } from "../../ui/button";
import { acceptOfferAction, offerAction } from "../actions/job";
import { useDates } from "../frame/dates";
import { useAct } from "../frame/use-act";
import { money } from "../shared/money";

/** What the client is offered, who accepted it, and what is otherwise since. */
export function OfferView({ number, now, offers, client }: { number: string; now: Agreed; offers: readonly Made[]; client: string }) {
  const act = useAct();
  const dates = useDates();
  const [last] = offers;
  const agreed = offers.find((o) => o.acceptedBy !== null);
  const since = last ? changedSince(last.body, now) : [];
  const fromAgreed = agreed && agreed !== last ? changedSince(agreed.body, now) : since;
  const [hours, setHours] = useState(String(last?.body.hours ?? now.hours));
  const [words, setWords] = useState(last?.body.words ?? now.words);
  const [by, setBy] = useState(client);
  const [on, setOn] = useState("");
  const draft = { ...now, hours: Number(hours) || 0, words };
  const shown = last && since.length === 0 && Number(hours) === last.body.hours && words === last.body.words ? last.body : draft;
  const settled = shown === last?.body;
  const sums = sumsOf(shown);
  return (
    <section aria-label="Offer" className="region min-w-0 flex-1 p-5">
      <div className="flex flex-wrap items-center gap-4">
        <h2 className="min-w-0 flex-1 text-action font-[650]">
          {!last
            ? "Nothing was offered yet"
            : settled
              ? `Offer ${last.count}: ${money(sums.total, shown.currency)}${last.acceptedBy ? ", accepted" : ""}`
              : `Offer ${last.count} is otherwise than the job now`}
        </h2>
        <a className="key no-underline" href={`/files/job/${number}/offer.pdf`} download>
          {last ? `Offer ${last.count} as PDF` : "Draft as PDF"}
        </a>
      </div>
      <p role="status" className="mb-3 text-second text-soft">
        {act.sentence ||
          (last
            ? `${last.by}, ${dates.both(last.at)}.${last.acceptedBy ? ` Accepted by ${last.acceptedBy}, ${dates.day(last.acceptedOn ?? "")}.` : " Not accepted yet."}`
            : "What would be offered as the job stands. It is kept as it is when you offer it.")}
      </p>
      {agreed && fromAgreed.length > 0 ? (
        <div className="mb-4 max-w-[860px] border-l-4 border-ink pl-4">
          <h3 className="text-key font-[650]">Otherwise than agreed in offer {agreed.count}</h3>
          <ul>
            {fromAgreed.map((c) => (
              <li key={c} className="py-0.5">
                {c}
              </li>
            ))}
          </ul>
        </div>
      ) : last && since.length > 0 ? (
        <div className="mb-4 max-w-[860px] border-l-4 border-ink pl-4">
          <h3 className="text-key font-[650]">Otherwise than offered</h3>
          <ul>
            {since.map((c) => (
              <li key={c} className="py-0.5">
                {c}
              </li>
            ))}
          </ul>
        </div>
      ) : null}
      <table className="w-full max-w-[860px]">
        <tbody>
          <Lines word="Parts" lines={shown.parts} currency={shown.currency} />
          {shown.hours > 0 ? (
            <>
              <Head word="Work" />
              <tr className="border-t border-rule">
                <td className="mono py-1.5 text-right">{shown.hours} h</td>
                <td className="px-4">Assembly, cables, first start, checks</td>
                <td className="mono text-right">{shown.rate > 0 ? money(shown.rate) : ""}</td>
                <td className="mono text-right">{shown.rate > 0 ? money(sums.work) : "no rate set"}</td>
              </tr>
            </>
          ) : null}
          <Lines word="Beside the machine" lines={shown.beside} currency={shown.currency} />
          <tr className="border-t-2 border-ink font-[650]">
            <td />
            <td className="px-4 py-2">
              Together{shown.machines > 1 ? `, ${shown.machines} machines` : ""}
              {sums.unpriced > 0 ? `, without the ${sums.unpriced} ${sums.unpriced === 1 ? "line that has" : "lines that have"} no price` : ""}
            </td>
            <td />
            <td className="mono text-right">{money(sums.total, shown.currency)}</td>
          </tr>
        </tbody>
      </table>
      <p className="mt-3">
        {shown.due
          ? `Ready on ${dates.day(shown.due.on)}${shown.due.hour ? ` at ${shown.due.hour}` : ""}, ${shown.due.promised ? "promised" : "as wished; not promised"}.`
          : "No day is set."}
      </p>
      {shown.promises.length > 0 ? (
        <>
          <h3 className="mt-4 text-key font-[650]">Promised of the machine</h3>
          <ul className="max-w-[860px]">
            {shown.promises.map((p) => (
              <li key={`${p.about} ${p.words}`} className="border-t border-rule py-1.5">
                {p.words}
              </li>
            ))}
          </ul>
        </>
      ) : null}
      <form
        className="mt-6 flex max-w-[860px] flex-wrap items-end gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          act.run(
            () => offerAction({ number, hours: Number(hours) || 0, words }),
            (n) => `Offer ${n} is made and kept as it stands.`,
          );
        }}
      >
        <label>
          <span className="block text-second text-soft">Hours of work</span>
          <input className="field mono w-28" type="number" min={0} max={1000} step={0.25} value={hours} onChange={(e) => setHours(e.target.value)} />
        </label>
        <label className="min-w-64 flex-1">
          <span className="block text-second text-soft">Under the offer</span>
          <textarea className="field w-full" rows={2} maxLength={2000} value={words} onChange={(e) => setWords(e.target.value)} />
        </label>
        <Button type="submit" tone={settled ? "plain" : "mark"} disabled={act.pending || settled}>
          {last ? `Offer it anew` : "Offer it"}
        </Button>
      </form>
      {last && settled && !last.acceptedBy ? (
        <form
          className="mt-4 flex max-w-[860px] flex-wrap items-end gap-3"
          onSubmit={(e) => {
            e.preventDefault();
            act.run(
              () => acceptOfferAction({ number, count: last.count, by: by.trim(), on }),
              () => `Offer ${last.count} is what was agreed, from now on.`,
            );
          }}
        >
          <label className="min-w-48 flex-1">
            <span className="block text-second text-soft">Accepted by</span>
            <input className="field w-full" value={by} maxLength={120} onChange={(e) => setBy(e.target.value)} />
          </label>
          <label>
            <span className="block text-second text-soft">On</span>
            <input className="field mono" type="date" value={on} onChange={(e) => setOn(e.target.value)} required />
          </label>
          <Button type="submit" tone="mark" disabled={act.pending || by.trim() === "" || on === ""}>
            The client said yes
          </Button>
        </form>
      ) : null}
      {offers.length > 1 ? (
        <>
          <h3 className="mt-6 text-key font-[650]">Offers before</h3>
          <ul className="max-w-[860px]">
            {offers.slice(1).map((o) => (
              <li key={o.count} className="border-t border-rule py-1.5">
                Offer {o.count}, {money(sumsOf(o.body).total, o.body.currency)}, {dates.both(o.at)}, {o.by}
                {o.acceptedBy ? `; accepted by ${o.acceptedBy}, ${dates.day(o.acceptedOn ?? "")}` : ""}
              </li>
            ))}
          </ul>
        </>
      ) : null}
    </section>
  );
}

function Head({ word }: { word: string }) {
  return (
    <tr>
      <th colSpan={4} scope="colgroup" className="pt-4 text-left text-key font-[650]">
        {word}
      </th>
    </tr>
  );
}

function Lines({ word, lines, currency }: { word: string; lines: readonly OfferLine[]; currency: string }) {
  if (lines.length === 0) return null;
  return (
    <>
      <Head word={word} />
      {lines.map((l, i) => (
        <tr key={`${String(i)}${l.what}`} className="border-t border-rule">
          <td className="mono w-16 py-1.5 text-right">{l.count} ×</td>
          <td className="px-4">{l.what}</td>
          <td className="mono w-32 text-right">{l.own || l.each === undefined ? "" : money(l.each)}</td>
          <td className="w-36 text-right">
            {l.own ? (
              <span className="text-second text-soft">the client has it</span>
            ) : l.each === undefined ? (
              <span className="text-second text-soft">no price yet</span>
            ) : (
              <span className="mono">{money((Math.round(l.each * 100) * l.count) / 100, currency)}</span>
            )}
          </td>
        </tr>
      ))}
    </>
  );
}

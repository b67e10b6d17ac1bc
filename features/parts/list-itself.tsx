"use client";
import { useState } from "react";
import type { Graph } from "../../core/assembly";
import { type Bought, type Purchase, purchases, spent } from "../../core/offer";
import type { LastPrice } from "../../server/parts/bought";
import { Button } from "../../ui/button";
import { Dialog } from "../../ui/dialog";
import { StateMark } from "../../ui/marks";
import { buyAction } from "../actions/parts";
import { useDates } from "../frame/dates";
import { type Acting, useAct } from "../frame/use-act";
import { money } from "../shared/money";

/** The parts list as it is bought: what each costs and where it comes from, and the sum against what the client wants to spend. */
export function ListItself({
  graph,
  number,
  bought,
  lastPrices,
  currency,
}: {
  graph: Graph;
  number: string;
  bought: readonly Bought[];
  lastPrices: Readonly<Record<string, LastPrice>>;
  currency: string;
}) {
  const act = useAct();
  const dates = useDates();
  const rows = purchases(graph.build, (id) => graph.build.partTypes.find((t) => t.id === id), bought);
  const s = spent(rows, graph.build.wishes.budget);
  const says = [
    s.unpriced > 0 ? `${s.unpriced} ${s.unpriced === 1 ? "line has" : "lines have"} no price yet` : "",
    s.open > 0 ? `${s.ordered} of ${s.open} ${s.open === 1 ? "line" : "lines"} to buy ordered` : "everything is here",
    s.lastOn ? `the last is expected ${dates.day(s.lastOn)}` : "",
  ].filter(Boolean);
  return (
    <>
      <div className="flex flex-wrap items-center gap-4">
        <h2 className="min-w-0 flex-1 text-action font-[650]">
          {money(s.sum, currency)}
          {s.budget === undefined
            ? ""
            : ` of ${money(s.budget, currency)}: ${(s.left ?? 0) < 0 ? `${money(-(s.left ?? 0), currency)} too much` : `${money(s.left ?? 0, currency)} left`}`}
        </h2>
        <a className="key no-underline" href={`/files/job/${number}/to-order.csv`} download>
          What is to buy, as a table
        </a>
      </div>
      <p role="status" className="mb-2 text-second text-soft">
        {act.sentence || `${sentence(says)}.`}
      </p>
      <table className="w-full max-w-[1000px]">
        <thead>
          <tr className="text-left text-second text-soft">
            <th className="w-12 py-1 text-right font-normal">Count</th>
            <th className="px-4 font-normal">Part</th>
            <th className="w-20 text-right font-normal">Each</th>
            <th className="w-22 text-right font-normal">Sum</th>
            <th className="w-38 px-3 font-normal">State</th>
            <th className="w-20 font-normal">
              <span className="sr-only">Change</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.map((r) => (
            <tr key={r.parts.join()} className="border-t border-rule align-top">
              <td className="mono py-2 text-right">{r.parts.length} ×</td>
              <th scope="row" className="px-4 py-2 text-left font-normal">
                {r.name}
                <span className="block text-second text-soft">
                  {[
                    r.provisional ? "some values assumed" : "",
                    r.supplier ? `from ${r.supplier}` : "",
                    r.availability && r.arrived < r.parts.length ? `availability: ${r.availability}` : "",
                    r.priceFrom || r.priceOn
                      ? `price ${[r.priceFrom ? `of ${r.priceFrom}` : "", r.priceOn ? dates.day(r.priceOn) : ""].filter(Boolean).join(", ")}`
                      : "",
                    r.each === undefined && r.from === "buy" && lastPrices[r.type]
                      ? lastWords(lastPrices[r.type] as LastPrice, currency, dates.day)
                      : "",
                  ]
                    .filter(Boolean)
                    .join("; ")}
                </span>
              </th>
              <td className="mono py-2 text-right">{r.from === "own" ? "" : r.each === undefined ? "" : money(r.each)}</td>
              <td className="mono py-2 text-right">
                {r.from === "own" || r.each === undefined ? "" : money((Math.round(r.each * 100) * r.parts.length) / 100)}
              </td>
              <td className="px-3 py-2 text-second">
                <HowFar r={r} day={dates.day} />
              </td>
              <td className="py-1 text-right">
                <BuySheet r={r} number={number} act={act} last={lastPrices[r.type]} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

const sentence = (words: readonly string[]) => {
  const s = words.join("; ");
  return s.charAt(0).toUpperCase() + s.slice(1);
};
const lastWords = (l: LastPrice, currency: string, day: (d: string) => string) =>
  `last ${money(l.price, currency)}${l.supplier ? ` from ${l.supplier}` : ""}${l.on ? `, ${day(l.on)}` : ""} (${l.job})`;

function HowFar({ r, day }: { r: Purchase; day: (d: string) => string }) {
  if (r.from === "own") return <StateMark state="planned" size={13} word="the client's own" />;
  if (r.from === "shelf") return <StateMark state="planned" size={13} word="from the shelf" />;
  if (r.arrived === r.parts.length) return <StateMark state="plugged" size={13} word="here" />;
  const here = r.arrived > 0 ? `, ${r.arrived} here` : "";
  if (r.orderedOn)
    return (
      <>
        <StateMark state="waiting" size={13} word={`ordered ${day(r.orderedOn)}${here}`} />
        {r.expectedOn ? <span className="block text-soft">expected {day(r.expectedOn)}</span> : null}
      </>
    );
  return <StateMark state="free" size={13} word={`to order${here}`} />;
}

function BuySheet({ r, number, act, last }: { r: Purchase; number: string; act: Acting; last: LastPrice | undefined }) {
  const [open, setOpen] = useState(false);
  const was = {
    price: r.each === undefined ? "" : String(r.each),
    priceFrom: r.priceFrom ?? "",
    priceOn: r.priceOn ?? "",
    supplier: r.supplier ?? "",
    availability: r.availability ?? "",
    orderedOn: r.orderedOn ?? "",
    expectedOn: r.expectedOn ?? "",
  };
  const [form, setForm] = useState(was);
  const field = (id: keyof typeof form, word: string, type: string, more = "") => (
    <label className={more}>
      <span className="block text-second text-soft">{word}</span>
      <input
        className={type === "text" ? "field w-full" : "field mono w-full"}
        type={type}
        {...(type === "number" ? { min: 0, step: "any" } : { maxLength: id === "availability" ? 80 : 120 })}
        value={form[id]}
        onChange={(e) => setForm((f) => ({ ...f, [id]: e.target.value }))}
      />
    </label>
  );
  return (
    <Dialog
      open={open}
      onOpenChange={(to) => {
        if (to) setForm(was);
        setOpen(to);
      }}
      title={`${r.parts.length > 1 ? `${r.parts.length} × ` : ""}${r.name}`}
      className="w-[560px]"
      trigger={<Button aria-label={`Price and supplier of ${r.name}`}>Change</Button>}
    >
      <form
        className="grid grid-cols-2 gap-x-4 gap-y-3"
        onSubmit={(e) => {
          e.preventDefault();
          act.run(
            () =>
              buyAction({
                number,
                parts: r.parts,
                price: form.price === "" ? null : Number(form.price),
                priceFrom: form.priceFrom,
                priceOn: form.priceOn || null,
                supplier: form.supplier,
                availability: form.availability,
                orderedOn: form.orderedOn || null,
                expectedOn: form.expectedOn || null,
              }),
            () => {
              setOpen(false);
              return `${r.name}: kept.`;
            },
          );
        }}
      >
        {field("price", "Price of one", "number")}
        {field("priceOn", "Price of which day", "date")}
        {field("priceFrom", "Where the price was read", "text", "col-span-2")}
        {field("supplier", "Supplier", "text")}
        {field("availability", "Availability, in their words", "text")}
        {field("orderedOn", "Ordered on", "date")}
        {field("expectedOn", "Expected on", "date")}
        {last && form.price === "" ? (
          <Button
            className="col-span-2"
            onClick={() => setForm((f) => ({ ...f, price: String(last.price), supplier: f.supplier || (last.supplier ?? "") }))}
          >
            As the last time: {money(last.price)}
            {last.supplier ? ` from ${last.supplier}` : ""} ({last.job})
          </Button>
        ) : null}
        <p role="alert" className="col-span-2 text-second">
          {act.sentence.includes("Nothing was changed") ? act.sentence : ""}
        </p>
        <Button type="submit" tone="mark" className="col-span-2" disabled={act.pending}>
          Keep it
        </Button>
      </form>
    </Dialog>
  );
}

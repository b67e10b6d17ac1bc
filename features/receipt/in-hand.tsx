"use client";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { AssumedOf, ReceiptRow } from "../../server/receipt/receipt-view";
import { Button } from "../../ui/button";
import { confirmAction, factsAction } from "../actions/parts";
import { ask } from "../frame/ask";
import { type Acting, useAct } from "../frame/use-act";

/** What was only assumed of a part, asked while it is in the hand: what decides something first, one tap for "as assumed". */
export function InHand({ number, row }: { number: string; row: ReceiptRow }) {
  const act = useAct();
  // What the list says is there at once; what the wiring says comes after.
  const first = useQuery({
    queryKey: ["matters of the list", number, row.assumed.length],
    queryFn: () => ask("parts.matters", { number, listOnly: true }),
    staleTime: Number.POSITIVE_INFINITY,
    retry: false,
  });
  const asked = useQuery({
    queryKey: ["matters", number, row.assumed.length],
    queryFn: () => ask("parts.matters", { number }),
    enabled: first.isFetched,
    staleTime: Number.POSITIVE_INFINITY,
    retry: false,
  });
  const whole = asked.data?.ok ? asked.data.value : undefined;
  const found = whole ?? (first.data?.ok ? first.data.value : undefined);
  const turning = new Map(found?.matters.filter((m) => m.type === row.type).map((m) => [m.figure, m]) ?? []);
  const list = [...row.assumed].sort((a, b) => (turning.get(b.figure)?.weight ?? 0) - (turning.get(a.figure)?.weight ?? 0));
  const turn = found ? list.filter((a) => turning.has(a.figure)) : [];
  const rest = list.filter((a) => !turn.includes(a));
  return (
    <section aria-label="Only assumed" className="flex flex-col gap-4 border-t border-rule pt-4">
      <h3 className="font-semibold">
        {whole && turn.length === 0
          ? "Nothing turns on what is assumed of it"
          : turn.length > 0
            ? `${turn.length} ${turn.length === 1 ? "question" : "questions"} while it is in your hand`
            : `${row.assumed.length} values of it are assumed`}
      </h3>
      <p role="status" className="text-soft">
        {act.sentence || (whole ? "" : "Finding out which of them decide something …")}
      </p>
      {turn.map((a) => (
        <One key={a.figure} a={a} number={number} row={row} act={act} because={turning.get(a.figure)?.range[0]?.decides[0]} />
      ))}
      {rest.length > 0 ? (
        <details>
          <summary className="flex min-h-16 cursor-pointer items-center">
            {turn.length > 0 ? `${rest.length} more${whole ? " that nothing turns on" : ""}` : "All of them"}
          </summary>
          <div className="flex flex-col gap-4">
            {rest.map((a) => (
              <One key={a.figure} a={a} number={number} row={row} act={act} because={undefined} />
            ))}
          </div>
        </details>
      ) : null}
    </section>
  );
}

function One({ a, number, row, act, because }: { a: AssumedOf; number: string; row: ReceiptRow; act: Acting; because: string | undefined }) {
  const [value, setValue] = useState("");
  const say = (v: AssumedOf["value"], how: "confirmed" | "measured") =>
    act.run(
      () => confirmAction({ number, part: row.part, figure: a.figure, value: v, how }),
      (r) =>
        `${a.word}: ${r.same ? "as assumed" : `corrected; ${a.words} was assumed. Look at the findings, and plan the wiring again where it is said to be stale`}.`,
    );
  return (
    <div className="border-t border-rule pt-3">
      <p>{a.ask}</p>
      {because ? <p className="text-soft">If not: {because}</p> : null}
      <div className="mt-2 flex flex-wrap items-center gap-3">
        {a.choices.map((c, i) => (
          <Button bench key={String(c.value)} disabled={act.pending} aria-label={`${c.words}. ${a.ask}`} onClick={() => say(c.value, "confirmed")}>
            {i === 0 ? `Yes: ${c.words}` : c.words}
          </Button>
        ))}
        {typeof a.value === "number" ? (
          <form
            className="flex items-center gap-2"
            onSubmit={(e) => {
              e.preventDefault();
              if (value !== "" && Number.isFinite(Number(value))) say(Number(value), a.unit === "mm" ? "measured" : "confirmed");
            }}
          >
            <input
              className="mono min-h-16 w-32 rounded border-2 border-edge bg-sheet px-4 text-bench"
              type="number"
              min={0}
              step="any"
              aria-label={`${a.ask} Another number${a.unit ? `, ${a.unit}` : ""}`}
              value={value}
              onChange={(e) => setValue(e.target.value)}
            />
            {a.unit ? <span>{a.unit}</span> : null}
            <Button bench type="submit" disabled={act.pending || value === ""}>
              It is that
            </Button>
          </form>
        ) : null}
      </div>
    </div>
  );
}

/** What lay in the box besides and is not used: it goes into the bag that the client gets. */
export function LeftOver({ number, row, usual }: { number: string; row: ReceiptRow; usual: readonly string[] }) {
  const act = useAct();
  const [more, setMore] = useState("");
  const list = [...new Set([...usual, ...row.facts.along])];
  const keep = (along: string[], what: string, isIn: boolean) =>
    act.run(
      () => factsAction({ number, part: row.part, facts: { along } }),
      () => (isIn ? `Into the bag: ${what}.` : `Not in the bag: ${what}.`),
    );
  return (
    <details className="border-t border-rule pt-4">
      <summary className="flex min-h-16 cursor-pointer items-center">
        {row.facts.along.length > 0
          ? `Into the bag: ${row.facts.along.length} ${row.facts.along.length === 1 ? "thing" : "things"}`
          : "What lay in the box and is not used goes into the bag"}
      </summary>
      <ul>
        {list.map((what) => (
          <li key={what}>
            <label className="flex min-h-16 items-center gap-4">
              <input
                type="checkbox"
                className="size-7"
                checked={row.facts.along.includes(what)}
                disabled={act.pending}
                onChange={(e) =>
                  keep(e.target.checked ? [...row.facts.along, what] : row.facts.along.filter((x) => x !== what), what, e.target.checked)
                }
              />
              {what.charAt(0).toUpperCase() + what.slice(1)}
            </label>
          </li>
        ))}
      </ul>
      <form
        className="mt-2 flex flex-wrap items-center gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          const what = more.trim();
          if (what === "" || row.facts.along.includes(what)) return;
          setMore("");
          keep([...row.facts.along, what], what, true);
        }}
      >
        <input
          className="min-h-16 min-w-0 flex-1 rounded border-2 border-edge bg-sheet px-4 text-bench"
          aria-label={`Something else that came with ${row.name}`}
          placeholder="Something else"
          maxLength={120}
          value={more}
          onChange={(e) => setMore(e.target.value)}
        />
        <Button bench type="submit" disabled={act.pending || more.trim() === ""}>
          Into the bag
        </Button>
      </form>
      <p role="status" className="text-soft">
        {act.sentence}
      </p>
    </details>
  );
}

/** What of the order list came along in the box: ticked it need not be bought. */
export function CameAlong({
  number,
  row,
  items,
}: {
  number: string;
  row: ReceiptRow;
  items: readonly { id: string; what: string; count: number }[];
}) {
  const act = useAct();
  if (items.length === 0) return null;
  return (
    <details className="border-t border-rule pt-4">
      <summary className="flex min-h-16 cursor-pointer items-center">
        {row.facts.came.length > 0 ? `${row.facts.came.length} of the order list came along` : "Something of the order list came along"}
      </summary>
      <ul>
        {items.map((i) => (
          <li key={i.id}>
            <label className="flex min-h-16 items-center gap-4">
              <input
                type="checkbox"
                className="size-7"
                checked={row.facts.came.some((c) => c.id === i.id)}
                disabled={act.pending}
                onChange={(e) => {
                  const came = e.target.checked ? [...row.facts.came, { id: i.id, what: i.what }] : row.facts.came.filter((x) => x.id !== i.id);
                  act.run(
                    () => factsAction({ number, part: row.part, facts: { came } }),
                    () => (e.target.checked ? `${i.what} need not be bought.` : `${i.what} stands on the order list again.`),
                  );
                }}
              />
              {i.count > 1 ? `${i.count} × ` : ""}
              {i.what}
            </label>
          </li>
        ))}
      </ul>
      <p role="status" className="text-soft">
        {act.sentence}
      </p>
    </details>
  );
}

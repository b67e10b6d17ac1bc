"use client";
import { Button } from "../../ui/button";
import { SeverityShape } from "../../ui/marks";
import type { Outbox } from "../device/outbox";

/** Where hands are, who works, what waits to be sent; and a look back and ahead, which ticks nothing. */
export function BenchHead({
  number,
  at,
  of,
  who,
  outbox,
  onLook,
  onList,
  onPerson,
  onEntries,
}: {
  number: string;
  at: number;
  of: number;
  who: string;
  outbox: Outbox;
  onLook: (by: number) => void;
  onList: () => void;
  onPerson: () => void;
  onEntries: () => void;
}) {
  const toSend = outbox.waiting.length + outbox.onTheWay.length;
  return (
    <header className="flex min-h-20 shrink-0 items-stretch border-b border-rule max-[760px]:flex-wrap">
      <Button
        bench
        className="min-h-20 w-40 rounded-none border-0 border-r px-2 max-[760px]:w-auto max-[760px]:flex-1 max-[760px]:px-1 max-[760px]:text-key"
        onClick={() => onLook(-1)}
      >
        Look back
      </Button>
      <button
        type="button"
        className="flex min-h-20 min-w-0 flex-1 items-center gap-4 px-5 text-left text-bench hover:bg-sheet max-[760px]:order-first max-[760px]:w-full max-[760px]:flex-none max-[760px]:border-b max-[760px]:border-rule"
        onClick={onList}
      >
        <span className="min-w-0 truncate">
          <span className="mono font-semibold">{number}</span> card {at} of {of}
        </span>
      </button>
      <button
        type="button"
        className="flex min-h-20 w-48 min-w-0 items-center justify-center border-l border-rule px-3 text-center text-bench hover:bg-sheet max-[760px]:w-auto max-[760px]:flex-1 max-[760px]:px-1 max-[760px]:text-key"
        onClick={onPerson}
      >
        <span className="sr-only">Who works here: </span>
        <span className="line-clamp-2">{who}</span>
      </button>
      <button
        type="button"
        className="flex min-h-20 w-36 items-center justify-center gap-2 border-l border-rule px-3 text-center text-bench hover:bg-sheet max-[760px]:w-auto max-[760px]:flex-1 max-[760px]:px-1 max-[760px]:text-key"
        aria-label="Entries of this tablet"
        onClick={onEntries}
      >
        {outbox.aside.length > 0 ? <SeverityShape severity="stop" size={28} /> : null}
        {outbox.aside.length > 0 ? `${outbox.aside.length} to look at` : toSend > 0 ? `${toSend} to send` : outbox.known ? "all sent" : ""}
      </button>
      <Button
        bench
        className="min-h-20 w-44 rounded-none border-0 border-l px-2 max-[760px]:w-auto max-[760px]:flex-1 max-[760px]:px-1 max-[760px]:text-key"
        onClick={() => onLook(1)}
      >
        Look ahead
      </Button>
    </header>
  );
}

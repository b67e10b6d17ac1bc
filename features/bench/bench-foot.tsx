"use client";
import type { ReactNode } from "react";
import { Button } from "../../ui/button";
import { cx } from "../../ui/cx";
import Link from "../../ui/link";
import type { Sheet } from "./bench-sheet";

export const KEY = "min-h-24 w-34 px-2 max-[760px]:min-h-20 max-[760px]:w-auto max-[760px]:px-1 max-[760px]:text-key";

/** The keys below the card: what hands may want to say, and Done at the hand that works. */
export function BenchFoot({
  left,
  number,
  over,
  undoes,
  warned,
  done,
  photo,
  onSheet,
  onPress,
}: {
  /** The left hand works. */
  left: boolean;
  number: string;
  /** Every card is done, or none can be. */
  over: boolean;
  undoes: boolean;
  warned: boolean;
  /** What Done says now. */
  done: string;
  photo: ReactNode;
  onSheet: (sheet: Sheet) => void;
  onPress: () => void;
}) {
  const key = (word: string, sheet: Sheet) => (
    <Button bench className={KEY} onClick={() => onSheet(sheet)}>
      {word}
    </Button>
  );
  return (
    <footer
      className={cx(
        "flex h-36 shrink-0 items-center gap-3 border-t border-rule px-6",
        // On a phone: Done as wide as the hand reaches, the others below, always in sight.
        "max-[760px]:sticky max-[760px]:bottom-0 max-[760px]:grid max-[760px]:h-auto max-[760px]:grid-cols-4 max-[760px]:gap-2 max-[760px]:bg-ground max-[760px]:p-3",
        left && "flex-row-reverse",
      )}
    >
      {key("Differs", "differs")}
      {key("Problem", "problem")}
      {photo}
      {undoes ? key("Undo", "undo") : key("Skip", "skip")}
      <div className="flex-1 max-[760px]:hidden" />
      {over ? (
        <Link
          className="key-bench min-h-28 w-84 no-underline max-[760px]:order-first max-[760px]:col-span-4 max-[760px]:w-full"
          data-done="mark"
          href={`/job/${number}/first-boot`}
        >
          First boot
        </Link>
      ) : (
        <Button
          bench
          className="min-h-28 w-84 px-2 max-[760px]:order-first max-[760px]:col-span-4 max-[760px]:min-h-20 max-[760px]:w-full"
          tone={warned ? "plain" : "mark"}
          onClick={onPress}
        >
          {done}
        </Button>
      )}
    </footer>
  );
}

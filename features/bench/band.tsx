"use client";
import type { Card, Step } from "../../core/order";
import type { BenchSlice } from "../../server/views/slices";
import Link from "../../ui/link";
import { StateShape } from "../../ui/marks";
import { useDates, WithDates } from "../frame/dates";

/** The one line above the keys: the first of what matters now, from a stop down to how long the card takes. Cautions have a place of their own. */
export function Band({
  stop,
  coveredBy,
  said,
  aloneSince,
  head,
  held,
  missing,
  unplanned,
  photo,
  skipped,
  over,
  steps,
  of,
  covers,
  card,
  following,
}: {
  stop: BenchSlice["findings"][number] | undefined;
  /** What hides it already, by its title. */
  coveredBy: string | undefined;
  said: string;
  aloneSince: number | undefined;
  head: BenchSlice["head"];
  /** Why nothing of this card is done yet: a part went back. */
  held: string | undefined;
  /** Parts of the card that the receipt does not know to be here, by name. */
  missing: readonly string[];
  unplanned: boolean;
  /** What a photo is wanted of. */
  photo: string | undefined;
  skipped: string | undefined;
  over: boolean;
  steps: readonly Step[];
  /** How many cards there are. */
  of: number;
  covers: string | undefined;
  card: Card;
  following: string | undefined;
}) {
  const dates = useDates();
  if (stop) return <span className="text-stop">Stop. {stop.message}</span>;
  if (coveredBy !== undefined) return <span className="text-stop">Covered already by: {coveredBy}. Done shows what has to come out.</span>;
  if (said)
    return (
      <span role="status">
        <WithDates text={said} />
      </span>
    );
  if (aloneSince !== undefined)
    return (
      <span role="status">
        No answer from the server since {dates.clock(aloneSince)}. What you press is kept on this tablet and sent in order. Go on working.
      </span>
    );
  if (head.stage === "waiting")
    return (
      <Waits>
        This job waits for {head.waitingFor ?? "a delivery"}
        {head.waitingUntil ? `, until ${dates.day(head.waitingUntil)}` : ""}. What hands can do meanwhile is recorded.
      </Waits>
    );
  if (held !== undefined) return <Waits>{held}</Waits>;
  if (missing.length > 0) return <Waits>Not received yet: {missing.join(", ")}.</Waits>;
  if (unplanned)
    return (
      <span>
        The wiring is not planned yet, so that no plug is on these cards.{" "}
        <Link className="underline" href={`/job/${head.number}/wiring`}>
          Plan it first.
        </Link>
      </span>
    );
  if (photo !== undefined) return <Waits>No photo yet: {photo}.</Waits>;
  if (skipped !== undefined) return <span>Skipped before: {skipped}</span>;
  if (over)
    return (
      <span className="text-soft">
        {steps.length} steps in {of} cards. Look back at any of them, or undo one there.
      </span>
    );
  if (covers) return <span>{covers}</span>;
  return (
    <span className="text-soft">
      About {minutesIn(card)}.{following ? ` Then: ${following}.` : ""}
    </span>
  );
}

const Waits = ({ children }: { children: React.ReactNode }) => (
  <span className="flex items-center gap-3">
    <StateShape state="waiting" size={28} />
    <span>{children}</span>
  </span>
);

const minutesIn = (card: Card): string => {
  const n = Math.round(card.minutes.handsOn);
  return `${n} ${n === 1 ? "minute" : "minutes"}${card.minutes.unattended > 0 ? ` and ${card.minutes.unattended} by itself` : ""}`;
};

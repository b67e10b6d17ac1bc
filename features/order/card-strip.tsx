"use client";
import { Fragment, useRef } from "react";
import { type Card, turnWords } from "../../core/order";
import { cx } from "../../ui/cx";
import { StateMark } from "../../ui/marks";
import { minutesWords } from "../shared/minutes-words";

/** The cards in order; each turn of the case is a band across them. Arrow keys go through them, dragging one pulls it. */
export function CardStrip({
  cards,
  from = 0,
  chosen,
  next,
  skipped,
  onChoose,
  onPull,
}: {
  cards: readonly Card[];
  /** How many cards stand before these. */
  from?: number;
  chosen: string | undefined;
  /** The one that hands do next. */
  next: string | undefined;
  skipped: Readonly<Record<string, unknown>>;
  onChoose: (id: string) => void;
  /** Pulls a card before another. */
  onPull: (card: Card, before: Card) => void;
}) {
  const dragged = useRef<Card | undefined>(undefined);
  const at = cards.findIndex((c) => c.id === chosen);
  const to = (i: number) => {
    const c = cards[Math.max(0, Math.min(cards.length - 1, i))];
    if (c) onChoose(c.id);
  };
  return (
    <div
      role="listbox"
      aria-label="Cards in order"
      tabIndex={0}
      aria-activedescendant={chosen ? `card-${chosen}` : undefined}
      className="flex flex-col"
      onKeyDown={(e) => {
        const here = cards[at];
        if (e.altKey && (e.key === "ArrowUp" || e.key === "ArrowDown")) {
          e.preventDefault();
          const [card, before] = e.key === "ArrowUp" ? [here, cards[at - 1]] : [cards[at + 1], here];
          if (card && before) onPull(card, before);
        } else if (e.key === "ArrowDown" || e.key === "ArrowUp" || e.key === "Home" || e.key === "End") {
          e.preventDefault();
          to(e.key === "Home" ? 0 : e.key === "End" ? cards.length - 1 : at + (e.key === "ArrowDown" ? 1 : -1));
        }
      }}
    >
      {cards.map((c, i) => (
        <Fragment key={c.id}>
          {c.turn ? (
            <div role="presentation" className="flex min-h-8 items-center gap-3 bg-rule px-4 text-second font-semibold">
              <TurnShape />
              {turnWords(c.turn)}
            </div>
          ) : null}
          <div
            id={`card-${c.id}`}
            role="option"
            aria-selected={c.id === chosen}
            tabIndex={-1}
            draggable={!c.done}
            onDragStart={() => {
              dragged.current = c;
            }}
            onDragOver={(e) => dragged.current && !c.done && e.preventDefault()}
            onDrop={() => {
              if (dragged.current && dragged.current !== c) onPull(dragged.current, c);
              dragged.current = undefined;
            }}
            onClick={() => onChoose(c.id)}
            onKeyDown={() => undefined}
            className={cx(
              "flex min-h-12 cursor-pointer items-center gap-3 border-b border-rule px-4 py-1.5",
              c.id === chosen && "bg-sheet outline-2 -outline-offset-2 outline-ink",
              c.done && "text-soft",
            )}
          >
            <span className="mono w-7 shrink-0 text-right">{from + i + 1}</span>
            <span className={cx("min-w-0 flex-1", c.id === next && "font-semibold")}>{c.title}</span>
            <span className="mono w-16 shrink-0 text-right text-second" title={minutesWords(c.minutes)}>
              {Math.round(c.minutes.handsOn)} min
            </span>
            <span className="w-20 shrink-0 text-second">
              {c.done ? (
                <StateMark state="plugged" word="done" />
              ) : c.steps.some((s) => skipped[s.id]) ? (
                <StateMark state="waiting" word="skipped" />
              ) : c.id === next ? (
                <span className="inline-flex items-center gap-1.5 font-semibold text-mark">
                  <span aria-hidden className="size-3.5 bg-mark" />
                  next
                </span>
              ) : c.steps.some((s) => s.done) ? (
                <StateMark state="planned" word="begun" />
              ) : (
                ""
              )}
            </span>
          </div>
        </Fragment>
      ))}
    </div>
  );
}

/** A slab turned over on its long edge. */
function TurnShape() {
  return (
    <svg width="18" height="16" viewBox="0 0 18 16" aria-hidden className="shrink-0">
      <path d="M2 11h14v3H2z" fill="currentColor" />
      <path d="M4 8a5 5 0 0 1 10 0M14 8l-2.6-1.600M14 8l1.800-2.600" fill="none" stroke="currentColor" strokeWidth="1.600" />
    </svg>
  );
}

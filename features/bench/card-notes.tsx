"use client";
import type { Graph } from "../../core/assembly";
import type { Card } from "../../core/order";
import type { Notes } from "../../server/shelf/tips";
import { Button } from "../../ui/button";
import { stillSoAction } from "../actions/shelf";
import { useDates } from "../frame/dates";
import { useAct } from "../frame/use-act";

/** What to know of the parts of a card: what the shop reminds of, and what colleagues found out about just these types. */
export function CardNotes({ card, graph, notes }: { card: Card; graph: Graph; notes: Notes }) {
  const act = useAct();
  const dates = useDates();
  const types = card.steps.flatMap((s) => s.parts.flatMap((p) => graph.parts.get(p)?.type ?? []));
  const steps = new Set<string>(card.steps.map((s) => s.kind));
  const tips = notes.tips.filter((t) => (t.step === null ? !steps.has("plug") : steps.has(t.step)) && types.some((x) => x.id === t.type));
  const prompts = notes.prompts.filter((p) => types.some((t) => t.kind === p.kind) && !steps.has("plug"));
  if (tips.length + prompts.length === 0) return null;
  return (
    <aside aria-label="To remember" className="mt-4 border-t border-rule pt-3">
      {prompts.map((p) => (
        <p key={`${p.kind} ${p.words}`} className="font-semibold">
          {p.words}
        </p>
      ))}
      {tips.map((t) => (
        <div key={t.id} className="mt-2 flex items-start gap-3">
          <p className="min-w-0 flex-1">
            {t.words}
            <span className="block text-soft">
              {t.by}, {dates.day(t.at)}
              {t.stillSo ? `; still so: ${t.stillSo.by}, ${dates.day(t.stillSo.at)}` : ""}
            </span>
          </p>
          <Button
            bench
            aria-label={`Still so: ${t.words}`}
            disabled={act.pending}
            onClick={() =>
              act.run(
                () => stillSoAction({ tip: t.id }),
                () => "Still so, with your name.",
              )
            }
          >
            Still so
          </Button>
        </div>
      ))}
      <p role="status" className="text-soft">
        {act.sentence}
      </p>
    </aside>
  );
}

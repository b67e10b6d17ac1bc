"use client";
import { useState } from "react";
import { type Card, POSTURE_WORDS, type Step, type Undo } from "../../core/order";
import { Button } from "../../ui/button";
import { Fold } from "../../ui/fold";
import { Caution, StateShape } from "../../ui/marks";
import { Photo } from "../../ui/photo";
import { ask } from "../frame/ask";
import { useAct } from "../frame/use-act";
import { minutesWords } from "./minutes-words";

const KIND = { needs: "needs", covers: "covers", reach: "reach", school: "the shop's way" } as const;

/** One card in full: how the case lies, tools, each step with how it is right, why it stands here, and what undoing it would cost. */
export function CardDetails({
  number,
  card,
  steps,
  photos,
}: {
  number: string;
  card: Card;
  steps: readonly Step[];
  photos: readonly { id: string; step: string | null; by: string }[];
}) {
  const tools = [...new Set(card.steps.flatMap((s) => s.tools))];
  const cautions = [...new Set(card.steps.flatMap((s) => s.caution ?? []))];
  const own = new Set(card.steps.map((s) => s.id));
  const shown = photos.filter((p) => p.step !== null && own.has(p.step));
  const title = new Map(steps.map((s) => [s.id, s.title]));
  const why = dedupe(card.steps.flatMap((s) => s.after).filter((a) => !own.has(a.step)));
  const then = dedupe(steps.filter((s) => !own.has(s.id)).flatMap((s) => s.after.filter((a) => own.has(a.step)).map((a) => ({ ...a, step: s.id }))));
  const history = card.steps.find((s) => s.minutesFrom !== "practice")?.minutesFrom;
  return (
    <div>
      <h2 className="text-verdict font-semibold">{card.title}</h2>
      <p className="text-second text-soft">
        {card.posture ? `Case: ${POSTURE_WORDS[card.posture]}` : "On the table"} · {minutesWords(card.minutes)},{" "}
        {history === "said" ? "as the shop says" : history ? `from ${history} of our own` : "practice value"}
        {tools.length > 0 ? ` · ${tools.join("; ")}` : ""}
      </p>
      {cautions.slice(0, 2).map((c) => (
        <div key={c} className="mt-2">
          <Caution text={c} />
        </div>
      ))}
      <ol className="mt-3 flex flex-col">
        {card.steps.map((s) => (
          <li key={s.id} className="border-t border-rule py-2">
            <div className="flex items-start gap-2 max-[760px]:flex-wrap">
              <span className="pt-1">
                <StateShape state={s.done ? "plugged" : "free"} />
              </span>
              <span className="sr-only">{s.done ? "done" : "to do"}</span>
              <div className="min-w-0 flex-1">
                {card.steps.length > 1 ? <p className="font-semibold">{s.title}</p> : null}
                <p>{s.detail}</p>
                {s.rightWhen ? <p className="text-second text-soft">Right when: {s.rightWhen}.</p> : null}
                {s.coversWords ? <p className="text-second">{s.coversWords}</p> : null}
              </div>
              <Undoing number={number} step={s} />
            </div>
          </li>
        ))}
      </ol>
      {shown.length > 0 ? (
        <ul aria-label="Photos" className="flex flex-wrap gap-2 py-2">
          {shown.map((p) => (
            <li key={p.id}>
              <Photo id={p.id} alt={`${card.title}, by ${p.by}`} high="h-28" />
            </li>
          ))}
        </ul>
      ) : null}
      <Fold
        word={`Why it stands here: ${why.length === 0 ? "nothing has to come before it" : `after ${why.length} ${why.length === 1 ? "step" : "steps"}`}`}
        open={why.length > 0 && why.length <= 4}
      >
        <ul className="ml-4 list-disc">
          {why.slice(0, 30).map((a) => (
            <li key={a.step + a.kind}>
              After “{title.get(a.step)}”: {a.why} <span className="text-second text-soft">({KIND[a.kind]})</span>
            </li>
          ))}
        </ul>
      </Fold>
      <Fold word={`What waits for it: ${then.length} ${then.length === 1 ? "step" : "steps"}`}>
        <ul className="ml-4 list-disc">
          {then.slice(0, 30).map((a) => (
            <li key={a.step + a.kind}>
              “{title.get(a.step)}”: {a.why} <span className="text-second text-soft">({KIND[a.kind]})</span>
            </li>
          ))}
        </ul>
      </Fold>
    </div>
  );
}

function dedupe<T extends { step: string; kind: string }>(list: readonly T[]): T[] {
  const seen = new Set<string>();
  return list.filter((x) => !seen.has(x.step + x.kind) && seen.add(x.step + x.kind));
}

/** What comes out, asked for one step. */
function Undoing({ number, step }: { number: string; step: Step }) {
  const act = useAct();
  const [undo, setUndo] = useState<Undo>();
  return (
    <div className="w-56 shrink-0 text-right text-second max-[760px]:w-full max-[760px]:text-left">
      <Button
        className="min-h-8 px-3 text-second"
        disabled={act.pending}
        aria-label={`What would it cost: ${step.title}`}
        onClick={() =>
          act.run(
            async () => ask("order.undo", { number, step: step.id }),
            (u) => {
              setUndo(u);
              return "";
            },
          )
        }
      >
        {step.done ? "If it comes out again" : "If it is forgotten"}
      </Button>
      <div role="status" className="mt-1 text-left">
        {act.sentence || (undo && undo.step === step.id ? <UndoWords undo={undo} /> : null)}
      </div>
    </div>
  );
}

/** The price of undoing, with what comes out behind it. */
export function UndoWords({ undo, whole = false }: { undo: Undo /** With nothing folded away: hands follow it. */; whole?: boolean }) {
  const out = (
    <ol className="list-inside list-decimal">
      {undo.out.map((o) => (
        <li key={o.step}>
          {o.title}
          {o.only ? ` (${o.only.length} of its leads)` : ""}
          {o.screws > 0 ? `, ${o.screws} screws` : ""}
        </li>
      ))}
    </ol>
  );
  return (
    <>
      <p className="font-semibold">{undo.words}</p>
      {undo.anew.length > 0 ? <p>Anew: {undo.anew.join("; ")}.</p> : null}
      {undo.out.length === 0 ? null : whole ? (
        <section aria-label="What comes out, in order">
          <h3 className="mt-3 font-bold">What comes out, one after the other</h3>
          {out}
        </section>
      ) : (
        <Fold word="What comes out, in order">{out}</Fold>
      )}
      {whole && undo.back.length > 0 ? (
        <section aria-label="The way back, in order">
          <h3 className="mt-3 font-bold">Then back in</h3>
          <ol className="list-inside list-decimal">
            {undo.back.map((b) => (
              <li key={b.step}>{b.title}</li>
            ))}
          </ol>
        </section>
      ) : null}
      {undo.stays.length > 0 ? <p className="text-soft">{undo.stays.length} steps stay done.</p> : null}
    </>
  );
}

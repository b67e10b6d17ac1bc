"use client";
import { useRouter } from "next/navigation";
import { useState } from "react";
import type { TipView } from "../../server/shelf/tips";
import { Button } from "../../ui/button";
import { Photo } from "../../ui/photo";
import { tipAction, withdrawTipAction } from "../actions/shelf";
import { PHOTO_TYPES } from "../device/photos";
import { useDates } from "../frame/dates";
import { useAct } from "../frame/use-act";
import { sendShelfPhoto } from "./send-shelf-photo";
import { StillSo } from "./still-so";

const ABOUT: readonly (readonly [string, string])[] = [
  ["", "wherever it is in the hand"],
  ["prepare", "preparing"],
  ["fit", "putting it in"],
  ["plug", "plugging"],
  ["dress", "tying"],
  ["test", "testing"],
  ["check", "checking"],
];

/** What colleagues found out about a part type: read, said to be so still, added; a lead takes one back. */
export function Tips({ type, name, tips, mayWithdraw = false }: { type: string; name: string; tips: readonly TipView[]; mayWithdraw?: boolean }) {
  const act = useAct();
  const dates = useDates();
  const router = useRouter();
  const [words, setWords] = useState("");
  const [step, setStep] = useState("");
  return (
    <section aria-label="Tips" className="text-second">
      <h3 className="text-key font-[650]">Tips</h3>
      <ul>
        {tips.map((t) => (
          <li key={t.id} className="border-t border-rule py-1.5">
            {t.words}
            <span className="block text-soft">
              {t.by}, {dates.day(t.at)}
              {t.step ? `; at ${ABOUT.find(([id]) => id === t.step)?.[1] ?? t.step}` : ""}
              {t.stillSo ? `; still so: ${t.stillSo.by}, ${dates.day(t.stillSo.at)}` : ""}
            </span>
            {t.photo ? <Photo id={t.photo.id} alt={`What is meant: ${t.words}`} high="h-24" /> : null}
            <span className="mt-1 flex flex-wrap gap-2">
              <StillSo tip={t} act={act} />
              <label className="key">
                {t.photo ? "Another photo" : "Photo"}
                <span className="sr-only"> of: {t.words}</span>
                <input
                  type="file"
                  accept={PHOTO_TYPES.join()}
                  className="sr-only"
                  disabled={act.pending}
                  onChange={(e) => {
                    const file = e.target.files?.[0];
                    e.target.value = "";
                    if (!file) return;
                    act.run(
                      () => sendShelfPhoto({ tip: t.id }, file),
                      () => {
                        router.refresh();
                        return "The photo is kept.";
                      },
                    );
                  }}
                />
              </label>
              {mayWithdraw ? (
                <Button
                  aria-label={`Withdraw: ${t.words}`}
                  disabled={act.pending}
                  onClick={() =>
                    act.run(
                      () => withdrawTipAction({ tip: t.id }),
                      () => "Withdrawn.",
                    )
                  }
                >
                  Withdraw
                </Button>
              ) : null}
            </span>
          </li>
        ))}
      </ul>
      <form
        className="mt-1 flex flex-col gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          if (words.trim() === "") return;
          act.run(
            () => tipAction({ type, step: step || null, words: words.trim() }),
            () => {
              setWords("");
              return "Kept; it stands at every such part from now on.";
            },
          );
        }}
      >
        <label>
          <span className="sr-only">A tip at {name}, in a line</span>
          <input
            className="field w-full"
            placeholder="A tip for the next one"
            maxLength={200}
            value={words}
            onChange={(e) => setWords(e.target.value)}
          />
        </label>
        <span className="flex items-center gap-2">
          <select aria-label="When it is shown" className="field min-w-0 flex-1" value={step} onChange={(e) => setStep(e.target.value)}>
            {ABOUT.map(([id, word]) => (
              <option key={id} value={id}>
                {word}
              </option>
            ))}
          </select>
          <Button type="submit" disabled={act.pending || words.trim() === ""}>
            Keep it
          </Button>
        </span>
        <p role="status">{act.sentence}</p>
      </form>
    </section>
  );
}

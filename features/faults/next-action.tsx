"use client";
import { useState } from "react";
import type { Answer, DeedShown } from "../../core/diagnose";
import type { FaultsSlice, Line } from "../../server/views/slices";
import { Button } from "../../ui/button";
import { Fold } from "../../ui/fold";
import { Caution } from "../../ui/marks";
import { huntSimulatedAction } from "../actions/machine";
import type { Acting } from "../frame/use-act";
import { isLook, Outcomes } from "./outcomes";

/** Said by the caution below it. */
const OFF = /^Supply off, mains out, press the button once\. /;
const minutesWord = (m: number) => (m < 1 ? "half a minute" : `about ${Math.round(m)} ${Math.round(m) === 1 ? "minute" : "minutes"}`);

/** One action, large: what to do, its minutes and caution, a key for each outcome, and what each would mean. */
export function NextAction({
  number,
  fault,
  answer,
  lines,
  ask,
  act,
}: {
  number: string;
  fault: FaultsSlice["faults"][number];
  answer: Answer;
  lines: readonly Line[];
  /** The simulated machine that it is of stands here and can be asked. */
  ask: boolean;
  act: Acting;
}) {
  const [instead, setInstead] = useState<string>();
  const best = answer.next;
  if (!best) return null;
  const shown: DeedShown = answer.others.find((o) => o.id === instead) ?? best;
  return (
    <>
      <h2 className="text-second text-soft">
        {shown === best ? "Next action" : "Instead"}, {shown.waits ? "nothing to swap it for lies here" : minutesWord(shown.minutes)}
      </h2>
      <p className="mt-1 text-verdict font-semibold">{shown.caution ? shown.words.replace(OFF, "") : shown.words}</p>
      {shown.access ? <p className="mt-2">{shown.access}</p> : null}
      {shown.caution ? (
        <div className="mt-4">
          <Caution text={shown.caution} />
        </div>
      ) : null}
      {fault.simulated ? null : <Outcomes {...{ number, fault, shown, lines, act }} />}
      {ask ? (
        <div className="mt-6">
          <Button
            tone="mark"
            className="min-h-12 px-4"
            disabled={act.pending}
            onClick={() =>
              act.run(
                () => huntSimulatedAction(isLook(shown) ? { number, line: shown.target } : { number, fault: fault.number, deed: shown.id }),
                (said) => `The simulated machine: ${said}.`,
              )
            }
          >
            Do it on the simulated machine
          </Button>
        </div>
      ) : null}
      {shown === best ? <Meaning answer={answer} /> : null}
      <Why answer={answer} shown={shown} onChoose={setInstead} />
    </>
  );
}

/** What each outcome would clear, and what would follow. */
function Meaning({ answer }: { answer: Answer }) {
  return (
    <dl className="mt-6 grid grid-cols-[minmax(7rem,auto)_1fr] gap-x-4 gap-y-2">
      {answer.next?.outcomes.slice(0, 4).map((o) => (
        <div key={o.seen} className="contents">
          <dt className="font-semibold">
            {o.seen} <span className="mono text-second text-soft">{Math.round(o.share * 100)} %</span>
          </dt>
          <dd>
            {o.clears.length > 0 ? `Clears ${o.clears.slice(0, 4).join(", ")}${o.clears.length > 4 ? ` and ${o.clears.length - 4} more` : ""}. ` : ""}
            <span className="text-soft">{o.follows ? `Then: ${o.followsWords.replace(OFF, "")}` : o.followsWords}</span>
          </dd>
        </div>
      ))}
    </dl>
  );
}

/** Why this and not that, and what is worth starting in the minutes that there are. */
function Why({ answer, shown, onChoose }: { answer: Answer; shown: DeedShown; onChoose: (id: string | undefined) => void }) {
  const [minutes, setMinutes] = useState("");
  const most = Number(minutes);
  const all = [...(answer.next ? [answer.next] : []), ...answer.others];
  const fits = minutes && most > 0 ? all.find((d) => d.minutes <= most) : undefined;
  return (
    <Fold word={<span className="font-semibold">Why this and not that</span>} className="mt-6">
      <p className="mt-1">{answer.next?.why}</p>
      <table className="mt-2 w-full text-left">
        <thead className="text-second text-soft">
          <tr>
            <th className="font-normal">Begin with</th>
            <th className="w-20 text-right font-normal">takes</th>
            <th className="w-28 text-right font-normal">to a repair</th>
            <th className="w-24" />
          </tr>
        </thead>
        <tbody>
          {all.map((d) => (
            <tr key={d.id} className="border-t border-rule align-top">
              <td className="py-1.5 pr-2">{d.words.replace(OFF, "")}</td>
              <td className="mono py-1.5 text-right">{d.waits ? "a spare" : `${d.minutes} min`}</td>
              <td className="mono py-1.5 text-right">{d.expectedMinutes.toFixed(1)} min</td>
              <td className="py-1 text-right">
                {d.id === shown.id ? (
                  <span className="text-second text-soft">shown</span>
                ) : (
                  <Button className="min-h-9 px-2" onClick={() => onChoose(d.id)}>
                    Do this<span className="sr-only">: {d.words}</span>
                  </Button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <div className="mt-3 flex items-center gap-2">
        <label className="flex items-center gap-2">
          Minutes that I have
          <input
            className="field mono w-16"
            inputMode="numeric"
            value={minutes}
            maxLength={4}
            onChange={(e) => setMinutes(e.target.value.replace(/\D/g, ""))}
          />
        </label>
        <p role="status">{minutes === "" ? "" : fits ? `Worth starting: ${fits.words.replace(OFF, "")}` : "Nothing of these ends within them."}</p>
      </div>
    </Fold>
  );
}

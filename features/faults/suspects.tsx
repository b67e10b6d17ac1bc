import type { Answer } from "../../core/diagnose";

/** So many are shown; of the rest nobody thinks before these are cleared. */
const MOST = 7;

const percent = (share: number): string => (share < 0.01 ? "< 1" : String(Math.round(share * 100)));

/** Who is suspected, with the share of the blame and what it would explain. */
export function Suspects({ answer }: { answer: Answer }) {
  return (
    <>
      <h2 className="text-key font-[650]">Suspects</h2>
      <ol className="mt-2 flex flex-col">
        {answer.suspects.slice(0, MOST).map((s) => (
          <li key={s.id} className="border-t border-rule py-2">
            <div className="flex items-baseline gap-3">
              <span className="mono w-14 shrink-0 text-right font-semibold">{percent(s.share)} %</span>
              <span className="font-semibold">{s.words}</span>
            </div>
            <div className="mt-0.5 h-1.5 border border-edge" aria-hidden>
              <div className="h-full bg-ink" style={{ width: `${Math.min(100, s.share * 100)}%` }} />
            </div>
            <p className="mt-1 text-second text-soft">
              {s.alike.length > 0 ? `Or ${s.alike.join("; or ")}. ` : ""}
              {s.why}
            </p>
          </li>
        ))}
      </ol>
      {answer.nothing >= 0.01 ? <p className="mt-1 text-second text-soft">Nothing is wrong any more: {percent(answer.nothing)} %.</p> : null}
    </>
  );
}

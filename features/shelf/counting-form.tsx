"use client";
import { useState } from "react";
import { type FigureValue, figureWords, groupsOf, type ManualLine, manualLines, type PartType } from "../../core/catalogue";
import { Button } from "../../ui/button";
import { Fold } from "../../ui/fold";

const MOST = 40;

/** A part by count: each value in its kind's own terms, as counted or as usual; a manual's own list fills it in. */
export function CountingForm({
  type,
  onFigures,
  onNames,
}: {
  type: PartType;
  onFigures: (values: Record<string, FigureValue>) => void;
  /** Ports by id, as they are printed. */
  onNames: (names: Record<string, string>) => void;
}) {
  const [last, setLast] = useState<string>();
  const set = (id: string, to: FigureValue) => {
    if (typeof to === "number") setLast(id);
    onFigures({ [id]: to });
  };
  const lastFigure =
    last === undefined
      ? undefined
      : groupsOf(type.kind)
          .flatMap((g) => g.figures)
          .find((f) => f.id === last && !f.unit);
  const open = Object.entries(type.figures ?? {}).filter(([, f]) => f.is === "typical");
  const lastValue = lastFigure ? Number(type.figures?.[lastFigure.id]?.value ?? 0) : 0;
  return (
    <div className="flex flex-col gap-4">
      {groupsOf(type.kind).map((g) => (
        <fieldset key={g.word}>
          {g.word ? <legend className="mb-1 text-key font-[650]">{g.word}</legend> : <legend className="sr-only">What it is</legend>}
          <div className="grid grid-cols-2 gap-x-5 gap-y-1">
            {g.figures.map((f) => {
              const had = type.figures?.[f.id];
              const value = had?.value ?? 0;
              const counted = had !== undefined && had.is !== "typical";
              const word = `${f.word}${f.unit ? `, ${f.unit}` : ""}`;
              return (
                <div key={f.id} className="flex min-h-9 items-center gap-2">
                  <span className={counted ? "min-w-0 flex-1" : "min-w-0 flex-1 text-soft"}>
                    {typeof value === "boolean" ? f.word : word}
                    <span className="sr-only">{counted ? "" : `, ${figureWords(f, value)} assumed: ${had?.from ?? "usual"}`}</span>
                  </span>
                  {typeof value === "boolean" ? (
                    <input type="checkbox" className="size-5" aria-label={f.word} checked={value} onChange={(e) => set(f.id, e.target.checked)} />
                  ) : typeof value === "number" && !f.unit ? (
                    <span className="flex items-center gap-1">
                      <Button className="min-w-9 px-0" aria-label={`One fewer: ${f.word}`} disabled={value <= 0} onClick={() => set(f.id, value - 1)}>
                        −
                      </Button>
                      <input
                        className="field mono w-12 px-1 text-center"
                        inputMode="numeric"
                        aria-label={word}
                        value={value}
                        onFocus={(e) => e.currentTarget.select()}
                        onChange={(e) => {
                          const n = Number(e.target.value);
                          if (Number.isFinite(n))
                            set(f.id, Math.min(MOST, Math.max(0, f.id === "slots" && type.kind === "card" ? n : Math.round(n))));
                        }}
                      />
                      <Button
                        className="min-w-9 px-0"
                        aria-label={`One more: ${f.word}`}
                        disabled={value >= MOST}
                        onClick={() => set(f.id, value + 1)}
                      >
                        +
                      </Button>
                    </span>
                  ) : f.options ? (
                    <select className="field w-32" aria-label={word} value={String(value)} onChange={(e) => set(f.id, e.target.value)}>
                      {f.options.includes(String(value)) ? null : <option value={String(value)}>{String(value)}</option>}
                      {f.options.map((o) => (
                        <option key={o} value={o}>
                          {o}
                        </option>
                      ))}
                    </select>
                  ) : (
                    <input
                      className="field mono w-32"
                      type={typeof value === "number" ? "number" : "text"}
                      min={0}
                      step="any"
                      maxLength={60}
                      aria-label={word}
                      value={value === "assumed" ? "" : value}
                      onFocus={(e) => e.currentTarget.select()}
                      onChange={(e) => {
                        if (typeof value !== "number") set(f.id, e.target.value);
                        else if (e.target.value !== "" && Number.isFinite(Number(e.target.value))) set(f.id, Math.max(0, Number(e.target.value)));
                      }}
                    />
                  )}
                </div>
              );
            })}
          </div>
        </fieldset>
      ))}
      {lastFigure ? (
        <Button className="self-start" disabled={lastValue >= MOST} onClick={() => set(lastFigure.id, lastValue + 1)}>
          One more like the last: {lastFigure.word}
        </Button>
      ) : null}
      {open.length > 0 ? (
        <Button className="self-start" onClick={() => onFigures(Object.fromEntries(open.map(([id, f]) => [id, f.value])))}>
          All that is grey is so, too
        </Button>
      ) : null}
      <p className="text-second text-soft">
        {counted(type) === 0
          ? "Grey is as such parts usually are; what you touch is counted."
          : `${counted(type)} counted; grey is as such parts usually are.`}
      </p>
      {["board", "supply", "case"].includes(type.kind) ? (
        <Fold word="The manual's own list">
          <ManualList type={type} onFigures={onFigures} onNames={onNames} />
        </Fold>
      ) : null}
    </div>
  );
}
const counted = (t: PartType) => Object.values(t.figures ?? {}).filter((f) => f.is !== "typical").length;

function ManualList({
  type,
  onFigures,
  onNames,
}: {
  type: PartType;
  onFigures: (values: Record<string, FigureValue>) => void;
  onNames: (names: Record<string, string>) => void;
}) {
  const [text, setText] = useState("");
  const [lines, setLines] = useState<ManualLine[]>([]);
  const figures = groupsOf(type.kind).flatMap((g) => g.figures);
  const understood = lines.filter((l) => l.figure).length;
  return (
    <div className="flex flex-col gap-2 pt-2">
      <label>
        <span className="block text-second text-soft">Headers or cables as the manual lists them, a line each</span>
        <textarea className="field mono w-full text-second" rows={7} maxLength={20_000} value={text} onChange={(e) => setText(e.target.value)} />
      </label>
      <Button
        className="self-start"
        disabled={text.trim() === ""}
        onClick={() => {
          const read = manualLines(type.kind, text);
          setLines(read.lines);
          onFigures(read.values);
          onNames(read.names);
        }}
      >
        Take it over
      </Button>
      <p role="status" className="text-second">
        {lines.length > 0 ? `${understood} of ${lines.length} lines understood.` : ""}
      </p>
      {lines.length > understood ? (
        <ul aria-label="Lines not understood" className="text-second">
          {lines.map((l, i) =>
            l.figure ? null : (
              <li key={`${String(i)}${l.text}`} className="border-t border-rule py-1">
                {l.text}
              </li>
            ),
          )}
        </ul>
      ) : null}
      {understood > 0 ? (
        <ul aria-label="Lines understood" className="text-second text-soft">
          {lines.map((l, i) =>
            l.figure ? (
              <li key={`${String(i)}${l.text}`}>
                {l.text}: {l.figure === "one" ? "its name" : `${l.count} ${figures.find((f) => f.id === l.figure)?.word ?? ""}`}
              </li>
            ) : null,
          )}
        </ul>
      ) : null}
    </div>
  );
}

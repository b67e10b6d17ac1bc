"use client";
import { useMemo, useState } from "react";
import type { Graph } from "../../core/assembly";
import { checkParts, fitWays } from "../../core/checks";
import { type Clearance, clearances, said } from "../../core/fit";
import { cx } from "../../ui/cx";
import { SeverityShape } from "../../ui/marks";
import { CaseSection } from "./case-section";

/** The section to scale, and every clearance with its millimetres, the worst first. */
export function FitView({
  graph,
  chosen,
  onChoose,
  children,
}: {
  graph: Graph;
  chosen: string;
  onChoose: (id: string) => void;
  children: React.ReactNode;
}) {
  const list = clearances(graph);
  const meets = useMemo(() => checkParts(graph).filter((f) => f.rule === "one-place"), [graph]);
  const [picked, setPicked] = useState<string | null>(null);
  const shown = list.find((c) => c.id === picked) ?? list.find((c) => c.parts[0] === chosen) ?? list[0];
  return (
    <>
      <section
        aria-label="The case in section"
        className="flex w-[clamp(432px,56%,1000px)] max-w-full shrink-0 flex-col overflow-hidden border-r border-rule"
      >
        <CaseSection graph={graph} chosen={chosen} clearance={shown} onChoose={onChoose} />
      </section>
      <section aria-label="Numbers" className="region min-w-0 flex-1 p-4">
        <h2 className="text-key font-[650]">{headline(list, meets.length)}</h2>
        {meets.length > 0 ? (
          <ul className="mt-2">
            {meets.map((f) => (
              <li key={f.message} className="flex gap-2 py-1 text-second">
                <SeverityShape severity={f.severity} size={13} />
                {f.message}
              </li>
            ))}
          </ul>
        ) : null}
        <ul className="mb-5 mt-2">
          {list.map((c) => (
            <li key={c.id}>
              <button
                type="button"
                aria-pressed={c === shown}
                data-chosen={c === shown}
                className={cx("bar-left flex min-h-9 w-full items-baseline gap-2 py-1 pl-2 text-left hover:bg-sheet", c === shown && "bg-sheet")}
                onClick={() => {
                  setPicked(c.id);
                  if (c.parts[0]) onChoose(c.parts[0]);
                }}
              >
                <span className="min-w-0 flex-1 text-second">{c.what}</span>
                <span className={cx("mono shrink-0 text-second", c.verdict === "not" && "font-semibold text-stop")}>
                  {c.left} {c.unit}
                </span>
                <span className="w-4 shrink-0">
                  {c.verdict === "fits" ? null : <SeverityShape severity={c.verdict === "not" ? "stop" : "warn"} size={13} />}
                </span>
              </button>
            </li>
          ))}
        </ul>
        {shown ? <Explained graph={graph} c={shown} /> : null}
        {children}
      </section>
    </>
  );
}

function headline(list: readonly Clearance[], meets: number): string {
  const not = list.filter((c) => c.verdict === "not").length;
  const tight = list.filter((c) => c.verdict === "tight").length;
  if (meets > 0) return meets === 1 ? "Two parts stand in one another" : `Parts stand in one another in ${meets} places`;
  if (list.length === 0) return "No measures known yet";
  if (not > 0) return `${not} of ${list.length} clearances do not fit`;
  if (tight > 0) return `All fits, ${tight} only just`;
  return `All ${list.length} clearances fit`;
}

function Explained({ c, graph }: { c: Clearance; graph: Graph }) {
  return (
    <div className="mb-5 border-t border-rule pt-3" aria-live="polite">
      <p>{said(c)}</p>
      {c.verdict === "fits" ? null : (
        <p className="mt-1 text-second">
          <span className="font-semibold">If ignored: </span>
          {c.ifIgnored}
        </p>
      )}
      {(c.verdict === "fits" ? [] : fitWays(graph, c)).map((w) => (
        <p key={w} className="mt-1 text-second">
          <span className="font-semibold">Way out: </span>
          {w}
        </p>
      ))}
    </div>
  );
}

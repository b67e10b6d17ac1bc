"use client";
import { useEffect, useState } from "react";
import type { Graph } from "../../core/assembly";
import type { JobView } from "../../server/read/job-view";
import { Button } from "../../ui/button";
import { cx } from "../../ui/cx";
import { Dialog } from "../../ui/dialog";
import Link from "../../ui/link";
import { StateShape } from "../../ui/marks";
import { candidates } from "../wiring/candidates";

export type Sheet = "list" | "differs" | "problem" | "skip" | "press" | null;

interface SheetProps {
  sheet: Sheet;
  close: () => void;
  view: Pick<JobView, "power" | "head">;
  steps: JobView["steps"];
  at: number;
  lead: JobView["leads"][number] | undefined;
  graph: Graph;
  number: string;
  left: boolean;
  turnHand: () => void;
  onGo: (i: number) => void;
  onNote: (kind: "skip" | "problem", text: string) => void;
  onDiffers: (port: string, place?: number[]) => void;
}

const TITLE: Record<Exclude<Sheet, null>, string> = {
  list: "All steps",
  differs: "Where is it really?",
  problem: "What is wrong?",
  skip: "Skip, because",
  press: "If you press the button now",
};

/** What opens over the bench: all steps, where a lead really is, a problem, a reason to skip, what a press would do. */
export function BenchSheet({ sheet, close, view, steps, at, lead, graph, number, left, turnHand, onGo, onNote, onDiffers }: SheetProps) {
  const [text, setText] = useState("");
  useEffect(() => {
    if (sheet) setText("");
  }, [sheet]);
  const node = lead ? graph.leads.get(lead.address) : undefined;
  return (
    <Dialog bench open={sheet !== null} onOpenChange={(o) => !o && close()} title={sheet ? TITLE[sheet] : ""}>
      {sheet === "list" ? (
        <>
          <div className="flex flex-wrap gap-3">
            <Link className="key-bench min-h-20 px-6 no-underline" href={`/job/${number}/wiring`}>
              Wiring
            </Link>
            <Link className="key-bench min-h-20 px-6 no-underline" href={`/job/${number}/first-boot`}>
              First boot
            </Link>
            <Link className="key-bench min-h-20 px-6 no-underline" href="/">
              Benches
            </Link>
            <Button bench onClick={turnHand}>
              {left ? "Keys for the right hand" : "Keys for the left hand"}
            </Button>
          </div>
          <ol className="flex flex-col gap-3">
            {steps.map((s, i) => (
              <li key={s.id}>
                <button
                  type="button"
                  aria-current={i === at ? "step" : undefined}
                  className={cx(
                    "flex min-h-20 w-full items-center gap-4 rounded border-2 bg-sheet px-4 text-left",
                    i === at ? "border-ink" : "border-edge",
                  )}
                  onClick={() => onGo(i)}
                >
                  <StateShape state={s.done ? "plugged" : "free"} size={28} />
                  <span className="mono w-12 text-right">{i + 1}</span>
                  <span className="flex-1">{s.title}</span>
                  <span className="text-soft">{s.done ? "done" : ""}</span>
                </button>
              </li>
            ))}
          </ol>
        </>
      ) : null}
      {sheet === "press" ? (
        <>
          <p>{view.power.verdict}</p>
          <ul className="flex flex-col gap-2">
            {view.power.lines
              .filter((l) => !l.works)
              .slice(0, 12)
              .map((l) => (
                <li key={l.id}>
                  {l.what}: {l.expected}. <span className="text-soft">{l.because}</span>
                </li>
              ))}
          </ul>
        </>
      ) : null}
      {sheet === "differs" && node ? (
        <ul className="flex flex-col gap-3">
          {candidates(graph, node)
            .filter((c) => !c.here)
            .map((c) => (
              <li key={c.port + (c.place?.join(".") ?? "")}>
                <button
                  type="button"
                  className="flex min-h-20 w-full items-center gap-4 rounded border-2 border-edge bg-sheet px-4 text-left"
                  onClick={() => onDiffers(c.port, c.place)}
                >
                  <span className="mono font-semibold">{c.name}</span>
                  <span className="flex-1 text-soft">{c.taken ? `planned for ${c.taken}` : c.words}</span>
                </button>
              </li>
            ))}
        </ul>
      ) : null}
      {sheet === "problem" || sheet === "skip" ? (
        <form
          className="flex flex-col gap-4"
          onSubmit={(e) => {
            e.preventDefault();
            if (text.trim()) onNote(sheet, text.trim());
          }}
        >
          <label className="flex flex-col gap-2">
            {sheet === "skip" ? "Say why; the step stays open." : "Say what you see. It opens a fault with this step on it."}
            <textarea
              className="rounded border-2 border-edge bg-sheet p-4 text-bench"
              rows={4}
              maxLength={1500}
              value={text}
              onChange={(e) => setText(e.target.value)}
            />
          </label>
          <Button bench type="submit" className="px-2 min-h-28 w-84 self-end" tone="mark" disabled={!text.trim()}>
            {sheet === "skip" ? "Skip it" : "Open a fault"}
          </Button>
        </form>
      ) : null}
    </Dialog>
  );
}

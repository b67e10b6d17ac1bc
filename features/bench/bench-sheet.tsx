"use client";
import { useEffect, useState } from "react";
import type { Graph } from "../../core/assembly";
import type { Card, Step, Undo } from "../../core/order";
import type { BenchSlice } from "../../server/views/slices";
import { Button } from "../../ui/button";
import { cx } from "../../ui/cx";
import { Dialog } from "../../ui/dialog";
import Link from "../../ui/link";
import { Caution, StateShape } from "../../ui/marks";
import { ask } from "../frame/ask";
import { useAct } from "../frame/use-act";
import { candidates } from "../shared/candidates";
import { UndoWords } from "../shared/card-details";
import { type Built, Otherwise } from "./otherwise";
import type { AtBench } from "./use-bench";

export type Sheet = "list" | "differs" | "problem" | "skip" | "press" | "missing" | "undo" | "pause" | null;

interface SheetProps {
  sheet: Sheet;
  close: () => void;
  view: BenchSlice;
  bench: AtBench;
  card: Card;
  /** What Done would do on the card. */
  open: readonly Step[];
  /** Parts of it that have not been received, by name. */
  missing: readonly string[];
  graph: Graph;
  number: string;
  left: boolean;
  turnHand: () => void;
  /** What a press of the button would do now. */
  onPress: () => void;
  /** Hands rest: minutes do not count until somebody goes on. */
  onPause: () => void;
  /** Somebody else goes on. */
  onHandOver: () => void;
  onGo: (step: string) => void;
  onNote: (kind: "skip" | "problem", text: string, about?: Step) => void;
  onHere: () => void;
  /** The open step of the card that is covered already, if there is one. */
  covered: string | undefined;
  onUndo: (steps: readonly string[]) => void;
  onDiffers: (step: Step, port: string, place?: number[]) => void;
  /** A cable of the supply is broken: another of the bag takes its place. */
  onAnotherCable: (lead: string) => void;
  /** A part is otherwise than planned. */
  onBuilt: (said: Built, words: string) => void;
}

const TITLE: Record<Exclude<Sheet, null>, string> = {
  list: "All cards",
  differs: "What is really there?",
  problem: "What is wrong?",
  skip: "Skip, because",
  press: "If you press the button now",
  missing: "It has not been received",
  undo: "Take it out again?",
  pause: "Paused",
};

/** Reasons to tap before one types. */
const PRESET: Record<"skip" | "problem", readonly string[]> = {
  skip: ["A part is missing", "Waits for a colleague", "Later, with the next turn of the case", "Not needed on this machine", "No time left today"],
  problem: ["Does not fit", "Does not reach", "Broken or bent", "Another part than ordered", "Missing from its box", "Dead"],
};

/** What opens over the bench: all cards, where a lead really is, a problem, a reason to skip, what a press would do. */
export function BenchSheet(props: SheetProps) {
  const {
    sheet,
    close,
    view,
    bench,
    card,
    open,
    missing,
    graph,
    number,
    left,
    turnHand,
    onPress,
    onPause,
    onHandOver,
    onGo,
    onNote,
    onHere,
    covered,
    onUndo,
    onDiffers,
    onAnotherCable,
    onBuilt,
  } = props;
  const [text, setText] = useState("");
  const [which, setWhich] = useState<string>();
  const [about, setAbout] = useState<string>();
  useEffect(() => {
    if (!sheet) return;
    setText("");
    setWhich(undefined);
    setAbout(undefined);
  }, [sheet]);
  // A card of several things: which of them is wrong is asked, the first that is open stands.
  const chosen = card.steps.find((s) => s.id === about) ?? open[0] ?? card.steps[0];
  const plugs = card.steps.filter((s) => s.lead);
  const one = plugs.length === 1 ? plugs[0] : plugs.find((s) => s.id === which);
  const node = one?.lead ? graph.leads.get(one.lead) : undefined;
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
            <Button bench className="min-h-20 px-6" onClick={onPress}>
              If I press
            </Button>
            <Button bench className="min-h-20 px-6" onClick={onPause}>
              Pause or hand over
            </Button>
            <Button bench onClick={turnHand}>
              {left ? "Keys for the right hand" : "Keys for the left hand"}
            </Button>
          </div>
          <ol className="flex flex-col gap-3">
            {bench.cards.map((c, i) => (
              <li key={c.id}>
                <button
                  type="button"
                  aria-current={c.id === card.id ? "step" : undefined}
                  className={cx(
                    "flex min-h-20 w-full items-center gap-4 rounded border-2 bg-sheet px-4 text-left",
                    c.id === card.id ? "border-ink" : "border-edge",
                  )}
                  onClick={() => onGo(c.id)}
                >
                  <StateShape state={c.done ? "plugged" : c.steps.some((s) => bench.skipped[s.id]) ? "waiting" : "free"} size={28} />
                  <span className="mono w-12 text-right">{i + 1}</span>
                  <span className="min-w-0 flex-1">
                    {c.title}
                    {c.steps
                      .flatMap((s) => (bench.skipped[s.id] ? [bench.skipped[s.id]?.reason] : []))
                      .slice(0, 1)
                      .map((r) => (
                        <span key={r} className="block text-soft">
                          skipped: {r}
                        </span>
                      ))}
                  </span>
                  <span className="text-soft">{c.done ? "done" : ""}</span>
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
            {view.power.lines.map((l) => (
              <li key={l.id}>
                {l.what}: {l.expected}. <span className="text-soft">{l.because}</span>
              </li>
            ))}
          </ul>
        </>
      ) : null}
      {sheet === "missing" ? (
        <>
          <p>
            {missing.join(", ")}: the receipt does not know {missing.length === 1 ? "it" : "them"} yet. If{" "}
            {missing.length === 1 ? "it is" : "they are"} on the bench all the same, say so: it is noted, and the step is done.
          </p>
          <div className="flex flex-wrap gap-3">
            <Button bench tone="mark" className="min-h-28 px-6" onClick={onHere}>
              It is here: done
            </Button>
            <Link className="key-bench min-h-28 px-6 no-underline" href={`/job/${number}/receipt`}>
              To the receipt
            </Link>
          </div>
        </>
      ) : null}
      {sheet === "pause" ? (
        <>
          <p>
            Hands stop at “{card.title}”. Minutes do not count until somebody goes on; what was pressed is kept. The next card is the same for whoever
            does.
          </p>
          {Object.keys(bench.skipped).length > 0 ? (
            <ul aria-label="Left open" className="flex flex-col gap-2">
              {bench.steps
                .filter((s) => bench.skipped[s.id])
                .map((s) => (
                  <li key={s.id}>
                    {s.title}: <span className="text-soft">skipped, {bench.skipped[s.id]?.reason}</span>
                  </li>
                ))}
            </ul>
          ) : (
            <p className="text-soft">Nothing was skipped.</p>
          )}
          <div className="flex flex-wrap gap-3">
            <Button bench tone="mark" className="min-h-28 px-6" onClick={close}>
              Go on
            </Button>
            <Button bench className="min-h-28 px-6" onClick={onHandOver}>
              Somebody else goes on
            </Button>
          </div>
        </>
      ) : null}
      {sheet === "undo" ? <Undoing number={number} card={card} step={covered} onUndo={onUndo} /> : null}
      {sheet === "differs" && !node ? (
        <Otherwise number={number} graph={graph} card={card} plugs={plugs} onPlug={setWhich} onBuilt={onBuilt} />
      ) : null}
      {sheet === "differs" && node && one ? (
        <ul className="flex flex-col gap-3">
          {candidates(graph, node)
            .filter((c) => !c.here)
            .map((c) => (
              <li key={c.port + (c.place?.join(".") ?? "")}>
                <button
                  type="button"
                  className="flex min-h-20 w-full items-center gap-4 rounded border-2 border-edge bg-sheet px-4 text-left"
                  onClick={() => onDiffers(one, c.port, c.place)}
                >
                  <span className="mono font-semibold">{c.name}</span>
                  <span className="flex-1 text-soft">
                    {c.taken ? `planned for ${c.taken}${c.swaps ? ": the two change places" : ", which is free then"}` : c.words}
                  </span>
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
            if (text.trim()) onNote(sheet, text.trim(), chosen);
          }}
        >
          {sheet === "problem" && node?.part.cable ? (
            <Button bench className="min-h-20 self-start px-6" onClick={() => onAnotherCable(node.address)}>
              Take another {node.part.cable.cable.label} from the bag
            </Button>
          ) : null}
          <p>
            {sheet === "skip"
              ? open.length > 1
                ? `All ${open.length} stay open and come again before what needs them.`
                : "It stays open and comes again before what needs it."
              : card.steps.length > 1
                ? "It opens a fault with one thing on it."
                : "It opens a fault with this step on it."}
          </p>
          {sheet === "problem" && card.steps.length > 1 ? (
            <label className="flex items-center gap-3 max-[760px]:flex-col max-[760px]:items-stretch">
              With
              <select
                className="min-h-20 min-w-0 flex-1 rounded border-2 border-edge bg-sheet px-4 text-bench"
                value={chosen?.id}
                onChange={(e) => setAbout(e.target.value)}
              >
                {card.steps.map((s) => (
                  <option key={s.id} value={s.id}>
                    {s.title}
                  </option>
                ))}
              </select>
            </label>
          ) : null}
          <ul className="grid grid-cols-2 gap-3 max-[760px]:grid-cols-1">
            {PRESET[sheet].map((reason) => (
              <li key={reason}>
                <Button bench className="min-h-20 w-full px-4" onClick={() => onNote(sheet, reason, chosen)}>
                  {reason}
                </Button>
              </li>
            ))}
          </ul>
          <div className="flex items-end gap-3 max-[760px]:flex-col max-[760px]:items-stretch">
            <label className="flex min-w-0 flex-1 flex-col gap-2">
              {sheet === "skip" ? "Or say why." : "Or say what you see."}
              <textarea
                className="rounded border-2 border-edge bg-sheet p-4 text-bench"
                data-last
                rows={2}
                maxLength={1500}
                value={text}
                onChange={(e) => setText(e.target.value)}
              />
            </label>
            <Button bench type="submit" className="min-h-24 w-72 px-2 max-[760px]:w-full" tone="mark" disabled={!text.trim()}>
              {sheet === "skip" ? "Skip it" : "Open a fault"}
            </Button>
          </div>
        </form>
      ) : null}
    </Dialog>
  );
}

/** What it costs to get at a step again that is done, or that was forgotten and is covered now; said before anything is taken out. */
function Undoing({
  number,
  card,
  step: given,
  onUndo,
}: {
  number: string;
  card: Card;
  step: string | undefined;
  onUndo: (steps: readonly string[]) => void;
}) {
  const { run, sentence } = useAct();
  const [picked, setPicked] = useState<string>();
  const [undo, setUndo] = useState<Undo>();
  const done = card.steps.filter((s) => s.done);
  const step = given ?? picked ?? (done.length === 1 ? done[0]?.id : undefined);
  useEffect(() => {
    if (!step) return;
    run(
      async () => ask("order.undo", { number, step }),
      (u) => {
        setUndo(u);
        return "";
      },
    );
  }, [run, number, step]);
  if (!step)
    return (
      <ul className="flex flex-col gap-3">
        {done.map((s) => (
          <li key={s.id}>
            <Button bench className="min-h-20 w-full items-start px-4 text-left" onClick={() => setPicked(s.id)}>
              {s.title}
            </Button>
          </li>
        ))}
      </ul>
    );
  const known = undo?.step === step ? undo : undefined;
  return (
    <>
      <p className="font-bold">{known?.title}</p>
      <Caution text="Supply switch off, mains lead out, press the button once. Then take out." large />
      <div role="status">{sentence || (known ? <UndoWords undo={known} whole /> : "Working out what comes out …")}</div>
      <Button
        bench
        tone="mark"
        className="min-h-28 w-84 self-end px-2"
        disabled={!known}
        onClick={() => onUndo([...new Set([...(known?.back ?? []).map((b) => b.step), ...(known?.out ?? []).map((o) => o.step)])])}
      >
        It is out again
      </Button>
    </>
  );
}

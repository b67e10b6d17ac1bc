"use client";
import type { Graph } from "../../core/assembly";
import { figureOfPort, figuresOf } from "../../core/catalogue";
import type { Card, Step } from "../../core/order";
import type { Notes } from "../../server/shelf/tips";
import { Button } from "../../ui/button";
import Link from "../../ui/link";
import { Photo } from "../../ui/photo";
import { confirmAction } from "../actions/parts";
import { useDates } from "../frame/dates";
import { useAct } from "../frame/use-act";
import { StillSo } from "../shared/still-so";
import { PortInPhoto } from "./type-photo";

/** The port that a plug goes into, where that it is there is only assumed: what counts it, and what it would be without. */
function assumedPort(graph: Graph, step: Step) {
  const port = step.kind === "plug" && step.port && !step.done ? graph.ports.get(step.port) : undefined;
  const type = port?.part.type;
  const at = port && type ? figureOfPort(type.kind, port.port.id) : undefined;
  const had = at && type ? type.figures?.[at.figure] : undefined;
  if (!port || !type || !at || had?.is !== "typical" || typeof had.value === "string") return undefined;
  return {
    part: port.part.id,
    port: port.port.label,
    type: type.id,
    name: type.name,
    figure: at.figure,
    word: figuresOf(type.kind).find((f) => f.id === at.figure)?.word ?? at.figure,
    is: had.value,
    without: typeof had.value === "boolean" ? false : at.index,
  };
}

/** What to know of the parts of a card: what the shop reminds of, and what colleagues found out about just these types. */
export function CardNotes({ card, step, graph, notes, number }: { card: Card; step: Step; graph: Graph; notes: Notes; number: string }) {
  const act = useAct();
  const dates = useDates();
  const types = card.steps.flatMap((s) => s.parts.flatMap((p) => graph.parts.get(p)?.type ?? []));
  const answer = (value: number | boolean) => {
    const a = assumedPort(graph, step);
    if (!a) return;
    act.run(
      () => confirmAction({ number, part: a.part, figure: a.figure, value, how: "confirmed" }),
      (r) =>
        r.same
          ? `As it was assumed. ${a.word} of ${a.name}: ${String(a.is)}.`
          : "Corrected, here and on the shelf. The wiring is to be planned again.",
    );
  };
  const steps = new Set<string>(card.steps.map((s) => s.kind));
  const tips = notes.tips.filter((t) => (t.step === null ? !steps.has("plug") : steps.has(t.step)) && types.some((x) => x.id === t.type));
  const prompts = notes.prompts.filter((p) => types.some((t) => t.kind === p.kind) && !steps.has("plug"));
  const assumed = assumedPort(graph, step);
  const photo = PortInPhoto({ graph, step, photos: notes.photos });
  if (tips.length + prompts.length === 0 && !assumed && !photo) return null;
  return (
    <aside aria-label="To remember" className="mt-4 border-t border-rule pt-3">
      {assumed ? (
        <div className="flex flex-col gap-2">
          <p>
            Only assumed: {assumed.port} of {assumed.name} is here
            {typeof assumed.is === "number" ? ` (${assumed.word}: ${assumed.is})` : ""}.
          </p>
          <div className="flex flex-wrap gap-3">
            <Button bench disabled={act.pending} aria-label={`So it is: ${assumed.port} is there`} onClick={() => answer(assumed.is)}>
              So it is
            </Button>
            <Button bench asChild>
              <Link href={`/shelf/${encodeURIComponent(assumed.type)}`}>Elsewhere</Link>
            </Button>
            <Button bench disabled={act.pending} aria-label={`${assumed.port} is not there`} onClick={() => answer(assumed.without)}>
              Not there
            </Button>
          </div>
        </div>
      ) : null}
      {photo}
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
            {t.photo ? <Photo id={t.photo.id} alt={`What is meant: ${t.words}`} high="h-28" /> : null}
          </p>
          <StillSo tip={t} act={act} bench />
        </div>
      ))}
      <p role="status" className="text-soft">
        {act.sentence}
      </p>
    </aside>
  );
}

"use client";
import { useQuery } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { assumedOn, type Graph } from "../../core/assembly";
import { figuresOf, figureWords } from "../../core/catalogue";
import type { Matter, Matters } from "../../core/matters";
import { Button } from "../../ui/button";
import { Fold } from "../../ui/fold";
import { confirmAction } from "../actions/parts";
import { ask } from "../frame/ask";
import { useAct } from "../frame/use-act";

/** What turns on what is only assumed of the parts: the question, what follows of each answer, and the answer itself. */
export function MattersView({ graph, number, revision }: { graph: Graph; number: string; revision: number }) {
  const types = useMemo(() => [...new Map([...graph.parts.values()].filter((p) => !p.cable).map((p) => [p.type.id, p.type])).values()], [graph]);
  const open = assumedOn(graph);
  // What the list says is there at once, what the wiring says once it was tried.
  const first = useQuery({
    queryKey: ["matters of the list", number, revision],
    queryFn: () => ask("parts.matters", { number, listOnly: true }),
    enabled: open > 0,
    staleTime: Number.POSITIVE_INFINITY,
    retry: false,
  });
  const asked = useQuery({
    queryKey: ["matters", number, revision],
    queryFn: () => ask("parts.matters", { number }),
    enabled: first.isFetched,
    staleTime: Number.POSITIVE_INFINITY,
    retry: false,
  });
  const act = useAct();
  const [answered, setAnswered] = useState<string>("");
  const confirm = (m: Pick<Matter, "part" | "figure">, value: number | string | boolean) =>
    act.run(
      async () => {
        setAnswered(`${m.part}:${m.figure}`);
        return confirmAction({ number, part: m.part, figure: m.figure, value, how: "confirmed" });
      },
      (v) =>
        `${v.same ? "As it was assumed: nothing else changes." : "Corrected, here and on the shelf. The wiring is to be planned again."}${v.jobs.length > 0 ? ` ${v.jobs.join(", ")} ${v.jobs.length === 1 ? "has" : "have"} such a part, too.` : ""}`,
    );
  if (open === 0)
    return (
      <section aria-label="What matters" className="region flex-1 p-6">
        <h2 className="text-key font-[650]">Nothing is assumed</h2>
        <p>Every part of this machine is known as it is.</p>
      </section>
    );
  const whole = asked.data?.ok ? asked.data.value : undefined;
  const answer = asked.data ?? first.data;
  const found: Matters | undefined = answer?.ok ? answer.value : undefined;
  return (
    <section aria-label="What matters" className="region flex-1 p-6">
      <h2 className="text-key font-[650]">
        {found
          ? found.matters.length === 0 && whole
            ? `${open} values are assumed; nothing turns on any of them`
            : `${found.matters.length} of ${open} assumed values decide something`
          : `${open} values are assumed`}
      </h2>
      <p role="status" className="text-second text-soft">
        {act.sentence ||
          (answer && !answer.ok
            ? answer.sentence
            : found && !whole
              ? "What the parts list says. The wiring is tried now; what it says comes in a moment …"
              : found
                ? "The worst that may turn out stands first. The rest stays assumed until somebody looks."
                : "Trying what each of them may turn out to be …")}
      </p>
      <ol className="mt-4 flex max-w-[860px] flex-col">
        {(found?.matters ?? []).map((m) => (
          <Question
            key={`${m.type} ${m.figure}`}
            m={m}
            graph={graph}
            pending={act.pending && answered === `${m.part}:${m.figure}`}
            onAnswer={(v) => confirm(m, v)}
          />
        ))}
      </ol>
      {whole && found && found.untried.length > 0 ? (
        <p className="mt-3">{found.untried.length} were not tried in time: nothing is said of them.</p>
      ) : null}
      {whole && found && found.settled.length > 0 ? (
        <div className="mt-4 max-w-[860px]">
          <Fold word={`${found.settled.length} that nothing turns on`}>
            <ul className="pt-1 text-second">
              {found.settled.map((s) => (
                <li key={`${s.type} ${s.figure}`}>
                  {types.find((t) => t.id === s.type)?.name}: {s.word}, {s.words} assumed
                </li>
              ))}
            </ul>
          </Fold>
        </div>
      ) : null}
    </section>
  );
}

function Question({ m, graph, pending, onAnswer }: { m: Matter; graph: Graph; pending: boolean; onAnswer: (v: number | string | boolean) => void }) {
  const type = graph.parts.get(m.part)?.type;
  const figure = type && figuresOf(type.kind).find((f) => f.id === m.figure);
  const [value, setValue] = useState("");
  const number = typeof m.value === "number";
  const choices = number && figure?.unit ? [m.value] : [m.value, ...m.range.map((r) => r.value)];
  return (
    <li className="border-t border-rule py-3">
      <h3 className="font-semibold">{m.question}</h3>
      <p className="text-second text-soft">
        Assumed: {m.words === "assumed" ? "yes" : m.words}
        {m.because ? `, ${m.because}` : ""}
        {m.parts > 1 ? `; ${m.parts} parts of the machine are of it` : ""}
      </p>
      <ul className="mt-1">
        {m.range.map((r) => (
          <li key={String(r.value)} className="text-second">
            <span className="font-semibold">If {r.words}: </span>
            {r.decides.slice(0, 3).join(" ")}
            {r.decides.length > 3 ? ` And ${r.decides.length - 3} more.` : ""}
          </li>
        ))}
      </ul>
      <div className="mt-2 flex flex-wrap items-center gap-2">
        {choices.map((c, i) => {
          const word = `${i === 0 ? "As assumed: " : ""}${c === "another" ? "another" : c === "assumed" ? "yes" : figure ? figureWords(figure, c) : String(c)}`;
          return (
            <Button key={String(c)} disabled={pending} aria-label={`${word}. ${m.question}`} onClick={() => onAnswer(c)}>
              {word}
            </Button>
          );
        })}
        {number ? (
          <form
            className="flex items-center gap-2"
            onSubmit={(e) => {
              e.preventDefault();
              const n = Number(value);
              if (value !== "" && Number.isFinite(n)) onAnswer(n);
            }}
          >
            <input
              className="field mono w-24"
              type="number"
              min={0}
              step="any"
              aria-label={`${m.question} Another number${figure?.unit ? `, ${figure.unit}` : ""}`}
              value={value}
              onChange={(e) => setValue(e.target.value)}
            />
            {figure?.unit ? <span className="text-second">{figure.unit}</span> : null}
            <Button type="submit" disabled={pending || value === ""}>
              It is that
            </Button>
          </form>
        ) : null}
      </div>
    </li>
  );
}

"use client";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { buildGraph, typeLookup } from "../../core/assembly";
import type { SimulatedState } from "../../server/machine/simulated";
import type { SimulatedSlice } from "../../server/views/slices";
import { Button } from "../../ui/button";
import Link from "../../ui/link";
import { Caution } from "../../ui/marks";
import { beginSimulatedAction, endSimulatedAction, onSimulatedAction, readSimulatedAction } from "../actions/machine";
import { ask } from "../frame/ask";
import { useAct } from "../frame/use-act";
import { ActSaid } from "../shared/act-said";
import { MachineFront } from "./machine-front";

const LOOK_MS = 500;
const STANDS = "machine.simulated";
const SPEEDS = [1, 60, 600] as const;

/** A stand-in for the machine of this job: it is pressed, looked at, read and repaired as one, and says that it is none. */
export function SimulatedScreen({ view }: { view: SimulatedSlice }) {
  const { head, build } = view;
  const { number } = head;
  const graph = useMemo(() => buildGraph(build, typeLookup(build, [])), [build]);
  const queries = useQueryClient();
  const acting = useAct();
  const act = useMemo(() => {
    const run: typeof acting.run = (work, said, failed) =>
      acting.run(
        async () => {
          const done = await work();
          // An answer that was on its way shows the machine from before: it is asked anew.
          await queries.cancelQueries({ queryKey: [STANDS, number] });
          void queries.invalidateQueries({ queryKey: [STANDS, number] });
          return done;
        },
        said,
        failed,
      );
    return { ...acting, run };
  }, [acting, queries, number]);
  const [element, setElement] = useState("");
  const [hide, setHide] = useState(0);
  const [exercise, setExercise] = useState("");
  const asked = useQuery({
    queryKey: [STANDS, number],
    queryFn: ({ signal }) => ask(STANDS, { number }, signal),
    refetchInterval: LOOK_MS,
  });
  const stands = asked.data?.ok ? asked.data.value : undefined;
  const state = stands?.state ?? null;
  const hands = (deed: string, about?: string) =>
    act.run(
      () => onSimulatedAction({ number, deed, ...(about ? { element: about } : {}) }),
      (said) => said,
    );
  const things = useMemo(
    () => [
      ...[...graph.parts.values()].map((p) => ({ id: p.id, name: p.part.label ?? p.type.name })),
      ...graph.connections.flatMap((c) => {
        const [l, p] = [graph.leads.get(c.lead), graph.ports.get(c.port)];
        return l && p ? [{ id: `${c.lead}@${c.port}`, name: `plug ${l.tag} in ${p.name}` }] : [];
      }),
      { id: "mains", name: "the mains lead" },
      { id: "monitor", name: "the monitor's cable" },
    ],
    [graph],
  );
  const closed = state !== null && (state.mains || state.on);
  return (
    <div className="cols">
      <section aria-label="The machine" className="flex min-w-0 flex-1 flex-col border-r border-rule p-4">
        <div className="flex items-baseline gap-4">
          <h1 className="text-key font-[650]">Simulated machine of {number}</h1>
          <p className="text-second text-soft">As it is built: {graph.connections.length} plugs are in. What is shown here no real machine said.</p>
        </div>
        <MachineFront graph={graph} state={state} chosen={element.split("@")[0]?.split(":")[0] ?? ""} onChoose={setElement} />
        {state ? <Pressing state={state} busy={act.pending} number={number} hands={hands} act={act} /> : null}
      </section>
      <section aria-label="What it shows" tabIndex={0} className="region flex w-96 shrink-0 flex-col gap-4 p-4">
        {state ? (
          <>
            <Shown state={state} sending={stands?.sending ?? ""} />
            <div className="flex flex-col gap-2">
              <h2 className="font-semibold">Hands</h2>
              <label>
                <span className="block text-second text-soft">At what</span>
                <select className="field w-full" value={element} onChange={(e) => setElement(e.target.value)}>
                  <option value="">choose, or press it in the drawing</option>
                  {things.map((t) => (
                    <option key={t.id} value={t.id}>
                      {t.name}
                    </option>
                  ))}
                </select>
              </label>
              <div className="flex flex-wrap gap-2">
                <Button disabled={act.pending || !element} onClick={() => hands("seat", element)}>
                  Seat it anew, 3 min
                </Button>
                <Button disabled={act.pending || !element} onClick={() => hands("swap", element)}>
                  Swap for a good one, 10 min
                </Button>
                <Button
                  disabled={act.pending}
                  onClick={() =>
                    act.run(
                      () => onSimulatedAction({ number, asRecorded: true }),
                      (said) => said,
                    )
                  }
                >
                  Plug it as recorded now
                </Button>
              </div>
              {closed ? <Caution text="Mains off before hands go in." /> : null}
            </div>
            <div className="flex flex-wrap gap-2">
              <Button
                tone="mark"
                disabled={act.pending || state.screen.length === 0}
                onClick={() =>
                  act.run(
                    () => readSimulatedAction({ number }),
                    (r) =>
                      `${r.lines} lines of the sheet filled in${r.otherwise.length > 0 ? `; otherwise: ${r.otherwise.join("; ")}` : ", all as expected"}.`,
                  )
                }
              >
                Read it into the sheet
              </Button>
              <Link className="key" href={`/job/${number}/first-boot`}>
                To the sheet
              </Link>
              <Button
                disabled={act.pending}
                onClick={() =>
                  act.run(
                    () => endSimulatedAction({ number }),
                    (hidden) => (hidden.length > 0 ? `Put away. Hidden was: ${hidden.join("; ")}.` : "Put away."),
                  )
                }
              >
                Put it away
              </Button>
            </div>
            <ActSaid act={act} />
          </>
        ) : asked.isPending ? (
          <h2 className="font-semibold">Looking …</h2>
        ) : (
          <>
            <h2 className="font-semibold">None stands here</h2>
            {stands?.sentence ? <p role="alert">{stands.sentence}</p> : null}
            <p>
              A stand-in that is plugged as this job is recorded. It starts, turns, warms and reports as the machine would, so that a first start can
              be practised, with a fault hidden in it if you like. All it says is marked as simulated, and no soak of it lets a machine out.
            </p>
            <label>
              <span className="block text-second text-soft">Hidden in it</span>
              <select className="field w-full" value={hide} onChange={(e) => setHide(Number(e.target.value))}>
                <option value={0}>nothing</option>
                <option value={1}>one fault</option>
                <option value={2}>two faults</option>
              </select>
            </label>
            {hide > 0 ? (
              <label>
                <span className="block text-second text-soft">Number of the exercise: the same number hides the same; empty: drawn</span>
                <input
                  className="field mono w-32"
                  inputMode="numeric"
                  value={exercise}
                  maxLength={6}
                  onChange={(e) => setExercise(e.target.value.replace(/\D/g, ""))}
                />
              </label>
            ) : null}
            <div>
              <Button
                tone="mark"
                disabled={act.pending}
                onClick={() =>
                  act.run(
                    () =>
                      beginSimulatedAction({
                        number,
                        hide,
                        ...(Number(exercise) > 0 ? { exercise: Number(exercise) } : {}),
                        address: window.location.origin,
                      }),
                    () => "It stands here. The supply is off at its switch.",
                  )
                }
              >
                Begin
              </Button>
            </div>
            <ActSaid act={act} />
            {stands?.stands ? (
              <Button
                disabled={act.pending}
                onClick={() =>
                  act.run(
                    () => endSimulatedAction({ number }),
                    () => "Put away.",
                  )
                }
              >
                Put it away
              </Button>
            ) : null}
          </>
        )}
      </section>
    </div>
  );
}

function Pressing({
  state,
  busy,
  number,
  hands,
  act,
}: {
  state: SimulatedState;
  busy: boolean;
  number: string;
  hands: (deed: string) => void;
  act: ReturnType<typeof useAct>;
}) {
  return (
    <div className="flex flex-wrap items-center gap-3 border-t border-rule pt-3">
      <Button aria-pressed={state.mains} disabled={busy} onClick={() => hands("mains")}>
        Supply's switch: {state.mains ? "on" : "off"}
      </Button>
      <Button tone={state.on ? "plain" : "mark"} disabled={busy} onClick={() => hands("press")}>
        {state.on ? "Hold the power button" : "Press the power button"}
      </Button>
      <Button aria-pressed={state.profile} disabled={busy || state.screen.length === 0} onClick={() => hands("profile")}>
        Memory profile
      </Button>
      <Button aria-pressed={state.loaded} disabled={busy || state.screen.length === 0} onClick={() => hands("load")}>
        Full load
      </Button>
      <div role="group" aria-label="How fast its time passes" className="ml-auto flex items-center gap-2">
        <span className="text-second text-soft">Time</span>
        {SPEEDS.map((s) => (
          <Button key={s} aria-pressed={state.faster === s} disabled={busy} onClick={() => act.run(() => onSimulatedAction({ number, faster: s }))}>
            {s === 1 ? "as it is" : `${s} times`}
          </Button>
        ))}
      </div>
    </div>
  );
}

const clock = (s: number) =>
  s < 60 ? `${Math.round(s)} s` : s < 3600 ? `${Math.floor(s / 60)} min` : `${Math.floor(s / 3600)} h ${Math.floor((s % 3600) / 60)} min`;

function Shown({ state, sending }: { state: SimulatedState; sending: string }) {
  const readings = Object.entries(state.readings);
  return (
    <>
      <div>
        <h2 className="font-semibold">Screen</h2>
        <div className="mono mt-1 min-h-40 border-2 border-ink bg-ink p-3 text-second text-sheet" role="group" aria-label="The monitor">
          {state.screen.length === 0 ? (
            <span>{state.on ? "no signal" : "dark"}</span>
          ) : (
            state.screen.map((l) => (
              <span key={l} className="block">
                {l}
              </span>
            ))
          )}
        </div>
        <p className="mt-1 text-second text-soft">
          {state.on ? `Running for ${clock(state.sinceS)}, ${state.noiseDb} dB(A) at 1 m.` : "Off."} Its clock: {clock(state.clockS)}.
          {state.busy ? ` Hands: ${state.busy.words}, ${clock(Math.max(0, state.busy.untilS - state.clockS))} more.` : ""}
        </p>
      </div>
      {readings.length > 0 ? (
        <table className="w-full text-second">
          <caption className="text-left text-soft">Simulated readings. {sending}</caption>
          <tbody>
            {readings.map(([name, v]) => (
              <tr key={name} className="border-t border-rule">
                <th scope="row" className="text-left font-normal">
                  {name.slice(0, name.lastIndexOf(" "))}
                </th>
                <td className="mono text-right">
                  {v} {name.slice(name.lastIndexOf(" ") + 1)}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : null}
      {state.said.length > 0 ? (
        <p role="status" className="text-second">
          {state.said[0]}
        </p>
      ) : null}
    </>
  );
}

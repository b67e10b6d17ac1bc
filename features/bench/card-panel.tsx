"use client";
import type { Graph } from "../../core/assembly";
import { panelPinout } from "../../core/brings";
import { family } from "../../core/catalogue";
import type { Card, Rig, Step } from "../../core/order";
import { cx } from "../../ui/cx";
import { PinPicture } from "../../ui/drawing/pin-picture";
import { StateShape } from "../../ui/marks";
import { canNow, inTwo, underGate } from "./cards";
import type { AtBench } from "./use-bench";

/** Beside the drawing: pins of the one plug, or everything of the card in the order of fingers, each ticked by a tap. */
export function CardPanel({
  card,
  graph,
  bench,
  onTick,
  press,
}: {
  card: Card;
  graph: Graph;
  bench: AtBench;
  onTick: (step: Step) => void;
  press: string | undefined;
}) {
  const [one] = card.steps;
  if (card.steps.length === 1 && one?.kind === "gate") return <Under gate={one} steps={bench.steps} skipped={bench.skipped} />;
  if (card.steps.length === 1 && one) {
    const port = one.port ? graph.ports.get(one.port) : undefined;
    if (port && family(port.port.family).order.length > 0)
      return (
        <PinPicture
          bench
          onBoard={port.part.type.kind === "board"}
          family={family(port.port.family)}
          pins={port.port.family === "panel-block" ? (bench.leadOf(one)?.place ?? []) : []}
          {...(port.port.family === "panel-block" ? { signals: panelPinout(port.port) } : {})}
        />
      );
    const [, rest] = inTwo(one.detail);
    return (
      <div className="flex flex-col gap-3">
        {one.rig?.bridge ? <Bridge rig={one.rig} graph={graph} /> : null}
        {press ? <p className="font-semibold">{press}</p> : null}
        {rest ? <p>{rest}</p> : null}
        {one.rightWhen ? (
          <p>
            <strong>Right when:</strong> {one.rightWhen.replace(/\.$/, "")}.
          </p>
        ) : null}
        {one.tools.length > 0 ? <p className="text-soft">{one.tools.join("; ")}</p> : null}
      </div>
    );
  }
  const open = card.steps.filter((s) => !s.done);
  const clamp = (s: Step) => (open.length === 1 ? "" : s === open[0] ? "line-clamp-5" : "line-clamp-2");
  return (
    <ol className="flex flex-col gap-2">
      {card.steps.map((s) => (
        <li key={s.id}>
          <button
            type="button"
            aria-pressed={s.done}
            disabled={!s.done && !canNow(s, card, bench.steps)}
            className={cx(
              "flex min-h-16 w-full items-center gap-3 rounded border-2 bg-sheet px-3 py-1 text-left",
              s.done ? "border-rule text-soft" : "border-edge",
            )}
            onClick={() => onTick(s)}
          >
            <StateShape state={s.done ? "plugged" : bench.skipped[s.id] ? "waiting" : "free"} size={24} />
            <span className="min-w-0 flex-1">
              <span className={cx("block", !s.done && "font-semibold")}>{shortOf(s, graph, bench)}</span>
              {bench.skipped[s.id] ? <span className="block text-soft">skipped: {bench.skipped[s.id]?.reason}</span> : null}
            </span>
          </button>
          {/* A plug says all by its port; of other things how, most of the one that hands are at. */}
          {!s.done && s.kind !== "plug" && s.detail ? <p className={cx("px-3 pt-1 text-soft", clamp(s))}>{s.detail}</p> : null}
        </li>
      ))}
    </ol>
  );
}

/** The two pins that stand in for the button. */
function Bridge({ rig, graph }: { rig: Rig; graph: Graph }) {
  const port = rig.bridge && graph.ports.get(rig.bridge.port);
  if (!rig.bridge || !port) return null;
  return (
    <section aria-label="Pins to bridge">
      <p className="font-bold">
        Bridge pins {rig.bridge.pins.join(" and ")} of {port.name} for a moment
      </p>
      <PinPicture bench pinsOnly family={family(port.port.family)} pins={rig.bridge.pins} signals={panelPinout(port.port)} />
    </section>
  );
}

/** A plug by its tag and port; anything else by its title. */
function shortOf(s: Step, graph: Graph, bench: AtBench): string {
  const lead = bench.leadOf(s);
  const port = s.port ? graph.ports.get(s.port) : undefined;
  if (s.kind !== "plug" || !lead || !port) {
    // What goes in with a lead is called by its tag, as the drawing calls it.
    const tag =
      s.kind === "fit" && s.parts.length === 1
        ? [...graph.leads.values()].find((l) => l.part.id === s.parts[0] && l.loom !== "seat")?.tag
        : undefined;
    return tag ? `${tag} ${s.title}` : s.title;
  }
  const pins = /, pins? [\d and]+$/.exec(s.title)?.[0] ?? "";
  return lead.loom === "seat" ? `${lead.name} into ${port.port.label}` : `${lead.tag} ${lead.name} into ${port.name}${pins}`;
}

/** Everything that will lie underneath, what is still open first. */
function Under({ gate, steps, skipped }: { gate: Step; steps: readonly Step[]; skipped: AtBench["skipped"] }) {
  const under = underGate(gate, steps).sort((a, b) => Number(a.done) - Number(b.done));
  const open = under.filter((s) => !s.done);
  return (
    <div className="flex flex-col gap-2">
      <p className={cx("font-bold", open.length > 0 && "text-stop")}>
        {open.length > 0
          ? `Still open underneath: ${open.length}`
          : `${under.length === 1 ? "It is" : `All ${under.length} are`} in. Look once yourself.`}
      </p>
      <ul className="flex flex-col gap-1">
        {under.map((s) => (
          <li key={s.id} className="flex items-center gap-3">
            <StateShape state={s.done ? "plugged" : skipped[s.id] ? "waiting" : "free"} size={24} />
            <span className={s.done ? "text-soft" : "font-semibold"}>{s.title}</span>
          </li>
        ))}
      </ul>
    </div>
  );
}

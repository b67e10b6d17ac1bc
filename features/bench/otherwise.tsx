"use client";
import { useState } from "react";
import { type Graph, isDone, type PartNode, partsOfKind, wholeParts } from "../../core/assembly";
import { measurable } from "../../core/catalogue";
import type { Card, Step } from "../../core/order";
import { Button } from "../../ui/button";
import type { One } from "../device/said";
import { AnotherPart } from "./another-part";
import { Measure } from "./measure";

export type Built = Extract<One, { kind: "place" | "gone" | "swap" | "measure" }>;

const MOVES: readonly string[] = ["fan", "drive", "hub", "lighting"];

/** Places of the case that take a part of this kind and hold none. */
function freeFor(graph: Graph, part: PartNode) {
  const held = new Set(wholeParts(graph).flatMap((p) => (p.id === part.id ? [] : (p.part.mount ?? []))));
  const kind = part.type.kind as "fan";
  const size = part.type.body.widthMm;
  return (partsOfKind(graph, "case")[0]?.type.body.mounts ?? []).filter(
    (m) => m.takes.includes(kind) && m.id !== part.part.mount && !held.has(m.id) && (kind !== "fan" || !size || !m.sizeMm || m.sizeMm === size),
  );
}

/** What hands have plugged on it, which holds it as it is. */
const pluggedOn = (graph: Graph, part: PartNode) => {
  const own = (end: string) => end.startsWith(`${part.id}:`) || end.startsWith(`${part.id}/`);
  return graph.connections.find((c) => isDone(c) && (own(c.lead) || own(c.port)));
};

const nameOf = (p: PartNode) => p.part.label ?? p.type.name;

/** What is really there instead: which plug; or a part at another place, another way round, of another type or length, or not at all. */
export function Otherwise({
  number,
  graph,
  card,
  plugs,
  onPlug,
  onBuilt,
}: {
  number: string;
  graph: Graph;
  card: Card;
  plugs: readonly Step[];
  onPlug: (step: string) => void;
  onBuilt: (said: Built, words: string) => void;
}) {
  const parts = [...new Set(card.steps.flatMap((s) => s.parts))].flatMap((id) => {
    const p = graph.parts.get(id);
    return p && !p.cable ? [p] : [];
  });
  const [picked, setPicked] = useState<string>();
  const part = parts.length === 1 && plugs.length === 0 ? parts[0] : parts.find((p) => p.id === picked);
  if (part) return <OnePart key={part.id} {...{ number, graph, part, onBuilt }} />;
  if (plugs.length + parts.length === 0) return <p>Nothing on this card is plugged, and no part of it can be another.</p>;
  return (
    <ul className="flex flex-col gap-3">
      {plugs.map((s) => (
        <li key={s.id}>
          <Button bench className="min-h-20 w-full items-start px-4 text-left" onClick={() => onPlug(s.id)}>
            {s.title}
          </Button>
        </li>
      ))}
      {parts.map((p) => (
        <li key={p.id}>
          <Button bench className="min-h-20 w-full items-start px-4 text-left" onClick={() => setPicked(p.id)}>
            {nameOf(p)}
          </Button>
        </li>
      ))}
    </ul>
  );
}

function OnePart({ number, graph, part, onBuilt }: { number: string; graph: Graph; part: PartNode; onBuilt: (said: Built, words: string) => void }) {
  const [look, setLook] = useState<"ways" | "another" | "measure">("ways");
  const name = nameOf(part);
  if (look === "measure")
    return (
      <Measure
        part={part}
        name={name}
        onSay={(what, mm, words) => onBuilt({ kind: "measure", number, part: part.id, what, mm }, `${name}, ${words}`)}
      />
    );
  if (look === "another")
    return (
      <AnotherPart
        part={part}
        onSay={(type, now, serial) =>
          onBuilt(
            { kind: "swap", number, part: part.id, type, ...(serial ? { serial } : {}) },
            `${name}: really ${now}${serial ? `, ${serial}` : ""}`,
          )
        }
      />
    );
  const mount = partsOfKind(graph, "case")[0]?.type.body.mounts.find((m) => m.id === part.part.mount);
  const moves = MOVES.includes(part.type.kind);
  const holds = pluggedOn(graph, part);
  const row = (key: string, words: string, press: () => void) => (
    <li key={key}>
      <Button bench className="min-h-20 w-full px-4" onClick={press}>
        {words}
      </Button>
    </li>
  );
  const said = (key: string, words: string, entry: Built) => row(key, words, () => onBuilt(entry, `${name}: ${words}`));
  return (
    <>
      <p>
        {name}
        {moves ? `, planned at the ${mount?.label ?? "case"}` : ""}. It is really:
      </p>
      <ul className="grid grid-cols-2 gap-3 max-[760px]:grid-cols-1">
        {part.type.kind === "fan"
          ? (["in", "out"] as const).map((blows) => said(blows, `blowing ${blows}`, { kind: "place", number, part: part.id, blows }))
          : null}
        {part.type.kind === "fan" && mount?.frame === "either"
          ? (["inside", "outside"] as const).map((frame) => said(frame, `${frame} the frame`, { kind: "place", number, part: part.id, frame }))
          : null}
        {moves ? freeFor(graph, part).map((m) => said(m.id, `at ${m.label}`, { kind: "place", number, part: part.id, mount: m.id })) : null}
        {measurable(part.type).length > 0 ? row("measure", "of another length: measured by hand", () => setLook("measure")) : null}
        {holds ? null : row("another", "another part, or another size", () => setLook("another"))}
        {moves && !holds ? said("gone", "given up: it is not fitted", { kind: "gone", number, part: part.id }) : null}
      </ul>
      {holds ? <p>To say that it is another part, or not fitted at all, take its plugs out first.</p> : null}
    </>
  );
}

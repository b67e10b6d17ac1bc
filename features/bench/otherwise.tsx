"use client";
import { useState } from "react";
import { type Graph, type PartNode, partsOfKind, wholeParts } from "../../core/assembly";
import type { Card, Step } from "../../core/order";
import { Button } from "../../ui/button";
import Link from "../../ui/link";
import type { Said } from "../outbox/entries";

export type Built = Extract<Said, { kind: "place" | "gone" }>;

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

/** What is really there instead: which plug, or which part at another place, another way round, or not at all. */
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
  const parts = card.steps
    .filter((s) => s.id.startsWith("mount:"))
    .flatMap((s) => graph.parts.get(s.id.slice("mount:".length)) ?? [])
    .filter((p) => MOVES.includes(p.type.kind));
  const [picked, setPicked] = useState<string>();
  const part = parts.length === 1 && plugs.length === 0 ? parts[0] : parts.find((p) => p.id === picked);
  const nameOf = (p: PartNode) => p.part.label ?? p.type.name;
  if (part) {
    const name = nameOf(part);
    const mount = partsOfKind(graph, "case")[0]?.type.body.mounts.find((m) => m.id === part.part.mount);
    const row = (key: string, words: string, said: Built) => (
      <li key={key}>
        <Button bench className="min-h-20 w-full px-4" onClick={() => onBuilt(said, `${name}: ${words}`)}>
          {words}
        </Button>
      </li>
    );
    return (
      <>
        <p>
          {name}, planned at the {mount?.label ?? "case"}. It is really:
        </p>
        <ul className="grid grid-cols-2 gap-3 max-[760px]:grid-cols-1">
          {part.type.kind === "fan"
            ? (["in", "out"] as const).map((blows) => row(blows, `blowing ${blows}`, { kind: "place", number, part: part.id, blows }))
            : null}
          {part.type.kind === "fan" && mount?.frame === "either"
            ? (["inside", "outside"] as const).map((frame) => row(frame, `${frame} the frame`, { kind: "place", number, part: part.id, frame }))
            : null}
          {freeFor(graph, part).map((m) => row(m.id, `at ${m.label}`, { kind: "place", number, part: part.id, mount: m.id }))}
          {row("gone", "given up: it is not fitted", { kind: "gone", number, part: part.id })}
        </ul>
        <p>
          Another part or size is said on{" "}
          <Link className="underline" href={`/job/${number}/parts#part=${encodeURIComponent(part.id)}`}>
            Parts
          </Link>
          .
        </p>
      </>
    );
  }
  if (plugs.length + parts.length === 0)
    return (
      <p>
        Nothing on this card is plugged or has a place of its own. Another part is said on{" "}
        <Link className="underline" href={`/job/${number}/parts`}>
          Parts
        </Link>
        , and everything follows from there.
      </p>
    );
  return (
    <ul className="flex flex-col gap-3">
      {plugs.map((s) => (
        <li key={s.id}>
          <Button bench className="min-h-20 w-full justify-start px-4 text-left" onClick={() => onPlug(s.id)}>
            {s.title}
          </Button>
        </li>
      ))}
      {parts.map((p) => (
        <li key={p.id}>
          <Button bench className="min-h-20 w-full justify-start px-4 text-left" onClick={() => setPicked(p.id)}>
            {nameOf(p)}
          </Button>
        </li>
      ))}
    </ul>
  );
}

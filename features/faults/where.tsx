"use client";
import { useCallback, useMemo } from "react";
import { buildGraph, typeLookup } from "../../core/assembly";
import type { Answer } from "../../core/diagnose";
import { partsOfElement } from "../../core/machine";
import { type SceneBox, sceneOf } from "../../core/scene";
import type { FaultsSlice } from "../../server/views/slices";
import { MachineView } from "../drawing/machine-view";

const WHERE = { w: 250, h: 240 };
/** Suspects that are outlined. */
const MOST = 4;

/** Where the next action is, and the likeliest suspects, on the side of the tray on which hands go. */
export function Where({ build, answer }: { build: FaultsSlice["build"]; answer: Answer }) {
  const graph = useMemo(() => buildGraph(build, typeLookup(build, [])), [build]);
  const target = answer.next && !answer.next.id.startsWith("look:") ? [answer.next.target] : [];
  const elements = [...target, ...answer.suspects.slice(0, MOST).map((s) => s.element)];
  const key = elements.join(" ");
  const on = useMemo(() => new Set(key.split(" ").flatMap((id) => partsOfElement({ id }))), [key]);
  const first = elements[0] && partsOfElement({ id: elements[0] }).at(-1);
  const boxes = sceneOf(graph).boxes.filter((b) => b.part && on.has(b.part));
  const sheet = boxes.find((b) => b.part === first)?.sheets[0] ?? "front";
  const names = useCallback((b: SceneBox) => b.part !== undefined && on.has(b.part), [on]);
  const port = target[0]?.split("@").at(-1);
  if (boxes.length === 0) return null;
  return (
    <figure className="flex flex-col">
      <figcaption className="text-second text-soft">
        Where the suspects are{sheet === "behind" ? ", from behind" : ""}: outlined thick; the port of the next action is filled.
      </figcaption>
      <MachineView
        graph={graph}
        most={WHERE}
        sheet={sheet}
        on={on}
        names={names}
        {...(port && graph.ports.has(port) ? { marked: port } : {})}
        label={`Suspects: ${boxes.map((b) => b.name).join(", ")}`}
      />
    </figure>
  );
}

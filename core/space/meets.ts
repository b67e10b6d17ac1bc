import { type Graph, kept, partsOfKind } from "../assembly";
import { overlap } from "../catalogue";
import { BOARD_FACE_MM } from "./depth";
import { type Body, bodies, STANDING } from "./stand";

/** Entries are rounded, frames have rounded corners and cards a bracket: so much is no meeting, mm. */
const ROUNDED_MM = 3;

/** Two bodies that would stand in one another. */
export interface Meeting {
  a: Body;
  b: Body;
  /** How far, along the case, up the case, and off the tray, mm. */
  xMm: number;
  yMm: number;
  offMm: number;
}

/** What is thin, soft, or no thing of its own: strips of light, covers under which leads go, what the board's entry names on the board. */
const SOFT: readonly Body["kind"][] = ["light", "cover", "heatsink"];

/** The board itself: what it carries stands on its face, nothing else reaches down to it. */
function board(graph: Graph): Body[] {
  const part = partsOfKind(graph, "board")[0];
  if (!part || !graph.boardRect) return [];
  const name = part.part.label ?? part.type.name;
  return [{ id: part.id, kind: "cover", name, part, sheets: ["front"], rect: graph.boardRect, depth: [0, BOARD_FACE_MM], lets: "nothing" }];
}

/** What hangs together is made to touch: a radiator and the fans on it, a pump head and its own radiator. */
function belong(a: Body, b: Body, fansOf: ReadonlyMap<string, string>): boolean {
  const of = (x: Body) => fansOf.get(x.id) ?? x.part?.id;
  return of(a) !== undefined && of(a) === of(b);
}

/** Every two bodies that share a place in all three directions. What is only assumed to stand somewhere meets nothing. */
export const meetings = (graph: Graph, fansOf: ReadonlyMap<string, string>): readonly Meeting[] =>
  kept(graph, "meetings", STANDING, () => {
    const solid = [...bodies(graph).filter((b) => !SOFT.includes(b.kind) && !b.assumed), ...board(graph)];
    return solid.flatMap((a, i) =>
      solid.slice(i + 1).flatMap((b): Meeting[] => {
        if (belong(a, b, fansOf)) return [];
        const { xMm, yMm } = overlap(a.rect, b.rect);
        const offMm = Math.min(a.depth[1], b.depth[1]) - Math.max(a.depth[0], b.depth[0]);
        return xMm > ROUNDED_MM && yMm > ROUNDED_MM && offMm > ROUNDED_MM ? [{ a, b, xMm, yMm, offMm }] : [];
      }),
    );
  });

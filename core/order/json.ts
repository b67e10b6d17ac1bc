import type { Graph } from "../assembly";
import { cardsOf } from "./cards";
import { compareSchools } from "./compare";
import type { Posture, Problem, Step } from "./model";
import { orderOfProblem } from "./order";
import { problemOf } from "./problem";
import { undoOf } from "./undo";

/** What the command line prints of a step. */
export const stepJson = (s: Step) => ({
  id: s.id,
  kind: s.kind,
  title: s.title,
  detail: s.detail,
  rightWhen: s.rightWhen ?? null,
  parts: s.parts,
  leads: s.leads,
  port: s.port ?? null,
  posture: s.posture ?? null,
  minutes: s.minutes,
  tools: s.tools,
  caution: s.caution ?? null,
  ...(s.rig ? { rig: s.rig } : {}),
  after: s.after,
  covers: s.covers,
  done: s.done,
});

/** The order of a build as `order FILE` prints it. */
export function orderJson(graph: Graph, lies: Posture | undefined) {
  const problem = problemOf(graph);
  const order = orderOfProblem(problem, lies);
  return {
    steps: order.steps.map(stepJson),
    turns: order.turns,
    lies: order.lies,
    left: order.left,
    cards: cardsOf(order.steps, order.blocks).map((c) => ({
      kind: c.kind,
      title: c.title,
      steps: c.steps.map((s) => s.id),
      turn: c.turn ?? null,
      minutes: c.minutes,
      done: c.done,
    })),
    conflicts: order.conflicts,
    unknown: unknownSteps(graph, problem),
    gaveWay: order.gaveWay,
    compare: compareSchools(graph),
  };
}

/** Steps that the file says are done and that the build does not have: its parts changed since. */
function unknownSteps(graph: Graph, problem: Problem): string[] {
  const known = new Set([...problem.works, ...problem.late].map((w) => w.id));
  return (graph.build.done ?? [])
    .filter((id) => !known.has(id))
    .map((id) => `${id} is said to be done, and this build has no such step: its parts or its plan changed since. It counts for nothing.`);
}

/** What it costs to do a step that was forgotten or wrong; undefined where the build has no such step. */
export const undoJson = (graph: Graph, step: string) => undoOf(problemOf(graph), step);

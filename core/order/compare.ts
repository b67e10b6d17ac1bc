import type { Graph, Policy } from "../assembly";
import { type SchoolId, WORK_SCHOOLS } from "../schools";
import { orderOf } from "./order";
import type { Asked } from "./steps";

export interface Compared {
  school: SchoolId;
  word: string;
  answer: string;
  words: string;
  risk: string;
  chosen: boolean;
  turns: number;
  handsOn: number;
  unattended: number;
  /** Against what is chosen now. */
  turnsMore: number;
  minutesMore: number;
}

/** Every answer of every school of the work beside the chosen one, one after the other: turns of the case, minutes, what it risks. */
export function* comparing(graph: Graph, asked: Asked = {}): Generator<Compared> {
  const own = asked.policy ?? graph.build.policy;
  const now = orderOf(graph, { ...asked, policy: own });
  for (const s of WORK_SCHOOLS)
    for (const [answer, o] of Object.entries(s.options as Readonly<Record<string, { words: string; risk?: string }>>)) {
      const chosen = own[s.id] === answer;
      const order = chosen ? now : orderOf(graph, { ...asked, policy: { ...own, [s.id]: answer } as Policy });
      yield {
        school: s.id,
        word: s.word,
        answer,
        words: o.words,
        risk: o.risk ?? "",
        chosen,
        turns: order.turns,
        ...order.left,
        turnsMore: order.turns - now.turns,
        minutesMore: Math.round((order.left.handsOn - now.left.handsOn) * 10) / 10,
      };
    }
}

export const compareSchools = (graph: Graph, asked: Asked = {}): Compared[] => [...comparing(graph, asked)];

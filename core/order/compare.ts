import type { Graph, Policy } from "../assembly";
import { orderOf } from "./order";
import { WORK_SCHOOLS, type WorkSchool } from "./schools";
import type { Asked } from "./steps";

export interface Compared {
  school: WorkSchool;
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

/** Every answer of every school of the work beside the chosen one: turns of the case, minutes, what it risks. */
export function compareSchools(graph: Graph, asked: Asked = {}): Compared[] {
  const own = asked.policy ?? graph.build.policy;
  const now = orderOf(graph, { ...asked, policy: own });
  return WORK_SCHOOLS.flatMap((s) =>
    Object.entries(s.options).map(([answer, o]): Compared => {
      const chosen = own[s.id] === answer;
      const order = chosen ? now : orderOf(graph, { ...asked, policy: { ...own, [s.id]: answer } as Policy });
      return {
        school: s.id,
        word: s.word,
        answer,
        words: o.words,
        risk: o.risk,
        chosen,
        turns: order.turns,
        ...order.left,
        turnsMore: order.turns - now.turns,
        minutesMore: Math.round((order.left.handsOn - now.left.handsOn) * 10) / 10,
      };
    }),
  );
}

import { type Graph, isOnRadiatorOf, type PartNode, type Policy, partsOfKind } from "../../assembly";
import { isLiquid } from "../../catalogue";
import { type RadiatorSeat, radiatorSeats } from "../../fit";
import { bodyOf, type Spot } from "../../space";
import { list as named } from "../../words";
import type { Posture, Precedence, PrecedenceKind, Work } from "../model";
import { usual } from "../practice";

/** A step as a maker says it: what is not said is as usual. */
export type Draft = Pick<Work, "id" | "kind" | "title" | "detail" | "stage" | "where"> & { measure: string } & Partial<Omit<Work, "id" | "kind">>;

export type RadiatorToFit = Pick<RadiatorSeat, "cooler" | "fans" | "place" | "pushPull">;

/** Every radiator that is fitted; one that nobody has measured with the fans that are marked as on it. */
function radiatorsToFit(graph: Graph): RadiatorToFit[] {
  const known = radiatorSeats(graph);
  const taken = new Set(known.flatMap((r) => r.fans.map((f) => f.id)));
  const others = partsOfKind(graph, "cooler").filter((c) => isLiquid(c.type) && known.every((r) => r.cooler !== c));
  const more = others.map((cooler): RadiatorToFit => {
    const fans = partsOfKind(graph, "fan").filter((f) => !taken.has(f.id) && isOnRadiatorOf(f.part, cooler.id, known.length === 0));
    for (const f of fans) taken.add(f.id);
    return { cooler, fans, pushPull: false };
  });
  return [...known, ...more];
}

/** Where the steps of a build are gathered, each maker adding its own, with what must come before what. */
export interface Site {
  graph: Graph;
  policy: Policy;
  shell: PartNode | undefined;
  board: PartNode | undefined;
  radiators: readonly RadiatorToFit[];
  /** Named done; plugs are done by their connection. */
  isDone: (id: string) => boolean;
  powered: boolean;
  works: Map<string, Work>;
  edges: Precedence[];
  add: (draft: Draft) => void;
  edge: (kind: PrecedenceKind, before: string, after: string, why: string) => void;
}

export function newSite(graph: Graph, policy: Policy, done: ReadonlySet<string>, powered: boolean): Site {
  const works = new Map<string, Work>();
  const edges: Precedence[] = [];
  const shell = partsOfKind(graph, "case")[0];
  return {
    graph,
    policy,
    shell,
    board: partsOfKind(graph, "board")[0],
    radiators: radiatorsToFit(graph),
    isDone: (id) => done.has(id),
    powered,
    works,
    edges,
    add: (d) => {
      const { minutes, minutesFrom, tools } = usual(d.measure, policy.driver);
      // Every step of every entry comes by here: what is spread into a literal with more behind it takes forty times as long.
      const w: Work = {
        id: d.id,
        kind: d.kind,
        title: d.title,
        detail: d.detail,
        postures: [],
        minutes,
        minutesFrom,
        measure: d.measure,
        tools,
        parts: [],
        leads: [],
        screws: 0,
        takesOff: [],
        putsBack: [],
        stage: d.stage,
        along: 0,
        where: d.where,
        mootOnce: [],
        done: done.has(d.id),
      };
      works.set(d.id, Object.assign(w, d, shell ? undefined : { postures: [] }));
    },
    edge: (kind, before, after, why) => edges.push({ kind, before, after, why }),
  };
}

export const nameOf = (p: PartNode): string => p.part.label ?? p.type.name;

/** From which sides hands get at something: the case lies so that this side is up. */
export const posturesAt = (on: Spot["on"]): readonly Posture[] =>
  on === "front" ? ["front-up"] : on === "behind" ? ["behind-up"] : ["front-up", "behind-up"];

/** From which sides hands get at a part that stands in the case. */
export function posturesOfPart(graph: Graph, id: string): readonly Posture[] {
  const sheets = bodyOf(graph, id)?.sheets ?? ["front"];
  return posturesAt(sheets.length > 1 ? "both" : (sheets[0] ?? "front"));
}

export const plugId = (lead: string): string => `plug:${lead}`;
export const mountId = (part: string): string => `mount:${part}`;

/** The step that puts a part in its place for good: its seat, or its mount. */
export function inPlace(part: PartNode): string {
  const seat = part.type.leads.find((l) => l.role === "seat");
  return seat ? plugId(`${part.id}:${seat.id}`) : mountId(part.id);
}

export const BOARD_IN = "board-in";

/** Names in a sentence of a card, which has room for six. */
export const list = (names: readonly string[], most = 6): string => named(names, most);
export const plural = (n: number, one: string, many: string): string => `${n} ${n === 1 ? one : many}`;

import type { Step } from "../model";
import type { Where, WhereAt } from "../where";

/** How a card looks at the bench: one step, plugs along an edge or at a hub, things put together at one place, a last look before something is covered. */
export type CardKind = "step" | "edge" | "assembly" | "gate";

/** What several steps at one place are as a card. */
export interface CardOf<A extends WhereAt = WhereAt> {
  kind: CardKind | ((steps: readonly Step[]) => CardKind);
  title: (steps: readonly Step[], where: Extract<Where, { at: A }>) => string;
}
/** The cards of some places, each named by where it is. */
export type Cards<A extends WhereAt> = { [K in A]: CardOf<K> };

export const counted = (n: number, one: string): string => `${n} ${n === 1 ? one : `${one}s`}`;
export const plugsOf = (steps: readonly Step[]): number => steps.filter((s) => s.kind === "plug").length;
/** Where the first thing is a plug the others are too. */
export const edgeOrAssembly = ([first]: readonly Step[]): CardKind => (first?.kind === "plug" ? "edge" : "assembly");
/** What has no title of its own: the first step's. */
export const firstAndMore = (steps: readonly Step[]): string => `${steps[0]?.title ?? ""}, and ${steps.length - 1} more`;

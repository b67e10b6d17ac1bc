import type { Loosening } from "../../wiring";
import type { PartCost } from "../cost/cost";
import type { Model } from "./model";

/**
 * What loosening costs: each counts one, like an accessory to order. Among equals what can be bought for the wiring comes
 * first, then a longer lead, then a limit, then a place that no accessory gives.
 */
const COST: Record<"cable" | "longer" | "limit" | "place", PartCost> = {
  cable: { toOrder: 1 },
  longer: { toOrder: 1, fromShelf: 1 },
  limit: { toOrder: 1, fromShelf: 20 },
  place: { toOrder: 1, fromShelf: 40 },
};

/** The variables of a model whose limits may be passed at a price. */
export class Relaxed {
  private readonly list: { variable: number; make: (value: number, chosen: (v: number) => number) => Loosening }[] = [];

  add(model: Model, name: string, kind: keyof typeof COST, make: (value: number, chosen: (v: number) => number) => Loosening, upper = 1): number {
    const variable = model.variable(`${name} relaxed`, COST[kind], upper);
    this.list.push({ variable, make });
    return variable;
  }

  /** What an answer loosens. */
  of(chosen: (v: number) => number): Loosening[] {
    return this.list.flatMap(({ variable, make }) => (chosen(variable) > 0 ? [make(chosen(variable), chosen)] : []));
  }
}

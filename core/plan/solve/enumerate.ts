import { compareCost, type PartCost } from "../cost/cost";
import type { Engine, Piece } from "../model/model";
import { holds, totalCost } from "./piece";

/** Pieces up to this size are settled by trying everything, which is faster than starting a solver. */
const MOST_COMBINATIONS = 2048;

export const isSmall = (piece: Piece) => piece.upper.reduce((n, u) => n * (u + 1), 1) <= MOST_COMBINATIONS;

/** Tries every assignment. Exact by construction; the first of equals wins, in the order of the variables. */
export const smallEngine: Engine = {
  async solve(piece) {
    let best: { values: number[]; cost: PartCost } | undefined;
    const values = piece.upper.map(() => 0);
    const step = (): boolean => {
      for (let i = 0; i < values.length; i++) {
        if ((values[i] ?? 0) < (piece.upper[i] ?? 1)) {
          values[i] = (values[i] ?? 0) + 1;
          return true;
        }
        values[i] = 0;
      }
      return false;
    };
    do {
      if (!holds(piece, values)) continue;
      const cost = totalCost(piece, values);
      if (!best || compareCost(cost, best.cost, true) < 0) best = { values: [...values], cost };
    } while (step());
    return best && { values: best.values, proved: true };
  },
};

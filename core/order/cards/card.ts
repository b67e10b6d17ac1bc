import { type Cards, plugsOf } from "./kind";

/** An expansion card: into its slot, then its plugs and its support. */
export const CARD: Cards<"card"> = {
  card: {
    kind: "assembly",
    title: (steps) => {
      const plugs = plugsOf(steps);
      return `${steps[0]?.title ?? ""}${plugs > 1 ? `, then its ${plugs - 1 === 1 ? "plug" : `${plugs - 1} plugs`}` : ""}`;
    },
  },
};
